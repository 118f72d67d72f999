import { modulus, secondMoment, sectionMoment, yieldCurvature, type Wood } from './section.js';

/** What a round section does at a curvature (1/mm): its moment (N·mm), how fast that rises (N·mm²), and the work done to bend it so far (N). */
export interface SectionState {
  moment: number;
  stiffness: number;
  work: number;
}

/**
 * An elastic–perfectly plastic circle bent for the first time. Fibres within the share q of the radius are elastic; the rest
 * yield. With r the radius: stiffness 4E∫y²√(r²−y²)dy over the elastic part, work the integral of the fibres' own.
 */
export function sectionState(at: { diameter: number; curvature: number; wood: Wood }): SectionState {
  const { diameter, curvature, wood } = at;
  const e = modulus(wood);
  const full = e * secondMoment(diameter);
  const atYield = yieldCurvature(diameter, wood.elasticStrain);
  if (curvature <= atYield) return { moment: full * curvature, stiffness: full, work: (full * curvature ** 2) / 2 };
  const r = diameter / 2;
  const q = atYield / curvature;
  const root = Math.sqrt(1 - q * q);
  const elastic = (r ** 4 / 8) * (Math.asin(q) - q * (1 - 2 * q * q) * root);
  const arm = (r ** 3 * root ** 3) / 3;
  const area = (r ** 2 / 2) * (Math.PI / 2 - Math.asin(q) - q * root);
  return {
    moment: sectionMoment(at),
    stiffness: 4 * e * elastic,
    work: 4 * ((e * curvature ** 2 * elastic) / 2 + wood.strength * curvature * arm - (wood.strength * wood.elasticStrain * area) / 2),
  };
}
