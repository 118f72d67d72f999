import { clamp, dayOf } from '../units/index.js';
import { settingOf, speciesOf, woodOf, yearlyGrowthOf } from '../species/index.js';
import { heldShare, recoverable } from '../wood/index.js';
import { guyHistory, standing, VIGOUR_FACTOR, type PlacedTree } from '../tree/index.js';
import { courseOf } from './coil-state.js';
import { growingDaysAlong, grownAlong } from './course.js';
import { NOTHING_LEARNT } from './known.js';

/** Share of a bend (its thickness, mm, and curvature, 1/mm) that a branch kept when a tie came off it, and whether it was measured. */
export type KeptOfTie = (guy: string, branch: string, bend: { diameter: number; curvature: number }) => { share: number; measured: boolean };

/** What branches kept of where ties had led them, by a day: as measured against how far they had come, else as foreseen by usual growth. docs: Set. */
export function keptOfTies(placed: PlacedTree, onDay: number): KeptOfTie {
  const { tree } = placed;
  const { off } = guyHistory(tree, onDay);
  const species = speciesOf(tree.species);
  const wood = woodOf(species);
  const course = courseOf(placed, NOTHING_LEARNT);
  const { hemisphere } = tree.site;
  return (guy, branch, bend) => {
    const tie = off.filter((g) => g.guy === guy && g.branch === branch).at(-1);
    if (!tie) return { share: 1, measured: false };
    const held = standing(tree.record).flatMap((l) =>
      l.kind === 'measured' && l.guy === guy && l.heldDeg !== undefined && dayOf(l.on) >= tie.offOn && dayOf(l.on) <= onDay ? [l.heldDeg] : [],
    );
    if (held.length && tie.cameDeg) return { share: clamp(held.at(-1)! / tie.cameDeg, 0, 1), measured: true };
    const share = heldShare({
      ...bend,
      recoverable: recoverable({ ...bend, wood }),
      growingDays: growingDaysAlong(species, hemisphere, course, tie.since, tie.offOn),
      ...settingOf(species, bend.diameter),
      radialGrowth: yearlyGrowthOf(species, bend.diameter) * VIGOUR_FACTOR[tree.vigour] * grownAlong(species, hemisphere, course, tie.since, tie.offOn),
    });
    return { share, measured: false };
  };
}
