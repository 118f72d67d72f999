import { bendsBetween, linesInWorld, ownWay, presentLine, restFor, standingOf } from '../pose/index.js';
import { distance, lengthOf, limb, type Limb, type Vec } from '../space/index.js';
import { childrenOf, guysOn, type LineOf, type MarkStage, type Names, type PlacedTree, type PlannedPose, type Tree } from '../tree/index.js';
import {
  anchorAt,
  costOf,
  drawnTo,
  NEAR_DEG,
  rankAnchors,
  solveGuys,
  tieOf,
  tiePointOf,
  worldOn,
  type GuyPlan,
  type GuyRef,
  type GuyWorld,
  type Held,
  type RankedAnchor,
  type TieToCheck,
} from '../guy/index.js';
import { type IfWired, watchGuys, type WatchedGuy } from '../growth/index.js';
import { isoOf, keepNothing } from '../units/index.js';
import { sayMetal, stagesFor } from '../wood/index.js';
import type { RunPlan, WiringPlan } from '../wire/index.js';
import { digits } from './digits.js';
import { datesOfStages } from './stage-days.js';
import { turnNear } from './tie-on-turn.js';

/** A guy as the plan tells it. Points and lines are in the tree's own space. */
export interface PlanGuy extends Omit<GuyPlan, 'line'> {
  /** Whether the plan fixes it; else it is proposed. */
  fixed: boolean;
  /** Pulls with rest between them, the rest in words, and the days of those to come; null: more than the wood takes in one season. */
  stages: number | null;
  rest: string;
  dates: string[];
  /** The piece of wire on its branch, which goes on first; null where it has none. */
  coil: string | null;
  /** What its cushion lies on, where its branch has wire. */
  overWire: string | null;
  /** The branch as the tie draws it. */
  line: Vec[];
  /** The same as bends of the line that it has without, in the tree's own space: what the record keeps of it. */
  bends: DrawnBend[];
  /** Of one that is on: since when, its twists, the day to look at its cushion, from when the branch is likely to hold without it, and from when one in ten such cushions marks. */
  on: { since: string; twists: number; look: string; holds: string | null; marks: string | null; bark: MarkStage | null } | null;
}

/** A bend that a tie makes of its branch. */
export type DrawnBend = NonNullable<LineOf<'guyed'>['bends']>[number];

const PAIR_OF = 5;
/** So many bends tell how a tie or a device leads wood. */
const DRAWN_IN = 5;

/** How wood is led from one line to another, up to a place of it, as the record keeps it: in the tree's own space. */
export const drawnBends = (tree: Tree, now: Limb, led: Limb, to: number): DrawnBend[] =>
  bendsBetween(now, led, to, DRAWN_IN).map(({ at, length, angle, toward }) => ({
    at: digits(at, 1),
    over: digits(length, 1),
    bentDeg: digits(angle, 1),
    toward: ownWay(tree, toward),
  }));

type Ties = readonly TieToCheck[];
type Poses = readonly Pick<PlannedPose, 'branch' | 'bends'>[];

/** The tree as its guys find it. */
export const guyWorld = (placed: PlacedTree, poses: Poses, keep = keepNothing): GuyWorld => worldOn(placed.tree, linesInWorld(placed, poses, 1, keep), keep);

/** A branch as it lies with what it grows on posed, and as it is posed itself. */
export const heldBranch = (world: GuyWorld, placed: PlacedTree, poses: Poses, branch: string): Held => ({
  branch,
  now: presentLine(placed, poses, branch),
  wanted: world.lines.get(branch)!,
});

/** From how many mm on a change of a tie's length matters. */
const TAUT = 1.5;

/** What has become of a tie that is on, where its ends are no longer as far apart as when it was drawn: the planting angle was changed, or the branch moved. */
function sayTaut(on: WatchedGuy | undefined, now: number): string[] {
  if (!on || on.length === null || Math.abs(now - on.length) < TAUT) return [];
  const by = Math.abs(now - on.length).toFixed(0);
  return now < on.length
    ? [`It hangs ${by} mm slack at the planting angle and pose of now: twist it shorter.`]
    : [`It would be drawn ${by} mm tighter at the planting angle and pose of now: let it out first.`];
}

/** The pieces of wire that a plan's ties lie over. */
type Runs = WiringPlan['runs'];
const runOn = (runs: Runs, branch: string): RunPlan | undefined => runs.find((r) => r.branches.some((b) => b.branch === branch));

/** Which turn of a branch's wire its cushion lies on, or is better laid on. */
function sayOverWire(placed: PlacedTree, run: RunPlan, guy: GuyPlan): string {
  const turn = turnNear(placed, run, [guy]);
  const wire = sayMetal(run.metal, run.size);
  if (childrenOf(placed.tree, guy.branch).some((c) => Math.abs(c.at - guy.at) <= 1)) return `It lies in the fork of a side shoot, over its wire (${wire}).`;
  if (turn === null) return `No turn of its wire (${wire}) bears the pull there: a wider cushion, over the wire.`;
  return Math.abs(turn - guy.at) <= guy.cushion.width / 2
    ? `The cushion lies on a turn of its wire (${wire}), which spreads the pull.`
    : `The turn of its wire (${wire}) that would spread the pull lies at ${turn.toFixed(0)} mm: the tie is better there.`;
}

function told(
  placed: PlacedTree,
  onDay: number,
  { fixed, now }: { fixed: boolean; now: Limb },
  guy: GuyPlan,
  on: WatchedGuy | undefined,
  run: RunPlan | undefined,
): PlanGuy {
  const { back } = standingOf(placed);
  const stages = guy.tension > 0 ? stagesFor(guy.risk) : 1;
  const rest = restFor(guy.diameter, guy.risk);
  const taut = distance(guy.from, guy.to);
  const line = (of: Limb): Vec[] => of.points.map((p) => rounded(back(p)));
  return {
    ...guy,
    fixed,
    coil: run?.id ?? null,
    overWire: run ? sayOverWire(placed, run, guy) : null,
    because: [...guy.because, ...sayTaut(on, taut)],
    tension: digits(guy.tension, 1),
    length: digits(guy.length, 0),
    wireLength: digits(guy.wireLength, 0),
    shortening: digits(guy.shortening, 1),
    byHand: digits(guy.byHand, 0),
    windlassTurns: digits(guy.windlassTurns, 1),
    arch: digits(guy.arch, 1),
    archWired: digits(guy.archWired, 1),
    missDeg: digits(guy.missDeg, 1),
    askedDeg: digits(guy.askedDeg, 1),
    strain: digits(guy.strain, 3),
    strainAt: digits(guy.strainAt, 0),
    diameter: digits(guy.diameter, 1),
    risk: digits(guy.risk, 2),
    checks: guy.checks.map((c) => ({ ...c, value: digits(c.value, 2), limit: digits(c.limit, 2) })),
    stages,
    rest: stages !== null && stages > 1 ? rest.text : '',
    dates: datesOfStages(placed.tree, { stages, restDays: rest.days, all: guy.windlassTurns, on }, onDay),
    from: rounded(back(guy.from)),
    to: rounded(back(guy.to)),
    line: line(guy.line),
    bends: drawnBends(placed.tree, now, guy.line, Math.min(guy.at, lengthOf(now))),
    on: on
      ? {
          since: isoOf(on.since),
          twists: on.twists,
          look: isoOf(on.look),
          holds: on.holds === null ? null : isoOf(on.holds),
          marks: on.marks.p10 === null ? null : isoOf(on.marks.p10),
          bark: on.bark,
        }
      : null,
  };
}

const rounded = (p: Vec): Vec => [digits(p[0], 1), digits(p[1], 1), digits(p[2], 1)];

/** The anchors for a tie, and with one tie or two the nearest that it can be drawn to; tied on a turn of the branch's wire, where it has any. */
function proposeFor(placed: PlacedTree, world: GuyWorld, held: Held, run: RunPlan | undefined, others: Ties): GuyPlan[] {
  const { at, fork } = tiePointOf(world, held);
  const ranked = rankAnchors(world, held, at, others);
  const [best] = ranked;
  if (!best) return [];
  const solved = (where: number, ...to: RankedAnchor[]): GuyPlan[] =>
    solveGuys(
      world,
      held,
      to.map(({ anchor }, n): GuyRef => ({ id: `${n}`, branch: held.branch, at: where, anchor })),
      others,
    );
  const onTurn = (guys: GuyPlan[], ...to: RankedAnchor[]): GuyPlan[] => {
    const turn = run && !fork ? turnNear(placed, run, guys) : null;
    return turn === null ? guys : solved(Math.round(turn), ...to);
  };
  const single = solved(at, best);
  if (best.missDeg <= NEAR_DEG && best.band !== 'no') return onTurn(single, best);
  // One pull does not lead there: two may.
  const few = ranked.slice(0, PAIR_OF);
  const pairs = few.flatMap((a, i) => few.slice(i + 1).map((b) => [a, b] as const));
  const tried = pairs.map((to) => ({ to, guys: solved(at, ...to) })).sort((x, y) => costOf(x.guys) - costOf(y.guys));
  const [two] = tried;
  return two && costOf(two.guys) < 0.6 * costOf(single) && two.guys.every((g) => g.tension > 1) ? onTurn(two.guys, ...two.to) : onTurn(single, best);
}

/** What hands can make of a tie: two hands draw no harder, thinner wood is not tied, and what hardly pulls is none. docs: What hands can do. */
const HANDS = { mostN: 150, leastN: 5, leastMm: 4, leastDeg: 6 };
/** Where a pose asks for more than can be tied: such shares of it are tried. */
const LESS = [0.7, 0.5, 0.3, 0.18];

const canBeMade = (guys: readonly GuyPlan[]): boolean =>
  guys.length > 0 && guys.every((g) => g.checks.every((c) => c.ok) && g.tension >= HANDS.leastN && g.tension <= HANDS.mostN && g.diameter >= HANDS.leastMm);

/** The ties of a plan, and branches of which no tie that hands can make reaches the pose: the share of it that one does reach, 0 where none reaches any. */
export interface TiesMade {
  guys: PlanGuy[];
  less: ReadonlyMap<string, number>;
}

/** Every tie of a plan: those that are fixed, worked out together branch by branch, and one for each branch that no coil holds, if hands can make it. */
export function planGuys(
  placed: PlacedTree,
  poses: Poses,
  { runs, toTie }: Pick<WiringPlan, 'runs' | 'toTie'>,
  onDay: number,
  { keep = keepNothing, known }: IfWired = {},
): TiesMade {
  const { tree } = placed;
  const here = tree.plan.guys.filter((g) => placed.byId.has(g.branch));
  const less = new Map<string, number>();
  if (!here.length && !toTie.length) return { guys: [], less };
  const world = guyWorld(placed, poses, keep);
  const on = new Map(watchGuys(placed, onDay, known).map((g) => [g.guy, g]));
  const guys: PlanGuy[] = [];
  const ties: TieToCheck[] = [];
  const take = (fixed: boolean, now: Limb, plans: readonly GuyPlan[]): void => {
    for (const plan of plans) {
      ties.push(tieOf(plan, world));
      guys.push(told(placed, onDay, { fixed, now }, plan, on.get(plan.id), runOn(runs, plan.branch)));
    }
  };
  for (const branch of new Set(here.map((g) => g.branch))) {
    const posed = heldBranch(world, placed, poses, branch);
    // A branch that a tie has drawn is measured as it is held; where its artist wants it nowhere else, that is where it shall be.
    const stays = here.some((g) => g.branch === branch && on.has(g.id)) && !tree.plan.poses.some((p) => p.branch === branch);
    const held = stays ? { ...posed, wanted: posed.now } : posed;
    const own = here.filter((g) => g.branch === branch && g.at <= lengthOf(held.now));
    const drawn = own.slice(0, 2).map((g): GuyRef => {
      const tension = on.get(g.id)?.tension ?? null;
      return { ...g, ...(tension === null ? {} : { drawnWith: tension }) };
    });
    if (drawn.length) take(true, held.now, solveGuys(world, held, drawn, ties));
  }
  const used = new Set(tree.plan.guys.map((g) => g.id));
  let next = 1;
  const free = (): string => {
    while (used.has(`g${next}`)) next++;
    used.add(`g${next}`);
    return `g${next}`;
  };
  for (const branch of toTie) {
    const held = heldBranch(world, placed, poses, branch);
    const run = runOn(runs, branch);
    const proposed = proposeFor(placed, world, held, run, ties);
    if (canBeMade(proposed)) {
      take(
        false,
        held.now,
        proposed.map((guy) => ({ ...guy, id: free() })),
      );
      continue;
    }
    const reaches = (share: number): boolean => {
      const part = poses.map((p) => (p.branch === branch ? { ...p, bends: p.bends.map((b) => ({ ...b, angle: b.angle * share })) } : p));
      const guys = proposeFor(placed, world, { ...held, wanted: linesInWorld(placed, part, 1, keep).get(branch)! }, run, ties);
      return canBeMade(guys) && guys.every((g) => g.askedDeg >= HANDS.leastDeg);
    };
    less.set(branch, placed.byId.get(branch)!.branch.d < HANDS.leastMm ? 0 : (LESS.find(reaches) ?? 0));
  }
  return { guys, less };
}

/** Ties that lose their branch or their anchor by what the plan takes off or by what was measured anew, and the way out. */
export function lostTies(tree: Tree, after: PlacedTree, onDay: number, names: Names): string[] {
  const on = new Set(guysOn(tree, onDay).map((g) => g.guy));
  const world = guyWorld(after, []);
  return tree.plan.guys.flatMap((g) => {
    const tie = `The tie on ${names(g.branch)} (${g.id})`;
    const line = world.lines.get(g.branch);
    if (!line) return [`${tie} ${on.has(g.id) ? 'comes off with its branch: let it go slowly before the cut' : 'goes with its branch'}.`];
    if (anchorAt(world, g.anchor, line.points[0]!)) return [];
    const other = g.anchor.branch;
    const why =
      other && !after.byId.has(other) ? `was to hold on to ${names(other)}, which goes: leave a stub of it as dead wood, or` : 'has no anchor any more:';
    return [`${tie} ${why} choose another anchor${on.has(g.id) ? ' and tie it there before the old one is let go' : ''}.`];
  });
}

/** All anchors for a tie on one branch, the best first, and where it is tied (in a fork, where there is one); points in the tree's own space. */
export function anchorsOf(placed: PlacedTree, poses: Poses, branch: string, asked?: number): { at: number; fork: string | null; anchors: RankedAnchor[] } {
  const world = guyWorld(placed, poses);
  const held = heldBranch(world, placed, poses, branch);
  const { back } = standingOf(placed);
  const best = tiePointOf(world, held);
  const at = asked ?? best.at;
  return { at, fork: at === best.at ? best.fork : null, anchors: rankAnchors(world, held, at).map((r) => ({ ...r, point: back(r.point) })) };
}

/** A branch while its ties are drawn by a share, and what that asks of its wood; the line in the tree's own space. */
export function drawnBranch(
  placed: PlacedTree,
  poses: Poses,
  guys: readonly GuyRef[],
  share: number,
): Omit<ReturnType<typeof drawnTo>, 'line'> & { line: Limb } {
  const { back } = standingOf(placed);
  const world = guyWorld(placed, poses);
  const drawn = drawnTo(world, heldBranch(world, placed, poses, guys[0]!.branch), guys, share);
  return { ...drawn, line: limb(drawn.line.points.map(back), drawn.line.diameters) };
}
