import { normalCdf } from '../units/index.js';
import type { MarkStage } from '../tree/index.js';
import { stageStarts } from './marking.js';
import type { Stretch } from './forecast.js';
import { GROWTH_UNKNOWN, HALF_SD, withBranch, type Guess, type Unknown } from './unknown.js';

/** A stage seen on a coil: the growth expected by then on each of its stretches (mm, before the unknown factor), how far that may be off because a season comes early or late, and the coil's limits. */
export interface SeenStage {
  branch: string;
  stage: MarkStage;
  expected: readonly { growth: number; off: number; allowance: Stretch['allowance'] }[];
  markLimit: number;
  wireDiameter: number;
}

/** Growth measured on a branch: by the gap that is left, or the caliper again; mm of radius, give or take. */
export interface SeenGrowth {
  branch: string;
  expected: number;
  off: number;
  grown: number;
  within: number;
}
export type Sighting = SeenStage | SeenGrowth;

/** How far an eye misjudges the embedding, mm. */
const EYE_ERROR = 0.08;
const CELLS = 60;
const REACH = 4;

const STEP = (2 * REACH * HALF_SD) / CELLS;
/** Values of the tree's and of the branch's half; their sum runs over twice as many cells. */
const HALF_Z = Float64Array.from({ length: CELLS + 1 }, (_, i) => (i - CELLS / 2) * STEP);
const SUM_Z = Float64Array.from({ length: 2 * CELLS + 1 }, (_, i) => (i - CELLS) * STEP);

function normalised(weights: Float64Array): Float64Array {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => w / total);
}

const lawOf = ({ mean, sd }: Guess): Float64Array => normalised(HALF_Z.map((z) => Math.exp(-0.5 * ((z - mean) / sd) ** 2)));
/** The factors that the sums stand for. */
const FACTOR = SUM_Z.map((z) => Math.exp(z));
/** So many standard deviations off, the normal law is none or all. */
const FAR = 8;
const BRANCH_HALF = lawOf({ mean: 0, sd: HALF_SD });

/** A sighting is never quite impossible: records have slips too. */
const SLIP = 1e-6;

/** Multiplies the likelihood of a sighting into what is had, for each value of the unknown on the grid: each stands for such a factor. */
function weigh(seen: Sighting, into: Float64Array, factor: Float64Array): void {
  if ('grown' in seen) {
    for (let i = 0; i < SUM_Z.length; i++)
      into[i]! *= SLIP + Math.exp(-0.5 * ((seen.expected * factor[i]! - seen.grown) / Math.hypot(seen.within, seen.off * factor[i]!)) ** 2);
    return;
  }
  const starts = stageStarts(seen.markLimit, seen.wireDiameter);
  const bounds: Record<MarkStage, [number, number]> = {
    clear: [-Infinity, starts.touching],
    touching: [starts.touching, starts.marking],
    marking: [starts.marking, starts.deep],
    deep: [starts.deep, starts.swallowed],
    swallowed: [starts.swallowed, Infinity],
  };
  const [low, high] = bounds[seen.stage];
  for (let i = 0; i < SUM_Z.length; i++) {
    let [embedding, error] = [-Infinity, EYE_ERROR];
    for (const s of seen.expected) {
      const here = s.growth * factor[i]! - s.allowance;
      if (here > embedding) [embedding, error] = [here, Math.hypot(EYE_ERROR, s.off * factor[i]!)];
    }
    into[i]! *= SLIP + below((high - embedding) / error) - below((low - embedding) / error);
  }
}
const below = (x: number): number => (x > FAR ? 1 : x < -FAR ? 0 : normalCdf(x));

export interface Learnt {
  /** The unknown of a branch, whether it was seen or not. */
  of: (branch: string) => Unknown;
  /** What the sightings alone say of the tree's half, as a normal law: its mean and one over its variance; no precision where they say nothing. */
  tree: { mean: number; precision: number };
}

const meanAndVariance = (weights: Float64Array): [number, number] => {
  const mean = weights.reduce((sum, w, i) => sum + w * HALF_Z[i]!, 0);
  return [mean, weights.reduce((sum, w, i) => sum + w * (HALF_Z[i]! - mean) ** 2, 0)];
};

/** The normal law that, beside a first guess, leads to what was found. */
function saidBeside(found: Float64Array, guess: Guess): Learnt['tree'] {
  const [mean, variance] = meanAndVariance(found);
  const [firstMean, firstVariance] = meanAndVariance(lawOf(guess));
  const precision = 1 / variance - 1 / firstVariance;
  return precision > 1e-6 ? { mean: (mean / variance - firstMean / firstVariance) / precision, precision } : { mean: 0, precision: 0 };
}

/**
 * What the sightings on a tree say of each branch's unknown; a branch not seen still learns through the half it shares.
 * Exact on a grid of tree × branch values, so the result depends on the data alone. `about` is the middle of the grid, where the artist
 * said a pace: guess and grid are told from there. docs: Learning.
 */
export function learn(sightings: readonly Sighting[], guess: Guess = GROWTH_UNKNOWN, about = 0): Learnt {
  if (!sightings.length) return { of: () => withBranch({ ...guess, mean: about + guess.mean }), tree: { mean: 0, precision: 0 } };
  const factor = about ? FACTOR.map((f) => f * Math.exp(about)) : FACTOR;
  const prior = lawOf(guess);
  const byBranch = new Map<string, Float64Array>();
  for (const seen of sightings) {
    const like = byBranch.get(seen.branch) ?? new Float64Array(SUM_Z.length).fill(1);
    weigh(seen, like, factor);
    byBranch.set(seen.branch, like);
  }
  // What each seen branch says of the tree's half, its own half averaged out.
  const messages = new Map<string, Float64Array>();
  for (const [branch, like] of byBranch) {
    const message = new Float64Array(HALF_Z.length);
    for (let t = 0; t <= CELLS; t++) {
      let sum = 0;
      for (let b = 0; b <= CELLS; b++) sum += BRANCH_HALF[b]! * like[t + b]!;
      message[t] = sum;
    }
    messages.set(branch, message);
  }
  const besides = (branch: string | null): Float64Array => {
    const tree = Float64Array.from(prior);
    for (const [other, message] of messages) if (other !== branch) for (let t = 0; t <= CELLS; t++) tree[t]! *= message[t]!;
    return normalised(tree);
  };
  const all = besides(null);
  const said = saidBeside(all, guess);
  return {
    tree: { ...said, mean: said.precision ? about + said.mean : 0 },
    of: (branch) => {
      const own = byBranch.get(branch);
      const tree = own ? besides(branch) : all;
      const weights = new Float64Array(SUM_Z.length);
      for (let t = 0; t <= CELLS; t++) for (let b = 0; b <= CELLS; b++) weights[t + b]! += tree[t]! * BRANCH_HALF[b]!;
      if (own) for (let i = 0; i < SUM_Z.length; i++) weights[i]! *= own[i]!;
      return fromWeights(normalised(overYears(weights)), about);
    },
  };
}

/** One year is unlike the next: standard deviation of the logarithm of what a branch grows. */
const YEAR_SD = 0.25;
const YEAR_CELLS = Math.ceil((3 * YEAR_SD) / STEP);
const YEARS = normalised(Float64Array.from({ length: 2 * YEAR_CELLS + 1 }, (_, i) => Math.exp(-0.5 * (((i - YEAR_CELLS) * STEP) / YEAR_SD) ** 2)));

/** What was learnt in the years that were seen, for a year to come. */
function overYears(weights: Float64Array): Float64Array {
  const wide = new Float64Array(weights.length);
  for (let i = 0; i < weights.length; i++)
    for (let k = 0; k < YEARS.length; k++) wide[Math.min(weights.length - 1, Math.max(0, i + k - YEAR_CELLS))]! += weights[i]! * YEARS[k]!;
  return wide;
}

/** Cell weights, of a grid about a value, as a distribution function at the cells' upper edges. */
function fromWeights(weights: Float64Array, about: number): Unknown {
  const z = new Float64Array(weights.length + 1);
  const below = new Float64Array(weights.length + 1);
  z[0] = about + SUM_Z[0]! - STEP / 2;
  for (let i = 0; i < weights.length; i++) {
    z[i + 1] = about + SUM_Z[i]! + STEP / 2;
    below[i + 1] = Math.min(1, below[i]! + weights[i]!);
  }
  below[weights.length] = 1;
  return { kind: 'grid', z, below };
}
