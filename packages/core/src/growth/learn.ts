import { greatestOf, groupedBy, normalCdf } from '../units/index.js';
import type { MarkStage } from '../tree/index.js';
import { stageStarts } from './marking.js';
import type { Stretch } from './forecast.js';
import { GROWTH_UNKNOWN, HALF_SD, withBranch, type Guess, type Unknown } from './unknown.js';

interface InYear {
  branch: string;
  /** The year in which it was seen: all that is seen in one shares that its season came early or late, and was rich or poor. */
  year: number;
}

/** A stage seen on a coil: the growth expected by then on each of its stretches (mm, before the unknown factor), how much more that is where the season comes early by its usual spread, and the coil's limits. */
export interface SeenStage extends InYear {
  stage: MarkStage;
  expected: readonly { growth: number; off: number; allowance: Stretch['allowance'] }[];
  markLimit: number;
  wireDiameter: number;
}

/** Growth measured on a branch: by the gap that is left, or the caliper again; mm of radius, give or take. */
export interface SeenGrowth extends InYear {
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

/** How early a season may come, in its usual spread, with the chances of each; and how rich it may be, as cells of the sum's grid. */
const EARLY = [-2, -4 / 3, -2 / 3, 0, 2 / 3, 4 / 3, 2];
const EARLY_CHANCE = normalised(Float64Array.from(EARLY, (u) => Math.exp(-0.5 * u ** 2)));
const RICH_SD = 0.12;
const RICH_SPREAD = 1.2;
const RICH = [-1, 0, 1].map((k) => Math.round((k * RICH_SPREAD * RICH_SD) / STEP));
const RICH_CHANCE = [1, 0, 1].map((out) => (out ? 0.5 / RICH_SPREAD ** 2 : 1 - 1 / RICH_SPREAD ** 2));
/** Each year is one of so many. */
const YEARS_ALIKE = EARLY.flatMap((early, i) => RICH.map((rich, k) => ({ early, rich, chance: EARLY_CHANCE[i]! * RICH_CHANCE[k]! })));

/** A sighting is never quite impossible: records have slips too. */
const SLIP = 1e-6;

/** Multiplies the likelihood of a sighting into what is had, for each value of the unknown on the grid, where its season came early by so much. */
function weigh(seen: Sighting, early: number, into: Float64Array, factor: Float64Array): void {
  if ('grown' in seen) {
    const expected = Math.max(0, seen.expected + early * seen.off);
    for (let i = 0; i < SUM_Z.length; i++) into[i]! *= SLIP + Math.exp(-0.5 * ((expected * factor[i]! - seen.grown) / seen.within) ** 2);
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
    let embedding = -Infinity;
    for (const s of seen.expected) embedding = Math.max(embedding, Math.max(0, s.growth + early * s.off) * factor[i]! - s.allowance);
    into[i]! *= SLIP + below((high - embedding) / EYE_ERROR) - below((low - embedding) / EYE_ERROR);
  }
}
const below = (x: number): number => (x > FAR ? 1 : x < -FAR ? 0 : normalCdf(x));

/** What was seen on a branch in a year: for each way that year may have been, how likely that is, by the unknown's sum; and by the tree's half, the branch's own averaged out, as logarithms. */
interface BranchYear {
  bySum: Float64Array[];
  byTree: Float64Array[];
}

/** What was worked out of a branch's year, by its sightings: each further look asks again for all that were before it. */
const worked = new Map<string, BranchYear>();
const MOST_KEPT = 300;

function branchYear(sightings: readonly Sighting[], about: number, factor: Float64Array): BranchYear {
  const key = JSON.stringify([about, sightings]);
  const found = worked.get(key) ?? workOut(sightings, factor);
  // The oldest makes room.
  if (!worked.has(key) && worked.size >= MOST_KEPT) worked.delete(worked.keys().next().value!);
  worked.set(key, found);
  return found;
}

function workOut(sightings: readonly Sighting[], factor: Float64Array): BranchYear {
  const early = new Map(EARLY.map((u) => [u, new Float64Array(SUM_Z.length).fill(1)]));
  for (const [u, like] of early) for (const seen of sightings) weigh(seen, u, like, factor);
  // Only how they compare counts: kept large, they can be multiplied.
  const most = greatestOf([...early.values()].map((like) => like.reduce((a, b) => Math.max(a, b), 0)));
  const last = SUM_Z.length - 1;
  const bySum = YEARS_ALIKE.map(({ early: u, rich }) => {
    const like = early.get(u)!;
    return Float64Array.from(like, (_, i) => like[Math.min(last, Math.max(0, i + rich))]! / most);
  });
  const byTree = bySum.map((like) => {
    const message = new Float64Array(HALF_Z.length);
    for (let t = 0; t <= CELLS; t++) {
      let sum = 0;
      for (let b = 0; b <= CELLS; b++) sum += BRANCH_HALF[b]! * like[t + b]!;
      message[t] = Math.log(sum);
    }
    return message;
  });
  return { bySum, byTree };
}

/** All that was seen in a year, by branch; and how likely each way that it may have been is by all of it, for each value of the tree's half: logarithms, chances of the year included. */
interface Year {
  branches: ReadonlyMap<string, BranchYear>;
  by: Float64Array[];
}

function yearOf(branches: ReadonlyMap<string, BranchYear>): Year {
  const by = YEARS_ALIKE.map(({ chance }, w) => {
    const sum = new Float64Array(HALF_Z.length).fill(Math.log(chance));
    for (const { byTree } of branches.values()) for (let t = 0; t <= CELLS; t++) sum[t]! += byTree[w]![t]!;
    return sum;
  });
  return { branches, by };
}

/** The same by all branches but one. */
function without({ branches, by }: Year, branch: string): Float64Array[] {
  const own = branches.get(branch);
  return own ? by.map((sum, w) => sum.map((l, t) => l - own.byTree[w]![t]!)) : by;
}

/** The logarithm of the sum of what logarithms stand for, cell by cell. */
function together(logs: readonly Float64Array[]): Float64Array {
  const out = new Float64Array(HALF_Z.length);
  for (let t = 0; t <= CELLS; t++) {
    let most = -Infinity;
    for (const l of logs) most = Math.max(most, l[t]!);
    let sum = 0;
    for (const l of logs) sum += Math.exp(l[t]! - most);
    out[t] = most + Math.log(sum);
  }
  return out;
}

/** The shares that logarithms stand for in one cell of each. */
function sharesAt(logs: readonly Float64Array[], cell: number): Float64Array {
  let most = -Infinity;
  for (const l of logs) most = Math.max(most, l[cell]!);
  const shares = new Float64Array(logs.length);
  for (let w = 0; w < logs.length; w++) shares[w] = Math.exp(logs[w]![cell]! - most);
  return normalised(shares);
}

const fromLogs = (logs: Float64Array): Float64Array => {
  const most = logs.reduce((a, b) => Math.max(a, b), -Infinity);
  return normalised(logs.map((l) => Math.exp(l - most)));
};

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
 * What the sightings on a tree say of each branch's unknown; a branch not seen still learns through the half it shares. A year's season is
 * estimated with the growth, from all that was seen in it. On a grid of tree × branch × year, so the result depends on the data alone; of years
 * beside the one at hand each branch's half is averaged out by itself. `about` is the middle of the grid, where the artist
 * said a pace: guess and grid are told from there. docs: Learning.
 */
export function learn(sightings: readonly Sighting[], guess: Guess = GROWTH_UNKNOWN, about = 0): Learnt {
  if (!sightings.length) return { of: () => withBranch({ ...guess, mean: about + guess.mean }), tree: { mean: 0, precision: 0 } };
  const factor = about ? FACTOR.map((f) => f * Math.exp(about)) : FACTOR;
  const prior = lawOf(guess).map((p) => Math.log(p));
  const years = [...groupedBy(sightings, (seen) => seen.year)]
    .sort(([a], [b]) => a - b)
    .map(([, inYear]) => {
      const byBranch = [...groupedBy(inYear, (seen) => seen.branch)].sort(([a], [b]) => (a < b ? -1 : 1));
      return yearOf(new Map(byBranch.map(([branch, own]) => [branch, branchYear(own, about, factor)])));
    });
  const ofTree = (of: (year: Year) => Float64Array[]): Float64Array => {
    const logs = Float64Array.from(prior);
    for (const year of years) together(of(year)).forEach((l, t) => (logs[t]! += l));
    return fromLogs(logs);
  };
  const all = ofTree((year) => year.by);
  const said = saidBeside(all, guess);
  const unknowns = new Map<string, Unknown>();
  const ofBranch = (branch: string): Unknown => {
    const own = years.flatMap((year) => (year.branches.has(branch) ? [{ seen: year.branches.get(branch)!.bySum, by: without(year, branch) }] : []));
    const tree = own.length ? ofTree((year) => without(year, branch)) : all;
    const weights = new Float64Array(SUM_Z.length);
    const like = new Float64Array(HALF_Z.length);
    for (let t = 0; t <= CELLS; t++) {
      for (let b = 0; b <= CELLS; b++) like[b] = tree[t]! * BRANCH_HALF[b]!;
      for (const { seen, by } of own) {
        // How the year was, as the other branches have it for this value of the tree's half.
        const shares = sharesAt(by, t);
        for (let b = 0; b <= CELLS; b++) {
          let sum = 0;
          for (let w = 0; w < shares.length; w++) sum += shares[w]! * seen[w]![t + b]!;
          like[b]! *= sum;
        }
      }
      for (let b = 0; b <= CELLS; b++) weights[t + b]! += like[b]!;
    }
    return fromWeights(normalised(overYears(normalised(weights))), about);
  };
  return {
    tree: { ...said, mean: said.precision ? about + said.mean : 0 },
    of: (branch) => {
      const found = unknowns.get(branch) ?? ofBranch(branch);
      unknowns.set(branch, found);
      return found;
    },
  };
}

/** One year is unlike the next: standard deviation of the logarithm of what a branch grows. */
const YEAR_SD = RICH_SD;
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
