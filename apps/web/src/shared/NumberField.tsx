import { useId, useState } from 'react';
import { numberFault, readNumber, sayNumber, type NumberRule } from './numbers';

interface Props {
  label: string;
  rule: NumberRule;
  value: number | null;
  onValue: (value: number | null) => void;
  unit?: string;
  /** May be left empty. */
  open?: boolean;
  /** What is wrong with a number for other reasons than its bounds. */
  check?: (value: number | null) => string | null;
  /** Label and field in one line. */
  inline?: boolean;
}

/** A number, taken when the field is left: what is wrong is said beside it, and stays as typed. */
export function NumberField({ label, rule, value, onValue, unit = String(rule.unit ?? ''), open = false, inline = false, check }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const name = useId();
  const leave = (): void => {
    if (text === null) return;
    const empty = text.trim() === '';
    const given = empty ? null : readNumber(text);
    const wrong = (empty ? (open ? null : `${label}: a number is needed.`) : numberFault(text, rule, label)) ?? check?.(given) ?? null;
    setFault(wrong);
    if (wrong) return;
    setText(null);
    if (given !== value) onValue(given);
  };
  return (
    <div>
      <div className={inline ? 'flex items-center gap-2' : ''}>
        <label htmlFor={name} className={`text-quiet ${inline ? '' : 'mb-1 block'}`}>
          {label}
        </label>
        <span className="flex items-center gap-2">
          <input
            id={name}
            inputMode="decimal"
            className="input w-24 bg-sheet"
            aria-invalid={fault !== null}
            data-fault={fault === null ? undefined : '1'}
            aria-describedby={fault ? `${name}-fault` : undefined}
            value={text ?? (value === null ? '' : sayNumber(value, rule))}
            onChange={(event) => setText(event.target.value)}
            onBlur={leave}
            onKeyDown={(event) => event.key === 'Enter' && leave()}
          />
          <span className="text-quiet">{unit}</span>
        </span>
      </div>
      {fault && (
        <p id={`${name}-fault`} role="alert" className="mt-1 text-madder">
          {fault}
        </p>
      )}
    </div>
  );
}
