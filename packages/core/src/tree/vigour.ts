import type { Vigour } from './measures.js';

/** Radial growth by vigour, over that of an ordinary tree. */
export const VIGOUR_FACTOR: Record<Vigour, number> = { weak: 0.5, normal: 1, strong: 1.5, free: 1.8, refined: 0.3 };
