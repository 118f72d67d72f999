import { sayBranches, type Names } from '../tree/index.js';
import { sayMetal } from '../wood/index.js';
import type { PlanRun } from './runs.js';

/** "2 × 3.0 mm aluminium" */
export const sayWire = (run: Pick<PlanRun, 'metal' | 'size' | 'strands'>): string =>
  `${run.strands > 1 ? `${run.strands} × ` : ''}${sayMetal(run.metal, run.size)}`;

/** How a piece goes from one half to the other, or what holds its loose end. */
export function sayRoute(run: PlanRun, runs: readonly PlanRun[], names: Names): string {
  return [wayRound(run, runs, names), ...run.branches.flatMap((b) => (b.onFrom ? [`from ${names(b.onFrom)} on along ${names(b.branch)}`] : []))].join('; ');
}

function wayRound(run: PlanRun, runs: readonly PlanRun[], names: Names): string {
  const side = run.route ? (run.route.side === 'behind' ? 'round the back' : 'round the front') : '';
  if (run.kind === 'pair') return `${(run.route!.turnDeg / 360).toFixed(1)} turns ${side} from shoulder to shoulder, ${run.route!.length.toFixed(0)} mm`;
  if (run.kind === 'trunk') return `pushed ${(run.anchor?.soil ?? 0).toFixed(0)} mm down into the soil behind the trunk, then up and round it`;
  const turns = (run.anchor?.turns ?? 2).toFixed(1);
  const beside = runs.find((r) => r.id === run.anchor?.run);
  return run.kind === 'anchored'
    ? `anchored by ${turns} turns beside ${beside ? `the wire of ${sayBranches(names, [beside.branches[0]!.branch], 1)}` : 'the wire there'}`
    : `anchored by ${turns} turns of its own round the limb`;
}
