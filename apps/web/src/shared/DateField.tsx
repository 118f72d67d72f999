import { parseISO, formatISO } from 'date-fns';
import { lazy, Suspense, useId, useState } from 'react';
import type { Hemisphere } from '@ustle/core';
import { readDate } from './read-date';
import { sayDate } from './say';

const Calendar = lazy(() => import('./Calendar'));

interface Props {
  label: string;
  /** ISO date, or null where none is given. */
  value: string | null;
  onValue: (iso: string | null) => void;
  today: string;
  min?: string;
  max?: string;
  /** May be left empty. */
  open?: boolean;
  className?: string;
  /** Half of the earth: which months a season is. */
  hemisphere?: Hemisphere;
}

/** A day: typed as people write it ("3 May", "2026-05-03", "April 2024", "last autumn"), or picked from a month. What is no day is said, and left as typed. */
export function DateField({ label, value, onValue, today, min, max, open = false, className = '', hemisphere = 'north' }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [rough, setRough] = useState<string | null>(null);
  const [picking, setPicking] = useState(false);
  const name = useId();

  const take = (iso: string | null): void => {
    const wrong =
      iso && max && iso > max
        ? max === today
          ? `${sayDate(iso)} has not come yet.`
          : `Not after ${sayDate(max)}.`
        : iso && min && iso < min
          ? `Not before ${sayDate(min)}.`
          : null;
    setFault(wrong);
    if (wrong) return;
    setText(null);
    if (iso !== value) onValue(iso);
  };
  const leave = (): void => {
    if (text === null) return;
    if (!text.trim()) {
      if (open) take(null);
      else setFault('A day is needed, such as 3 May 2026.');
      return;
    }
    const read = readDate(text, today, hemisphere);
    setRough(read?.rough ? read.day : null);
    if (read) take(read.day);
    else setFault(`"${text.trim()}" is no day; write it such as 3 May 2026, or May 2026.`);
  };
  return (
    <div className={`relative ${className}`}>
      <label htmlFor={name} className="mb-1 block text-quiet">
        {label}
      </label>
      <span className="flex">
        <input
          id={name}
          className="input w-full min-w-0 bg-base-100"
          data-date={value ?? ''}
          aria-invalid={fault !== null}
          data-fault={fault === null ? undefined : '1'}
          aria-describedby={fault ? `${name}-fault` : undefined}
          value={text ?? (value ? sayDate(value) : '')}
          placeholder={open ? 'not known' : ''}
          onChange={(event) => setText(event.target.value)}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === 'Enter') leave();
            if (event.key === 'ArrowDown' && event.altKey) setPicking(true);
          }}
        />
        <button
          type="button"
          className="btn btn-ghost px-2"
          aria-label={`${label}: pick from a month`}
          aria-expanded={picking}
          onClick={() => setPicking(!picking)}
        >
          <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
            <path d="M2 5h14M2 9h14M2 13h14M5 2v14M9 2v14M13 2v14" stroke="currentColor" strokeWidth="1" opacity="0.7" />
          </svg>
        </button>
      </span>
      {fault && (
        <p id={`${name}-fault`} role="alert" className="mt-1 text-madder">
          {fault}
        </p>
      )}
      {rough !== null && rough === value && !fault && (
        <p role="status" className="mt-1 text-quiet">
          taken as {sayDate(rough)}
        </p>
      )}
      {picking && (
        <div className="absolute right-0 z-20 mt-1 border border-rule bg-sheet p-2 shadow-md">
          <Suspense fallback={null}>
            <Calendar
              day={parseISO(value ?? today)}
              min={min ? parseISO(min) : undefined}
              max={max ? parseISO(max) : undefined}
              onDay={(date) => {
                setPicking(false);
                take(formatISO(date, { representation: 'date' }));
              }}
              onLeave={() => setPicking(false)}
            />
          </Suspense>
        </div>
      )}
    </div>
  );
}
