import {
  greatestOf,
  anchorsOf,
  chanceOfStage,
  drawnBranch,
  deviceFor,
  deviceKindsFor,
  drawnDevice,
  type GuyRef,
  type RankedAnchor,
  chanceSet,
  compactWays,
  dayOf,
  frontEvidence,
  growthShare,
  isoOf,
  judgeFront,
  likelyStage,
  PARTS,
  placeTree,
  plantingAngle,
  pulledAlone,
  TipDrag,
  trunkOptions,
  worthKnowing,
  cameraOf,
  greenOf,
  withGreen,
  measuredBySight,
  sayScale,
  setOf,
  sinceBefore,
  SightMemory,
  workOutSight,
  planTree,
  consequencesOf,
  findingEvidence,
  outcomeOf,
  planPose,
  posedLines,
  proposePoses,
  scanFronts,
  shortestReach,
  speciesOf,
  watch,
  watchingOf,
  pastsFor,
  PlanMemory,
  type Known,
  type PastChoice,
  type Watching,
  type CompactWay,
  type Consequences,
  type Device,
  type DeviceKind,
  type Drag,
  type Evidence,
  type Front,
  type FrontResult,
  type Hemisphere,
  type Limb,
  type MarkStage,
  type Part,
  type PlanDocument,
  type PlanPose,
  type Pose,
  type Planting,
  type GreenMask,
  type MeasuredBySight,
  type Sight,
  type Since,
  type Tree,
  type TrunkOption,
  type WorthKnowing,
  type Vec,
  type View,
  type Weights,
} from '@ustle/core';

export interface RaceCurve {
  run: string;
  branch: string;
  days: string[];
  touching: number[];
  marking: number[];
  set: (number | null)[];
}

const pause = (): Promise<void> => new Promise((done) => setTimeout(done));

let searchNow = 0;
/** Of the tree's last plan: most acts concern few of its limbs, many none. */
const memory = new PlanMemory();
let tipDrag: TipDrag | null = null;

const sightMemory = new SightMemory();

/** A tree's photos worked out; or why they cannot be, with what is wrong of each. */
export type SightAnswer =
  | { sight: Sight; by: MeasuredBySight; again: { since: Since[]; rmsMm: number } | null; refused: null; scale: string | null }
  /** Worked out, but not in the tree's space yet. */
  | { sight: Sight; by: null; again: null; refused: string; scale: string | null }
  | { sight: null; by: null; again: null; refused: string; left: Sight['left']; scale: null };

/** The heavy work, off the page's thread. */
export const planner = {
  /** The branches of a tree with their foliage as its photos show it, and what is left for the crown; null where they tell too little. */
  green(tree: Tree, masks: Map<string, GreenMask>): { branches: Tree['branches']; rest: number } | null {
    const cameras = new Map((tree.sight?.photos ?? []).flatMap((p) => (p.camera ? [[p.photo, cameraOf(p.camera)] as const] : [])));
    const found = greenOf(tree, masks, cameras);
    return found && { branches: withGreen(tree, found), rest: found.rest };
  },

  /** Where a tree's photos were taken from, what was drawn over them as lines in space, and the tree as it would be measured by them. */
  sight(tree: Tree): SightAnswer | null {
    if (!tree.sight?.photos.length) return null;
    const sight = workOutSight(setOf(tree.sight, tree.pot), sightMemory);
    if ('refused' in sight) return { sight: null, by: null, again: null, scale: null, ...sight };
    const scale = sayScale(tree, tree.sight, sight);
    const before = tree.sight.earlier?.findLast((round) => round.photos.some((p) => p.camera));
    const again = before && sinceBefore(sight, before);
    if (typeof again === 'string') return { sight, by: null, again: null, refused: again, scale };
    return { sight: again?.sight ?? sight, by: measuredBySight(tree, tree.sight, again?.sight ?? sight), again: again ?? null, refused: null, scale };
  },

  /** Places that a branch can be tied to, the best first. */
  anchors: (tree: Tree, poses: PlanDocument['poses'], branch: string, at: number | undefined): { at: number; fork: string | null; anchors: RankedAnchor[] } =>
    anchorsOf(placeTree(outcomeOf(tree).tree), poses, branch, at),

  /** A branch while its ties are drawn by a share. */
  drawn: (tree: Tree, poses: PlanDocument['poses'], guys: GuyRef[], share: number): ReturnType<typeof drawnBranch> =>
    drawnBranch(placeTree(outcomeOf(tree).tree), poses, guys, share),

  /** The kinds of device that can be set on a branch or the trunk at all. */
  deviceKinds: (tree: Tree, poses: PlanDocument['poses'], branch: string): DeviceKind[] => deviceKindsFor(placeTree(outcomeOf(tree).tree), poses, branch),

  /** A device of a kind that bears its checks there; or why there is none. */
  deviceFor: (tree: Tree, poses: PlanDocument['poses'], kind: DeviceKind, branch: string): ReturnType<typeof deviceFor> =>
    deviceFor(placeTree(outcomeOf(tree).tree), poses, kind, branch),

  /** A device that has done a share of its work. */
  device: (tree: Tree, poses: PlanDocument['poses'], device: Device, share: number): ReturnType<typeof drawnDevice> =>
    drawnDevice(placeTree(outcomeOf(tree).tree), poses, device, share),

  plan: (tree: Tree, on: string, known: Known): PlanDocument => planTree(tree, dayOf(on), { fronts: false, places: true, memory, known }),

  /** Angles to measure, scars, and what was learnt of the tree. */
  watching: (tree: Tree, on: string, known: Known): Watching => watchingOf(tree, dayOf(on), known),

  /** What each way of leaving a branch past its target would come to, under the wire that is planned for it. */
  pasts: (tree: Tree, on: string, branch: string, known: Known): PastChoice[] => pastsFor(tree, dayOf(on), branch, known),

  /** Searches the fronts; a coarse rose first, then the fine one, level before tilted. A later call ends an earlier one, which answers null. */
  async fronts(tree: Tree, search: { tilts: number[]; weights: Weights }, onRose: (rose: Front[], done: number) => void): Promise<FrontResult | null> {
    const mine = ++searchNow;
    const placed = placeTree(outcomeOf(tree).tree);
    const common = { weights: search.weights };
    const coarse: Front[] = [...scanFronts(placed, { ...common, step: 15 })];
    onRose(coarse, 0);
    const scan = scanFronts(placed, { ...common, step: 3, pitches: search.tilts, rolls: search.tilts });
    for (let done = 0; ; done++) {
      const next = scan.next();
      if (next.done) return next.value;
      if (done % 6 === 5) {
        onRose(coarse, done / 120);
        await pause();
        if (mine !== searchNow) return null;
      }
    }
  },

  stopSearch(): void {
    searchNow++;
  },

  /** One view with its reasons, and what its planting angle does. */
  judge(tree: Tree, view: View, weights: Weights): { front: Front; planting: Planting; evidence: Record<Part, Evidence> } {
    const placed = placeTree(outcomeOf(tree).tree);
    const front = judgeFront(placed, view, weights);
    return {
      front,
      planting: plantingAngle(placed, view),
      evidence: Object.fromEntries(PARTS.map((p) => [p, frontEvidence(placed, front, p)])) as Record<Part, Evidence>,
    };
  },

  /** A branch drawn to where its pose has it by pulling alone, beside its wired line. */
  pulledAlone: (tree: Tree, poses: readonly PlanPose[], branch: string): ReturnType<typeof pulledAlone> =>
    pulledAlone(placeTree(outcomeOf(tree).tree), poses, branch),

  /** The ways to make a branch shorter, and where its wood bears none of them the shortest that it does. */
  compact(tree: Tree, poses: readonly PlanPose[], asked: Parameters<typeof compactWays>[2]): { ways: CompactWay[]; least: number | null } {
    const placed = placeTree(outcomeOf(tree).tree);
    const ways = compactWays(placed, poses, asked);
    return { ways, least: ways[0]!.bears ? null : shortestReach(placed, poses, asked) };
  },

  /** Another pose of a branch than the plan has: its bends, and its line in the tree's own space. */
  otherPose(tree: Tree, other: Pose): { pose: PlanPose; line: Limb } | null {
    const poses = [...tree.plan.poses.filter((p) => p.branch !== other.branch), other];
    const changed = outcomeOf({ ...tree, plan: { ...tree.plan, poses } }).tree;
    const placed = placeTree(changed);
    const posed = proposePoses(placed).poses;
    const found = posed.find((p) => p.branch === other.branch);
    return found ? { pose: planPose(changed, found, undefined, undefined, 0), line: posedLines(placed, posed).get(other.branch)! } : null;
  },

  /** A tip dragged to a place, mm in the tree's own space; null begins the drag. */
  drag(tree: Tree, poses: readonly PlanPose[], branch: string, to: Vec | null, whole: boolean): Drag | null {
    if (!to) tipDrag = new TipDrag(placeTree(outcomeOf(tree).tree), poses, branch);
    return to && tipDrag ? tipDrag.to(to, whole) : null;
  },

  /** Bending the trunk against cutting it. */
  trunk: (tree: Tree, on: string): TrunkOption[] => trunkOptions(outcomeOf(tree).tree, dayOf(on)),

  /** The numbers whose uncertainty changes what is done. */
  worthKnowing: (tree: Tree, plan: Pick<PlanDocument, 'poses' | 'runs'>, on: string): WorthKnowing[] => worthKnowing(tree, plan, dayOf(on)),

  /** What the cuts of the plan lead to. */
  consequences: (tree: Tree, on: string): Consequences => consequencesOf(tree, dayOf(on)),

  /** What the findings on a branch saw, as seen from the chosen front. */
  findingEvidence(tree: Tree, branch: string): Evidence {
    const placed = placeTree(tree);
    return findingEvidence(placed, tree.plan.front ? judgeFront(placed, tree.plan.front) : null, branch);
  },

  /** Chances over time of each coil that is on the tree, a point a week. */
  curves(tree: Tree, on: string, weeks: number, known: Known): RaceCurve[] {
    const today = dayOf(on);
    return watch(placeTree(tree), today, known).map(({ coil, state }) => {
      const days = Array.from({ length: weeks }, (_, i) => coil.since + i * 7);
      return {
        run: coil.run,
        branch: coil.branch,
        days: days.map(isoOf),
        touching: days.map((d) => chanceOfStage(state, 'touching', d)),
        marking: days.map((d) => chanceOfStage(state, 'marking', d)),
        set: days.map((d) => chanceSet(state, d)),
      };
    });
  },

  /** The likeliest stage of every coil on a day, and its chance of being set. */
  stages(tree: Tree, today: string, on: string, known: Known): { branch: string; stage: MarkStage; set: number | null }[] {
    const day = dayOf(on);
    return watch(placeTree(tree), dayOf(today), known)
      .filter(({ coil }) => coil.since <= day)
      .map(({ coil, state }) => ({ branch: coil.branch, stage: likelyStage(state, day), set: chanceSet(state, day) }));
  },

  /** Growth laid down per week over a stretch of time, 1 at the strongest week of the year. */
  season(species: string, hemisphere: Hemisphere, from: string, weeks: number): number[] {
    const kind = speciesOf(species);
    const first = dayOf(from);
    const weekly = Array.from({ length: weeks }, (_, i) => growthShare(kind, hemisphere, first + i * 7, first + i * 7 + 7));
    const most = greatestOf(weekly);
    return weekly.map((w) => w / most);
  },
};

export type Planner = typeof planner;
