import { habitElevation, nameInText, speciesOf, type Habit } from '../species/index.js';
import { clamp, greatestOf, sayDeg } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { formOf } from './form.js';
import type { PlacedBranch, PlacedTree } from './geometry.js';
import type { Tree } from './types.js';

/** How far up its tree a branch stands, 0..1: by its height; on what falls of a cascade by how far along that, from the crest to the end. */
export interface StandsUp {
  share: number;
  falls: boolean;
}

/** Where a main branch stands whose foot lies so high in a tree of some height, mm. */
export function standsAt(
  { tree, trunk }: Pick<PlacedTree, 'tree' | 'trunk'>,
  { branch }: Pick<PlacedBranch, 'branch'>,
  foot: number,
  height: number,
): StandsUp {
  const byHeight = { share: clamp(foot / height, 0, 1), falls: false };
  if (branch.parent !== 'trunk' || formOf(tree) !== 'cascade') return byHeight;
  const tops = trunk.points.map((p) => p[2]);
  const crest = trunk.along[tops.indexOf(greatestOf(tops))]!;
  return branch.at <= crest ? byHeight : { share: clamp((branch.at - crest) / (lengthOf(trunk) - crest), 0, 1), falls: true };
}

/** The slope that branches of a tree shall have by where they stand: the artist's own curve, else the habit chosen, else that of its kind. */
export interface SlopeProfile {
  kind: Habit | 'drawn';
  /** Elevation, degrees, at a share of the height, or of the fall. */
  at: (share: number) => number;
  because: (stands: StandsUp) => string;
}

const HABIT_WORDS: Record<Habit, string> = { down: 'down and out', level: 'level', up: 'up and out' };

/** A curve given by points, read between them in straight lines and level beyond its ends. */
function readCurve(curve: readonly { height: number; slope: number }[], at: number): number {
  const points = [...curve].sort((a, b) => a.height - b.height);
  const [first] = points;
  if (at <= first!.height) return first!.slope;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (at <= b.height) return a.slope + ((b.slope - a.slope) * (at - a.height)) / Math.max(1e-9, b.height - a.height);
  }
  return points[points.length - 1]!.slope;
}

export function slopeProfile(tree: Tree): SlopeProfile {
  const { habit, curve } = tree.plan.posing ?? {};
  const place = ({ share, falls }: StandsUp): string => `${Math.round(share * 100)}% ${falls ? 'along its fall' : 'of the height'}`;
  if (curve?.length) {
    const at = (x: number): number => readCurve(curve, x);
    return { kind: 'drawn', at, because: (on) => `Your curve has it at ${sayDeg(at(on.share))} at ${place(on)}.` };
  }
  const species = speciesOf(tree.species);
  const kind = habit ?? species.habit;
  const at = (x: number): number => habitElevation(kind, x);
  return {
    kind,
    at,
    because: (on) =>
      habit
        ? `This tree's branches go ${HABIT_WORDS[habit]}: near ${sayDeg(at(on.share))} at ${place(on)}.`
        : `On ${nameInText(species)}, branches at ${place(on)} lie near ${sayDeg(at(on.share))}.`,
  };
}
