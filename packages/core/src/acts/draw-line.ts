import { id, orNull, OVER_PHOTO, type KeptLine } from '../tree/index.js';
import { sayPart } from '../sight/index.js';
import { actKind, refuse } from './act.js';

/** A line drawn over a photo, drawn anew, or taken away: from its shoulder to its tip. */
export const drawLine = actKind({
  kind: 'draw-line',
  fields: {
    line: id('what is drawn: trunk, a branch, root-1, shari-1, pot (its width), or plumb'),
    photo: id('the photo it is drawn over'),
    points: orNull(OVER_PHOTO.points),
    widths: OVER_PHOTO.widths,
  },
  guarded: true,
  apply: (tree, { line, photo, points, widths }) => {
    const { sight } = tree;
    if (!sight?.photos.some((p) => p.photo === photo)) return refuse('photo', 'not-found', 'The tree is not measured by this photo.');
    const others = sight.drawn.filter((d) => d.line !== line || d.photo !== photo);
    const drawn: KeptLine[] = points ? [...others, { line, photo, points, ...(widths?.length ? { widths } : {}) }] : others;
    return { tree: { ...tree, sight: { ...sight, drawn } }, lines: [] };
  },
  say: ({ line, points }, names) => `${points ? 'draw' : 'take away the drawing of'} ${sayPart(line) ?? names(line)}`,
});
