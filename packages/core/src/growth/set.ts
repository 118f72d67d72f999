import { yieldCurvature } from '../wood/index.js';

interface Held {
  diameter: number;
  /** Curvature under the wire, 1/mm. */
  curvature: number;
  elasticStrain: number;
  growingDays: number;
  /** ρ∞ and τ of the species. */
  relaxedShare: number;
  relaxationDays: number;
}

/** Elastic curvature not yet relaxed, 1/mm: what would spring back if no wood were laid. docs: Set. */
function elasticLeft(held: Held): number {
  const elastic = Math.min(held.curvature, yieldCurvature(held.diameter, held.elasticStrain));
  return elastic * (held.relaxedShare + (1 - held.relaxedShare) * Math.exp(-held.growingDays / held.relaxationDays));
}

/** Share 0..1 of its curvature that a branch keeps when the wire comes off; new wood (mm of radius) stiffens it. */
export function heldShare(held: Held & { radialGrowth: number }): number {
  const radius = held.diameter / 2;
  const lost = elasticLeft(held) * (radius / (radius + held.radialGrowth)) ** 4;
  return 1 - Math.min(held.curvature, lost) / held.curvature;
}

/** The new wood (mm of radius) with which the branch keeps a share of its curvature; 0 when it does already. The inverse of heldShare. */
export function growthToHold(held: Held, share: number): number {
  const allowed = (1 - share) * held.curvature;
  const left = elasticLeft(held);
  if (left <= allowed) return 0;
  if (allowed <= 0) return Infinity;
  const radius = held.diameter / 2;
  return radius * ((left / allowed) ** 0.25 - 1);
}
