import { applyAct, isRefused, type Act, type Deed } from '../acts/index.js';
import { Bearing, roomForWire } from '../reading/index.js';
import { isoOf } from '../units/index.js';
import { northernMonth, speciesOf } from '../species/index.js';
import { latelyOf, type PlanDocument } from '../plan/index.js';
import {
  agreedBranches,
  inTheWay,
  needsAgreement,
  openSession,
  answerTo,
  placeTree,
  WORK_PARTS,
  type Tree,
  type WorkPart,
  type WorkSession,
} from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { clearing, openSteps } from './steps.js';
import { PART_OF, type WorkStep, type StepKind } from './step.js';
import { kindOfStep, type Pace } from './pace.js';

/** Work that is not in this session: why, and when it may be; ISO, null where nothing speaks against the next day. */
export interface Left {
  steps: WorkStep[];
  why: string;
  on: string | null;
}

/** A session as it would be begun now. */
export interface Laid {
  steps: WorkStep[];
  /** Of all its steps and rests. */
  minutes: number;
  left: Left[];
  holds: string[];
  leaves: string[];
  /** Poses and pieces of wire that are only proposed: they are settled as the session begins, so that it keeps what it was laid out with. */
  settles: Deed[];
}

export interface Asked {
  hours: number;
  parts?: readonly WorkPart[];
  pace?: Pace;
  /** At the artist's word also what the tree does not bear at once. */
  beyond?: boolean;
}

const REST_DAYS = 60;

/** The first day after a rest, by weeks within two years, in whose month a kind is well wired. */
function nextGoodDay(tree: Tree, onDay: number): string | null {
  const { good } = speciesOf(tree.species).months.wiring;
  for (let day = onDay + REST_DAYS; day < onDay + 730; day += 7) if (good.includes(northernMonth(tree.site.hemisphere, day))) return isoOf(day);
  return null;
}

/** The trunk is bent by hand, or by what is set up for it. */
const bendsTrunk = (s: WorkStep): boolean => (s.kind === 'bend' || s.kind === 'device') && s.branches.includes('trunk');

const timeOf = (steps: readonly WorkStep[]): number => steps.reduce((sum, s) => sum + s.minutes + s.rest, 0);
const sharesBranch = (a: WorkStep, branches: ReadonlySet<string>): boolean => a.branches.some((b) => branches.has(b));
const branchesIn = (steps: readonly WorkStep[]): Set<string> => new Set(steps.flatMap((s) => s.branches));
const ON_BRANCHES = new Set<StepKind>(['cut', 'jin', 'wrap', 'wire', 'bend', 'guy', 'device', 'place']);

/** Steps of wraps, bends and placing that a piece of wire brings along: those on its branches. */
const along = (steps: readonly WorkStep[], wire: WorkStep): WorkStep[] => {
  const on = new Set(wire.branches);
  return steps.filter((s) => (s.kind === 'bend' || s.kind === 'place' || s.kind === 'wrap') && sharesBranch(s, on));
};

interface Taken {
  steps: Set<WorkStep>;
  left: { step: WorkStep; why: string; on: string | null }[];
}

/**
 * What of the open steps fits: cuts first by their numbers, then bends that were begun, then pieces of wire in their order with the
 * bends of their branches, then ties. Once a piece is left for want of time, later ones are too: thin wire goes after thick. A tie goes on after the coils
 * that it would block; where one is left, so is the wire of its branch, and the room goes to other wire.
 */
function take(
  tree: Tree,
  plan: PlanDocument,
  onDay: number,
  all: readonly WorkStep[],
  asked: { hours: number; beyond: boolean; clear: (branches: number) => number },
  leftTies: ReadonlySet<WorkStep> = new Set(),
): Taken {
  const { hours, beyond, clear } = asked;
  const taken: Taken = { steps: new Set(), left: [] };
  const holds = new Set<string>();
  let minutes = hours * 60;
  const living = tree.branches.filter((b) => b.state !== 'dead').length || 1;
  const bearing = new Bearing(tree, beyond ? Infinity : roomForWire(plan.read, living, latelyOf(placeTree(tree), onDay)), living);
  const leave = (steps: readonly WorkStep[], why: string, on: string | null): void => {
    for (const step of steps) if (!taken.steps.has(step) && !taken.left.some((l) => l.step === step)) taken.left.push({ step, why, on });
  };
  const fits = (steps: readonly WorkStep[]): boolean => {
    const fresh = steps.filter((s) => !taken.steps.has(s));
    const more = new Set([...holds, ...branchesIn(fresh)]);
    const time = timeOf(fresh) + clear(more.size) - clear(holds.size);
    if (time > minutes) return false;
    minutes -= time;
    fresh.forEach((s) => taken.steps.add(s));
    more.forEach((b) => holds.add(b));
    return true;
  };
  const short = 'There is no time for it in this session: it may be done any day soon, as the tree’s same session.';
  const agreed = agreedBranches(tree);
  const cuts = all.filter((s) => s.kind === 'cut');
  for (const cut of cuts) {
    const jin = all.filter((s) => s.kind === 'jin' && s.branches[0] === cut.branches[0]);
    const [own] = cut.branches;
    const disagreed = agreed !== null && !agreed.has(own!);
    if (!disagreed && fits([cut, ...jin])) continue;
    leave([cut, ...jin], disagreed ? `${tree.client ?? 'The owner'} has not agreed to this cut yet.` : short, null);
    bearing.leave([own!]);
  }
  const notAgreed = needsAgreement(tree, 'trunk') ? all.filter((s) => bendsTrunk(s)) : [];
  leave(notAgreed, `${tree.client} has not agreed to bending the trunk yet.`, null);
  fits(all.filter((s) => s.kind === 'jin' && !cuts.some((c) => c.branches[0] === s.branches[0])));
  const heavyOn = (branches: readonly string[]): number =>
    plan.poses.filter((p) => branches.includes(p.branch)).reduce((sum, p) => sum + p.bends.filter((b) => b.heavy).length, 0);
  const allTies = all.filter((s) => s.kind === 'guy' || s.kind === 'device');
  const tiedLater = branchesIn([...leftTies]);
  // What was begun goes on before anything new: bends and placing on branches whose wire is on already, as far as they are not cut now.
  const fresh = branchesIn(all.filter((s) => s.kind === 'wire' || s.kind === 'guy' || s.kind === 'device' || s.kind === 'cut'));
  for (const s of all.filter((x) => (x.kind === 'bend' || x.kind === 'place') && !sharesBranch(x, fresh))) if (!fits([s])) leave([s], short, null);
  let outOfTime = false;
  for (const wire of all.filter((s) => s.kind === 'wire')) {
    const mine = [wire, ...along(all, wire)];
    const piece = { branches: wire.branches, heavyBends: heavyOn(wire.branches) };
    const refused = bearing.refuses(piece);
    if (sharesBranch(wire, tiedLater)) leave(mine, 'Its tie is left, and the two go together.', null);
    else if (!outOfTime && refused === 'in the way') leave(mine, 'Work that is left comes first there.', null);
    else if (!outOfTime && refused === 'too much') leave(mine, 'The tree bears no more of that at once: let it answer first.', nextGoodDay(tree, onDay));
    else if (!outOfTime && fits(mine)) {
      bearing.take(piece);
      continue;
    } else {
      outOfTime = true;
      leave(mine, short, null);
    }
    bearing.leave(wire.branches);
  }
  const leftWire = branchesIn(taken.left.map((l) => l.step).filter((s) => s.kind === 'wire' || s.kind === 'cut'));
  const newlyLeft: WorkStep[] = [];
  for (const tie of allTies) {
    const on = new Set(tie.branches);
    const mine = [tie, ...all.filter((s) => (s.kind === 'bend' || s.kind === 'place') && sharesBranch(s, on))];
    // What grows on a tied branch is wired before it: the tie would lie in the way.
    const wraps = [...on, ...tree.branches.filter((b) => on.has(b.parent)).map((b) => b.id)];
    const blocked = [...leftWire].some((b) => !on.has(b) && inTheWay(tree, wraps, [b]));
    if (!leftTies.has(tie) && !blocked && fits(mine)) continue;
    if (!leftTies.has(tie)) newlyLeft.push(tie);
    leave(mine, blocked ? 'It comes after the wire beside it that is left: it would block that.' : short, null);
  }
  if (newlyLeft.some((tie) => [...taken.steps].some((s) => s.kind === 'wire' && sharesBranch(s, new Set(tie.branches)))))
    return take(tree, plan, onDay, all, asked, new Set([...leftTies, ...newlyLeft]));
  const leftOn = branchesIn(taken.left.map((l) => l.step));
  for (const s of all.filter((x) => (x.kind === 'bend' || x.kind === 'place') && !taken.steps.has(x)))
    if (sharesBranch(s, leftOn) || !fits([s])) leave([s], short, null);
  return taken;
}

/** Two pieces of work that share a branch are in one session: what shares one with work that is left is left too. */
function apart(taken: Taken): void {
  for (let again = true; again;) {
    again = false;
    const left = branchesIn(taken.left.map((l) => l.step));
    for (const step of taken.steps)
      if (ON_BRANCHES.has(step.kind) && sharesBranch(step, left)) {
        taken.steps.delete(step);
        taken.left.push({ step, why: 'Other work on the same branch is left: it goes with that.', on: null });
        again = true;
      }
  }
}

/** A session laid out: what is decided and not done, in the order of the job, as far as hours and tree allow; and what is left, why and till when. docs: A session of work. */
export function layOut(given: Tree, plan: PlanDocument, onDay: number, { hours, parts = WORK_PARTS, pace = {}, beyond = false }: Asked): Laid {
  const tree = asItStands(given, onDay);
  const every = openSteps(tree, plan, onDay, pace, { on: 0 }).filter((s) => PART_OF[s.kind] === null || parts.includes(PART_OF[s.kind]!));
  const all = every.filter((s) => !s.against);
  const general = all.filter((s) => !ON_BRANCHES.has(s.kind));
  // What is worked on is cleared first; the rest of a large tree waits with its work.
  const clear = (branches: number): number => (general.some((s) => s.kind === 'clear') ? clearing(branches, pace) : 0);
  const taken = take(tree, plan, onDay, all, { hours: Math.max(0, hours - timeOf(general) / 60), beyond, clear });
  apart(taken);
  for (const step of every) if (step.against) taken.left.push({ step, why: step.against, on: null });
  const holds = branchesIn([...taken.steps]);
  const kinds = new Set([...taken.steps].map((s) => s.kind));
  const steps = all
    .filter((s) => taken.steps.has(s) || general.includes(s))
    .filter((s) => worthIt(s, kinds, [...taken.steps].some(isWrapped)))
    .map((s) => (s.kind === 'clear' ? { ...s, minutes: clear(holds.size) } : s));
  const groups = new Map<string, Left>();
  for (const { step, why, on } of taken.left) {
    const key = `${why} ${on}`;
    groups.set(key, { steps: [...(groups.get(key)?.steps ?? []), step], why, on });
  }
  const inOrder = (of: WorkStep[]): WorkStep[] => every.filter((s) => of.includes(s));
  return {
    steps,
    minutes: timeOf(steps),
    left: [...groups.values()].map((l) => ({ ...l, steps: inOrder(l.steps) })),
    holds: [...holds],
    settles: settling(tree, plan, steps, onDay),
    leaves: [...branchesIn(taken.left.map((l) => l.step))].filter((b) => !holds.has(b)),
  };
}

function settling(tree: Tree, plan: PlanDocument, steps: readonly WorkStep[], onDay: number): Deed[] {
  const on = isoOf(onDay);
  const bent = branchesIn(steps.filter((s) => s.kind === 'bend' || s.kind === 'place'));
  // With its bends: what is settled is bent as it was shown.
  const poses = plan.poses.flatMap(({ branch, bearing, elevation, from, bends }): Deed[] => {
    if (from === 'plan' || !bent.has(branch)) return [];
    const asShown = bends.map(({ at, length, angle, made, toward }) => ({ at, angle: angle + made, toward, over: length }));
    return [{ kind: 'pose', on, branch, bearing, elevation, bends: asShown }];
  });
  const wired = new Set(steps.flatMap((s) => (s.kind === 'wire' ? [s.of] : [])));
  const runs = plan.runs.flatMap(({ id, metal, size, strands, angle, length, route, branches: halves }): Deed[] => {
    if (!wired.has(id) || tree.plan.runs.some((r) => r.id === id)) return [];
    const branches = halves.map(({ branch, hand, start }) => ({ branch, hand, start }));
    return [{ kind: 'run', on, run: id, metal, size, strands, angle, length, branches, ...(route && branches.length > 1 ? { side: route.side } : {}) }];
  });
  return canBe(tree, [...poses, ...runs], onDay);
}

/** Of some deeds those that can be done one after the other; a piece that finds no way round the side it was planned on is left to find its own. */
function canBe(tree: Tree, deeds: readonly Deed[], onDay: number): Deed[] {
  let now = tree;
  const taken: Deed[] = [];
  for (const deed of deeds) {
    const tries: Deed[] = deed.kind === 'run' && deed.side ? [deed, { ...deed, side: undefined }] : [deed];
    for (const one of tries) {
      const outcome = applyAct(now, { ...one, id: 'settled' } as Act, onDay);
      if (isRefused(outcome)) continue;
      now = outcome.tree;
      taken.push(one);
      break;
    }
  }
  return taken;
}

/** Whether something is wrapped in a step. */
const isWrapped = (step: WorkStep): boolean =>
  step.did.some((d) => d.kind === 'wired' && [d, ...(d.second ? [d.second] : []), ...(d.along ?? [])].some((on) => on.wrap === 'raffia'));

/** What prepares for work that is not in the session is not in it either. */
function worthIt(step: WorkStep, kinds: ReadonlySet<StepKind>, wraps: boolean): boolean {
  const some = (...of: StepKind[]): boolean => of.some((k) => kinds.has(k));
  if (step.kind === 'soak') return wraps;
  if (step.kind === 'fast') return some('bend', 'guy', 'device');
  if (step.kind === 'clear' || step.kind === 'clean') return some('cut', 'wire');
  if (step.kind === 'pot') return some('wire', 'bend', 'guy', 'device');
  return true;
}

/** Whether a step rests on what the artist decided, not on a proposal: decided while a session is open it comes into it. */
function isDecided({ plan }: Tree, { kind, of, branches }: WorkStep): boolean {
  if (kind === 'wire' || kind === 'wrap') return plan.runs.some((r) => r.id === of);
  if (kind === 'guy') return plan.guys.some((g) => g.id === of);
  if (kind === 'bend' || kind === 'place') return plan.poses.some((p) => branches.includes(p.branch));
  return true;
}

/** The session that is open on a tree: its steps that are open still, as the plan asks for them now, and what was answered. */
export interface Running {
  session: WorkSession;
  open: WorkStep[];
  minutes: number;
}

/** What is still to be done in the open session; null where none is. The plan may have changed since: the steps follow it. */
export function running(given: Tree, plan: PlanDocument, onDay: number, pace: Pace = {}): Running | null {
  const tree = asItStands(given, onDay);
  const session = openSession(tree);
  if (!session) return null;
  const [holds, leaves] = [new Set(session.holds), new Set(session.leaves)];
  const agreed = agreedBranches(tree);
  const asked = openSteps(tree, plan, onDay, pace, { since: session.begun, on: session.holds.length })
    .filter((s) => PART_OF[s.kind] === null || session.parts.includes(PART_OF[s.kind]!))
    .filter((s) => !s.against && !sharesBranch(s, leaves) && (s.branches.every((b) => holds.has(b)) || isDecided(tree, s)))
    .filter((s) => s.kind !== 'cut' || agreed === null || agreed.has(s.branches[0]!))
    .filter((s) => !bendsTrunk(s) || !needsAgreement(tree, 'trunk'))
    .filter((s) => !answerTo(session, s.key, s.as));
  const kinds = new Set([...asked.filter((s) => ON_BRANCHES.has(s.kind)).map((s) => s.kind), ...session.answers.map((a) => kindOfStep(a.step))]);
  const open = asked.filter((s) => worthIt(s, kinds, asked.some(isWrapped)));
  return { session, open, minutes: timeOf(open) };
}
