import fc from 'fast-check';
import {
  cutPieces,
  needsOf,
  rackFault,
  rackOf,
  reservedBy,
  rollLength,
  usesOf,
  wireLength,
  type CutStock,
  type KeptRackLine,
  type RackLine,
  type RecordLine,
  type TreeUses,
} from '../src/index.js';
import reference from './reference-values.json';

test.each(reference.cutting)('as few rolls as were found elsewhere for $pieces', ({ pieces, rollLength, expectRolls }) => {
  const { buy, exact } = cutPieces(pieces, rollLength);
  expect(buy).toBe(expectRolls);
  expect(exact).toBe(true);
});

/** The fewest new rolls, and of those ways the most from offcuts, by trying everything for every piece. */
function byTrying(lengths: readonly number[], roll: number, bins: readonly CutStock[], buy = 0, offcuts = 0): [number, number] {
  const [next, ...rest] = lengths;
  if (next === undefined) return [buy, offcuts];
  const into = (at: number): CutStock[] => bins.map((b, i) => (i === at ? { ...b, left: b.left - next } : b));
  const tries = bins.flatMap((b, i) => (b.left >= next ? [byTrying(rest, roll, into(i), buy, offcuts + (b.offcut ? next : 0))] : []));
  tries.push(byTrying(rest, roll, [...bins, { left: roll - next, offcut: false }], buy + 1, offcuts));
  return tries.sort((a, b) => a[0] - b[0] || b[1] - a[1])[0]!;
}

const length = fc.integer({ min: 60, max: 950 });
const stocked = fc.array(fc.record({ left: length, offcut: fc.boolean() }), { maxLength: 3 });

test('no cutting takes fewer new rolls, or as few and more of the offcuts; every piece is cut once, and nothing gives more than it has', () => {
  fc.assert(
    fc.property(fc.array(length, { maxLength: 6 }), stocked, (pieces, stock) => {
      const { cuts, buy, bound, exact } = cutPieces(pieces, 1000, stock);
      const sum = (of: readonly number[]): number => of.reduce((total, i) => total + pieces[i]!, 0);
      const offcuts = cuts.filter((c) => c.from !== null && stock[c.from]!.offcut).reduce((total, c) => total + sum(c.pieces), 0);
      expect([buy, offcuts]).toEqual(byTrying(pieces, 1000, stock));
      expect(exact).toBe(true);
      expect(bound).toBeLessThanOrEqual(buy);
      expect(cuts.flatMap((c) => c.pieces).sort((a, b) => a - b)).toEqual(pieces.map((_, i) => i));
      for (const { from, pieces: of } of cuts) expect(sum(of)).toBeLessThanOrEqual(from === null ? 1000 : stock[from]!.left);
    }),
    { numRuns: 250 },
  );
});

test('many pieces are fitted, with a bound that no cutting is below', () => {
  const pieces = Array.from({ length: 80 }, (_, i) => 100 + ((i * 379) % 700));
  const { buy, bound } = cutPieces(pieces, 1000);
  expect(buy).toBeGreaterThanOrEqual(bound);
  expect(buy).toBeLessThanOrEqual(Math.ceil(bound * 1.3));
});

const came = (own: Partial<Extract<RackLine, { kind: 'in' }>> = {}): RackLine =>
  ({
    id: 'l1',
    on: '2026-01-10',
    kind: 'in',
    roll: 'a',
    form: 'roll',
    origin: 'bought',
    metal: 'copper',
    size: 2,
    soft: true,
    length: 10_000,
    ...own,
  }) as RackLine;
const keep = (lines: RackLine[], recorded: Record<string, number> = {}): KeptRackLine[] => lines.map((line) => ({ line, recorded }));
const cut = (at: number, on: string, mm: number): TreeUses => ({ tree: 't', name: 'T', uses: [{ at, on, roll: 'a', length: mm, branches: ['b1'] }] });
const leftOf = (lines: KeptRackLine[], ...uses: TreeUses[]): number => rackOf(lines, uses)[0]!.left;

test('half a kilogram of 2 mm copper is 17.8 m, and of 1 mm aluminium 236 m', () => {
  expect(rollLength('copper', 2) / 1000).toBeCloseTo(500 / (8.96 * Math.PI), 6);
  expect(rollLength('aluminium', 1) / 1000).toBeCloseTo(235.8, 1);
  expect(leftOf(keep([came({ length: undefined, grams: 535, reel: 35 })]))).toBeCloseTo(rollLength('copper', 2), 6);
});

test('what the scale says stands; only what was cut after it is taken off, on the same day too', () => {
  const weighed: RackLine = { id: 'l2', on: '2026-03-01', kind: 'weighed', roll: 'a', grams: 100 };
  const then = wireLength('copper', 2, 100);
  const lines = [...keep([came()]), { line: weighed, recorded: { t: 4 } }];
  expect(leftOf(keep([came()]), cut(2, '2026-02-01', 700), cut(5, '2026-04-01', 300))).toBe(9000);
  expect(leftOf(lines, cut(9, '2026-02-01', 700))).toBeCloseTo(then, 9);
  expect(leftOf(lines, cut(3, '2026-03-01', 700))).toBeCloseTo(then, 9);
  expect(leftOf(lines, cut(4, '2026-03-01', 700))).toBeCloseTo(then - 700, 9);
  // Weighing taken back, it is reckoned again from what came.
  const back: RackLine = { id: 'l3', on: '2026-03-02', kind: 'withdrawn', corrects: 'l2' };
  expect(leftOf([...lines, ...keep([back])], cut(3, '2026-03-01', 700))).toBe(9300);
});

test('a piece that was taken back was not cut, and one on two branches is cut once', () => {
  const wired = (id: string, branch: string, own: object = {}): RecordLine =>
    ({ id, on: '2026-04-01', kind: 'wired', branch, run: 'w1', ...own }) as RecordLine;
  const record = [wired('r1', 'b1', { length: 500, roll: 'a' }), wired('r2', 'b2')];
  expect(usesOf(record)).toEqual([{ at: 0, on: '2026-04-01', roll: 'a', length: 500, branches: ['b1', 'b2'] }]);
  expect(usesOf([...record, { id: 'r3', on: '2026-04-01', kind: 'withdrawn', corrects: 'r1' }])).toEqual([]);
});

test('wire that is hard is not cut from while it is copper; offcuts go first; what is bought is priced by the gram', () => {
  const stock = rackOf(
    keep([
      came({ length: 1200, price: 12 }),
      came({ id: 'l2', roll: 'b', form: 'offcut', length: 450 }),
      came({ id: 'l3', roll: 'c', form: 'offcut', origin: 'straightened', length: 900, soft: false }),
    ]),
    [],
  );
  const piece = (mm: number) => ({ metal: 'copper' as const, size: 2.01, length: mm, tree: 't', run: 'w1' });
  const [need] = needsOf([piece(700), piece(440), piece(430)], stock);
  expect(need!.cuts.map((c) => [c.from, c.pieces.map((p) => p.length)])).toEqual([
    ['a', [700, 430]],
    ['b', [440]],
  ]);
  expect(need).toMatchObject({ buy: 0, have: 1650, hard: 900 });
  const [more] = needsOf([piece(1150), piece(700)], stock);
  expect(more!.buy).toBe(1);
  expect(more!.buyPrice).toBeCloseTo((12 / 1200) * rollLength('copper', 2.01) * (2.01 / 2) ** 2, 6);
  const soft = rackOf(keep([came({ roll: 'c', soft: false }), { id: 'l9', on: '2026-02-01', kind: 'annealed', roll: 'c' }]), []);
  expect(needsOf([piece(500)], soft)[0]).toMatchObject({ buy: 0, hard: 0 });
});

test('what cannot be on a rack is refused with its field', () => {
  const faults = (line: Partial<RackLine> & { kind: RackLine['kind'] }, ...before: RackLine[]): string | undefined =>
    rackFault({ id: 'x', on: '2026-02-01', roll: 'a', ...line } as RackLine, keep(before))?.field;
  expect(faults(came({ length: undefined }))).toBe('length');
  expect(faults(came({ length: undefined, grams: 30, reel: 35 }))).toBe('grams');
  expect(faults({ ...came(), id: 'y' }, came())).toBe('roll');
  expect(faults({ kind: 'weighed', grams: 100 })).toBe('roll');
  expect(faults({ kind: 'weighed', grams: 5000 }, came())).toBe('grams');
  expect(faults({ kind: 'measured', length: 20_000 }, came())).toBe('length');
  expect(faults({ kind: 'annealed', on: '2025-12-01' }, came())).toBe('on');
  expect(faults({ kind: 'measured', length: 0 }, came())).toBeUndefined();
  expect(faults({ kind: 'weighed', grams: 10 }, came(), { id: 'g', on: '2026-01-20', kind: 'gone', roll: 'a' })).toBe('roll');
  expect(faults({ kind: 'withdrawn', corrects: 'l1' }, came(), { id: 'm', on: '2026-01-20', kind: 'measured', roll: 'a', length: 9000 })).toBe('corrects');
});

test('a settled piece is spoken for until it is on, strand by strand', () => {
  const run = { id: 'w1', metal: 'copper', size: 2, strands: 2, angle: 45, length: 600, branches: [{ branch: 'b1', hand: 'cw', start: 'over' }] };
  const record: RecordLine[] = [{ on: '2026-04-01', kind: 'wired', branch: 'b1', run: 'w1' }];
  const tree = (lines: RecordLine[]) => ({ plan: { runs: [run, { ...run, id: 'w2', length: undefined }] }, record: lines }) as never;
  expect(reservedBy('t', tree([]), 20700).map((p) => [p.run, p.length])).toEqual([
    ['w1', 600],
    ['w1', 600],
  ]);
  expect(reservedBy('t', tree(record), 20700)).toEqual([]);
});

test('whatever came in what order, a roll has what was last known of it less what was cut since', () => {
  const day = (n: number): string => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10);
  const event = fc.record({
    day: fc.integer({ min: 1, max: 60 }),
    kind: fc.constantFrom('measured', 'cut', 'annealed'),
    mm: fc.integer({ min: 0, max: 4000 }),
  });
  fc.assert(
    fc.property(fc.array(event, { maxLength: 14 }), (events) => {
      const lines: KeptRackLine[] = [{ line: came({ on: day(0) }), recorded: { t: 0 } }];
      const uses: TreeUses['uses'] = [];
      let left = 10_000;
      let soft = false;
      // Told as it was lived: on each day in turn, and on one day as it was written.
      [...events]
        .sort((a, b) => a.day - b.day)
        .forEach((e, i) => {
          if (e.kind === 'cut') {
            uses.push({ at: uses.length, on: day(e.day), roll: 'a', length: e.mm, branches: ['b'] });
            left = Math.max(0, left - e.mm);
            return;
          }
          const line = {
            id: `e${i}`,
            on: day(e.day),
            roll: 'a',
            ...(e.kind === 'measured' ? { kind: 'measured', length: e.mm } : { kind: 'annealed' }),
          } as RackLine;
          lines.push({ line, recorded: { t: uses.length } });
          if (e.kind === 'measured') left = e.mm;
          else soft = true;
        });
      const [stock] = rackOf([{ ...lines[0]!, line: { ...lines[0]!.line, soft: false } as RackLine }, ...lines.slice(1)], [{ tree: 't', name: 'T', uses }]);
      expect([stock!.left, stock!.soft]).toEqual([left, soft]);
      expect(stock!.events.at(-1)!.left).toBe(left);
      expect(stock!.events.map((e) => e.on)).toEqual([...stock!.events.map((e) => e.on)].sort());
    }),
  );
});
