import { clamp } from '../units/index.js';
import type { Habit } from './types.js';

export const HABITS = ['down', 'level', 'up'] as const satisfies readonly Habit[];

/** Elevation (degrees) a branch wants, low on the tree and near the top; lower branches carried snow longer. */
const SLOPES: Record<Habit, [number, number]> = { down: [-22, 18], level: [-6, 28], up: [14, 48] };
/** Elevation (degrees) that a habit wants at a share of the height. */
export function habitElevation(habit: Habit, heightShare: number): number {
  const [low, high] = SLOPES[habit];
  return low + (high - low) * clamp((heightShare - 0.15) / 0.8, 0, 1);
}
