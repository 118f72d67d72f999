import { memo, useId, useState, type KeyboardEvent } from 'react';
import { numberFault, readNumber, sayNumber, type NumberRule } from '../../shared/numbers';
import type { Typed } from './typed';

interface Props {
  value: number;
  rule: NumberRule;
  label: string;
  row: number;
  column: string;
  /** A value that was typed and cannot be taken. */
  typed: Typed | undefined;
  /** Possible, but unlikely: said beside it. */
  doubt?: string | undefined;
  /** Nobody has measured this yet. */
  unmeasured?: boolean;
  /** How well it is known, where that is less than a ruler tells: said on pointing at it, and to who cannot see the mark. */
  unsure?: string | undefined;
  /** While one types, for the drawing. */
  onLive?: (value: number | null) => void;
  /** The field was left with a value to be stored. */
  onValue: (value: number) => void;
  /** The field was left with something that cannot be stored, or with nothing wrong any more. */
  onTyped: (typed: Typed | null) => void;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/** A number in a table. What is wrong is said beneath it and stays as typed; each field is stored or refused by itself. */
export const NumberCell = memo(function NumberCell(props: Props) {
  const { value, rule, label, row, column, typed, doubt, unmeasured = false, unsure, onLive, onValue, onTyped, onKeyDown } = props;
  const [text, setText] = useState<string | null>(null);
  const name = useId();
  const shown = text ?? typed?.text ?? sayNumber(value, rule);
  /** What stands in the field itself: a caliper may have put it there a moment ago. */
  const leave = (left: string): void => {
    // Typed as it was suggested, it is measured all the same.
    const asSuggested = unmeasured && text !== null && !typed;
    if (left === (typed?.text ?? sayNumber(value, rule)) && !asSuggested) return setText(null);
    const fault = left.trim() === '' ? null : numberFault(left, rule, label);
    setText(null);
    onLive?.(null);
    onTyped(fault ? { text: left, fault } : null);
    if (fault || left.trim() === '') return;
    const given = readNumber(left);
    if (given !== value || unmeasured) onValue(given);
  };
  const says = typed && text === null ? typed.fault : doubt;
  const tone = typed && text === null ? 'border-madder text-madder' : doubt ? 'border-ochre' : unsure ? 'border-dotted border-indigo' : 'border-transparent';
  return (
    <>
      <input
        id={name}
        className={`h-9 w-full border-b bg-transparent px-1 text-right outline-offset-[-2px] focus:bg-base-100 pointer-coarse:h-11 ${tone} ${unmeasured && text === null ? 'italic text-quiet' : ''}`}
        inputMode="decimal"
        aria-label={unsure ? `${label}, ${unsure}` : label}
        title={unsure}
        aria-invalid={Boolean(typed && text === null)}
        aria-describedby={says ? `${name}-says` : undefined}
        data-row={row}
        data-column={column}
        data-unmeasured={unmeasured ? '1' : undefined}
        value={shown}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setText(event.target.value);
          if (onLive && numberFault(event.target.value, rule, label) === null) onLive(readNumber(event.target.value));
        }}
        onBlur={(event) => leave(event.target.value)}
        onKeyDown={onKeyDown}
      />
      {says && (
        <span id={`${name}-says`} className="sr-only">
          {says}
        </span>
      )}
    </>
  );
});
