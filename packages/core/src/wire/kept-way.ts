import { serialOf, serialsAnyhow, serialsOf } from '../units/index.js';
import type { Joined, LimbWork } from './limb-work.js';
import { clearOfItself, findWay, knotsNear, waysNear, type Course, type Way } from './ways.js';

/** The piece on the way that is found along a course past what is near it, and clear of itself; worked out once for the same surroundings. */
export function keptWay(work: LimbWork, course: Course, placed: readonly Way[], joined: (way: Way) => Joined): Joined | null {
  const near = work.keep(`near ${serialsOf([course, work.knots])}`, () => {
    const knots = knotsNear(course, work.bark, work.knots);
    return { knots, serials: serialsOf(knots) };
  });
  const others = waysNear(course, placed);
  return work.keep(`piece ${serialOf(course)} ${near.serials} ${serialsAnyhow(others)} ${work.toward?.join() ?? ''}`, () => {
    const way = findWay(course, work.bark, near.knots, others);
    // A way that is as one before is that one: what was laid on it is found again.
    return way && clearOfItself(way, work.bark) ? joined(work.keep(`way ${JSON.stringify(way)}`, () => way)) : null;
  });
}
