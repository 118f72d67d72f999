import type { KeptSight, Tree } from '../tree/index.js';
import { seenWidth, POT_LINE } from './by-pot.js';
import { lengthAlong } from './curve.js';
import { placeLine } from './lines.js';
import type { Sight } from './set.js';
import { bearingAndElevation, sub } from '../space/index.js';

/** What was measured with the ruler and what photos make of it differ by more than this share: it is said. */
const TOLD = 0.12;
/** One measure may be a slip; the pot's width, marked for this, is none. */
const FEWEST = 2;

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

/** How many times as large photos make what was measured with the ruler: trunk, branches, the pot where its width is marked; a sentence where that is not about once, else null. docs: Photographs. */
export function sayScale(tree: Pick<Tree, 'branches' | 'trunk' | 'trunkKnown' | 'pot'>, kept: KeptSight, sight: Sight): string | null {
  if (!kept.photos.some((p) => p.cards.length > 1)) return null;
  const byRuler = new Map(tree.branches.filter((b) => (b.known?.how ?? 'ruler') === 'ruler').map((b) => [b.id, b]));
  const times = sight.lines.flatMap((l): number[] => {
    if (l.line === 'trunk') return (tree.trunkKnown?.how ?? 'ruler') === 'ruler' && l.d !== null && tree.trunk.length ? [l.d / tree.trunk[0]!.d] : [];
    const own = byRuler.get(l.line);
    return own ? [l.length / own.length, ...(l.d === null ? [] : [l.d / own.d])] : [];
  });
  const cameras = new Map(sight.cameras.map((c) => [c.photo, c.camera]));
  const pot = placeLine(POT_LINE, kept.drawn.filter((d) => d.line === POT_LINE), cameras); // prettier-ignore
  const rims =
    typeof pot === 'string' ? null : lengthAlong([pot.start, pot.end]) / seenWidth(tree.pot, bearingAndElevation(sub(pot.end, pot.start)).bearing - 90);
  const all = rims === null ? times : [rims];
  if (all.length < (rims === null ? FEWEST : 1)) return null;
  const off = middleOf(all);
  if (Math.abs(Math.log(off)) < Math.log(1 + TOLD)) return null;
  const by = rims === null ? 'what was measured with the ruler' : 'the pot’s width as it is typed';
  return `They make all ${off.toFixed(2)} times as large as ${by}. Is the side of a card ${kept.cardSide} mm? With ${Math.round((10 * kept.cardSide) / off) / 10} mm both would agree.`;
}
