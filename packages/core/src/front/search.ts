import { wrapDeg } from '../units/index.js';
import type { View } from '../space/index.js';
import type { PlacedTree } from '../tree/index.js';
import { explain, prepare, rate, usualWeights, WEIGHT_PROFILES, type Front, type Rated, type Weights } from './scores.js';

export interface FrontSearch {
  /** Degrees between bearings; 3, or 6 for a tree of very many branches. */
  step?: number;
  pitches?: readonly number[];
  rolls?: readonly number[];
  weights?: Weights;
}

export interface FrontResult {
  /** The best view at every bearing, in order of bearing. */
  rose: Front[];
  /** Local maxima at least 25° apart, best first. */
  candidates: Front[];
}

export const LEAST_APART_DEG = 25;

const apart = (a: number, b: number): number => Math.min(wrapDeg(a - b), wrapDeg(b - a));

/** Local maxima of the rose, best first, at least 25° apart. */
export function peaks(rose: readonly Front[], most = 5): Front[] {
  const n = rose.length;
  const local = rose.filter((f, i) => f.score >= rose[(i + 1) % n]!.score && f.score >= rose[(i - 1 + n) % n]!.score);
  const kept: Front[] = [];
  for (const front of [...local].sort((a, b) => b.score - a.score || a.bearing - b.bearing)) {
    if (kept.length < most && kept.every((k) => apart(k.bearing, front.bearing) >= LEAST_APART_DEG)) kept.push(front);
  }
  return kept;
}

const weightsFor = ({ tree }: PlacedTree): Weights => WEIGHT_PROFILES[usualWeights(tree)]!;

/** A tilt must pay: replanting at another angle costs roots and a season. Points of score for each degree. */
const TILT_COST = 0.0015;
const worth = ({ score, view }: Rated): number => score - TILT_COST * (Math.abs(view.pitch) + Math.abs(view.roll));

/** A scan may bring thousands of branches: there the search goes in wider steps, and stays within seconds. */
const MANY_BRANCHES = 1000;
const usualStep = ({ branches }: PlacedTree): number => (branches.length > MANY_BRANCHES ? 6 : 3);

/** Looks at the tree from every bearing and tilt; yields the best view of each bearing, so that a caller can show, wait or stop. */
export function* scanFronts(placed: PlacedTree, search: FrontSearch = {}): Generator<Front, FrontResult> {
  const { step = usualStep(placed), pitches = [0], rolls = [0], weights = weightsFor(placed) } = search;
  const context = prepare(placed);
  const rose: Front[] = [];
  for (let bearing = 0; bearing < 360; bearing += step) {
    let best: Rated | null = null;
    for (const pitch of pitches) {
      for (const roll of rolls) {
        const found = rate(context, { bearing, pitch, roll }, weights);
        if (!best || worth(found) > worth(best)) best = found;
      }
    }
    const front = explain(context, best!);
    rose.push(front);
    yield front;
  }
  return { rose, candidates: peaks(rose) };
}

/** The whole scan at once. */
export function searchFronts(placed: PlacedTree, search: FrontSearch = {}): FrontResult {
  const scan = scanFronts(placed, search);
  let next = scan.next();
  while (!next.done) next = scan.next();
  return next.value;
}

/** One view with its score and reasons. */
export function judgeFront(placed: PlacedTree, view: View, weights: Weights = weightsFor(placed)): Front {
  const context = prepare(placed);
  return explain(context, rate(context, view, weights));
}
