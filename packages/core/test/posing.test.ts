import {
  applyAct,
  dayOf,
  gapMap,
  isRefused,
  largeTree,
  likeThis,
  outcomeOf,
  placeTree,
  planTree,
  promisesOf,
  proposePoses,
  sayDay,
  senseFaults,
  turnDeg,
  withBranches,
  type Branch,
  type Intent,
  type Pose,
  type Tree,
} from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';

const ON = dayOf('2026-03-01');
const FRONT = { bearing: 0, pitch: 0, roll: 0 };
/** Main branches in order from below, each with a share of the green. */
const seen = (branches: Branch[], own: Partial<Tree['plan']> = {}): Tree => {
  const t = tree(branches);
  return { ...t, plan: { ...t.plan, front: FRONT, ...own } };
};
const posed = (t: Tree) => {
  const cut = placeTree(outcomeOf(t).tree);
  return new Map(proposePoses(cut, gapMap(placeTree(t), cut, FRONT)).poses.map((p) => [p.branch, p]));
};
const offFront = (t: Tree, id: string): number => Math.abs(turnDeg(0, posed(t).get(id)!.bearing));

test('the first branch comes a little forward; one goes behind where nothing does; none points at the viewer', () => {
  const t = seen([
    branch('first', { at: 120, bearing: 105, elevation: 30 }),
    branch('other', { at: 220, bearing: 250, elevation: 30 }),
    branch('eye', { at: 320, bearing: 5, elevation: 30 }),
  ]);
  // As near as one sees, and as is gentle.
  expect(Math.abs(offFront(t, 'first') - 80)).toBeLessThan(10);
  expect(posed(t).get('first')).toMatchObject({ from: 'first' });
  expect(Math.abs(offFront(t, 'other') - 155)).toBeLessThan(10);
  expect(posed(t).get('other')).toMatchObject({ from: 'back' });
  expect(Math.abs(offFront(t, 'eye') - 38)).toBeLessThan(10);
  expect(posed(t).get('eye')).toMatchObject({ from: 'eye' });
  // With one behind already none is led there; without a front nobody is led anywhere.
  const behind = seen([...t.branches, branch('back', { at: 260, bearing: 180, elevation: 30 })]);
  expect(offFront(behind, 'other')).toBeCloseTo(110, 0);
  expect(offFront({ ...t, plan: { ...t.plan, front: null } }, 'eye')).toBeCloseTo(5, 0);
  // One that the artist has posed is the first and is not moved; no other takes its part.
  const own = seen([...t.branches, branch('low', { at: 400, bearing: 90, elevation: 40 })], {
    poses: [{ branch: 'first', bearing: 105, elevation: -10, bends: [] }],
  });
  expect(posed(own).get('first')).toMatchObject({ bearing: 105, elevation: -10, from: 'plan' });
  expect(posed(own).get('low')!.from).not.toBe('first');
});

test('pads one above the other lie apart; slopes follow the habit, the tree’s own, or the curve that is drawn', () => {
  const two = (gap: number) => seen([branch('below', { at: 200, bearing: 90, elevation: 30 }), branch('above', { at: 200 + gap, bearing: 95, elevation: 30 })]);
  const said = (gap: number): string => posed(two(gap)).get('above')!.because.join(' ');
  expect(said(50)).toMatch(/Raised \d+°, so that light reaches first left below it/);
  expect(said(50)).not.toMatch(/aside/);
  expect(said(20)).toMatch(/Led \d+° aside from above first left/);
  expect(said(150)).not.toMatch(/Raised|Led/);
  // However many there are, none leaves its slope and its bearing by more than that; what lies too close then is said.
  const many = proposePoses(placeTree(largeTree(300, 3))).poses.map((p) => p.because.join(' '));
  const told = (of: RegExp): number[] => many.flatMap((text) => [...text.matchAll(of)].map((found) => Number(found[1])));
  expect(Math.max(...told(/Raised (\d+)°/g))).toBeLessThanOrEqual(14);
  expect(Math.max(...told(/Led (\d+)° aside/g))).toBeLessThanOrEqual(25);
  expect(many.filter((text) => (text.match(/Raised|aside/g) ?? []).length > 2)).toEqual([]);
  expect(many.join(' ')).toMatch(/It still lies close above .+: there may be one branch too many\./);
  const slope = (posing: Tree['plan']['posing']): number => posed(seen([branch('a', { at: 300, elevation: 35 })], { posing: posing! })).get('a')!.elevation;
  expect(slope({ habit: 'level' })).toBeGreaterThan(slope({ habit: 'down' }) + 2);
  expect(slope({ habit: 'up', curve: [{ height: 0.3, slope: -40 }, { height: 0.7, slope: 20 }] })).toBeLessThan(5); // prettier-ignore
  // As near as is gentle; and no steeper.
  const steep = posed(seen([branch('a', { at: 300, elevation: 5 })], { posing: { curve: [{ height: 0.8, slope: -33 }] } })).get('a')!.elevation;
  expect(steep).toBeLessThan(-22);
  expect(steep).toBeGreaterThanOrEqual(-33.5);
});

test('what is posed as it was proposed moves nothing else; what its artist turns moves those alone that it meets, or that had gone out of its way', () => {
  const big = largeTree(150, 5);
  const placesOf = (t: Tree) => {
    const { poses, asGrown } = proposePoses(placeTree(t));
    return new Map([...poses, ...asGrown].map((p) => [p.branch, JSON.stringify([p.bearing, p.elevation, 'bends' in p ? p.bends : []])]));
  };
  const before = placesOf(big);
  const ownOf = new Map(big.branches.map((b) => [b.id, b.parent === 'trunk' ? b.id : null]));
  const movedBy = (pose: Pose): string[] => {
    const now = placesOf({ ...big, plan: { ...big.plan, poses: [pose] } });
    return [...now].flatMap(([id, place]) => (ownOf.get(id) && id !== pose.branch && place !== before.get(id) ? [id] : []));
  };
  const mains = proposePoses(placeTree(big)).poses.filter((p) => ownOf.get(p.branch));
  let moved = 0;
  for (const { branch, bearing, elevation } of mains.filter((_, i) => i % 3 === 0)) {
    expect({ branch, moved: movedBy({ branch, bearing, elevation, bends: [] }) }).toEqual({ branch, moved: [] });
    moved += movedBy({ branch, bearing: (bearing + 20) % 360, elevation: elevation - 15, bends: [] }).length;
  }
  expect(mains.length).toBeGreaterThan(20);
  expect(moved / (mains.length / 3) / mains.length).toBeLessThan(0.03);
  const two = (poses: Pose[]) =>
    seen([branch('below', { at: 200, bearing: 90, elevation: 30 }), branch('above', { at: 250, bearing: 95, elevation: 30 })], { poses });
  const below = posed(two([])).get('below')!;
  const above = (turned: number) =>
    posed(two([{ branch: 'below', bearing: below.bearing + turned, elevation: below.elevation, bends: [] }]))
      .get('above')!
      .because.join(' ');
  expect(above(4)).toMatch(/Raised/);
  expect(above(60)).not.toMatch(/Raised/);
  const beside = (bearing: number): string =>
    posed(seen([branch('under', { at: 200, bearing: 180 }), branch('above', { at: 250, bearing: 95, elevation: 30 })], { poses: [{ branch: 'under', bearing, elevation: 0, bends: [] }] })) // prettier-ignore
      .get('above')!
      .because.join(' ');
  expect([beside(160), beside(92)]).toEqual([expect.not.stringContaining('Raised'), expect.stringContaining('Raised')]);
});

test('side shoots are fanned flat to both sides without crossing; what hangs far under its branch is not bent up', () => {
  const shoots = [40, 70, 100, 130].map((at, i) =>
    branch(`s${i}`, { parent: 'a', at, bearing: i % 2 ? 120 : 60, elevation: 35, length: 70, d: 4, tipD: 2, green: 0.01 }),
  );
  const hanging = branch('under', { parent: 'a', at: 110, bearing: 270, elevation: -70, length: 70, d: 4, tipD: 2, green: 0.01 });
  const t = seen([branch('a', { at: 150, elevation: 30, length: 220 }), ...shoots, hanging]);
  const { poses, asGrown } = proposePoses(placeTree(t));
  const of = (id: string) => poses.find((p) => p.branch === id)!;
  const sides = shoots.map(({ id }) => Math.sign(turnDeg(of('a').bearing, of(id).bearing)));
  expect(new Set([sides[0]! + sides[2]!, sides[1]! + sides[3]!])).toEqual(new Set([2, -2]));
  for (const { id } of shoots) expect([of(id).from, Math.abs(of(id).elevation) < 20]).toEqual(['fan', true]);
  // The farther out, the nearer to the branch's own way: neighbours on one side part.
  for (const [inner, outer] of [['s0', 's2'], ['s1', 's3']]) expect(Math.abs(turnDeg(of('a').bearing, of(inner!).bearing))).toBeGreaterThan(Math.abs(turnDeg(of('a').bearing, of(outer!).bearing)) - 8); // prettier-ignore
  expect(asGrown.find((b) => b.branch === 'under')!.because.join()).toMatch(/would have to turn 1\d\d°, which looks forced/);
});

test('after a planting angle a pose means the same in the world: the branch moves as much more as it was tilted', () => {
  const t = seen([branch('a', { at: 150, bearing: 90, elevation: 30 })], { poses: [{ branch: 'a', bearing: 90, elevation: -20, bends: [] }] });
  const rolled = { ...t, plan: { ...t.plan, front: { bearing: 0, pitch: 0, roll: -20 } } };
  const [level, tilted] = [t, rolled].map((x) => proposePoses(placeTree(x)).poses[0]!);
  expect([level!.elevation, tilted!.elevation]).toEqual([-20, -20]);
  expect(Math.abs(tilted!.now.elevation - level!.now.elevation)).toBeCloseTo(20, 0);
  // Bends that were accepted before lead elsewhere now, and that is said.
  const kept = level!.bends.map(({ at, length, angle, toward }) => ({ at, over: length, angle, toward }));
  const accepted = after(rolled, { kind: 'pose', branch: 'a', bearing: 90, elevation: -20, bends: kept });
  expect(proposePoses(placeTree(accepted)).poses[0]!.because.join()).toMatch(/Its bends lead \d+° away from that/);
});

const bend = (at: number, over: number) => ({ at, over, angle: 20, toward: { bearing: 90, elevation: -30 } });

test.each<[string, Partial<Pose>, Partial<Pose>, string?, number?]>([
  ['a bend within the one before', { bends: [bend(10, 60), bend(50, 30)] }, { bends: [bend(10, 60), bend(70, 30)] }, 'bends/1/at', 70],
  ['a bend that begins beyond the tip', { bends: [bend(220, 30)] }, { bends: [bend(170, 30)] }, 'bends/0/at', 170],
  ['a bend that ends beyond the tip', { bends: [bend(150, 80)] }, { bends: [bend(150, 50)] }, 'bends/0/over', 50],
  ['a branch made longer', { reach: 230 }, { reach: 199 }, 'reach', 199],
])('a pose with %s is refused with the nearest that can be, by an act and by a file alike', (_, wrong, nearest, field, offer) => {
  const start = tree([branch('a', { length: 200 })]);
  const told = (pose: Partial<Pose>): string[] => {
    const whole = { branch: 'a', bearing: 90, elevation: 0, bends: [], ...pose };
    const refused = applyAct(start, actFrom({ kind: 'pose', ...whole } as Intent), dayOf('2030-01-01'));
    const said = isRefused(refused) ? refused.refused.map((r) => `${r.field}: ${r.message}`) : [];
    expect(senseFaults({ ...start, plan: { ...start.plan, poses: [whole] } }).map((f) => `${f.path}: ${f.message}`)).toEqual(
      said.map((s) => `/plan/poses/0/${s}`),
    );
    return said;
  };
  // What is offered in its place is taken.
  expect(told(wrong)).toEqual([expect.stringMatching(new RegExp(`^${field}: .*\\b${offer} mm`))]);
  expect(told(nearest)).toEqual([]);
});

test('a pose fits its branch when that is cut or measured anew: what lies beyond is let go of', () => {
  const t = tree([branch('a', { length: 200 })]);
  t.plan.poses.push({ branch: 'a', bearing: 90, elevation: 0, reach: 170, arcs: 3, planes: 1, bends: [bend(10, 60), bend(120, 60)] });
  const shorter = withBranches(t, [{ ...t.branches[0]!, length: 130 }]);
  expect(shorter.plan.poses).toEqual([{ branch: 'a', bearing: 90, elevation: 0, bends: [bend(10, 60)] }]);
  expect(senseFaults(shorter)).toEqual([]);
  expect(withBranches(t, [{ ...t.branches[0]!, d: 8 }]).plan.poses[0]).toBe(t.plan.poses[0]);
});

test('another pose is kept aside, taken in its place, and forgotten; what is worse about the wood asks for wider bends', () => {
  const pose = (elevation: number): Intent => ({ kind: 'pose', branch: 'a', bearing: 90, elevation, bends: [] });
  const aside = (what: 'keep' | 'swap' | 'forget'): Intent => ({ kind: 'pose-aside', branch: 'a', what });
  const t = tree([branch('a', { elevation: 50, length: 260 })]);
  const slopes = (x: Tree) => [x.plan.poses[0]?.elevation, x.plan.aside?.[0]?.elevation];
  const both = after(t, pose(-20), aside('keep'), pose(5));
  expect(slopes(both)).toEqual([5, -20]);
  expect(slopes(after(both, aside('swap')))).toEqual([-20, 5]);
  expect(slopes(after(both, aside('forget')))).toEqual([5, undefined]);
  expect(isRefused(applyAct(t, actFrom(aside('keep')), ON + 9999))).toBe(true);
  expect(after(both, { kind: 'unpose', branch: 'a' }).plan.poses).toEqual([]);
  // Left as it grows it stays, whatever the table is tilted to; what the artist asks for is bent also where it is little.
  const left = after(t, { kind: 'pose', branch: 'a', bearing: 90, elevation: 50, stays: true });
  const tilted = { ...left, plan: { ...left.plan, front: { bearing: 0, pitch: 0, roll: 12 } } };
  expect([left, tilted].map((x) => proposePoses(placeTree(x)).poses.length)).toEqual([0, 0]);
  expect(proposePoses(placeTree(after(t, pose(45)))).poses).toHaveLength(1);

  const drop = (x: Tree) => proposePoses(placeTree(x)).poses[0]!;
  const [sound, worse] = [drop(t), drop(after(t, { kind: 'wood', branch: 'a', what: ['bark-in-crotch', 'wound'] }))];
  expect(worse.bends[0]!.length).toBeGreaterThan(1.15 * sound.bends[0]!.length);
  expect(worse.because.join(' ')).toMatch(/An old wound.*bind|Bark in the crotch splits/);
});

test('what was heard and seen while bending is followed by the plan', () => {
  const t = tree([branch('a', { elevation: 60, length: 200, d: 12 })], { species: 'maple-trident' });
  const heard = (...lines: Partial<Extract<Intent, { kind: 'bent' }>>[]) => {
    const bent = after(t, ...lines.map((line, i): Intent => ({ kind: 'bent', branch: 'a', stage: i + 1, on: `2026-02-${10 + i}`, ...line })));
    const { done, next, told } = planTree(bent, ON, { fronts: false }).poses[0]!.bending!;
    expect(done).toBe(lines.length);
    return { next, told: told.join(' ') };
  };
  const nothing = heard({ sound: 'none' });
  expect(nothing.told).toBe('');
  expect(nothing.next! > '2026-02-10').toBe(true);
  expect(heard({ sound: 'none' }, { sound: 'bark' }).told).toMatch(/Bark was heard: go on slowly/);
  // Fibres heard once are not forgotten by a stage in which nothing was; the days waited are those of the sentence.
  const fibre = heard({ sound: 'fibre' }, { sound: 'none' });
  expect(fibre.told).toMatch(/^Fibres were heard: hold it where it is.*raffia/);
  const along = heard({ crack: 'along' });
  expect(along.told).toMatch(/along the fibre, which heals/);
  expect([fibre, along].map((h) => h.told.includes(sayDay(dayOf(h.next!))))).toEqual([true, true]);
  expect(dayOf(along.next!) - dayOf('2026-02-10')).toBe(90);
  expect(dayOf(fibre.next!)).toBeGreaterThan(dayOf('2026-02-11') + 14);
  const across = heard({ sound: 'fibre' }, { crack: 'across' });
  expect([across.next, across.told]).toEqual([null, expect.stringMatching(/across the fibre: what lies beyond may die.*No further bend/)]);
  // What was kept for it is kept on.
  const spare = { ...t, branches: [...t.branches, branch('spare', { at: 300, bearing: 200 })] };
  const reserve: Intent = { kind: 'decide', branch: 'spare', act: 'reserve', untilSet: 'a' };
  const kept = (crack: 'along' | 'across') => promisesOf(placeTree(after(spare, reserve, { kind: 'bent', branch: 'a', crack, on: '2026-02-10' })), ON)[0];
  expect(kept('across')).toMatchObject({ ready: false, text: expect.stringMatching(/cracked across the fibre: keep this one/) });
  expect(kept('along')!.text).not.toMatch(/crack/);
  // Wire that came off begins it anew; a crack is not forgotten for that.
  const anew = (line: object): Tree =>
    after(t, { kind: 'bent', branch: 'a', on: '2026-02-10', ...line } as Intent, { kind: 'unwired', branch: 'a', on: '2026-02-20' });
  expect(planTree(anew({ sound: 'fibre' }), ON, { fronts: false }).poses[0]!.bending).toBeNull();
  const letBe = planTree(anew({ crack: 'across' }), ON, { fronts: false });
  expect([letBe.poses, letBe.asGrown[0]!.because.join()]).toEqual([
    [],
    expect.stringMatching(/cracked across the fibre on 10 February 2026.*before 10 February 2027/),
  ]);
});

test('all poses are taken as they were shown in one act, or none: one on a branch that is not there leaves the tree as it was', () => {
  const t = seen([branch('a', { at: 150, elevation: 40 }), branch('b', { at: 210, bearing: 200, elevation: 45 })]);
  const shown = proposePoses(placeTree(t)).poses;
  expect(shown.length).toBe(2);
  const poses = shown.map((p) => ({ branch: p.branch, bearing: p.bearing, elevation: p.elevation, bends: p.bends.map(({ at, length, angle, toward }) => ({ at, over: length, angle, toward })) })); // prettier-ignore
  const taken = after(t, { kind: 'poses', poses });
  const onto = proposePoses(placeTree(taken)).poses;
  expect(onto.map((p) => [p.branch, p.bearing, p.elevation, p.from])).toEqual(shown.map((p) => [p.branch, p.bearing, p.elevation, 'plan']));
  expect(onto.flatMap((p) => p.bends.map((b) => b.angle))).toEqual(shown.flatMap((p) => p.bends.map((b) => b.angle)));
  const gone = applyAct(t, actFrom({ kind: 'poses', poses: [...poses, { ...poses[0]!, branch: 'z' }] }), dayOf('2030-01-01'));
  expect(isRefused(gone) && gone.refused[0]!.message).toMatch(/"z" is not on this tree/);
});

test('another like a tree: its shape as if drawn, the next free name, nothing planned and nothing done', () => {
  const t = after(seen([branch('a', { at: 150 })]), { kind: 'note', text: 'Bought in spring.' });
  const again = likeThis({ ...t, name: 'Knot 2' }, new Set(['Knot', 'Knot 2', 'Knot 4']));
  expect([again.name, again.record, again.plan.front, again.trunk]).toEqual(['Knot 3', [], null, t.trunk]);
  expect(again.branches.map((b) => [b.id, b.length, b.known!.how])).toEqual(t.branches.map((b) => [b.id, b.length, 'drawn']));
});
