import type { Bark, Confidence, Figure, Flush, Group, Habit, Leaf, Species, Task } from './types.js';

type Months = Species['months'];
const months = (
  pruning: [number[], number[]],
  wiring: [number[], number[]],
  heavyBending: [number[], number[]],
  repotting: [number[], number[]],
  unwiring: [number[], number[]],
): Months => {
  const of = ([good, bad]: [number[], number[]]) => ({ good, bad });
  const byTask: Record<Task, [number[], number[]]> = { pruning, wiring, heavyBending, repotting, unwiring };
  return Object.fromEntries(Object.entries(byTask).map(([task, pair]) => [task, of(pair)])) as Months;
};

const ALWAYS: [number[], number[]] = [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12], []];
const CALENDARS: Record<Group, Months> = {
  'evergreen conifer': months(
    [[9, 10, 11, 2, 3], [5]],
    [[9, 10, 11, 12, 1, 2, 3], [5]],
    [
      [9, 10, 2, 3],
      [5, 12, 1],
    ],
    [
      [3, 4],
      [6, 7, 11, 12, 1],
    ],
    ALWAYS,
  ),
  'deciduous conifer': months(
    [
      [2, 3, 10, 11],
      [4, 5],
    ],
    [[2, 3, 10, 11], [4]],
    [
      [2, 3],
      [4, 5, 12],
    ],
    [[3], [5, 6, 7, 8, 11, 12, 1]],
    ALWAYS,
  ),
  'deciduous broadleaf': months(
    [[2, 3, 6, 7, 11], [4]],
    [[2, 3, 6, 7, 11], [4]],
    [
      [2, 3],
      [4, 5, 12, 1],
    ],
    [[3], [5, 6, 7, 8, 11, 12]],
    ALWAYS,
  ),
  'evergreen broadleaf': months(
    [
      [3, 4, 6, 9],
      [12, 1],
    ],
    [
      [3, 4, 6, 9],
      [12, 1],
    ],
    [
      [4, 6],
      [11, 12, 1, 2],
    ],
    [
      [4, 5],
      [8, 10, 11, 12, 1],
    ],
    ALWAYS,
  ),
};

/** Season curves: one flush or two, with the share of the year's wood each lays down. */
const SEASONS = {
  early: [
    { from: '04-05', to: '07-20', share: 0.8 },
    { from: '08-01', to: '10-01', share: 0.2 },
  ],
  long: [{ from: '04-10', to: '10-15', share: 1 }],
  /** Pines and junipers lay on nearly half of their wood after summer: their wire bites in autumn. */
  autumn: [
    { from: '04-05', to: '07-15', share: 0.55 },
    { from: '08-01', to: '10-31', share: 0.45 },
  ],
  late: [{ from: '05-01', to: '10-01', share: 1 }],
  short: [{ from: '05-01', to: '08-10', share: 1 }],
  twice: [
    { from: '04-10', to: '06-30', share: 0.6 },
    { from: '07-15', to: '10-05', share: 0.4 },
  ],
  mild: [
    { from: '03-20', to: '06-30', share: 0.55 },
    { from: '08-15', to: '11-10', share: 0.45 },
  ],
} satisfies Record<string, Flush[]>;

const CONFIDENCE: Record<string, Confidence> = { f: 'fair', l: 'low', g: 'guess' };
const UNITS = ['MPa', '', '', 'mm/year', '', 'growing days', ''];

/** σ_c, ε_e, k₀, g, ρ∞, τ, green cap; then one letter of confidence for each (fair, low, guess). */
type Figures = [number, number, number, number, number, number, number];

/** Own estimates, corrected by the artist's measured spring-back. */
const RECOVERY: Record<Group, number> = { 'evergreen conifer': 0.3, 'deciduous conifer': 0.3, 'deciduous broadleaf': 0.25, 'evergreen broadleaf': 0.25 };
const FADE_YEARS: Record<Bark, number | null> = { thin: null, medium: 4, corky: 2 };
/** Cut before it is in leaf it loses sap: after leafing, or late in summer. */
const BLEEDS: Extra = {
  bleeds: true,
  months: {
    pruning: {
      good: [6, 7, 8, 9],
      bad: [1, 2, 3, 4],
    },
  },
};

interface Extra {
  recovery?: number;
  fade?: number | null;
  bleeds?: boolean;
  hazards?: string[];
  months?: Partial<Months>;
}

function row(
  key: string,
  name: string,
  group: Group,
  leaf: Leaf,
  figures: Figures,
  letters: string,
  bark: Bark,
  budsBackOnOldWood: boolean,
  habit: Habit,
  season: keyof typeof SEASONS,
  extra: Extra = {},
): Species {
  const figure = (i: number): Figure => ({ value: figures[i]!, unit: UNITS[i]!, confidence: CONFIDENCE[letters[i]!]! });
  return {
    key,
    name,
    group,
    leaf,
    strength: figure(0),
    elasticStrain: figure(1),
    bendRatio: figure(2),
    yearlyGrowth: figure(3),
    relaxedShare: figure(4),
    relaxationDays: figure(5),
    recovery: { value: extra.recovery ?? RECOVERY[group], unit: '', confidence: 'guess' },
    greenCap: figure(6),
    bark,
    // Vigorous, flaky conifers outgrow a shallow mark soonest.
    markFadeYears: extra.fade !== undefined ? extra.fade : bark !== 'thin' && group.includes('conifer') ? 2 : FADE_YEARS[bark],
    budsBackOnOldWood,
    habit,
    flushes: SEASONS[season],
    months: { ...CALENDARS[group], ...extra.months },
    bleeds: extra.bleeds ?? false,
    hazards: extra.hazards ?? [],
  };
}

const EC = 'evergreen conifer',
  DC = 'deciduous conifer',
  DB = 'deciduous broadleaf',
  EB = 'evergreen broadleaf';
const SAP = 'The sap irritates skin and eyes: wear gloves and wash hands.';
const POISON = 'Poisonous: wash hands after work, and keep cuttings from children and animals.';
const THORNS = 'Thorns: protect eyes and hands.';

// prettier-ignore
export const SPECIES_TABLE: readonly Species[] = [
  row('juniper-scale', 'Juniper, scale leaf', EC, 'scale', [20, .020, 3, 0.5, .40, 150, .40], 'lffflll', 'medium', false, 'down', 'autumn', { hazards: [SAP] }),
  row('juniper-needle', 'Juniper, needle leaf', EC, 'needle', [20, .020, 3.5, 0.5, .42, 150, .35], 'llllllg', 'medium', false, 'down', 'autumn', { hazards: ['Sharp needles: gloves help.'] }),
  row('pine-two-needle', 'Pine, two-needle', EC, 'tuft', [20, .020, 4, 0.8, .45, 150, .30], 'lffflll', 'corky', false, 'down', 'autumn'),
  row('pine-five-needle', 'Pine, five-needle', EC, 'tuft', [18, .022, 4, 0.6, .45, 150, .30], 'lffflll', 'medium', false, 'level', 'autumn'),
  row('spruce', 'Spruce', EC, 'needle', [22, .025, 3.5, 0.7, .60, 200, .30], 'lllfflf', 'medium', false, 'down', 'short', { recovery: 0.4 }),
  row('fir', 'Fir', EC, 'needle', [20, .022, 4, 0.6, .55, 180, .30], 'ggggggg', 'medium', false, 'level', 'short', { recovery: 0.4 }),
  row('larch', 'Larch', DC, 'tuft', [24, .020, 3.5, 1.1, .40, 120, .40], 'lffflll', 'medium', true, 'down', 'late', { fade: 1 }),
  row('golden-larch', 'Golden larch', DC, 'tuft', [22, .020, 4, 0.8, .42, 130, .35], 'ggggggg', 'medium', true, 'down', 'late'),
  row('yew', 'Yew', EC, 'needle', [30, .030, 3, 0.5, .65, 300, .40], 'lllfflf', 'thin', true, 'level', 'long', { recovery: 0.45, hazards: [POISON] }),
  row('cedar', 'Cedar', EC, 'tuft', [20, .022, 4.5, 0.8, .45, 150, .30], 'llflllg', 'medium', true, 'level', 'long'),
  row('false-cypress', 'False cypress', EC, 'scale', [18, .022, 5, 0.5, .45, 150, .35], 'llllllg', 'medium', false, 'down', 'long'),
  row('hemlock', 'Mountain hemlock', EC, 'needle', [20, .020, 4, 0.6, .45, 150, .30], 'llllllg', 'medium', true, 'down', 'short'),
  row('cryptomeria', 'Japanese cedar', EC, 'needle', [17, .020, 4.5, 0.9, .45, 140, .40], 'ggglggg', 'medium', true, 'down', 'long'),
  row('bald-cypress', 'Bald cypress', DC, 'needle', [18, .020, 5, 1.2, .40, 120, .45], 'llllllg', 'medium', true, 'level', 'late'),
  row('dawn-redwood', 'Dawn redwood', DC, 'needle', [17, .020, 5, 1.3, .40, 115, .45], 'ggglggg', 'medium', true, 'level', 'late'),
  row('redwood', 'Coast redwood', EC, 'needle', [18, .020, 5, 1.2, .40, 120, .45], 'llllllg', 'medium', true, 'down', 'long'),
  row('thuja', 'Arbor-vitae', EC, 'scale', [17, .022, 4, 0.6, .45, 150, .35], 'ggggggg', 'medium', false, 'down', 'long'),
  row('maple-japanese', 'Japanese maple', DB, 'broad leaf', [28, .018, 7, 1.2, .35, 90, .50], 'lffffll', 'thin', true, 'up', 'twice', { ...BLEEDS }),
  row('maple-trident', 'Trident maple', DB, 'broad leaf', [28, .018, 7, 1.5, .35, 90, .50], 'lfflfll', 'thin', true, 'up', 'twice', { ...BLEEDS }),
  row('maple-field', 'Field maple', DB, 'broad leaf', [30, .017, 8, 1.1, .37, 95, .50], 'gglgggg', 'medium', true, 'up', 'twice', { ...BLEEDS, fade: null }),
  row('elm', 'Elm', DB, 'small leaf', [24, .022, 4, 1.4, .35, 90, .60], 'lfffllf', 'medium', true, 'up', 'long'),
  row('zelkova', 'Zelkova', DB, 'small leaf', [26, .020, 5, 1.2, .36, 95, .55], 'gglgggg', 'thin', true, 'up', 'long'),
  row('birch', 'Birch', DB, 'small leaf', [22, .018, 6, 1.8, .35, 80, .40], 'llllllg', 'thin', false, 'up', 'long', { ...BLEEDS }),
  row('hornbeam', 'Hornbeam', DB, 'small leaf', [32, .016, 7, 0.9, .40, 110, .45], 'lfffllf', 'thin', true, 'up', 'early', { ...BLEEDS }),
  row('hornbeam-korean', 'Korean hornbeam', DB, 'small leaf', [32, .016, 7, 0.8, .40, 110, .45], 'llflllg', 'thin', true, 'level', 'early', { ...BLEEDS }),
  row('beech', 'Beech', DB, 'broad leaf', [28, .016, 8, 0.7, .40, 120, .35], 'lllfllf', 'thin', false, 'up', 'short'),
  row('oak', 'Oak', DB, 'broad leaf', [30, .016, 9, 0.8, .45, 150, .40], 'llllllg', 'corky', true, 'level', 'twice'),
  row('hackberry', 'Hackberry', DB, 'small leaf', [26, .019, 6, 1.2, .37, 95, .50], 'ggglggg', 'thin', true, 'up', 'long'),
  row('olive', 'Olive', EB, 'small leaf', [32, .015, 8, 0.7, .45, 150, .60], 'llflllf', 'medium', true, 'level', 'mild'),
  row('azalea', 'Satsuki azalea', EB, 'small leaf', [26, .012, 12, 0.8, .40, 120, .50], 'lfflllf', 'thin', true, 'level', 'long', { hazards: [POISON] }),
  row('fig', 'Fig', EB, 'broad leaf', [16, .024, 4, 1.6, .30, 70, .60], 'lfffllf', 'thin', true, 'level', 'mild', { hazards: [SAP] }),
  row('apple', 'Crab apple', DB, 'broad leaf', [30, .015, 9, 0.9, .40, 120, .45], 'llllllg', 'medium', true, 'level', 'early'),
  row('hawthorn', 'Hawthorn', DB, 'small leaf', [30, .015, 9, 0.9, .40, 120, .45], 'llllllg', 'medium', true, 'level', 'early', { hazards: [THORNS] }),
  row('cherry', 'Cherry', DB, 'broad leaf', [26, .015, 9, 1.1, .40, 110, .35], 'gglgggg', 'thin', false, 'up', 'early'),
  row('plum-flowering', 'Flowering plum', DB, 'broad leaf', [28, .014, 10, 0.9, .42, 120, .40], 'ggggggg', 'medium', false, 'up', 'early'),
  row('quince', 'Flowering quince', DB, 'small leaf', [28, .015, 8, 0.9, .40, 110, .50], 'ggggggg', 'medium', true, 'up', 'early', { hazards: [THORNS] }),
  row('box', 'Box', EB, 'small leaf', [32, .015, 9, 0.6, .45, 150, .50], 'llllllg', 'medium', true, 'up', 'twice'),
  row('privet', 'Privet', EB, 'small leaf', [32, .015, 9, 0.9, .45, 130, .60], 'llllllg', 'medium', true, 'up', 'long', { hazards: [POISON] }),
  row('holly-japanese', 'Japanese holly', EB, 'small leaf', [30, .015, 9, 0.6, .45, 140, .50], 'ggggggg', 'thin', true, 'up', 'twice'),
  row('cotoneaster', 'Cotoneaster', EB, 'small leaf', [28, .017, 7, 0.8, .40, 110, .50], 'ggggggg', 'medium', true, 'level', 'long'),
  row('serissa', 'Serissa', EB, 'small leaf', [24, .018, 6, 0.8, .38, 100, .50], 'ggggggg', 'thin', true, 'level', 'mild'),
  row('pomegranate', 'Pomegranate', DB, 'small leaf', [28, .016, 8, 0.9, .40, 110, .50], 'ggggggg', 'medium', true, 'level', 'long', { hazards: [THORNS] }),
  row('tamarisk', 'Tamarisk', DB, 'scale', [22, .022, 5, 1.3, .40, 100, .60], 'gglgggg', 'medium', true, 'down', 'late'),
  row('wisteria', 'Wisteria', DB, 'broad leaf', [20, .020, 6, 1.4, .38, 90, .50], 'ggggggg', 'medium', true, 'down', 'late', { hazards: [POISON] }),
  row('oleander', 'Oleander', EB, 'broad leaf', [20, .020, 6, 1.3, .38, 90, .50], 'ggggggg', 'thin', true, 'up', 'mild', { hazards: [POISON] }),
];
