import { speciesOf } from '../species/index.js';
import { formOf, type Form, type RemovalChoice, type Tree, lastOn } from '../tree/index.js';

export const RULES = [
  'dead',
  'blind',
  'weak',
  'hanging',
  'upright',
  'crotch',
  'inside-bend',
  'whorl',
  'bar',
  'fork',
  'crossing',
  'eye',
  'hides-trunk',
  'shades',
  'too-thick',
  'leggy',
  'low',
] as const;
export type Rule = (typeof RULES)[number];

/** A threshold of the rules: what it says, its unit, and the bounds within which it makes sense. */
export interface LimitNote {
  rule: Rule;
  text: string;
  unit: string;
  low: number;
  high: number;
  step: number;
}

export const LIMIT_NOTES = {
  hangingDeg: { rule: 'hanging', text: 'hangs below', unit: '°', low: -90, high: 0, step: 5 },
  underDeg: { rule: 'hanging', text: 'on the underside, within', unit: '°', low: 0, high: 60, step: 5 },
  uprightDeg: { rule: 'upright', text: 'stands above', unit: '°', low: 30, high: 90, step: 5 },
  crotchDiameters: { rule: 'crotch', text: 'near the fork, within', unit: 'thicknesses', low: 0.5, high: 5, step: 0.1 },
  insideDiameters: { rule: 'inside-bend', text: 'bend tighter than', unit: 'thicknesses', low: 3, high: 40, step: 1 },
  insideShare: { rule: 'inside-bend', text: 'towards its centre by', unit: 'share', low: 0.1, high: 1, step: 0.05 },
  whorlMm: { rule: 'whorl', text: 'one height, at least', unit: 'mm', low: 2, high: 60, step: 1 },
  barDeg: { rule: 'bar', text: 'opposite within', unit: '°', low: 5, high: 60, step: 5 },
  forkLowDeg: { rule: 'fork', text: 'good fork from', unit: '°', low: 10, high: 90, step: 5 },
  forkHighDeg: { rule: 'fork', text: 'good fork to', unit: '°', low: 20, high: 120, step: 5 },
  crossingMm: { rule: 'crossing', text: 'nearer than', unit: 'mm', low: 0, high: 30, step: 1 },
  hidesShare: { rule: 'hides-trunk', text: 'hides more than', unit: 'of the trunk', low: 0.01, high: 0.5, step: 0.01 },
  shadesDeg: { rule: 'shades', text: 'above, within', unit: '°', low: 5, high: 90, step: 5 },
  shadesGap: { rule: 'shades', text: 'gap below', unit: 'of the height', low: 0.02, high: 0.4, step: 0.01 },
  thickShare: { rule: 'too-thick', text: 'thicker than', unit: 'of the trunk', low: 0.3, high: 1, step: 0.01 },
  thickStep: { rule: 'too-thick', text: 'than the one below, times', unit: '', low: 1, high: 3, step: 0.1 },
  leggyShare: { rule: 'leggy', text: 'bare for more than', unit: 'of its length', low: 0.3, high: 0.95, step: 0.05 },
  clearTrunk: { rule: 'low', text: 'clear trunk up to', unit: 'of the height', low: 0, high: 0.6, step: 0.01 },
} as const satisfies Record<string, LimitNote>;

export type LimitName = keyof typeof LIMIT_NOTES;
export type Limits = Record<LimitName, number>;

/** Which rules look at a tree, how strictly, and what the school does with growth that is in the way. */
export interface RemovalProfile {
  name: string;
  text: string;
  rules: Record<Rule, boolean>;
  limits: Limits;
  /** Inner growth is kept as a helper until back buds show: advice to remove it becomes advice to reserve it. */
  helpers: boolean;
}

const LIMITS: Limits = {
  hangingDeg: -60,
  underDeg: 20,
  uprightDeg: 65,
  crotchDiameters: 1.5,
  insideDiameters: 12,
  insideShare: 0.5,
  whorlMm: 10,
  barDeg: 20,
  forkLowDeg: 40,
  forkHighDeg: 70,
  crossingMm: 3,
  hidesShare: 0.06,
  shadesDeg: 30,
  shadesGap: 0.12,
  thickShare: 2 / 3,
  thickStep: 1.3,
  leggyShare: 0.6,
  clearTrunk: 0.12,
};

const allBut = (...off: Rule[]): Record<Rule, boolean> => Object.fromEntries(RULES.map((r) => [r, !off.includes(r)])) as Record<Rule, boolean>;

const PROFILES: readonly RemovalProfile[] = [
  { name: 'all rules', text: 'Every rule, with the usual limits.', rules: allBut(), limits: LIMITS, helpers: false },
  {
    name: 'first styling',
    text: 'Growth that feeds the tree stays as a helper until back buds show; only structure is judged.',
    rules: allBut('weak', 'shades', 'upright'),
    limits: { ...LIMITS, hidesShare: 0.1 },
    helpers: true,
  },
  {
    name: 'refinement',
    text: 'A styled tree: pads clean below, layers apart, forks of two.',
    rules: allBut('low', 'too-thick'),
    limits: { ...LIMITS, uprightDeg: 55, underDeg: 30, shadesGap: 0.14, hidesShare: 0.04 },
    helpers: false,
  },
  {
    name: 'broadleaf structure',
    text: 'Forks of three become two, of like thickness; up and out.',
    rules: allBut('leggy'),
    limits: { ...LIMITS, uprightDeg: 80, forkLowDeg: 35, forkHighDeg: 65, crotchDiameters: 2 },
    helpers: false,
  },
  {
    name: 'clump',
    text: 'Several trunks from one base: no clear trunk asked, bars and heights do not count between trunks.',
    rules: allBut('low', 'bar', 'too-thick', 'hides-trunk'),
    limits: LIMITS,
    helpers: false,
  },
  {
    name: 'cascade',
    text: 'What hangs is meant to hang; no clear trunk.',
    rules: allBut('low', 'hanging', 'shades'),
    limits: { ...LIMITS, uprightDeg: 75 },
    helpers: false,
  },
];

export const REMOVAL_PROFILES: Readonly<Record<string, RemovalProfile>> = Object.fromEntries(PROFILES.map((p) => [p.name, p]));
const USUAL_PROFILE = 'all rules';

const known = <T>(values: Record<string, T>, keys: object): Record<string, T> => Object.fromEntries(Object.entries(values).filter(([key]) => key in keys));

/** Forms to which some rules say nothing have a profile of their own. */
const PROFILE_OF_FORM: Partial<Record<Form, string>> = { cascade: 'cascade', twin: 'clump', clump: 'clump' };

/** The profile that a tree's kind and history suggest: offered, never taken by itself. */
export function suggestedProfile(tree: Tree): string {
  const ofForm = PROFILE_OF_FORM[formOf(tree)];
  if (ofForm) return ofForm;
  if (lastOn(tree, 'styled', Infinity) !== null) return 'refinement';
  return speciesOf(tree.species).group.includes('broadleaf') ? 'broadleaf structure' : 'first styling';
}

/** What a tree is judged by where nothing was chosen: all rules, but for forms to which some of them say nothing. */
function usualProfile(tree: Tree): RemovalProfile {
  return REMOVAL_PROFILES[PROFILE_OF_FORM[formOf(tree)] ?? USUAL_PROFILE]!;
}

/** The rules for a tree: its named profile with what was changed of it. */
export function rulesFor(tree: Tree): RemovalProfile {
  const own: Partial<RemovalChoice> = tree.plan.removal ?? {};
  const profile = REMOVAL_PROFILES[own.profile ?? ''] ?? usualProfile(tree);
  return {
    ...profile,
    limits: { ...profile.limits, ...known(own.limits ?? {}, LIMIT_NOTES) },
    rules: { ...profile.rules, ...known(own.rules ?? {}, profile.rules) },
  };
}
