/** Green wood of a branch: elastic strain limit and strength σ_c in MPa; stiffness scales the modulus (push tests). */
export interface Wood {
  elasticStrain: number;
  strength: number;
  /** Share ψ of a bend beyond the elastic part that creeps back within days. */
  recovery: number;
}

/** E = σ_c/ε_e, MPa. */
export const modulus = (wood: Wood): number => wood.strength / wood.elasticStrain;

/** I = πd⁴/64 of a round section, mm⁴. */
export const secondMoment = (diameter: number): number => (Math.PI * diameter * diameter * diameter * diameter) / 64;

/** κ_y = 2ε_e/d: the curvature, 1/mm, at which the outermost fibre yields. */
export const yieldCurvature = (diameter: number, elasticStrain: number): number => (2 * elasticStrain) / diameter;

/** M_y = πd³σ_c/32, N·mm. */
export const yieldMoment = (diameter: number, strength: number): number => (Math.PI * diameter * diameter * diameter * strength) / 32;

/** Moment of an elastic–perfectly plastic circle at a curvature (1/mm), N·mm. docs: Wood, bending moment. */
export function sectionMoment(at: { diameter: number; curvature: number; wood: Wood }): number {
  const { diameter, curvature, wood } = at;
  const atYield = yieldMoment(diameter, wood.strength);
  const q = yieldCurvature(diameter, wood.elasticStrain) / curvature;
  if (!(q < 1)) return atYield / q;
  return atYield * (2 / (3 * Math.PI)) * ((5 - 2 * q * q) * Math.sqrt(1 - q * q) + (3 / q) * Math.asin(q));
}
