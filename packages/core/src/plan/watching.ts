import { isoOf } from '../units/index.js';
import { beforeLooks, learnedOf, NOTHING_LEARNT, quantile, scarsOf, treeSays, type Calibration, type Known } from '../growth/index.js';
import { heldDue } from '../season/index.js';
import { placeTree, type MarkStage, type Tree } from '../tree/index.js';

/** What Watch shows beside the coils that are on: angles to measure, scars, and what was learnt of the tree. */
export interface Watching {
  toMeasure: { branch: string; run: string; offOn: string; on: string; wantedDeg: number }[];
  scars: { branch: string; since: string; stage: MarkStage; depth: number; growsOut: string | null; on: boolean }[];
  /** How fast its wood thickens, in times the usual: as taken before its own looks, and after them; with the range of four in five. */
  pace: { before: Range; now: Range; looks: number };
  /** How much springs back, in times what is computed. */
  spring: Range;
  cases: Calibration;
}
export interface Range {
  low: number;
  likely: number;
  high: number;
}

/** Nobody's branch: what is taken of one that was never looked at. */
const ANY_BRANCH = '';

/** What Watch shows of a tree on a day. */
export function watchingOf(tree: Tree, onDay: number, known?: Known): Watching {
  const placed = placeTree(tree);
  const learned = learnedOf(placed, onDay, known);
  const range = (unknown: Parameters<typeof quantile>[0]): Range => {
    const at = (p: number): number => Math.exp(quantile(unknown, p));
    return { low: at(0.1), likely: at(0.5), high: at(0.9) };
  };
  return {
    toMeasure: heldDue(placed, onDay).map(({ coil, on }) => ({
      branch: coil.branch,
      run: coil.run,
      offOn: isoOf(coil.offOn!),
      on: isoOf(on),
      wantedDeg: coil.targetDeg ?? coil.bentDeg!,
    })),
    scars: scarsOf(placed, onDay, known).map(({ branch, since, stage, depth, growsOut, on }) => ({
      branch,
      since: isoOf(since),
      stage,
      depth,
      growsOut: growsOut === null ? null : isoOf(growsOut),
      on,
    })),
    pace: { before: range(beforeLooks(tree, known ?? NOTHING_LEARNT)), now: range(learned.of(ANY_BRANCH)), looks: learned.looks },
    spring: range({ kind: 'normal', ...learned.spring }),
    cases: treeSays(tree, onDay).cases,
  };
}
