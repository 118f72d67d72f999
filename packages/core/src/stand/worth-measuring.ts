import { placeTree, type Tree } from '../tree/index.js';
import { lengthOf } from '../space/index.js';
import { toRad } from '../units/index.js';
import { asItStands } from './as-it-stands.js';

/** Branches whose tip may lie elsewhere by less than this, mm, are as good as measured; and so many are asked for at once. */
const LEAST_MM = 20;
const MOST = 3;

/** A branch that was bent and whose line is reckoned, with how far its tip may lie from there, and how far it may point elsewhere. */
export interface WorthMeasuring {
  branch: string;
  degrees: number;
  mm: number;
}

/** The branches whose line is the least sure of those that were bent and not measured since: measured again, everything rests on them. */
export function worthMeasuring(tree: Tree, onDay: number): WorthMeasuring[] {
  const stands = asItStands(tree, onDay);
  const { byId } = placeTree(stands);
  return Object.entries(stands.stands!.unsure)
    .flatMap(([branch, degrees]): WorthMeasuring[] => {
      const wood = byId.get(branch);
      return wood ? [{ branch, degrees, mm: lengthOf(wood.line) * Math.sin(toRad(Math.min(90, degrees))) }] : [];
    })
    .filter((w) => w.mm >= LEAST_MM)
    .sort((a, b) => b.mm - a.mm)
    .slice(0, MOST);
}
