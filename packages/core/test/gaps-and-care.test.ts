import fc from 'fast-check';
import { bearingOfClock, cuttingCare, dayOf, decided, gapMap, outcomeOf, placeTree, readTree, type Branch, type Tree } from '../src/index.js';
import { anyTree, branch, tree } from './trees.js';

const withFront = (t: Tree, bearing: number): Tree => ({ ...t, plan: { ...t.plan, front: { bearing, pitch: 0, roll: 0 } } });

test('the gap map finds the hole that a branch leaves, and who can fill it', () => {
  // Pads on both sides at three heights; without the middle left one there is a hole where it was.
  const side = (id: string, at: number, bearing: number): Branch => branch(id, { at, bearing, elevation: 0, length: 230, green: 0.12, bareTo: 0.35 });
  const t = withFront(
    tree([side('l1', 120, 90), side('l2', 280, 90), side('l3', 440, 90), side('r1', 120, 270), side('r2', 280, 270), side('r3', 440, 270)]),
    0,
  );
  const cut = decided(t, 'l2', 'remove');
  const [before, after] = [placeTree(t), placeTree(outcomeOf(cut).tree)];
  const at = before.byId.get('l2')!.pad!.center;
  const opened = gapMap(before, after, cut.plan.front!).filter((g) => g.opened && g.seen === 'front');
  const [gap] = opened.sort((a, b) => Math.hypot(a.center[0] - at[0], a.center[2] - at[2]) - Math.hypot(b.center[0] - at[0], b.center[2] - at[2]));
  expect(Math.hypot(gap!.center[0] - at[0], gap!.center[2] - at[2])).toBeLessThan(gap!.radius);
  expect(gap!.fills.map((f) => f.branch)).toEqual(expect.arrayContaining(['l1', 'l3']));
  expect(gap!.fills[0]).toMatchObject({ reaches: true, shortBy: 0 });
  expect(gapMap(before, before, cut.plan.front!).every((g) => !g.opened)).toBe(true);
  // The largest empty circle holds no foliage: no pad's middle lies in it.
  fc.assert(
    fc.property(anyTree, fc.nat(359), (any, bearing) => {
      const placed = placeTree(any);
      const view = { bearing, pitch: 0, roll: 0 };
      for (const g of gapMap(placed, placed, view).filter((x) => x.seen === 'above'))
        for (const b of placed.branches)
          if (b.pad) expect(Math.hypot(b.pad.center[0] - g.center[0], b.pad.center[1] - g.center[1])).toBeGreaterThan(g.radius * 0.9);
    }),
    { numRuns: 15 },
  );
  // Who could fill it stands before who could not, by what is missing; a reach is told with its turn, a miss with its millimetres.
  const whole = tree([side('low', 120, 200), side('spear', 230, 92), side('back', 330, 300), side('top', 500, 150)]);
  const less = decided(decided(withFront(whole, 110), 'back', 'remove'), 'low', 'remove');
  const gaps = gapMap(placeTree(less), placeTree(outcomeOf(less).tree), less.plan.front!);
  expect(gaps.some((g) => g.opened)).toBe(true);
  for (const { fills } of gaps) {
    expect(fills.map((f) => f.reaches)).toEqual(fills.map((f) => f.reaches).sort((a, b) => Number(b) - Number(a)));
    expect(fills.map((f) => f.branch).filter((b) => ['back', 'low'].includes(b))).toEqual([]);
    for (const f of fills) {
      if (f.reaches) expect(f.shortBy).toBe(0);
      expect(f.because).toContain(f.shortBy > 0 ? `${f.shortBy.toFixed(0)} mm short` : `${f.turnDeg.toFixed(0)}°`);
    }
  }
});

test('a tree just collected or repotted is left alone or lightly worked', () => {
  const on = dayOf('2026-10-10');
  const verdict = (own: Partial<Tree>) => readTree(tree([], own), on).verdict;
  expect(verdict({ vigour: 'strong' })).toBe('go');
  expect(verdict({ repottedOn: '2026-03-20' })).toBe('light');
  expect(verdict({ collectedOn: '2026-03-20' })).toBe('leave');
  expect(verdict({ vigour: 'weak', repottedOn: '2026-09-20' })).toBe('leave');
});

test('care for cutting goes by species, month and hemisphere, and warns of what is poisonous', () => {
  const care = (own: Partial<Tree>, on: string, mm = 5) => cuttingCare(tree([], own), dayOf(on), mm);
  expect(care({ species: 'maple-trident' }, '2026-04-10').wounds[0]).toMatch(/bleeds when cut before it is in leaf.*June/);
  expect(care({ species: 'maple-trident', site: { hemisphere: 'south' } }, '2026-10-10').wounds[0]).toMatch(/bleeds when cut before it is in leaf.*December/);
  expect(care({ species: 'larch' }, '2026-07-10').wounds[0]).toMatch(/July is not the best month.*March/);
  expect(care({ species: 'maple-trident' }, '2026-06-20').wounds.join()).not.toMatch(/month/);
  expect(care({}, '2026-10-20', 30).wounds.join(' ')).toMatch(/over 8 mm.*two steps/);
  expect(care({ species: 'yew' }, '2026-10-20').people.join(' ')).toMatch(/eye protection.*[Pp]oison/s);
  expect(bearingOfClock(7.2)).toBeCloseTo(36);
});
