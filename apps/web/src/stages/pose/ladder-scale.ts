import { clamp } from '@ustle/core';

/** The slope ladder's picture, px: height runs up, slope from hanging on the left to steep on the right. */
export const WIDTH = 360;
export const HEIGHT = 208;
export const EDGE = { left: 14, right: 14, top: 10, bottom: 26 };
export const LOW = -50;
export const HIGH = 80;
export const STROKE = 17;

export const xOf = (slope: number): number => EDGE.left + ((clamp(slope, LOW, HIGH) - LOW) / (HIGH - LOW)) * (WIDTH - EDGE.left - EDGE.right);
export const yOf = (share: number): number => HEIGHT - EDGE.bottom - clamp(share, 0, 1) * (HEIGHT - EDGE.top - EDGE.bottom);
export const slopeAt = (x: number): number => Math.round(clamp(LOW + ((x - EDGE.left) / (WIDTH - EDGE.left - EDGE.right)) * (HIGH - LOW), LOW, HIGH));
export const shareAt = (y: number): number => clamp((HEIGHT - EDGE.bottom - y) / (HEIGHT - EDGE.top - EDGE.bottom), 0, 1);
