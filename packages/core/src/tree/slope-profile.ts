import { habitElevation, nameInText, speciesOf, type Habit } from '../species/index.js';
import { sayDeg } from '../units/index.js';
import type { Tree } from './types.js';

/** The slope that branches of a tree shall have by their height: the artist's own curve, else the habit chosen, else that of its kind. */
export interface SlopeProfile {
  kind: Habit | 'drawn';
  /** Elevation, degrees, at a share of the height. */
  at: (heightShare: number) => number;
  because: (heightShare: number) => string;
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
  const share = (x: number): string => `${Math.round(x * 100)}%`;
  if (curve?.length) {
    const at = (x: number): number => readCurve(curve, x);
    return { kind: 'drawn', at, because: (x) => `Your curve has it at ${sayDeg(at(x))} at ${share(x)} of the height.` };
  }
  const species = speciesOf(tree.species);
  const kind = habit ?? species.habit;
  const at = (x: number): number => habitElevation(kind, x);
  return {
    kind,
    at,
    because: (x) =>
      habit
        ? `This tree's branches go ${HABIT_WORDS[habit]}: near ${sayDeg(at(x))} at ${share(x)} of the height.`
        : `On ${nameInText(species)}, branches at ${share(x)} of the height lie near ${sayDeg(at(x))}.`,
  };
}
