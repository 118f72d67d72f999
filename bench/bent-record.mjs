import { isoOf } from '@ustle/core';

const BENDS = [1, 2, 3].map((k) => ({ at: 25 + 12 * k, over: 8, bentDeg: 12, toward: { bearing: 60 * k, elevation: 0 } }));
const WIRE = { kind: 'wired', metal: 'copper', size: 2, strands: 1, angle: 45, hand: 'cw', start: 'over', gap: 0, wrap: 'none' };
const DROP = { kind: 'bent', at: 5, over: 20, bentDeg: 30, toward: { bearing: 90, elevation: -80 }, stage: 1 };

/** A record of a tree from a day on: year by year all of it is wired, bent and placed, looked at six times, and let go. */
export function bentRecord({ branches }, from, years) {
  const record = [];
  for (let year = 0; year < years; year++) {
    const note = (after, branch, line) => record.push({ id: `l${record.length}`, on: isoOf(from + 365 * year + after), branch, ...line });
    for (const { id } of branches) for (const line of [{ ...WIRE, run: `${year}${id}` }, DROP, { kind: 'placed', bends: BENDS }]) note(0, id, line);
    for (let look = 1; look <= 6; look++) for (const { id } of branches) note(25 * look, id, { kind: 'inspected', run: `${year}${id}`, stage: 'clear' });
    for (const { id } of branches) note(180, id, { kind: 'unwired', run: `${year}${id}`, method: 'cut' });
  }
  return record;
}
