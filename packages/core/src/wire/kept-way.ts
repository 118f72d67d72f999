import { serialOf, serialsAnyhow, serialsOf } from '../units/index.js';
import type { Joined, LimbWork } from './limb-work.js';
import type { FlatBark } from './flat-bark.js';
import type { Knot } from './knots.js';
import { clearOfItself, findWay, knotsNear, waysNear, type Course, type Way } from './ways.js';

interface Near {
  all: readonly Knot[];
  bark: FlatBark;
  knots: Knot[];
  serials: string;
}

const nears = new WeakMap<Course, Near>();

/** The knots that a course may come near, found once as long as they are the same. */
function nearest(course: Course, { bark, knots: all }: LimbWork): Near {
  const before = nears.get(course);
  if (before?.all === all && before.bark === bark) return before;
  const knots = knotsNear(course, bark, all);
  const found = { all, bark, knots, serials: serialsOf(knots) };
  nears.set(course, found);
  return found;
}

/** The piece on the way that is found along a course past what is near it, and clear of itself; worked out once for the same surroundings. */
export function keptWay(work: LimbWork, course: Course, placed: readonly Way[], joined: (way: Way) => Joined): Joined | null {
  const near = nearest(course, work);
  const others = waysNear(course, placed);
  return work.keep(`piece ${serialOf(course)} ${near.serials} ${serialsAnyhow(others)} ${work.toward?.join() ?? ''}`, () => {
    const way = findWay(course, work.bark, near.knots, others);
    // A way that is as one before is that one: what was laid on it is found again.
    return way && clearOfItself(way, work.bark) ? joined(work.keep(`way ${JSON.stringify(way)}`, () => way)) : null;
  });
}
