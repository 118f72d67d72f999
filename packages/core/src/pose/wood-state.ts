import { sayDay } from '../units/index.js';
import { speciesOf } from '../species/index.js';
import { AFTER_CRACK, type BendingSoFar, type Cracked, type Tree, type Worsening } from '../tree/index.js';

/** By how much the smallest safe radius grows; own estimates. docs: What makes wood worse. */
const WORSE: Record<Worsening, { factor: number; text: string }> = {
  wound: { factor: 1.25, text: 'An old wound outside the bend opens first: bend away from it, or bind it well.' },
  dry: { factor: 1.3, text: 'Dry wood is brittle: water it the day before.' },
  frozen: { factor: 1.6, text: 'Frozen wood snaps: wait for days above freezing.' },
  'bent-before': { factor: 1.2, text: 'It was bent the other way before: its fibres are loosened there.' },
  'bark-in-crotch': { factor: 1.3, text: 'Bark in the crotch splits when the branch is drawn down: bind the fork together before.' },
};

/** What the smallest safe radius of a branch is multiplied by, and why; `asked` where the artist was asked. */
export function worseWood(tree: Tree, branch: string): { factor: number; because: string[]; asked: boolean } {
  const own = tree.plan.worse?.find((w) => w.branch === branch);
  const what = own?.what ?? [];
  return { factor: what.reduce((f, w) => f * WORSE[w].factor, 1), because: what.map((w) => WORSE[w].text), asked: own !== undefined };
}

/** Smallest safe bend ratio of a branch's wood. */
export const bendRatioOf = (tree: Tree, branch: string): number => speciesOf(tree.species).bendRatio.value * worseWood(tree, branch).factor;

/** Rest between two stages of a bend: minutes, or days. Own estimates. docs: Stages. */
export interface Rest {
  minutes: number;
  days: number;
  text: string;
}

/** How long a bend rests between two stages, by thickness (mm) and the risk of the bend by hand. */
export function restFor(diameter: number, handRisk: number): Rest {
  const days = handRisk < 1 && diameter < 20 ? 0 : diameter < 10 ? 2 : diameter < 20 ? 7 : diameter < 35 ? 14 : 21;
  if (days) return { minutes: 0, days, text: `${days} days` };
  const minutes = diameter < 8 ? 5 : diameter < 14 ? 10 : 20;
  return { minutes, days: 0, text: `${minutes} minutes` };
}

/** Days that a bend is let be after a sound of fibre. */
const AFTER_FIBRE = 21;

/** Why a branch that cracked is neither bent nor wired. */
export const sayCracked = ({ crack, on, until }: Cracked): string =>
  `It cracked ${crack} the fibre on ${sayDay(on)}: it is neither bent nor wired again before ${sayDay(until)}.`;

/** What a branch's bending means for what comes next: not before which day (null: not at all), and what to do. */
export function afterBending({ sound, crack, lastOn }: BendingSoFar, rest: Rest): { notBefore: number | null; told: string[]; moreProtection: boolean } {
  const last = lastOn ?? 0;
  if (crack === 'across')
    return {
      notBefore: null,
      moreProtection: true,
      told: [
        'It cracked across the fibre: what lies beyond may die. Bind it as it is, shade and water the tree, and wait a season. No further bend; a branch held in reserve for it stays.',
      ],
    };
  if (crack === 'along') {
    const notBefore = last + AFTER_CRACK.along;
    return { notBefore, moreProtection: true, told: [`It cracked along the fibre, which heals: bind it, seal it, and let it be until ${sayDay(notBefore)}.`] };
  }
  if (sound === 'fibre') {
    const notBefore = last + Math.max(AFTER_FIBRE, 2 * rest.days);
    return {
      notBefore,
      moreProtection: true,
      told: [`Fibres were heard: hold it where it is, bind it, and go no further before ${sayDay(notBefore)}, then with raffia and parallel wires.`],
    };
  }
  const notBefore = last + rest.days;
  if (sound === 'bark') return { notBefore, moreProtection: false, told: ['Bark was heard: go on slowly, and look at it before each stage.'] };
  return { notBefore, moreProtection: false, told: [] };
}
