import { useState, type KeyboardEvent } from 'react';

interface Props {
  value: number;
  onValue: (value: number) => void;
  onLeave: () => void;
  label: string;
  row: number;
  column: string;
  fault?: { message: string; wrong: boolean } | undefined;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/** A number as people type it, decimal comma included; what is no number is said, and changes nothing. */
export function NumberCell({ value, onValue, onLeave, label, row, column, fault, onKeyDown }: Props) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? String(Math.round(value * 100) / 100);
  const bad = text !== null && !Number.isFinite(parse(text));
  const says = bad ? 'not a number' : fault?.message;
  return (
    <input
      className={`h-9 w-full border-b bg-transparent px-1 text-right outline-offset-[-2px] focus:bg-base-100 ${bad || fault?.wrong ? 'border-madder text-madder' : fault ? 'border-ochre' : 'border-transparent'}`}
      inputMode="decimal"
      aria-label={label}
      aria-invalid={bad || Boolean(fault?.wrong)}
      title={says}
      data-row={row}
      data-column={column}
      value={shown}
      onFocus={(event) => event.target.select()}
      onChange={(event) => {
        setText(event.target.value);
        const typed = parse(event.target.value);
        if (Number.isFinite(typed)) onValue(typed);
      }}
      onBlur={() => {
        if (!bad) setText(null);
        onLeave();
      }}
      onKeyDown={onKeyDown}
    />
  );
}

const parse = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));
