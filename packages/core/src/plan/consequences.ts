import { greatestOf } from '../units/index.js';
import { judgeFront, type Front } from '../front/index.js';
import {
  cutList,
  cuttingCare,
  findingsOf,
  gapMap,
  openGaps,
  lossesOf,
  proposeSessions,
  rulesFor,
  survey,
  type CutItem,
  type Finding,
  type Loss,
  type ProposedSession,
} from '../removal/index.js';
import { proposePoses } from '../pose/index.js';
import { capacityOf, readTree, verdictOf, type Reading } from '../reading/index.js';
import { promisesOf, type Promised } from '../season/index.js';
import type { View } from '../space/index.js';
import { decided, greenTally, outcomeOf, placeTree, type Gap, type GreenTally, type PlacedTree, type TakenOff, type Tree } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { decidedWork, proposedWork } from './plan.js';

/** How a tree looks from its front: score, trunk in sight. */
export interface Looks {
  score: number;
  trunkInSight: number;
  backBranch: boolean;
}

/** Both ways of a pair of which one goes. */
export interface EitherWay {
  keep: string;
  remove: string;
  tree: Tree;
  green: number;
  looks: Looks;
  gaps: number;
  losses: Loss[];
}

/** What a plan's cuts lead to. */
export interface Consequences {
  /** The front it is looked at from: the chosen one, else bearing 0. */
  front: View;
  findings: Finding[];
  green: GreenTally;
  reading: Reading;
  before: Looks;
  after: Looks;
  gaps: Gap[];
  losses: Loss[];
  /** Null when all fits into this session. */
  sessions: ProposedSession[] | null;
  promises: Promised[];
  either: [EitherWay, EitherWay][];
  cuts: CutItem[];
  care: { wounds: string[]; people: string[] };
}

const looksOf = (front: Front): Looks => ({ score: front.score, trunkInSight: front.parts.trunkInSight, backBranch: front.leading.length > 1 });

/** Losses of what goes or dies by itself, not along with another one. */
function lossesBy(placed: PlacedTree, front: Front | null, { gone, cut }: TakenOff): Loss[] {
  const s = survey(placed, front, rulesFor(placed.tree));
  const lost = new Set([...gone, ...[...cut].filter(([, c]) => c.dies).map(([id]) => id)]);
  return [...lost].filter((id) => !lost.has(placed.byId.get(id)!.branch.parent)).flatMap((id) => lossesOf(s, id, lost));
}

function eitherWay(tree: Tree, view: View, keep: string, remove: string): EitherWay {
  const after = decided(decided(tree, keep, 'keep'), remove, 'remove');
  const off = outcomeOf(after);
  const [before, placed] = [placeTree(tree), placeTree(off.tree)];
  return {
    keep,
    remove,
    tree: after,
    green: off.green,
    looks: looksOf(judgeFront(placed, view)),
    gaps: gapMap(before, placed, view).filter((g) => g.opened).length,
    losses: lossesBy(before, judgeFront(before, view), off).filter((l) => l.branch === remove),
  };
}

/** All that follows from a tree's decisions on a day: what is told beside them, at once. */
export function consequencesOf(given: Tree, onDay: number): Consequences {
  const tree = asItStands(given, onDay);
  const placed = placeTree(tree);
  const off = outcomeOf(tree);
  const after = placeTree(off.tree);
  const chosen = tree.plan.front ?? null;
  const view: View = chosen ?? { bearing: 0, pitch: 0, roll: 0 };
  const seen = judgeFront(placed, view);
  const findings = findingsOf(placed, chosen && seen);
  const worst = new Map<string, number>();
  for (const f of findings) worst.set(f.branch, Math.max(worst.get(f.branch) ?? 0, f.severity));
  const gaps = openGaps(placed, after, onDay);
  const { poses } = proposePoses(after, gaps);
  const reading = readTree(tree, onDay, decidedWork(after, poses, onDay), proposedWork(after, poses));
  const other = reading.uses.filter((u) => u.work !== 'green').reduce((sum, u) => sum + u.points, 0);
  const cuts = cutList(placed, 1);
  return {
    front: view,
    findings,
    green: greenTally(tree, onDay),
    reading,
    before: looksOf(seen),
    after: looksOf(judgeFront(after, view)),
    gaps,
    losses: lossesBy(placed, chosen && seen, off),
    sessions: proposeSessions(
      tree,
      onDay,
      reading.capacity - other,
      (id) => worst.get(id) ?? 0,
      (t, day) => verdictOf(capacityOf(t, day).value) === 'go',
    ),
    promises: promisesOf(placed, onDay),
    either: (tree.plan.either ?? []).map(([a, b]) => [eitherWay(tree, view, a, b), eitherWay(tree, view, b, a)]),
    cuts,
    care: cuttingCare(
      tree,
      onDay,
      greatestOf(
        cuts.map((c) => c.widthMm),
        0,
      ),
    ),
  };
}
