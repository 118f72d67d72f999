import { normalCdf } from '../units/index.js';
import type { MarkStage } from '../tree/index.js';
import { stageStarts } from './marking.js';
import { NOTHING_KNOWN, UNKNOWN_SD, type Unknown } from './unknown.js';

/** A stage seen on a coil: the growth expected by then (mm, before the unknown factor) and the coil's limits. */
export interface Sighting {
  branch: string;
  stage: MarkStage;
  expected: number;
  allowance: number;
  markLimit: number;
  wireDiameter: number;
}

/** How far an eye misjudges the embedding, mm. */
const EYE_ERROR = 0.08;
const CELLS = 60;
const REACH = 4;

const HALF_SD = UNKNOWN_SD / Math.SQRT2;
const STEP = (2 * REACH * HALF_SD) / CELLS;
/** Values of the tree's and of the branch's half; their sum runs over twice as many cells. */
const HALF_Z = Float64Array.from({ length: CELLS + 1 }, (_, i) => (i - CELLS / 2) * STEP);
const SUM_Z = Float64Array.from({ length: 2 * CELLS + 1 }, (_, i) => (i - CELLS) * STEP);
const PRIOR = normalised(HALF_Z.map((z) => Math.exp(-0.5 * (z / HALF_SD) ** 2)));

function normalised(weights: Float64Array): Float64Array {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => w / total);
}

/** Likelihood of a sighting for each value of the unknown on the grid. */
function likelihood(seen: Sighting): Float64Array {
  const starts = stageStarts(seen.markLimit, seen.wireDiameter);
  const bounds: Record<MarkStage, [number, number]> = {
    clear: [-Infinity, starts.touching],
    touching: [starts.touching, starts.marking],
    marking: [starts.marking, starts.deep],
    deep: [starts.deep, starts.swallowed],
    swallowed: [starts.swallowed, Infinity],
  };
  const [low, high] = bounds[seen.stage];
  return SUM_Z.map((z) => {
    const embedding = seen.expected * Math.exp(z) - seen.allowance;
    // A sighting is never quite impossible: records have slips too.
    return 1e-6 + normalCdf((high - embedding) / EYE_ERROR) - normalCdf((low - embedding) / EYE_ERROR);
  });
}

/**
 * What the sightings on a tree say of each branch's unknown; a branch not seen still learns through the half it shares.
 * Exact on a grid of tree × branch values, so the result depends on the data alone. docs: Learning.
 */
export function learn(sightings: readonly Sighting[]): (branch: string) => Unknown {
  if (!sightings.length) return () => NOTHING_KNOWN;
  const byBranch = new Map<string, Float64Array>();
  for (const seen of sightings) {
    const now = likelihood(seen);
    const before = byBranch.get(seen.branch);
    byBranch.set(seen.branch, before ? before.map((v, i) => v * now[i]!) : now);
  }
  // What each seen branch says of the tree's half, its own half averaged out.
  const messages = new Map<string, Float64Array>();
  for (const [branch, like] of byBranch) {
    messages.set(
      branch,
      HALF_Z.map((_, t) => PRIOR.reduce((sum, p, b) => sum + p * like[t + b]!, 0)),
    );
  }
  return (branch) => {
    const tree = HALF_Z.map((_, t) => {
      let weight = PRIOR[t]!;
      for (const [other, message] of messages) if (other !== branch) weight *= message[t]!;
      return weight;
    });
    const own = byBranch.get(branch);
    const weights = new Float64Array(SUM_Z.length);
    for (let t = 0; t <= CELLS; t++) {
      for (let b = 0; b <= CELLS; b++) weights[t + b]! += tree[t]! * PRIOR[b]! * (own ? own[t + b]! : 1);
    }
    return fromWeights(normalised(weights));
  };
}

/** Cell weights as a distribution function at the cells' upper edges. */
function fromWeights(weights: Float64Array): Unknown {
  const z = new Float64Array(weights.length + 1);
  const below = new Float64Array(weights.length + 1);
  z[0] = SUM_Z[0]! - STEP / 2;
  for (let i = 0; i < weights.length; i++) {
    z[i + 1] = SUM_Z[i]! + STEP / 2;
    below[i + 1] = Math.min(1, below[i]! + weights[i]!);
  }
  below[weights.length] = 1;
  return { kind: 'grid', z, below };
}
