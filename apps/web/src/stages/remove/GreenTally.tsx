import type { Consequences } from '@ustle/core';
import { percent } from '../../shared/say';

/** Green that goes, by session and with what went within twelve months, against the cap. */
export function GreenTally({ green }: { green: Consequences['green'] }) {
  const { cap, pastYear, sessions } = green;
  const now = sessions.find((s) => s.session === 1)?.removed ?? 0;
  const later = sessions.filter((s) => s.session > 1).reduce((sum, s) => sum + s.removed, 0);
  const whole = Math.max(cap * 1.5, pastYear + now + later, 0.01);
  const over = pastYear + now > cap + 1e-9;
  const parts: [string, number, string][] = [
    ['in the last twelve months', pastYear, 'var(--color-bark)'],
    ['now', now, over ? 'var(--color-madder)' : 'var(--color-moss)'],
    ['in later sessions', later, 'var(--color-ochre)'],
  ];
  const shown = parts.filter(([, share]) => share > 0.0005);
  return (
    <section aria-label="Green coming off" className="mb-3">
      <div className="mb-1 flex justify-between">
        <span>Green coming off</span>
        <span>
          <strong>{percent(now)}</strong> <span className="text-quiet">of at most {percent(cap)} in a year</span>
        </span>
      </div>
      <div className="relative flex h-[9px] bg-rule/60">
        {shown.map(([name, share, colour]) => (
          <div key={name} style={{ width: `${(share / whole) * 100}%`, background: colour }} />
        ))}
        <div className="absolute -top-1 h-[17px] w-[2px] bg-ink" style={{ left: `${(cap / whole) * 100}%` }} />
      </div>
      {shown.length > 1 && (
        <p className="mt-1 flex flex-wrap gap-x-4 text-[0.94rem] text-quiet">
          {shown.map(([name, share, colour]) => (
            <span key={name} className="flex items-center gap-1.5">
              <span className="h-2.5 w-2.5" style={{ background: colour }} />
              {percent(share)} {name}
            </span>
          ))}
        </p>
      )}
      {over && <p className="mt-1 text-madder">More than this tree likes to lose in a year. What follows shows what could wait.</p>}
    </section>
  );
}
