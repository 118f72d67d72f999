import { modulus, secondMoment, sectionMoment, type Wood } from './section.js';

interface Bend {
  diameter: number;
  /** 1/mm. */
  curvature: number;
  wood: Wood;
}
interface Held extends Bend {
  /** What the wire holds, N·mm. */
  hold: number;
}

/** Curvature (1/mm) that comes back when nothing holds: the elastic part at once, and of the rest what creeps back within days. docs: What comes back. */
export const recoverable = (bend: Bend): number => recoverableOf(bend, sectionMoment(bend));

function recoverableOf({ diameter, curvature, wood }: Bend, moment: number): number {
  const elastic = Math.min(curvature, moment / (modulus(wood) * secondMoment(diameter)));
  return elastic + wood.recovery * (curvature - elastic);
}

/** Curvature left (1/mm) after letting go of a branch bent to a curvature: where what it pulls meets what the wire holds. docs: Letting go. */
export function curvatureHeld(held: Held): number {
  const { curvature, hold } = held;
  if (curvature <= 0) return 0;
  const moment = sectionMoment(held);
  const loose = Math.max(0, 1 - hold / moment);
  return Math.max(0, curvature - recoverableOf(held, moment) * loose);
}

/** Curvature (1/mm) stored in the branch under the wire: what relaxes while it is held, and what unwiring lets free. docs: Letting go. */
export function stored(held: Held): number {
  const moment = sectionMoment(held);
  return held.curvature > 0 ? recoverableOf(held, moment) * Math.min(1, held.hold / moment) : 0;
}

/** Share 0..1 of the curvature lost when the hand lets go. */
export const springBack = (held: Held): number => (held.curvature > 0 ? 1 - curvatureHeld(held) / held.curvature : 0);

const MOST_TIMES = 64;
/** Each halves what is unsure: a billionth of it is left. */
const HALVINGS = 32;

/** The curvature (1/mm) to bend to, so that `curvature` remains; by bisection, since curvatureHeld() never falls. Infinity where no bend leaves it. */
export function overbend(target: Held): number {
  let low = target.curvature;
  let high = target.curvature * 2;
  const tried = { ...target };
  const leaves = (curvature: number): boolean => {
    tried.curvature = curvature;
    return curvatureHeld(tried) >= target.curvature;
  };
  while (!leaves(high)) {
    high *= 2;
    if (high > target.curvature * MOST_TIMES) return Infinity;
  }
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (leaves(middle)) high = middle;
    else low = middle;
  }
  return high;
}
