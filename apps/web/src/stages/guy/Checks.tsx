import type { GuyCheck } from '@ustle/core';

/** What can be wrong with a tie, each a sentence with its value and limit. */
export function Checks({ checks }: { checks: readonly GuyCheck[] }) {
  return (
    <ul className="border-b border-rule">
      {checks.map((c) => (
        <li key={c.check} className="flex gap-3 border-t border-rule py-1.5">
          <svg viewBox="0 0 16 16" className="mt-1 h-4 w-4 shrink-0" role="img" aria-label={c.ok ? 'as it should be' : 'not as it should be'}>
            {c.ok ? (
              <path d="M2.5 8.5 6.5 12.5 13.5 4" fill="none" stroke="var(--color-moss)" strokeWidth="2.4" />
            ) : (
              <path d="M8 2v7.5M8 12.2v2" fill="none" stroke="var(--color-madder)" strokeWidth="2.8" />
            )}
          </svg>
          <span className={c.ok ? '' : 'text-madder'}>{c.said}</span>
        </li>
      ))}
    </ul>
  );
}
