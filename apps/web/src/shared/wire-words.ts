import { METAL_DATA, type MetalName } from '@ustle/core';

const hundredth = (x: number): number => Math.round(x * 100) / 100;
/** Sizes that are sold, mm. */
export const soldSizes = (metal: MetalName): number[] => METAL_DATA[metal].sizes.map(hundredth);
/** The size that is sold nearest to another. */
export const nearestSize = (metal: MetalName, to: number): number => soldSizes(metal).reduce((best, s) => (Math.abs(s - to) < Math.abs(best - to) ? s : best));
