import { dayOf, generateTree, applyAct, isRefused, planTree, rackFault, type Act } from '@ustle/core';
import { lineFrom, type ComingIn } from '../src/rack/coming-in';
import { shareAt, slopeAt, xOf, yOf } from '../src/stages/pose/ladder-scale';
import { wiredFrom, type PuttingOn } from '../src/stages/wire/putting-on';

const IDS = { id: 'in1', roll: 'r1' };
const roll: ComingIn = {
  on: '2026-05-01',
  form: 'roll',
  origin: 'bought',
  metal: 'copper',
  size: 2.59,
  known: 'grams',
  length: null,
  grams: 500,
  reel: 40,
  soft: true,
  price: null,
};

test('a roll is told by its weight with its reel, or its length in metres; a loose piece in mm; what is not known is asked, never taken for nothing', () => {
  expect(lineFrom(roll, IDS)).toEqual({
    ...IDS,
    on: '2026-05-01',
    kind: 'in',
    form: 'roll',
    origin: 'bought',
    metal: 'copper',
    size: 2.59,
    soft: true,
    grams: 500,
    reel: 40,
  });
  expect(lineFrom({ ...roll, known: 'length', length: 12.5, price: 9 }, IDS)).toMatchObject({ length: 12500, price: 9 });
  expect(lineFrom({ ...roll, known: 'length', length: 12.5 }, IDS)).not.toHaveProperty('grams');
  expect(lineFrom({ ...roll, form: 'offcut', known: 'length', length: 300 }, IDS)).toMatchObject({ length: 300 });
  expect(lineFrom({ ...roll, form: 'offcut' }, IDS)).toMatchObject({ grams: 500, reel: 0 });
  expect(lineFrom({ ...roll, reel: 0 }, IDS)).toMatchObject({ grams: 500, reel: 0 });
  const asked: [Partial<ComingIn>, RegExp][] = [
    [{ grams: null }, /^On the scale: /],
    [{ reel: null }, /^Of that the empty reel: /],
    [{ known: 'length' }, /^Length: /],
  ];
  for (const [typed, said] of asked) expect(lineFrom({ ...roll, ...typed }, IDS)).toEqual({ fault: expect.stringMatching(said) });
  // What the form makes goes on the rack.
  for (const typed of [{}, { known: 'length', length: 3 }, { form: 'offcut', known: 'length', length: 300 }] as Partial<ComingIn>[])
    expect(rackFault(lineFrom({ ...roll, ...typed }, IDS) as never, [])).toBeNull();
});

test('a piece of wire is told as it was put on, for each of its branches, and stands in the record so', () => {
  const tree = generateTree({ seed: 5, name: 'Any', species: 'larch', height: 450, base: 40, primaries: 5, secondaries: 2 });
  const plan = planTree(tree, dayOf('2026-03-01'), { fronts: false });
  const run = plan.runs.find((r) => r.branches.length === 2)!;
  const typed: PuttingOn = {
    on: '2026-03-02',
    metal: 'aluminium',
    size: '3' as unknown as number,
    strands: 2,
    length: 640,
    halves: [
      { turns: 5, bent: 30 },
      { turns: 6, bent: 40 },
    ],
    gap: '0.5',
    wrap: 'raffia',
    anchor: 'slipping',
    roll: 'best',
    sure: false,
  };
  const told = (options: { roll: string | null; inSession: boolean }) => {
    const outcome = applyAct(
      tree,
      { ...wiredFrom(run, typed, { ...options, placeOf: () => ({ at: 7, toward: { bearing: 90, elevation: -80 } }) }), id: 'w', on: '2026-03-02' } as Act,
      dayOf('2026-03-03'),
    );
    if (isRefused(outcome)) throw new Error(outcome.refused[0]!.message);
    return outcome.lines;
  };
  const lines = told({ roll: 'r1', inSession: false });
  const common = { kind: 'wired', on: '2026-03-02', metal: 'aluminium', size: 3, strands: 2, gap: 0.5, wrap: 'raffia', anchor: 'slipping', angle: run.angle };
  expect(lines).toMatchObject(
    run.branches.map((b, i) => ({ ...common, branch: b.branch, hand: b.hand, start: b.start, turns: 5 + i, bentDeg: 30 + 10 * i, targetDeg: b.target })),
  );
  expect(lines.reduce((sum, l) => sum + (l.kind === 'wired' ? (l.length ?? 0) : 0), 0)).toBe(640);
  expect(lines.some((l) => l.kind === 'wired' && l.roll === 'r1')).toBe(true);
  // In a session it is bent later; not from the rack, no roll is named.
  for (const line of told({ roll: null, inSession: true })) for (const not of ['bentDeg', 'roll']) expect(line).not.toHaveProperty(not);
});

test('the ladder’s scale goes there and back: a place on it is a height and a slope', () => {
  for (const slope of [-50, -30, 0, 45, 80]) expect(slopeAt(xOf(slope))).toBeCloseTo(slope, 9);
  for (const share of [0, 0.35, 1]) expect(shareAt(yOf(share))).toBeCloseTo(share, 9);
  expect([xOf(-90), xOf(90), slopeAt(-99), slopeAt(9999), shareAt(-99), shareAt(9999)]).toEqual([xOf(-50), xOf(80), -50, 80, 1, 0]);
  expect(yOf(1)).toBeLessThan(yOf(0));
});
