import { MANNER } from '../tree/index.js';
import { actKind, inPlan } from './act.js';

/** Says how a tree is wired: how firmly, and which marks it bears. */
export const wireManner = actKind({
  kind: 'manner',
  fields: MANNER,
  guarded: true,
  apply: (tree, { firmness, tolerance }) => inPlan(tree, { ...(firmness ? { firmness } : {}), ...(tolerance ? { tolerance } : {}) }),
  say: ({ firmness, tolerance }) => (firmness ? `wire it ${firmness}` : `bear ${tolerance === 'fading' ? 'marks that fade' : 'no marks'}`),
});
