import { clamp } from '../units/index.js';
import type { Bark } from '../species/index.js';
import type { MarkStage, Wrap } from '../tree/index.js';
import { chanceBelow, type Unknown } from './unknown.js';

/** Embedding at which the wire leaves a mark, mm, by bark. */
export const MARK_LIMIT: Record<Bark, number> = { thin: 0.3, medium: 0.45, corky: 0.8 };

/** The same under a wire of a thickness: a thin one cuts in sooner. docs: Marking. */
export const markLimitFor = ({ limit, wireDiameter }: { limit: number; wireDiameter: number }): number => limit * clamp(Math.sqrt(wireDiameter / 3), 0.6, 1);

const WRAP_ALLOWANCE: Record<Wrap, number> = { none: 0, raffia: 0.6, tape: 0.8 };

/** Growth that a coil lets pass before it begins to bed in, mm of radius: its gap and what its wrap gives. */
export const allowance = (gap: number, wrap: Wrap): number => gap + WRAP_ALLOWANCE[wrap];

/** Embedding (mm) at which each stage begins. A thin wire is "deep" no sooner than a quarter past its mark. docs: Marking. */
export function stageStarts(markLimit: number, wireDiameter: number): Record<Exclude<MarkStage, 'clear'>, number> {
  const deep = Math.max(wireDiameter / 2, markLimit * 1.25);
  // A snug wire lies on the bark from the first day: "touching" means that the bark is seen to press.
  return { touching: markLimit / 4, marking: markLimit, deep, swallowed: Math.max(wireDiameter, deep * 1.5) };
}

/** The stage of an embedding in mm. */
export function stageAt(embedding: number, starts: ReturnType<typeof stageStarts>): MarkStage {
  if (embedding >= starts.swallowed) return 'swallowed';
  if (embedding >= starts.deep) return 'deep';
  if (embedding >= starts.marking) return 'marking';
  return embedding >= starts.touching ? 'touching' : 'clear';
}

/** Logarithm of the unknown factor at which a radial growth (mm) is just reached; ±Infinity where it always or never is. */
export function unknownNeeded(growth: number, expected: number): number {
  if (growth <= 0) return -Infinity;
  return expected > 0 ? Math.log(growth / expected) : Infinity;
}

/** Probability that growth, expected as so many mm before the unknown factor, reaches so many mm. */
export const chanceReached = (growth: number, expected: number, unknown: Unknown): number => 1 - chanceBelow(unknown, unknownNeeded(growth, expected));

/** Probability that a wire marks: g·x·F·u reaches gap + limit, u log-normal with the given sd. docs: Marking. */
export const marked = (of: { yearlyGrowth: number; factor: number; share: number; gap: number; markLimit: number; sd: number }): number =>
  chanceReached(of.gap + of.markLimit, of.yearlyGrowth * of.factor * of.share, { kind: 'normal', mean: 0, sd: of.sd });
