/** Whole degrees, halves away from nothing, and nothing without a sign. */
export const sayDeg = (x: number): string => `${Math.sign(x) * Math.round(Math.abs(x)) || 0}°`;
