import type { Keep } from '../units/index.js';
import { guysOn, withChildren, type BendingSoFar, type Gap, type PlacedTree, type PlannedBend, type PlannedPose } from '../tree/index.js';
import { proposePoses, sayCracked, type AsGrown, type Posing } from '../pose/index.js';
import { PlanMemory, planWiring, type WiringPlan } from '../wire/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import type { Known } from '../growth/index.js';
import { planDevices, type FaultyDevice, type PlanDevice } from './devices.js';
import { planGuys, type PlanGuy } from './guys.js';
import { pastByWindow } from './past.js';

/** Poses with all that holds them. */
export interface HeldPoses extends Posing {
  wiring: WiringPlan;
  guys: PlanGuy[];
  devices: (PlanDevice | FaultyDevice)[];
  /** Branches that nothing would hold in a pose, and why: they stay as they grow. */
  unheld: ReadonlyMap<string, readonly string[]>;
  /** Branches that are led a share of the way only: as far as a tie can be made for. */
  lowered: ReadonlyMap<string, number>;
}

export const NOTHING_HELD: HeldPoses = {
  poses: [],
  asGrown: [],
  wiring: { runs: [], unwired: [], toTie: [], wound: new Map(), met: () => [], worth: { best: 0, had: 0 } },
  guys: [],
  devices: [],
  unheld: new Map(),
  lowered: new Map(),
};

interface Given {
  bending: ReadonlyMap<string, BendingSoFar>;
  cracked: ReadonlyMap<string, Parameters<typeof sayCracked>[0]>;
  memory?: PlanMemory;
  known?: Known;
}

/** What cracked stays as it is, and why. */
export const letBeCracked = (poses: readonly PlannedPose[], cracked: Given['cracked']): AsGrown[] =>
  poses.filter((p) => cracked.has(p.branch)).map((p) => ({ branch: p.branch, ...p.now, because: [sayCracked(cracked.get(p.branch)!)] }));

const NO_TIE = 'No tie that hands can make would lead it there either.';

/** Farther from the outside of a bend than this a wire is said to miss it, degrees. */
const MISSED_DEG = 20;
const missesABend = ({ runs }: WiringPlan, branch: string): boolean =>
  runs.some((r) => r.branches.some((b) => b.branch === branch && b.bends.some((bend) => bend !== null && bend.missDeg > MISSED_DEG)));

/** What stays as it grows may free the bark for others, and carries its shoots elsewhere: planned anew so often. */
const ROUNDS = 4;

/** Poses that something holds: wire, a tie or a device. What nothing holds is not posed, and the rest is planned without it; what its artist posed is kept. docs: Poses. */
export function holdPoses(
  after: PlacedTree,
  gaps: readonly Gap[],
  trunk: readonly PlannedBend[],
  onDay: number,
  { bending, cracked, memory = new PlanMemory(), known }: Given,
): HeldPoses {
  const unheld = new Map<string, readonly string[]>();
  const lowered = new Map<string, number>();
  // Bends that its artist gave one by one are kept, whatever holds them.
  const own = new Set(after.tree.plan.poses.flatMap((p) => (p.bends.length ? p.branch : [])));
  const tied = new Set(guysOn(after.tree, onDay).flatMap((g) => (g.device ? [] : g.branch)));
  // A device leads its wood from where that lies, and to no pose.
  const led = new Map((after.tree.plan.devices ?? []).flatMap((d) => [d.branch, ...(d.other ? [d.other.branch] : [])].map((b) => [b, d.kind] as const)));
  const { keep } = memory;
  for (let round = 1; ; round++) {
    const { poses, asGrown } = proposePoses(after, gaps, keep, { unheld, lowered });
    const bendable = poses.filter((p) => !cracked.has(p.branch));
    const posed = { poses: bendable, asGrown: [...asGrown, ...letBeCracked(poses, cracked)], trunk };
    const wiring = planWiring(after, posed, pastByWindow(after, onDay, { keep, known }), memory);
    const { guys, less } = planGuys(after, bendable, wiring, onDay, { keep, known });
    const devices = planDevices(after, bendable, onDay, { keep, known });
    const held = new Set([
      // Wire beside a tie places what that holds.
      ...wiring.runs.flatMap((r) => r.branches.flatMap((b) => (less.has(b.branch) ? [] : b.branch))),
      ...guys.map((g) => g.branch),
      ...tied,
      ...bending.keys(),
      ...own,
    ]);
    const loose = bendable.filter((p) => !held.has(p.branch));
    const why = new Map(wiring.unwired.map((u) => [u.branch, u.because]));
    const partly = [...less].filter(([branch, share]) => share > 0 && round < ROUNDS && !own.has(branch));
    for (const [branch, share] of partly) lowered.set(branch, (lowered.get(branch) ?? 1) * share);
    const drops = loose.filter((p) => !partly.some(([branch]) => branch === p.branch));
    for (const { branch } of drops)
      unheld.set(branch, [
        ...(led.has(branch) ? [`Its ${DEVICE_WORDS[led.get(branch)!].name} leads it.`] : (why.get(branch) ?? [])),
        ...(less.has(branch) ? [NO_TIE] : []),
      ]);
    // What grows on a branch that stays lies elsewhere than it was planned; where nothing does, all else is as it is.
    const carries = drops.some((p) => bendable.some((c) => c.branch !== p.branch && withChildren(after.tree, p.branch).has(c.branch)));
    if (round < ROUNDS && (partly.length || carries || drops.some((p) => less.has(p.branch)))) continue;
    const stays = drops.map((p): AsGrown => ({ branch: p.branch, ...p.now, because: [...unheld.get(p.branch)!] }));
    const left = poses.filter((p) => !unheld.has(p.branch) || own.has(p.branch));
    // What stays as it grows lies elsewhere for a device too.
    const set = loose.length
      ? planDevices(
          after,
          left.filter((p) => !cracked.has(p.branch)),
          onDay,
          { keep, known },
        )
      : devices;
    const found = { poses: left, asGrown: [...asGrown, ...stays], wiring, guys, devices: set, unheld, lowered };
    return meetingWire(found, { after, gaps, onDay, keep, known, cracked, kept: new Set([...own, ...tied, ...bending.keys(), ...cracked.keys()]) });
  }
}

interface Meeting {
  after: PlacedTree;
  gaps: readonly Gap[];
  onDay: number;
  keep: Keep;
  known: Known | undefined;
  cracked: Given['cracked'];
  /** Branches whose bends stay where they are. */
  kept: ReadonlySet<string>;
}

/** The wire lies as it can; bends that it misses are moved along to where they meet it, and those beyond its end left out. Where a tie would then fail, all stays as it was. docs: Bends meet the wire. */
function meetingWire(found: HeldPoses, { after, gaps, onDay, keep, known, cracked, kept }: Meeting): HeldPoses {
  const { wiring, guys, unheld, lowered } = found;
  const still = new Set([...kept, ...guys.map((g) => g.branch), ...wiring.toTie]);
  const bendsOf = new Map(found.poses.map((p) => [p.branch, p.bends]));
  const endsBefore = (branch: string, until: number): boolean => (bendsOf.get(branch) ?? []).some((b) => b.at + b.length / 2 > until);
  const wound = new Map([...wiring.wound].filter(([branch, { until }]) => !still.has(branch) && (missesABend(wiring, branch) || endsBefore(branch, until))));
  if (!wound.size) return found;
  const stays = new Map(found.asGrown.map((b) => [b.branch, b.because]));
  const { poses, asGrown } = proposePoses(after, gaps, keep, { unheld, lowered, wound, stays });
  const met = { ...wiring, runs: wiring.met(poses) };
  const bendable = poses.filter((p) => !cracked.has(p.branch));
  const again = planGuys(after, bendable, met, onDay, { keep, known });
  if (again.less.size > 0 || again.guys.length !== guys.length) return found;
  return { ...found, poses, asGrown, wiring: met, guys: again.guys, devices: planDevices(after, bendable, onDay, { keep, known }) };
}
