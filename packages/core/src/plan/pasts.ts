import type { Known } from '../growth/index.js';
import { bentTrunk } from '../pose/index.js';
import { openGaps } from '../removal/index.js';
import { asItLay } from '../stand/index.js';
import { bendingOf, crackedOn, outcomeOf, placeTree, type Tree } from '../tree/index.js';
import { gripOf } from '../wood/index.js';
import { bendHeld } from '../wire/index.js';
import { holdPoses } from './hold-poses.js';
import { pastChoices, type PastChoice } from './past.js';

/** What each way of leaving a branch past its target would come to, under the wire that the plan puts on it; none where it gets none. */
export function pastsFor(tree: Tree, onDay: number, branch: string, known?: Known): PastChoice[] {
  const lay = asItLay(tree, onDay);
  const [placed, after] = [placeTree(lay), placeTree(outcomeOf(lay).tree)];
  const trunk = bentTrunk(after)?.bends ?? [];
  const given = { bending: bendingOf(lay, onDay), cracked: crackedOn(lay, onDay), ...(known ? { known } : {}) };
  const { poses, wiring } = holdPoses(after, openGaps(placed, after, onDay), trunk, onDay, given);
  const run = wiring.runs.find((r) => r.branches.some((b) => b.branch === branch));
  const part = run?.branches.find((b) => b.branch === branch);
  const bends = branch === 'trunk' ? trunk : (poses.find((p) => p.branch === branch)?.bends ?? []);
  // Beside a tie its wire holds the bends from some on; else all, the first of them first.
  const first = part && (bends[part.bends.findIndex((b) => b !== null)] ?? bends[0]);
  if (!run || !part || !first) return [];
  const { metal, size, strands, angle: coilAngleDeg } = run;
  return pastChoices(after, onDay, branch, bendHeld(after, branch, first), { metal, size, strands, coilAngleDeg, grip: gripOf(part.gap) }, { known });
}
