/** τ in growing days of a branch so thick (mm), of its species' τ at 4 mm: thick wood sets slowly. docs: Set. */
export const relaxation = ({ relaxationDays, diameter }: { relaxationDays: number; diameter: number }): number =>
  relaxationDays * Math.max(0.5, (diameter / 4) ** 0.7);

interface Held {
  diameter: number;
  /** Curvature under the wire, 1/mm. */
  curvature: number;
  /** Curvature stored in the branch when the hold begins, 1/mm: what would spring back at once. */
  recoverable: number;
  growingDays: number;
  /** ρ∞ of the species, and τ at this thickness. */
  relaxedShare: number;
  relaxationDays: number;
}

/** Share of what is stored in a held branch that has not relaxed after so many growing days. docs: Set. */
export const unrelaxed = (growingDays: number, relaxedShare: number, relaxationDays: number): number =>
  relaxedShare + (1 - relaxedShare) * Math.exp(-growingDays / relaxationDays);

/** Share of its curvature that a branch would lose on release if no wood had been laid: what is stored relaxes while it is held. docs: Set. */
const looseShare = ({ curvature, recoverable, growingDays, relaxedShare, relaxationDays }: Held): number =>
  (Math.min(curvature, recoverable) * unrelaxed(growingDays, relaxedShare, relaxationDays)) / curvature;

/** Share 0..1 of its curvature that a branch keeps when the wire comes off; new wood (mm of radius) stiffens it. docs: Set. */
export function heldShare(held: Held & { radialGrowth: number }): number {
  const radius = held.diameter / 2;
  return 1 - Math.min(1, looseShare(held) * (radius / (radius + held.radialGrowth)) ** 4);
}

/** The new wood (mm of radius) with which the branch keeps a share of its curvature; 0 when it does already. The inverse of heldShare. */
export function growthToHold(held: Held, share: number): number {
  const loose = looseShare(held);
  if (loose <= 1 - share) return 0;
  return share >= 1 ? Infinity : (held.diameter / 2) * ((loose / (1 - share)) ** 0.25 - 1);
}
