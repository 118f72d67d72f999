export const toRad = (deg: number): number => (deg * Math.PI) / 180;
export const toDeg = (rad: number): number => (rad * 180) / Math.PI;

/** Degrees wrapped into [0, 360). */
export const wrapDeg = (deg: number): number => ((deg % 360) + 360) % 360;

/** Signed smallest turn from one bearing to another, degrees in (-180, 180]. */
export const turnDeg = (fromDeg: number, toDegrees: number): number => {
  const turn = wrapDeg(toDegrees - fromDeg);
  return turn > 180 ? turn - 360 : turn;
};

export const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** A bend as a hand makes it, degrees: in tens, a small one in fives; no hand bends nearer than that. */
export const sayByHand = (x: number): string => {
  const step = Math.abs(x) < 20 ? 5 : 10;
  return `${Math.max(5, Math.round(x / step) * step)}°`;
};

/** Whole degrees, halves away from nothing, and nothing without a sign; by way of the tenth that figures are told to, so that it is the same before and after. */
export const sayDeg = (x: number): string => `${Math.sign(x) * Math.round(Math.round(Math.abs(x) * 10) / 10) || 0}°`;
