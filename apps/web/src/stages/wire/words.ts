import { sayBranches, type Firmness, type Names, type PlanRun, type RunBranchPlan } from '@ustle/core';
import { sayMetal } from '../../shared/say';

/** What the push test is likely to say of a wire. */
export function sayPush(chance: number): string {
  if (chance >= 0.95) return 'moves the branch, almost surely';
  if (chance >= 0.65) return `moves the branch, ${Math.round(chance * 10)} times in 10`;
  return 'as likely moves the branch as gives way: press it first';
}

export const sayWire = (run: Pick<PlanRun, 'metal' | 'size' | 'gauge' | 'strands'>): string =>
  `${run.strands > 1 ? `${run.strands} × ` : ''}${sayMetal(run.metal, run.size, run.gauge)}`;

/** How a piece goes from one half to the other, or what holds its loose end. */
export function sayRoute(run: PlanRun, runs: readonly PlanRun[], names: Names): string {
  const side = run.route ? (run.route.side === 'behind' ? 'round the back' : 'round the front') : '';
  if (run.kind === 'pair') return `${(run.route!.turnDeg / 360).toFixed(1)} turns ${side} from shoulder to shoulder, ${run.route!.length.toFixed(0)} mm`;
  if (run.kind === 'trunk') return `pushed ${(run.anchor?.soil ?? 0).toFixed(0)} mm down into the soil behind the trunk, then up and round it`;
  const turns = (run.anchor?.turns ?? 2).toFixed(1);
  const beside = runs.find((r) => r.id === run.anchor?.run);
  return run.kind === 'anchored'
    ? `anchored by ${turns} turns beside ${beside ? `the wire of ${sayBranches(names, [beside.branches[0]!.branch], 1)}` : 'the wire there'}`
    : `anchored by ${turns} turns of its own round the limb`;
}

/** How far a wire misses the outsides of its bends, where that matters. */
export function sayMiss(part: RunBranchPlan): string {
  const off = part.bends.map((b, i) => ({ ...b, i })).filter((b) => b.missDeg > 25);
  if (!part.bends.length || !off.length) return 'on the outside of every bend';
  return off.map((b) => `${b.missDeg.toFixed(0)}° beside the outside of bend ${b.i + 1}`).join(', ');
}

export const FIRMNESS: { value: Firmness; name: string }[] = [
  { value: 'firm', name: 'Firm: bent hardly past where it stays' },
  { value: 'usual', name: 'Usual: bent up to two fifths past' },
  { value: 'light', name: 'Light: thinner wire, bent further past' },
];
