import type { Names } from '../tree/index.js';
import { sayMetal } from '../wood/index.js';
import type { PlanRun } from './runs.js';

/** "2 × 3.0 mm aluminium" */
export const sayWire = (run: Pick<PlanRun, 'metal' | 'size' | 'strands'>): string =>
  `${run.strands > 1 ? `${run.strands} × ` : ''}${sayMetal(run.metal, run.size)}`;

/** How a piece goes from one half to the other, or what holds its loose end. */
export function sayRoute(run: PlanRun, names: Names): string {
  return [wayRound(run, names), ...run.branches.flatMap((b) => (b.onFrom ? [`from ${names(b.onFrom)} on along ${names(b.branch)}`] : []))].join('; ');
}

function wayRound(run: PlanRun, names: Names): string {
  const side = run.route ? (run.route.side === 'behind' ? 'round the back' : 'round the front') : '';
  if (run.kind === 'pair') return `${(run.route!.turnDeg / 360).toFixed(1)} turns ${side} from shoulder to shoulder, ${run.route!.length.toFixed(0)} mm`;
  if (run.kind === 'trunk') return `pushed ${(run.anchor?.soil ?? 0).toFixed(0)} mm down into the soil behind the trunk, then up and round it`;
  const turns = (run.anchor?.turns ?? 2).toFixed(1);
  return run.kind === 'anchored'
    ? `anchored by ${turns} turns beside ${run.anchor?.beside ? `the wire of ${names(run.anchor.beside)}` : 'the wire there'}`
    : `anchored by ${turns} turns of its own round the limb`;
}
