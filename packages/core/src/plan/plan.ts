import { dayOf, isoOf, sayDay } from '../units/index.js';
import { findSpecies } from '../species/index.js';
import { judgeFront, searchFronts, tiltsFor, type Front, type PartScores } from '../front/index.js';
import { findingsOf, openGaps, type Finding } from '../removal/index.js';
import { readTree, type OtherWork, type Reading } from '../reading/index.js';
import { bentTrunk, isHeavy, proposePoses, type AsGrown } from '../pose/index.js';
import { promisesOf } from '../season/index.js';
import { asItLay, asItStands, trunkStays } from '../stand/index.js';
import {
  greenTally,
  crackedOn,
  heldShapeOf,
  withLiveRuns,
  bendingOf,
  namesOf,
  outcomeOf,
  placeTree,
  type GreenTally,
  type PlacedTree,
  type PlannedPose,
  type Tree,
  coilsOn,
  SAME_SESSION_DAYS,
  type Tolerance,
  type TrunkWay,
  unfinishedCuts,
} from '../tree/index.js';
import { angle, digits } from './digits.js';
import { planBends, planPose, type PlanPose } from './poses.js';
import { bendsToGo, intoWorld, madeOf, posesToGo } from './rest.js';
import { sayGreen } from './past.js';
import type { PlanMemory, Unwired } from '../wire/index.js';
import { coverageOf, cutListOf, type Coverage, type PlanCut } from './coverage.js';
import { lostTies, type PlanGuy } from './guys.js';
import type { FaultyDevice, PlanDevice } from './devices.js';
import { holdPoses, letBeCracked, NOTHING_HELD } from './hold-poses.js';
import { latelyOf } from './lately.js';
import { lostAnchors } from './lost-anchors.js';
import { planRun, type PlanRun } from './runs.js';
import { coilTask, unwiringOf, watch, type CoilTaskKind, type Dates, type Known, type Unwiring, type Watched } from '../growth/index.js';

export interface PlanFront {
  bearing: number;
  pitch: number;
  roll: number;
  score: number;
  wedge: number;
  parts: PartScores;
}

interface IsoDates {
  p10: string | null;
  p50: string | null;
  p90: string | null;
}

export interface PlanWire {
  run: string;
  branch: string;
  since: string;
  touching: IsoDates;
  marking: IsoDates;
  set: IsoDates;
  cleanWindow: { from: string; to: string } | null;
  tolerance: Tolerance;
  deep: IsoDates;
  advice: string;
  nextInspection: string;
  /** What is to be done with it, and by when; `late`: that was to be before today. */
  task: { kind: CoilTaskKind; on: string; late: boolean };
  because: string[];
  /** When the turns at its bend, and those on straight wood, mark by themselves; none where all are alike. */
  stretches: { where: 'bend' | 'straight'; p10: string | null; p50: string | null }[];
  /** What of it to take off now, and how. */
  unwiring: Unwiring;
  /** The next look was put off to that day, and why. */
  snoozed: { until: string; why: string } | null;
}

/** The whole plan of one tree on one day (docs/tree-file.md, "The plan document"). */
export interface PlanDocument {
  format: 'ustle-plan';
  version: 1;
  tree: string;
  on: string;
  read: Reading;
  fronts: PlanFront[];
  findings: Finding[];
  green: GreenTally;
  poses: PlanPose[];
  /** What the trunk is bent into, with its bends; null where it stays as it stands. */
  trunk: ({ way: TrunkWay; device: string | null } & Pick<PlanPose, 'bends' | 'bending'>) | null;
  /** Kept branches that stay as they grow, and why. */
  asGrown: AsGrown[];
  runs: PlanRun[];
  unwired: Unwired[];
  order: string[];
  /** What the pieces that are not on yet take, by metal and size. */
  cutList: PlanCut[];
  /** How much of the tree carries wire, and what of it is too much for one session. */
  coverage: Coverage;
  /** Ties that the plan fixes, and those proposed for what no coil holds. */
  guys: PlanGuy[];
  /** Spreaders, props, jacks, clamps and frames that the plan has. */
  devices: (PlanDevice | FaultyDevice)[];
  /** Ties that lose their branch or their anchor, and the way out. */
  lostTies: string[];
  wires: PlanWire[];
  notes: string[];
}

function frontsOf(placed: PlacedTree, tilts: readonly number[]): Front[] {
  const found = searchFronts(placed, { pitches: tilts, rolls: tilts }).candidates;
  const own = placed.tree.plan.front;
  if (!own) return found;
  return [judgeFront(placed, own), ...found.filter((f) => Math.abs(f.bearing - own.bearing) > 0.5)];
}

const iso = (day: number | null): string | null => (day === null ? null : isoOf(day));
const isoDates = ({ p10, p50, p90 }: Dates): IsoDates => ({ p10: iso(p10), p50: iso(p50), p90: iso(p90) });

function planWire(watched: Watched, onDay: number): PlanWire {
  const { coil, race, nextInspection, stretches, snoozed } = watched;
  const task = coilTask(watched, onDay);
  return {
    run: coil.run,
    branch: coil.branch,
    since: isoOf(coil.since),
    touching: isoDates(race.forecast.touching),
    marking: isoDates(race.forecast.marking),
    set: isoDates(race.forecast.set),
    cleanWindow: race.window ? { from: isoOf(race.window.from), to: isoOf(race.window.to) } : null,
    tolerance: race.tolerance,
    deep: isoDates(race.forecast.deep),
    advice: race.advice,
    nextInspection: isoOf(nextInspection),
    task: { kind: task.kind, on: isoOf(task.day), late: task.since !== null },
    because: race.because,
    stretches: stretches.map(({ where, p10, p50 }) => ({ where, p10: iso(p10), p50: iso(p50) })),
    unwiring: unwiringOf(watched, onDay),
    snoozed: snoozed && { until: isoOf(snoozed.until), why: snoozed.why },
  };
}

export interface PlanOptions {
  /** Without the search for fronts, which takes longest. */
  fronts?: boolean;
  /** With the wires' centre lines, as points on the tree as it now grows. */
  paths?: boolean;
  /** With the places on the bark that they run through, so that they can be laid on the tree however it is bent. */
  places?: boolean;
  /** What is kept of the plan before, so that only what a change concerns is worked out anew. */
  memory?: PlanMemory;
  /** What others of its kind at this place taught, and the weather there. */
  known?: Known;
  /** Without fronts, poses, wire and ties: what is told of a tree whose plan takes longer than anybody waits; the sentence says so. */
  instead?: string;
}

/** What the budget counts of a pose; the trunk's bends are such a one. */
type PosedWork = Pick<PlannedPose, 'branch' | 'from' | 'bends'>;

const heavy = (poses: readonly PosedWork[]): number => poses.reduce((sum, p) => sum + p.bends.filter(isHeavy).length, 0);
const share = (branches: Iterable<string>, of: number): number => (of ? new Set(branches).size / of : 0);

/** What the artist has decided of bends and wire for this session, or done in it. */
export function decidedWork(placed: PlacedTree, poses: readonly PosedWork[], onDay: number): OtherWork {
  const { branches, tree } = placed;
  const done = coilsOn(tree, onDay).filter((c) => onDay - c.since <= SAME_SESSION_DAYS);
  const wired = [...tree.plan.runs.flatMap((r) => r.branches.map((b) => b.branch)), ...done.map((c) => c.branch)];
  const old = new Set(coilsOn(tree, onDay).flatMap((c) => (onDay - c.since > SAME_SESSION_DAYS ? c.branch : [])));
  return {
    heavyBends: heavy(poses.filter((p) => p.from === 'plan')) + latelyOf(placed, onDay).heavyBends,
    wiredShare: share(
      wired.filter((id) => !old.has(id)),
      branches.length,
    ),
  };
}

/** What posing and wiring would ask if all that is proposed were done. */
export const proposedWork = ({ branches }: PlacedTree, poses: readonly PosedWork[]): OtherWork => ({
  heavyBends: heavy(poses),
  wiredShare: share(
    poses.map((p) => p.branch),
    branches.length,
  ),
});

/** The trunk's bends with what is left of each. */
const trunkToGo = (all: ReturnType<typeof planBends>, made: readonly number[]): ReturnType<typeof planBends> => ({ ...all, bends: bendsToGo(all.bends, made) });

/** The plan of a tree on a day number: what its file fixes is checked and kept, what it leaves open is proposed. */
export function planTree(
  measured: Tree,
  onDay: number,
  { fronts: wanted = true, paths = false, places = false, memory, known, instead }: PlanOptions = {},
): PlanDocument {
  const stands = withLiveRuns(asItStands(measured, onDay), onDay);
  const placed = placeTree(stands);
  // Fronts, poses and wire are for the tree as the plan's cuts leave it.
  const standsAfter = placeTree(outcomeOf(stands).tree);
  const fronts = wanted && !instead ? frontsOf(standsAfter, tiltsFor(stands, onDay)) : [];
  // What is bent under wire is told from where its branch lay as that went on: so were its bends reckoned, and so the wire was wound.
  const tree = withLiveRuns(asItLay(measured, onDay), onDay);
  const [before, after] = tree.calledBy ? [placeTree(tree), placeTree(outcomeOf(tree).tree)] : [placed, standsAfter];
  const bending = bendingOf(tree, onDay);
  const cracked = crackedOn(tree, onDay);
  const trunk = instead ? null : bentTrunk(after);
  const { poses, asGrown, wiring, guys, devices, unheld, lowered } = instead
    ? NOTHING_HELD
    : holdPoses(after, openGaps(before, after, onDay), (!trunk?.device && trunk?.bends) || [], onDay, { bending, cracked, memory, known });
  const crackedStay = letBeCracked(poses, cracked);
  // What cracked is told of while the record of its bending is open; it gets neither bend nor wire.
  const shown = poses.filter((p) => !cracked.has(p.branch) || bending.has(p.branch));
  const toGo = posesToGo({ poses: shown, asGrown: [...asGrown, ...crackedStay.filter((b) => !bending.has(b.branch))] }, standsAfter, () =>
    proposePoses(standsAfter, openGaps(placed, standsAfter, onDay), memory?.keep, { unheld, lowered }),
  );
  const posesLeft = toGo.poses.map((p) => p.pose);
  const heldTrunk = heldShapeOf(stands, 'trunk');
  const trunkMade = (heldTrunk && trunk && madeOf(trunk.bends, heldTrunk, intoWorld(standsAfter))) ?? [];
  const wired = new Map(wiring.runs.flatMap((r) => r.branches.map((b) => [b.branch, b] as const)));
  const withTrunk: PosedWork[] = trunk ? [...posesLeft, { branch: 'trunk', from: 'plan', bends: trunk.bends }] : posesLeft;
  const reading = readTree(tree, onDay, decidedWork(after, withTrunk, onDay), proposedWork(after, withTrunk));
  const front = tree.plan.front ? judgeFront(placed, tree.plan.front) : null;
  const tally = greenTally(tree, onDay);
  const names = namesOf(stands);
  const on = new Set(coilsOn(tree, onDay).map((c) => c.branch));
  const heavyOn = (branch: string): number => heavy(posesLeft.filter((p) => p.branch === branch));
  return {
    format: 'ustle-plan',
    version: 1,
    tree: tree.name,
    on: isoOf(onDay),
    read: {
      ...reading,
      capacity: digits(reading.capacity, 2),
      used: digits(reading.used, 2),
      ifAll: digits(reading.ifAll, 2),
      uses: reading.uses.map((u) => ({ ...u, points: digits(u.points, 3) })),
    },
    fronts: fronts.map((f) => ({
      bearing: f.bearing,
      pitch: f.pitch,
      roll: f.roll,
      score: digits(f.score, 3),
      wedge: digits(f.wedge, 0),
      parts: Object.fromEntries(Object.entries(f.parts).map(([k, v]) => [k, digits(v, 3)])) as PartScores,
    })),
    findings: findingsOf(placed, front),
    green: {
      removed: digits(tally.removed, 3),
      cap: digits(tally.cap, 3),
      pastYear: digits(tally.pastYear, 3),
      sessions: tally.sessions.map((x) => ({ ...x, removed: digits(x.removed, 3) })),
    },
    poses: toGo.poses.map(({ pose, made }) => planPose(after.tree, pose, wired.get(pose.branch), bending.get(pose.branch), onDay, made)),
    trunk: trunk && {
      ...trunk,
      ...trunkToGo(planBends(after.tree, { branch: 'trunk', bends: trunk.bends }, wired.get('trunk'), bending.get('trunk'), onDay), trunkMade),
    },
    asGrown: toGo.asGrown.map((b) => ({ ...b, bearing: angle(b.bearing), elevation: angle(b.elevation) })),
    runs: wiring.runs.map((run) => planRun(run, { paths, places }, (part) => sayGreen(after, onDay, run, part, known))),
    unwired: wiring.unwired,
    order: [...wiring.runs, ...guys, ...devices].map((x) => x.id),
    cutList: cutListOf(wiring.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)))),
    coverage: coverageOf(wiring.runs, placed, on, { reading, lately: latelyOf(placed, onDay), heavyOn }, lostAnchors(tree, after.tree, wiring.runs, names)),
    guys,
    devices,
    lostTies: lostTies(tree, after, onDay, names),
    wires: watch(placed, onDay, known).map((w) => planWire(w, onDay)),
    notes: [
      ...(instead ? [instead] : []),
      ...(trunkStays(measured, onDay) ?? []),
      ...unfinishedCuts(tree).map(({ branch, why }) => `${names(branch)} is to be cut, but that is not finished. ${why}`),
      `Figures for ${findSpecies(tree.species)!.name} are estimates for branch wood in pots; the tree's own record corrects them.`,
      ...promisesOf(placed, onDay, known).map((p) => `${names(p.branch)}, ${p.kind}: ${p.on ? `comes back on ${sayDay(dayOf(p.on))}. ` : ''}${p.text}`),
    ],
  };
}
