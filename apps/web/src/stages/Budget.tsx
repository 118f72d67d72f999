import type { Reading } from '@ustle/core';
import { Bar } from '../shared/parts';
import { percent } from '../shared/say';

const WORK_WORDS = { green: 'Green', 'heavy bends': 'Bends', wiring: 'Wiring', deadwood: 'Deadwood' } as const;

/** Up to such a share, a part of a whole in words. */
const PARTS: readonly [most: number, words: string][] = [
  [0.05, 'next to nothing of'],
  [0.18, 'a tenth of'],
  [0.3, 'a quarter of'],
  [0.42, 'a third of'],
  [0.58, 'half of'],
  [0.71, 'two thirds of'],
  [0.86, 'three quarters of'],
  [1, 'nearly'],
];

/** What a tree bears today, in words: whole sessions of a tree of ordinary strength. */
const sayBears = (capacity: number): string =>
  capacity >= 1
    ? `Today it bears ${capacity > 1.15 ? 'more than a' : 'a'} full session's work.`
    : `Today it bears ${PARTS.find(([most]) => capacity < most)![1]} a full session's work.`;

/** A share of what the tree bears, or how many times that. */
function sayTimes(points: number, capacity: number): string {
  const times = points / Math.max(capacity, 0.01);
  return times < 1 ? `${percent(times)} of what it bears` : `${times.toFixed(1)} times what it bears`;
}

/** The work of one session: what the tree bears, what is decided and done, and what all that is proposed would ask. */
export function Budget({ reading: { used, capacity, ifAll, uses } }: { reading: Reading }) {
  const over = used > capacity;
  return (
    <section className="mt-5">
      <h3 className="text-lg">Work for one session</h3>
      <p className="mb-2 text-quiet">
        {sayBears(capacity)}{' '}
        <span className={over ? 'text-madder' : ''}>
          {used < 0.005 ? 'Nothing is decided yet.' : `What is decided and done asks for ${sayTimes(used, capacity)}.`}
        </span>
        {ifAll > used + 0.005 && ` If you did all that is proposed: ${sayTimes(ifAll, capacity)}.`}
      </p>
      <Bar share={used / Math.max(capacity, used, 0.01)} {...(over ? { limit: capacity / used } : {})} tone={over ? 'madder' : 'moss'} />
      <ul className="mt-1 text-[0.94rem] text-quiet">
        {uses.map((u) => (
          <li key={u.work} className="flex justify-between gap-3">
            <span>
              {WORK_WORDS[u.work]}: {u.text}
            </span>
            <span>{percent(u.points / Math.max(capacity, 0.01))}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
