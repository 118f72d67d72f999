import { monthName, monthOf } from '../units/index.js';
import { nameInText, northernMonth, speciesOf } from '../species/index.js';
import type { Tree } from '../tree/index.js';

/** A cut wider than this is worth closing with paste, mm. */
const SEAL_MM = 8;
const LARGE_MM = 25;

/** Care of wounds and people for cutting on a tree on a day: by species, season and the widest cut (mm). Follows job practice, not a label. */
export function cuttingCare(tree: Tree, onDay: number, widestMm: number): { wounds: string[]; people: string[] } {
  const species = speciesOf(tree.species);
  const month = northernMonth(tree.site.hemisphere, onDay);
  const { good, bad } = species.months.pruning;
  const name = nameInText(species);
  const best = good.map((m) => monthName(tree.site.hemisphere === 'south' ? m + 6 : m)).join(', ');
  const wounds: string[] = [];
  if (species.bleeds && bad.includes(month))
    wounds.push(`${name[0]!.toUpperCase()}${name.slice(1)} bleeds when cut before it is in leaf. Wait until after leafing, or late summer: ${best}.`);
  else if (bad.includes(month)) wounds.push(`${monthName(monthOf(onDay))} is a bad month to cut ${name}. Better: ${best}.`);
  else if (!good.includes(month)) wounds.push(`${monthName(monthOf(onDay))} is not the best month to cut ${name}. Better: ${best}.`);
  if (species.group.includes('conifer'))
    wounds.push('Resin closes small cuts by itself. Where a jin is wanted, leave the stub and peel it; else cut flush and a little hollow.');
  else wounds.push('Cut flush and a little hollow with a sharp blade, so that the bark rolls over without a swelling.');
  if (widestMm >= SEAL_MM) wounds.push(`Close cuts over ${SEAL_MM} mm with wound paste; look at its label.`);
  if (widestMm >= LARGE_MM)
    wounds.push(`The widest cut is ${widestMm.toFixed(0)} mm: take it off in two steps, first long, then at its place, so that no bark tears.`);
  const people = ['Cutters and saws: keep the other hand behind the blade, and wear eye protection. Hold the branch that comes off.', ...species.hazards];
  return { wounds, people };
}
