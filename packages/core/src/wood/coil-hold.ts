import { toRad } from '../units/index.js';
import { METAL_DATA, type MetalName } from './metals.js';

/** Snug and well anchored, a slight gap at the shoulder, an anchor that slips. */
export const GRIP = { snug: 0.8, gap: 0.3, slipping: 0.1 } as const;

/** The grip of a coil put on with a gap, mm. */
export const gripOf = (gap: number): number => (gap <= 0.1 ? GRIP.snug : gap <= 0.6 ? GRIP.gap : GRIP.slipping);

/** With so many turns past a bend a coil grips as well as it ever does; with fewer by so much less. */
const FULL_TURNS = 1.5;

/** Moment a coil holds, N·mm: the wire's own plastic moment, and the coil working with the branch as far as it grips. `turns` are those on the weaker side of the bend; left out, enough. docs: Hold. */
export function coilHold(of: {
  diameter: number;
  wireDiameter: number;
  strands: number;
  coilAngleDeg: number;
  grip: number;
  metal: MetalName;
  turns?: number;
}): number {
  const { diameter, wireDiameter: w, strands, turns = FULL_TURNS } = of;
  // Wire along a branch, or square across it, grips nothing.
  const grip = of.grip * Math.sin(2 * toRad(of.coilAngleDeg)) * Math.min(1, turns / FULL_TURNS);
  const { strength } = METAL_DATA[of.metal];
  const along = Math.cos(toRad(of.coilAngleDeg));
  const own = ((strength * w ** 3) / 6) * along;
  const together = ((Math.PI * w * w) / 4) * strength * along * (2 / Math.PI) * ((diameter + w) / 2);
  return strands * (own + grip * together);
}
