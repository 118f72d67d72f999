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
export function recoverable({ diameter, curvature, wood }: Bend): number {
  const elastic = Math.min(curvature, sectionMoment({ diameter, curvature, wood }) / (modulus(wood) * secondMoment(diameter)));
  return elastic + wood.recovery * (curvature - elastic);
}

/** Curvature left (1/mm) after letting go of a branch bent to a curvature: where what it pulls meets what the wire holds. docs: Letting go. */
export function settled(held: Held): number {
  const { diameter, curvature, wood, hold } = held;
  if (curvature <= 0) return 0;
  const loose = Math.max(0, 1 - hold / sectionMoment({ diameter, curvature, wood }));
  return Math.max(0, curvature - recoverable(held) * loose);
}

/** Curvature (1/mm) stored in the branch under the wire: what relaxes while it is held, and what unwiring lets free. docs: Letting go. */
export function stored(held: Held): number {
  const { diameter, curvature, wood, hold } = held;
  return curvature > 0 ? recoverable(held) * Math.min(1, hold / sectionMoment({ diameter, curvature, wood })) : 0;
}

/** Share 0..1 of the curvature lost when the hand lets go. */
export const springBack = (held: Held): number => (held.curvature > 0 ? 1 - settled(held) / held.curvature : 0);

const MOST_TIMES = 64;
/** Each halves what is unsure: a billionth of it is left. */
const HALVINGS = 32;

/** The curvature (1/mm) to bend to, so that `curvature` remains; by bisection, since settled() never falls. Infinity where no bend leaves it. */
export function overbend(target: Held): number {
  let low = target.curvature;
  let high = target.curvature * 2;
  while (settled({ ...target, curvature: high }) < target.curvature) {
    high *= 2;
    if (high > target.curvature * MOST_TIMES) return Infinity;
  }
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (settled({ ...target, curvature: middle }) < target.curvature) low = middle;
    else high = middle;
  }
  return high;
}
