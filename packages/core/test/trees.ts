import fc from 'fast-check';
import {
  applyAct,
  bearingAndElevation,
  capacityOf,
  dayOf,
  decided as decideOn,
  generateTree,
  isRefused,
  verdictOf,
  wrapDeg,
  type Act,
  type Branch,
  type DecisionDetails,
  type Fate,
  type Form,
  type Intent,
  type Tree,
  type Vec,
} from '../src/index.js';

const ON = '2026-10-10';
let made = 0;
/** An act as thought of, with an id and a day. */
export const actFrom = (intent: Intent): Act => ({ on: ON, ...intent, id: `act${made++}` }) as Act;

/** The tree after some acts in turn, its record with them; fails where one is refused. */
export function after(start: Tree, ...intents: Intent[]): Tree {
  return intents.reduce((now, intent) => {
    const outcome = applyAct(now, actFrom(intent), dayOf('2030-01-01'));
    if (isRefused(outcome)) throw new Error(outcome.refused[0]!.message);
    return { ...outcome.tree, record: [...outcome.tree.record, ...outcome.lines] };
  }, start);
}

/** The tree with some fates decided in turn. */
export const decided = (t: Tree, ...all: [id: string, act: Fate, details?: DecisionDetails][]): Tree =>
  all.reduce((now, [id, act, details = {}]) => decideOn(now, id, act, details), t);

/** A branch with everything ordinary but what a test is about. */
export const branch = (id: string, own: Partial<Branch> = {}): Branch => ({
  id,
  parent: 'trunk',
  at: 200,
  bearing: 90,
  elevation: 10,
  length: 200,
  d: 9,
  tipD: 3,
  bareTo: 0.4,
  green: 0.05,
  state: 'normal',
  stage: 'wood',
  backBuds: true,
  ...own,
});

/** A plain tree: an upright trunk 600 mm high with the given branches. */
export const tree = (branches: Branch[], own: Partial<Tree> = {}): Tree => ({
  format: 'ustle-tree',
  version: 1,
  name: 'Test',
  species: 'larch',
  vigour: 'normal',
  site: { hemisphere: 'north' },
  pot: { shape: 'oval', width: 320, depth: 240, height: 60 },
  trunk: [0, 150, 300, 450, 600].map((z) => ({ x: 0, y: 0, z, d: 50 - z * 0.07 })),
  roots: [],
  branches,
  features: [],
  plan: { front: null, decisions: [], poses: [], runs: [], guys: [] },
  record: [],
  ...own,
});

export const anyTree: fc.Arbitrary<Tree> = fc
  .record({
    seed: fc.nat(100000),
    form: fc.constantFrom<Form>('upright', 'upright', 'cascade', 'clump'),
    primaries: fc.integer({ min: 3, max: 8 }),
    swing: fc.double({ min: 0.02, max: 0.16, noNaN: true }),
  })
  .map((g) => generateTree({ ...g, name: 'Any', species: 'larch', height: 600, base: 50, secondaries: 2, faults: ['bar', 'hanging', 'dead'] }));

const mapped = (t: Tree, point: (p: Vec) => Vec, bearing: (b: number) => number): Tree => ({
  ...t,
  trunk: t.trunk.map((s) => {
    const [x, y] = point([s.x, s.y, s.z]);
    return { ...s, x, y };
  }),
  roots: t.roots.map((r) => ({ ...r, bearing: bearing(r.bearing) })),
  features: t.features.map((f) => ({ ...f, bearing: bearing(f.bearing) })),
  branches: t.branches.map((b) => ({ ...b, bearing: bearing(b.bearing), ...(b.path ? { path: b.path.map(point) } : {}) })),
});

/** The whole tree turned clockwise (seen from above) by an angle in degrees. */
export const turned = (t: Tree, by: number): Tree =>
  mapped(
    t,
    ([x, y, z]) => {
      const reach = Math.hypot(x, y);
      const a = ((bearingAndElevation([x, y, 0]).bearing + by) * Math.PI) / 180;
      return [Math.sin(a) * reach, Math.cos(a) * reach, z];
    },
    (b) => wrapDeg(b + by),
  );

/** The tree in a mirror standing along the line from bearing 0 to 180. */
export const mirrored = (t: Tree): Tree =>
  mapped(
    t,
    ([x, y, z]) => [-x, y, z],
    (b) => wrapDeg(-b),
  );

/** A branch with 0.2 of the green and two shoots with 0.1 each, and one with 0.3; the rest is the trunk's. */
export const family = (): Tree =>
  tree([
    branch('a', { green: 0.2 }),
    branch('a1', { parent: 'a', at: 50, green: 0.1 }),
    branch('a2', { parent: 'a', at: 150, green: 0.1 }),
    branch('b', { green: 0.3 }),
  ]);

/** Whether the tree bears work on a day as it is. */
export const bears = (t: Tree, day: number): boolean => verdictOf(capacityOf(t, day).value) === 'go';
