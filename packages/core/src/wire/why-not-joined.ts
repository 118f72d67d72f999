import { keepNothing } from '../units/index.js';
import { lengthOf, screenAxes } from '../space/index.js';
import { sizeSold } from '../wood/index.js';
import { namesOf, placeTree, type Run, type RunBranch, type Tree } from '../tree/index.js';
import { FlatBark } from './flat-bark.js';
import { canJoin } from './join-ways.js';
import type { LimbWork, Need } from './limb-work.js';
import { shoulderOf } from './shoulders.js';

/** Why two branches cannot share a piece of wire as asked; null where they can. */
export function whyNotJoined(tree: Tree, run: Run): string | null {
  const [a, b] = run.branches.map((own) => tree.branches.find((x) => x.id === own.branch)!);
  const names = namesOf(tree);
  if (!a || !b) return null;
  if (a.id === b.id) return 'One piece needs two branches; these are one.';
  if (a.parent !== b.parent) return `${names(a.id)} and ${names(b.id)} do not grow on the same limb: a piece goes round one limb from the one to the other.`;
  const placed = placeTree(tree);
  const limb = new FlatBark(a.parent === 'trunk' ? placed.trunk : placed.byId.get(a.parent)!.line);
  const need = (own: RunBranch): Need => ({
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
  const shoulders = new Map([a, b].map(({ id }) => [id, shoulderOf(id, limb, new FlatBark(placed.byId.get(id)!.line, limb))]));
  const { front } = tree.plan;
  const work: LimbWork = {
    bark: limb,
    shoulders,
    knots: [],
    coil: null,
    toward: front ? screenAxes(front.bearing).toward : null,
    lay: () => null,
    stuck: new Set(),
    wires: [],
    keep: keepNothing,
  };
  const [one, other] = run.branches as [RunBranch, RunBranch];
  if (canJoin(work, need(one), need(other))) return null;
  const said = ({ hand, start }: RunBranch): string => `${start} and ${hand === 'cw' ? 'clockwise' : 'counter-clockwise'}`;
  return `No way of half a turn to two and a half leads from ${names(a.id)} (${said(one)}) to ${names(b.id)} (${said(other)})${run.side ? ` round the ${run.side === 'behind' ? 'back' : 'front'}` : ''}: turn the hand of one of them.`;
}
