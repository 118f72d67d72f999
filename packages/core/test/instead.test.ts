import { insteadOf, type Stock } from '../src/index.js';

test('other wire in place of what ran out holds as much, fits the thinnest branch, and is there', () => {
  const roll = (metal: 'copper' | 'aluminium', size: number, left: number, gone: string | null = null): Stock => ({
    id: `${metal}${size}`,
    form: 'roll',
    origin: 'bought',
    metal,
    size,
    soft: true,
    whole: 500,
    left,
    mass: 1,
    reel: 0,
    price: null,
    since: '2026-01-01',
    checkedOn: null,
    gone,
    events: [],
  });
  const run = { metal: 'copper', size: 2.59, strands: 1, angle: 45, length: 700 } as const;
  const found = insteadOf(
    run,
    [11, 9],
    [
      roll('copper', 2.05, 9000),
      roll('copper', 3.26, 9000),
      roll('aluminium', 4, 300),
      roll('aluminium', 3.5, 9000),
      roll('copper', 1, 9000),
      roll('aluminium', 6, 9000),
      roll('aluminium', 4.5, 9000, '2026-02-01'),
    ],
  );
  expect(found.map((w) => `${w.metal} ${w.size} × ${w.strands}`)).toEqual(expect.arrayContaining(['copper 2.05 × 2', 'copper 3.26 × 1']));
  for (const w of found) {
    expect(w.hold).toBeGreaterThanOrEqual(0.85);
    expect(w.left).toBeGreaterThanOrEqual(w.takes);
    expect(w.size).toBeLessThanOrEqual(0.6 * 9);
  }
});
