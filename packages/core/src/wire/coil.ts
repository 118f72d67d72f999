import { toRad } from '../units/index.js';

/** Wire length (mm) and turns of a coil on a branch of linear taper; the angle is between wire and branch axis. docs: Coil. */
export function coil(of: { baseDiameter: number; tipDiameter: number; length: number; wireDiameter: number; coilAngleDeg: number }): {
  wireLength: number;
  turns: number;
} {
  const { baseDiameter, tipDiameter, length, wireDiameter } = of;
  const angle = toRad(of.coilAngleDeg);
  const base = baseDiameter + wireDiameter;
  const taper = tipDiameter - baseDiameter;
  // ∫ ds / (d(s) + d_w); the logarithm loses its digits when there is hardly any taper.
  const inverse = Math.abs(taper) > 1e-6 * base ? (length / taper) * Math.log((tipDiameter + wireDiameter) / base) : length / base;
  return { wireLength: length / Math.cos(angle), turns: (Math.tan(angle) / Math.PI) * inverse };
}
