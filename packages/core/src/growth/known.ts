import type { Hemisphere } from '../species/index.js';
import type { Ahead } from './course.js';
import { GROWTH_UNKNOWN, type Guess } from './unknown.js';

/** What is taken of a tree before its own record speaks: from other trees of its kind at this place, and from the weather there. */
export interface Known {
  /** The tree's half of the unknown of growth. */
  growth: Guess;
  /** The logarithm of how much more, or less, than computed springs back when wire comes off. */
  spring: Guess;
  ahead: readonly Ahead[];
  /** The half of the earth whose season that is; it says nothing of trees in the other one. */
  aheadIn: Hemisphere;
}

/** How far springing back may be off before any was measured; own estimate. */
const SPRING_SD = 0.2;
export const NOTHING_LEARNT: Known = { growth: GROWTH_UNKNOWN, spring: { mean: 0, sd: SPRING_SD }, ahead: [], aheadIn: 'north' };

/** What one tree's record says of something, as a normal law: mean and one over its variance; none where it says nothing. */
export interface Said {
  mean: number;
  precision: number;
}

/** Share of a tree's variance that it has in common with its kind at a place; the rest is its own. */
const COMMON = 0.4;

/** What is to be taken of one more tree of a kind, from what others of it said. Each counts by how sure it is, and never for more than a tree can tell of its kind. docs: Learning. */
export function fromOthers(said: readonly Said[], first: Guess): Guess {
  const own = (1 - COMMON) * first.sd ** 2;
  const parts = said.filter((s) => s.precision > 0).map((s) => ({ mean: s.mean, precision: 1 / (1 / s.precision + own) }));
  const start = 1 / (COMMON * first.sd ** 2);
  const precision = start + parts.reduce((sum, p) => sum + p.precision, 0);
  const mean = (start * first.mean + parts.reduce((sum, p) => sum + p.precision * p.mean, 0)) / precision;
  return { mean, sd: Math.sqrt(1 / precision + own) };
}

/** A guess after something was said beside it. */
export function after({ mean, sd }: Guess, said: Said): Guess {
  const precision = 1 / sd ** 2 + said.precision;
  return { mean: (mean / sd ** 2 + said.mean * said.precision) / precision, sd: Math.sqrt(1 / precision) };
}
