import { keepNothing } from '../units/index.js';
import { lengthOf, screenAxes } from '../space/index.js';
import { sizeSold } from '../wood/index.js';
import { namesOf, placeTree, woodIn, type PlacedTree, type Run, type RunBranch } from '../tree/index.js';
import type { Tree } from '../tree/index.js';
import { arrivingOn } from './carry.js';
import { FlatBark } from './flat-bark.js';
import { canJoin } from './join-ways.js';
import type { LimbWork, Need } from './limb-work.js';
import { shoulderOf } from './shoulders.js';
import { touchesFor } from './touching.js';

/** Why branches cannot share a piece of wire as asked; null where they can. */
export function whyNotJoined(tree: Tree, run: Run): string | null {
  const names = namesOf(tree);
  const own = run.branches.map((part) => ({ part, parent: tree.branches.find((b) => b.id === part.branch)?.parent }));
  const twice = own.find(({ part }, i) => own.findIndex((o) => o.part.branch === part.branch) < i);
  if (twice) return 'One piece needs two branches; these are one.';
  if (own.length < 2 || own.some((o) => o.parent === undefined)) return null;
  const carrierOf = (parent: string | undefined): RunBranch | undefined => run.branches.find((b) => b.branch === parent);
  const ends = own.filter((o) => !carrierOf(o.parent));
  const [a, b, more] = ends.map((o) => o.part);
  if (a && b && ends[0]!.parent !== ends[1]!.parent)
    return `${names(a.branch)} and ${names(b.branch)} do not grow on the same limb: a piece goes round one limb from the one to the other.`;
  if (more) return `A piece has two ends: it does not go on to ${names(more.branch)}.`;
  const crowded = own.find(({ parent }, i) => carrierOf(parent) && own.findIndex((o) => o.parent === parent) < i);
  if (crowded) return `A piece goes on along one shoot of ${names(crowded.parent!)}, not along two.`;
  const placed = placeTree(tree);
  for (const { part, parent } of own) {
    const carrier = carrierOf(parent);
    if (!carrier) continue;
    const { shoulders } = workOn(placed, carrier.branch, [part.branch]);
    const shoulder = shoulders.get(part.branch)!;
    if (!touchesFor(shoulder, needOf(placed, run, part), run.size / 2, arrivingOn(shoulder, carrier.hand, run.angle)).length)
      return `Wound ${sayHand(carrier)} on ${names(carrier.branch)}, it does not come round the shoulder of ${names(part.branch)} ${saidOf(part)}: turn the hand of one of them.`;
  }
  if (!a || !b || canJoin(workOn(placed, ends[0]!.parent!, [a.branch, b.branch]), needOf(placed, run, a), needOf(placed, run, b))) return null;
  const round = run.side ? ` round the ${run.side === 'behind' ? 'back' : 'front'}` : '';
  return `No way of half a turn to two and a half leads from ${names(a.branch)} (${saidOf(a)}) to ${names(b.branch)} (${saidOf(b)})${round}: turn the hand of one of them.`;
}

const sayHand = ({ hand }: RunBranch): string => (hand === 'cw' ? 'clockwise' : 'counter-clockwise');
const saidOf = (part: RunBranch): string => `${part.start} and ${sayHand(part)}`;

const needOf = (placed: PlacedTree, run: Run, own: RunBranch): Need => ({
  branch: own.branch,
  ...(run.side ? { side: run.side } : {}),
  metal: run.metal,
  size: sizeSold(run.metal, run.size),
  gauge: 0,
  strands: run.strands,
  angle: run.angle,
  diameter: placed.byId.get(own.branch)!.branch.d,
  wish: { hand: own.hand, start: own.start, must: 'both' },
  coilLength: lengthOf(placed.byId.get(own.branch)!.line) * Math.SQRT2,
});

/** A limb with some of its branches, and nothing else on it. */
function workOn(placed: PlacedTree, limb: string, branches: readonly string[]): LimbWork {
  const bark = new FlatBark(woodIn(placed, limb)!.line);
  const { front } = placed.tree.plan;
  return {
    bark,
    shoulders: new Map(branches.map((id) => [id, shoulderOf(id, bark, new FlatBark(placed.byId.get(id)!.line, bark))])),
    knots: [],
    coil: null,
    toward: front ? screenAxes(front.bearing).toward : null,
    outsidesOn: () => [],
    lay: () => null,
    stuck: new Set(),
    wires: [],
    keep: keepNothing,
  };
}
