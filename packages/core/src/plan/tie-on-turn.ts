import { clamp } from '../units/index.js';
import { add, alignedTo, dot, lengthOf, norm, pointAt, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import type { GuyPlan } from '../guy/index.js';
import { standingOf } from '../pose/index.js';
import type { PlacedTree } from '../tree/index.js';
import type { RunPlan } from '../wire/index.js';

/** A turn spreads a pull where the wire crosses the side that the pull comes towards; cosine. */
const BEARS = 0.8;
/** A tie is moved at most so many thicknesses to lie on a turn. */
const MOST_MOVED = 3;

/** Direction of a line at a place along it. */
function alongAt(line: Limb, at: number): Vec {
  const { point, diameter } = pointAt(line, at);
  const on = Math.min(at + diameter, lengthOf(line));
  const back = clamp(at - diameter, 0, lengthOf(line));
  return unit(on > at ? sub(pointAt(line, on).point, point) : sub(point, pointAt(line, back).point));
}

/** Where along a branch the turn of its wire lies, nearest to its ties, that is on the far side of their pull once it is drawn, mm; null: there is none near. */
export function turnNear(placed: PlacedTree, run: RunPlan, guys: readonly GuyPlan[]): number | null {
  const { branch, at, line: drawn } = guys[0]!;
  const { back } = standingOf(placed);
  const { line } = placed.byId.get(branch)!;
  const way = alongAt(drawn, at);
  const pull = guys.reduce((sum: Vec, { from, to, tension }) => add(sum, scale(unit(sub(to, from)), Math.max(1, tension))), [0, 0, 0]);
  const far = sub(scale(way, dot(pull, way)), pull);
  if (norm(far) < 1e-9) return null;
  // The wire is known on the branch as it grows: the pull is turned back with the branch.
  const away = alignedTo(back(way), alongAt(line, at))(back(unit(far)));
  const most = MOST_MOVED * pointAt(line, at).diameter;
  const bearing = run.path.places.flatMap(({ limb, s }, i) => {
    const near = limb === branch && Math.abs(s - at) <= most;
    return near && dot(unit(sub(run.path.points[i]!, pointAt(line, s).point)), away) >= BEARS ? [s] : [];
  });
  return bearing.length ? bearing.reduce((best, s) => (Math.abs(s - at) < Math.abs(best - at) ? s : best)) : null;
}
