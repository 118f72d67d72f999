import type { KeyboardEvent, ReactNode } from 'react';
import { Worded } from '../words/Worded';

/** A share from 0 to 1 as a hairline bar; the number stands beside it. */
export function Bar({ share, tone = 'bark', limit }: { share: number; tone?: 'bark' | 'ochre' | 'moss' | 'madder'; limit?: number }) {
  const colour = { bark: 'var(--color-bark)', ochre: 'var(--color-ochre)', moss: 'var(--color-moss)', madder: 'var(--color-madder)' }[tone];
  return (
    <div className="relative h-[7px] bg-rule/60">
      <div className="h-full" style={{ width: `${Math.min(100, Math.max(0, share * 100))}%`, background: colour }} />
      {limit !== undefined && <div className="absolute -top-1 h-[15px] w-[2px] bg-ink" style={{ left: `${Math.min(100, limit * 100)}%` }} />}
    </div>
  );
}

/** Names and values in two columns. */
export function Facts({ rows }: { rows: readonly (readonly [string, string])[] }) {
  return (
    <dl className="grid grid-cols-[116px_1fr] gap-x-3 gap-y-1">
      {rows.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-quiet">
            <Worded>{name}</Worded>
          </dt>
          <dd>
            <Worded>{value}</Worded>
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** A caution to people, at the step where it matters. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="border-l-4 border-madder bg-base-100 px-3 py-2 text-[0.94rem]">
      <strong>Mind yourself. </strong>
      {children}
    </p>
  );
}

export function Skeleton({ lines = 4 }: { lines?: number }) {
  return (
    <div aria-hidden="true" className="space-y-3 py-2">
      {Array.from({ length: lines }, (_, i) => (
        <div key={i} className="h-4 animate-pulse bg-rule/60" style={{ width: `${88 - ((i * 17) % 40)}%` }} />
      ))}
    </div>
  );
}

export function PanelHead({ title, aside, children }: { title: string; aside?: ReactNode; children?: ReactNode }) {
  return (
    <header className="mb-3">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[1.375rem]">{title}</h2>
        {aside}
      </div>
      {children && <p className="mt-1 text-quiet">{typeof children === 'string' ? <Worded>{children}</Worded> : children}</p>}
    </header>
  );
}

/** Sheets of one panel, one in sight; the arrow keys go from one to the next. */
export function Tabs<T extends string>({
  sheets,
  open,
  onOpen,
  label,
}: {
  sheets: readonly { key: T; name: string }[];
  open: T;
  onOpen: (sheet: T) => void;
  label: string;
}) {
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    const at = sheets.findIndex((s) => s.key === open);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: sheets.length - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    const next = (to + sheets.length) % sheets.length;
    onOpen(sheets[next]!.key);
    (event.currentTarget.children[next] as HTMLElement).focus();
  };
  return (
    <div role="tablist" aria-label={label} className="mb-3 flex flex-wrap gap-1 border-b border-rule" onKeyDown={onKeyDown}>
      {sheets.map((s) => (
        <button
          key={s.key}
          type="button"
          role="tab"
          aria-selected={s.key === open}
          tabIndex={s.key === open ? 0 : -1}
          className={`h-11 border-b-[3px] px-2.5 ${s.key === open ? 'border-copper font-bold' : 'border-transparent text-quiet hover:text-ink'}`}
          onClick={() => onOpen(s.key)}
        >
          {s.name}
        </button>
      ))}
    </div>
  );
}

interface OneOf<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}

/** A choice among a few words, each a button; keyboard and touch alike. */
export function Choice<T extends string>({ label, value, options, onChange }: OneOf<T>) {
  return (
    <fieldset>
      <legend className="mb-1 text-quiet">{label}</legend>
      <div className="flex flex-wrap gap-1.5">
        {options.map((o) => (
          <button
            key={o.value}
            type="button"
            aria-pressed={o.value === value}
            onClick={() => onChange(o.value)}
            className={`btn btn-sm ${o.value === value ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
          >
            {o.name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

/** A choice among sentences, in a list that opens. */
export function Pick<T extends string>({ label, value, options, onChange }: OneOf<T>) {
  return (
    <label className="mt-3 block">
      <span className="mb-1 block text-quiet">{label}</span>
      <select className="select w-full bg-base-100" value={value} onChange={(event) => onChange(event.target.value as T)}>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A small thing to do, beside what it is about. */
export function Quiet({ onClick, children, disabled = false, label }: { onClick: () => void; children: ReactNode; disabled?: boolean; label?: string }) {
  return (
    <button
      type="button"
      // It stays where it is for the keyboard: what is disabled outright loses the focus.
      aria-disabled={disabled || undefined}
      aria-label={label}
      className="min-h-7 text-left text-copper underline-offset-2 hover:underline aria-disabled:no-underline aria-disabled:opacity-40 pointer-coarse:min-h-11"
      onClick={disabled ? undefined : onClick}
    >
      {children}
    </button>
  );
}
