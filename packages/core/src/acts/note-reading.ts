import { READING } from '../tree/index.js';
import { actKind, inPlan } from './act.js';

/** Notes the signs of strength seen on the act's day, and how far the year is. */
export const noteReading = actKind({
  kind: 'reading',
  fields: { signs: READING.properties.signs, season: READING.properties.season },
  guarded: true,
  apply: (tree, { on, signs, season }) => inPlan(tree, { reading: { on, signs, season } }),
  say: () => 'note the signs',
});
