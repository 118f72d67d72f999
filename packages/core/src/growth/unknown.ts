import { normalCdf, normalQuantile } from '../units/index.js';

/** What is not known of a branch's growth: the logarithm of a factor, as a normal law or as weights on a grid. */
export type Unknown =
  { kind: 'normal'; mean: number; sd: number } | { kind: 'grid'; z: Float64Array; /** Probability of being at or below each z. */ below: Float64Array };

/** A normal law of the logarithm of a factor. */
export interface Guess {
  mean: number;
  sd: number;
}

/** Standard deviation of the unknown: half its variance belongs to the tree, half to the branch. */
export const UNKNOWN_SD = 0.35;
export const HALF_SD = UNKNOWN_SD / Math.SQRT2;
/** What is taken of a tree's half before anything was seen of it or its kind. */
export const GROWTH_UNKNOWN: Guess = { mean: 0, sd: HALF_SD };

/** A branch's unknown from what is taken of its tree's half. */
export const withBranch = ({ mean, sd }: Guess): Unknown => ({ kind: 'normal', mean, sd: Math.hypot(sd, HALF_SD) });
export const NOTHING_KNOWN: Unknown = { kind: 'normal', mean: 0, sd: UNKNOWN_SD };

/** Probability that the unknown is below a value. */
export function chanceBelow(unknown: Unknown, value: number): number {
  if (value === Infinity) return 1;
  if (value === -Infinity) return 0;
  if (unknown.kind === 'normal') return normalCdf((value - unknown.mean) / unknown.sd);
  const { z, below } = unknown;
  const position = (value - z[0]!) / (z[1]! - z[0]!);
  if (position <= 0) return 0;
  const i = Math.floor(position);
  if (i >= z.length - 1) return 1;
  return below[i]! + (below[i + 1]! - below[i]!) * (position - i);
}

const quantiles = new Map<number, number>();
/** Quantile of the standard normal; the few that are asked for are worked out once. */
function standard(p: number): number {
  let found = quantiles.get(p);
  if (found === undefined) quantiles.set(p, (found = normalQuantile(p)));
  return found;
}

/** The value that the unknown stays below with a probability. */
export function quantile(unknown: Unknown, p: number): number {
  if (unknown.kind === 'normal') return unknown.mean + unknown.sd * standard(p);
  const { z, below } = unknown;
  let i = 1;
  while (i < z.length - 1 && below[i]! < p) i++;
  const span = below[i]! - below[i - 1]!;
  return z[i - 1]! + (z[i]! - z[i - 1]!) * (span > 0 ? (p - below[i - 1]!) / span : 1);
}
