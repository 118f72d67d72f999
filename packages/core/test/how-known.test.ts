import {
  applyAct,
  dayOf,
  dueOn,
  howKnown,
  isRefused,
  namesOf,
  placeTree,
  planTree,
  sayThick,
  treeFromWire,
  watch,
  worthKnowing,
  type Branch,
  type Intent,
  type Tree,
  type WiredRow,
} from '../src/index.js';
import { wired } from './coils.js';
import { after, branch, tree } from './trees.js';

const ON = dayOf('2026-03-10');
const known = (of: Branch['known'], d = 9): Tree => tree([branch('a', { d, length: 260, elevation: 40, ...(of ? { known: of } : {}) })]);
const planOf = (t: Tree) => planTree(t, ON, { fronts: false });

test('what was measured is known by ruler, what was not as before; a caliper line counts, all of it measured leaves nothing to be said', () => {
  const drawn = known({ how: 'drawn' });
  expect(howKnown(drawn, 'a')).toEqual({ how: 'drawn', d: 0.15 * 9, deg: 10, length: 26 });
  expect(howKnown(known({ how: 'photographs', d: 0.4 }), 'a')).toMatchObject({ how: 'photographs', d: 0.4, deg: 1.5 });
  expect(howKnown(known(undefined), 'a')).toMatchObject({ how: 'ruler', deg: 2 });
  const remeasure = (t: Tree, changes: Partial<Branch>): Tree => after(t, { kind: 'remeasure', on: '2026-03-10', branch: 'a', changes } as Intent);
  const thick = remeasure(drawn, { d: 8 });
  expect(howKnown(thick, 'a').d).toBeLessThan(0.25);
  expect(howKnown(thick, 'a')).toMatchObject({ how: 'drawn', deg: 10 });
  expect(thick.branches[0]!.known).toBeDefined();
  expect(remeasure(remeasure(thick, { length: 240 }), { elevation: 31, bearing: 88 }).branches[0]!.known).toBeUndefined();
  expect(howKnown(after(drawn, { kind: 'measured', on: '2026-03-11', branch: 'a', d: 9.2 } as Intent), 'a')).toMatchObject({
    how: 'drawn',
    deg: 10,
    d: 0.02 * 9,
  });
});

test('what is not well known widens what is told: the degrees beside a bend, and when it sets; not the middle of either', () => {
  const [sure, rough] = [known(undefined), known({ how: 'drawn' })].map((t) => planOf(t).poses[0]!.bends[0]!);
  expect(rough!.spreadDeg!).toBeGreaterThan(1.1 * sure!.spreadDeg!);
  expect(rough!.angle).toBe(sure!.angle);
  const record = [{ ...wired('a', '2026-03-10'), size: 2.6, bentDeg: 50, targetDeg: 42, over: 80 }];
  const [set, wide] = [known(undefined), known({ how: 'guessed' })].map((t) => watch(placeTree({ ...t, record }), ON)[0]!.race.forecast.set);
  expect(wide!.p90! - wide!.p10!).toBeGreaterThan(set!.p90! - set!.p10!);
});

test('worth measuring is what decides something, tried by brute force; nothing that is known by ruler', () => {
  const drawn = known({ how: 'drawn' });
  const found = worthKnowing(drawn, planOf(drawn), ON).find((w) => w.what === 'd')!;
  expect(found).toMatchObject({ branch: 'a', decides: expect.stringMatching(/mm or .*mm copper/) });
  // So thin, and so thick, another wire is planned.
  const size = (d: number): string => sayThick(planOf(known(undefined, d)).runs[0]!.size);
  expect([size(found.low), size(found.high)]).toEqual(found.decides.match(/[\d.]+ mm/g));
  expect(worthKnowing(known(undefined), planOf(known(undefined)), ON)).toEqual([]);
  // A spread too small to change anything is not asked for.
  const near = known({ how: 'photographs', d: 0.01, deg: 0.1 });
  expect(worthKnowing(near, planOf(near), ON)).toEqual([]);
});

test('only its wire: names by place as it was told, watched from its days, due with all others', () => {
  const row = (side: WiredRow['side'], height: WiredRow['height'], own: Partial<WiredRow> = {}): WiredRow => ({ side, height, d: 6, metal: 'aluminium', size: 2, since: '2026-03-01', bent: 'half', ...own }); // prettier-ignore
  const t = treeFromWire('Wired', 'maple-trident', [row('right', 'low'), row('left', 'low', { d: 9 }), row('left', 'low', { since: '2025-10-02', bent: null }), row('back', 'high'), row('front', 'middle')]); // prettier-ignore
  const names = namesOf(t);
  expect(t.branches.map((b) => names(b.id))).toEqual(['first right', 'first left', 'second left', 'back', 'front']);
  expect(t.record.map((l) => l.on)).toEqual(['2025-10-02', '2026-03-01', '2026-03-01', '2026-03-01', '2026-03-01']);
  const day = dayOf('2026-04-20');
  expect(new Set(watch(placeTree(t), day).map((w) => w.coil.branch))).toEqual(new Set(['b1', 'b2', 'b3', 'b4', 'b5']));
  expect(dueOn(t, day).due.some((d) => d.kind === 'look' || d.kind === 'remove')).toBe(true);
  expect(t.branches.every((b) => b.known?.how === 'guessed')).toBe(true);
  expect(isRefused(applyAct(t, { id: 'x', on: '2026-04-20', kind: 'remeasure', branch: 'b1', changes: { d: 6.4, length: 130 } } as never, day))).toBe(false);
});
