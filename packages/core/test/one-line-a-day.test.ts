import {
  asItLay,
  asItStands,
  branchOf,
  consequencesOf,
  dayOf,
  dueOn,
  layOut,
  paperOf,
  PAPERS,
  placeTree,
  planTree,
  running,
  silhouetteOf,
  slope,
  touchedWork,
  walkItems,
  workSessions,
  worthMeasuring,
  type Intent,
  type PlanDocument,
  type Tree,
} from '../src/index.js';
import { COIL, thick } from './thick.js';
import { after } from './trees.js';

const DAY = dayOf('2026-03-12');
const ON = '2026-03-10';
const wired: Intent = { kind: 'wired', on: ON, branch: 'low', ...COIL, gap: 0, wrap: 'none' } as Intent;
const bends = [{ at: 10, over: 60, bentDeg: 50, targetDeg: 42, toward: { bearing: 80, elevation: -90 } }];
const placed: Intent = { kind: 'placed', on: ON, branch: 'low', bends, bearing: 80, elevation: -10 };
const session = (done: 'begun' | 'closed'): Intent => ({ kind: 'session', on: ON, session: 's', done, hours: 4, holds: ['low'] }) as Intent;
const worked = (): Tree => after(thick(), session('begun'), wired, placed, session('closed'));

/** All that is told of a tree on a day, each as one who asks for it gets it. */
const VIEWS: Record<string, (tree: Tree, plan: PlanDocument) => unknown> = {
  plan: (_tree, plan) => plan,
  consequences: (tree) => consequencesOf(tree, DAY),
  due: (tree) => dueOn(tree, DAY),
  walk: (tree) => walkItems(tree, DAY),
  laid: (tree, plan) => layOut(tree, plan, DAY, { hours: 5 }),
  running: (tree, plan) => running(tree, plan, DAY),
  papers: (tree, plan) => PAPERS.map((kind) => paperOf(kind, tree, plan, DAY)),
  touched: (tree, plan) => touchedWork(tree, plan, DAY, workSessions(tree)[0]!),
  worth: (tree) => worthMeasuring(tree, DAY),
  lay: (tree) => asItLay(tree, DAY).branches,
};

test('whoever asks for a tree on a day is told of the one line that it has that day', () => {
  const tree = worked();
  const stands = asItStands(tree, DAY);
  const of = (t: Tree): Record<string, unknown> => {
    const plan = planTree(t, DAY, { paths: true, places: true });
    return Object.fromEntries(Object.entries(VIEWS).map(([name, view]) => [name, view(t, plan)]));
  };
  expect(of(stands)).toEqual(of(tree));

  // What was bent is bent in the plan's own words, and in the outline.
  const plan = planTree(tree, DAY, { fronts: false });
  const [grew, now] = [placeTree(thick()), placeTree(stands)].map((p) => slope(p.byId.get('low')!).elevation) as [number, number];
  expect(now).toBeLessThan(grew - 20);
  const told = [...plan.poses, ...plan.asGrown].find((p) => p.branch === 'low')!;
  const { elevation } = 'now' in told ? (told as { now: { elevation: number } }).now : told;
  expect(Math.abs(elevation - now)).toBeLessThan(8);
  expect(silhouetteOf(stands)).not.toEqual(silhouetteOf(tree));
  // What grows on it went along, and on a day before nothing of it is so.
  expect(slope(placeTree(stands).byId.get('shoot')!).elevation).not.toBeCloseTo(slope(placeTree(thick()).byId.get('shoot')!).elevation, 0);
  expect(branchOf(asItStands(tree, DAY - 3), 'low')).toEqual(branchOf(thick(), 'low'));
});
