import { linesInWorld, trunkBends, trunkDevice, standingOf } from '../pose/index.js';
import { coilsOn, guysOn, type PlacedTree, type PlannedBend } from '../tree/index.js';
import { DEVICE_WORDS, workOutDevice, worldOn } from '../guy/index.js';
import { wireHoldsTrunk } from '../wire/index.js';

/** Whether the trunk's wood takes its bends in one season, and a coil of its own holds them. */
export const wireBendsTrunk = (placed: PlacedTree, bends: readonly PlannedBend[]): boolean =>
  bends.length > 0 && bends.every((b) => b.stages !== null) && wireHoldsTrunk(placed, bends);

/** Why the trunk is not bent as the plan has it, though it is asked for; null where it is, or nothing is asked. What is on it already holds it. docs: The trunk. */
export function trunkNotHeld(placed: PlacedTree, onDay: number): string | null {
  const { tree } = placed;
  if (!tree.plan.trunkWay) return null;
  const of = ({ branch }: { branch: string }): boolean => branch === 'trunk';
  if (coilsOn(tree, onDay).some(of) || guysOn(tree, onDay).some(of) || tree.plan.runs.some((r) => r.branches.some(of))) return null;
  const stays = 'The trunk stays as it stands:';
  const device = trunkDevice(tree);
  if (!device)
    return wireBendsTrunk(placed, trunkBends(standingOf(placed)))
      ? null
      : `${stays} no coil of the sizes sold would hold its bends, and no device is planned that does.`;
  const straight = { ...placed, tree: { ...tree, plan: { ...tree.plan, trunkWay: null } } };
  const found = workOutDevice(worldOn(tree, linesInWorld(straight, [])), device);
  const against = typeof found === 'string' ? [found] : found.checks.flatMap((c) => (c.ok ? [] : c.said));
  return against.length ? `${stays} its ${DEVICE_WORDS[device.kind].name} is not set as it is planned. ${against.join(' ')}` : null;
}
