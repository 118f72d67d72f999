import { modulus, secondMoment, sectionMoment, type Wood } from './section.js';

interface Bent {
  diameter: number;
  curvature: number;
  wood: Wood;
  /** What the wire holds, N·mm. */
  hold: number;
}

/** Curvature left (1/mm) after letting go of a branch bent to a curvature. docs: Wood, spring-back. */
export function settled({ diameter, curvature, wood, hold }: Bent): number {
  if (curvature <= 0) return 0;
  const excess = Math.max(0, sectionMoment({ diameter, curvature, wood }) - hold);
  return Math.max(0, curvature - excess / (modulus(wood) * secondMoment(diameter)));
}

/** Share 0..1 of the curvature lost when the hand lets go. */
export const springBack = (bent: Bent): number => (bent.curvature > 0 ? 1 - settled(bent) / bent.curvature : 0);

/** The curvature (1/mm) to bend to, so that `curvature` remains; bisection, since settled() never falls. */
export function overbend(target: Bent): number {
  let low = target.curvature;
  let high = target.curvature * 2;
  while (settled({ ...target, curvature: high }) < target.curvature) high *= 2;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (settled({ ...target, curvature: middle }) < target.curvature) low = middle;
    else high = middle;
  }
  return high;
}
