import { inPlan, actKind, refuse } from './act.js';
import { MOST_PINNED, orNull, VIEW } from '../tree/index.js';

const sayView = ({ bearing, pitch, roll }: { bearing: number; pitch: number; roll: number }): string =>
  `${bearing}°${pitch || roll ? `, tilted ${pitch}/${roll}°` : ''}`;

/** Chooses the front, or with null leaves it open again. */
export const chooseFront = actKind({
  kind: 'front',
  fields: { front: orNull(VIEW) },
  guarded: true,
  apply: (tree, { front }) => inPlan(tree, { front }),
  say: ({ front }) => (front ? `choose the front at ${sayView(front)}` : 'leave the front open'),
});

/** Keeps a front open beside the chosen one; said again, it is let go of. */
export const keepOpen = actKind({
  kind: 'keep-open',
  fields: { view: VIEW },
  guarded: true,
  apply: (tree, { view }) => {
    const same = (v: typeof view): boolean => v.bearing === view.bearing && v.pitch === view.pitch && v.roll === view.roll;
    const before = tree.plan.pinned ?? [];
    if (!before.some(same) && before.length >= MOST_PINNED)
      return refuse('view', 'limit', `${MOST_PINNED} fronts are kept open already: let one of them go first.`);
    return inPlan(tree, { pinned: before.some(same) ? before.filter((v) => !same(v)) : [...before, view].sort((a, b) => a.bearing - b.bearing) });
  },
  say: ({ view }) => `keep ${sayView(view)} open`,
});
