import { LIMIT_NOTES, REMOVAL_PROFILES, RULES, type LimitNote } from '../removal/index.js';
import { REMOVAL } from '../tree/index.js';
import { actKind, inPlan, refuse } from './act.js';

const sayUnit = ({ low, high, unit }: LimitNote): string => `${low} and ${high}${unit ? ` ${unit}` : ''}`;

/** Chooses which rules look at the tree: a named profile and what is changed of it. */
export const chooseRules = actKind({
  kind: 'rules',
  fields: REMOVAL.properties,
  guarded: true,
  apply: (tree, { profile, limits, rules }) => {
    if (!(profile in REMOVAL_PROFILES)) return refuse('profile', 'choice', `profile must be one of: ${Object.keys(REMOVAL_PROFILES).join(', ')}.`);
    for (const [name, value] of Object.entries(limits)) {
      const note = (LIMIT_NOTES as Record<string, LimitNote>)[name];
      if (!note) return refuse('limits', 'unknown-field', `limits.${name} is not known. Known are: ${Object.keys(LIMIT_NOTES).join(', ')}.`);
      if (!(value >= note.low && value <= note.high)) return refuse('limits', 'range', `limits.${name} must be between ${sayUnit(note)}; it is ${value}.`);
    }
    const unknown = Object.keys(rules).find((name) => !(RULES as readonly string[]).includes(name));
    if (unknown) return refuse('rules', 'unknown-field', `rules.${unknown} is not known. Known are: ${RULES.join(', ')}.`);
    return inPlan(tree, { removal: { profile, limits, rules } });
  },
  say: ({ profile }) => `look at it by the rules "${profile}"`,
});
