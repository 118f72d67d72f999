import { toRad } from '../units/index.js';
import { METAL_DATA, type MetalName } from './metals.js';

/** Snug and well anchored, a slight gap at the shoulder, an anchor that slips. */
export const GRIP = { snug: 0.8, gap: 0.3, slipping: 0.1 } as const;

/** The grip of a coil put on with a gap, mm. */
export const gripOf = (gap: number): number => (gap <= 0.1 ? GRIP.snug : gap <= 0.6 ? GRIP.gap : GRIP.slipping);

/** Moment a coil holds, N·mm: the wire's own plastic moment, and the coil working with the branch as far as it grips. docs: Hold. */
export function coilHold(of: { diameter: number; wireDiameter: number; strands: number; coilAngleDeg: number; grip: number; metal: MetalName }): number {
  const { diameter, wireDiameter: w, strands, grip } = of;
  const { strength } = METAL_DATA[of.metal];
  const along = Math.cos(toRad(of.coilAngleDeg));
  const own = ((strength * w ** 3) / 6) * along;
  const together = ((Math.PI * w * w) / 4) * strength * along * (2 / Math.PI) * ((diameter + w) / 2);
  return strands * (own + grip * together);
}
