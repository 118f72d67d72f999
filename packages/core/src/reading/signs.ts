import type { Group } from '../species/index.js';
import type { SeasonStage } from '../tree/index.js';

/** A sign of strength or weakness that is seen on the tree, and what it does to the work it can bear. */
export interface Sign {
  key: string;
  text: string;
  factor: number;
}

const ANY: readonly Sign[] = [
  { key: 'dense', text: 'Thick, dense foliage of good colour', factor: 1.08 },
  { key: 'back-buds', text: 'Back buds showing on older wood', factor: 1.08 },
  { key: 'roots-fill', text: 'Roots fill the pot and have white tips', factor: 1.06 },
  { key: 'pale', text: 'Pale, sparse or small foliage', factor: 0.6 },
  { key: 'dieback', text: 'Twigs dying back', factor: 0.5 },
  { key: 'pest', text: 'Pests or disease', factor: 0.4 },
];
const CONIFER: readonly Sign[] = [
  { key: 'extension', text: 'Long extension growth all over', factor: 1.12 },
  { key: 'full-tips', text: 'Full buds, several at each tip', factor: 1.1 },
];
const BROADLEAF: readonly Sign[] = [
  { key: 'extension', text: 'Long shoots in the last flush', factor: 1.12 },
  { key: 'hard-leaves', text: 'Leaves hardened and dark after the flush', factor: 1.1 },
];

/** The signs to look for on a kind of tree. */
export const signsFor = (group: Group): readonly Sign[] => [...(group.includes('conifer') ? CONIFER : BROADLEAF), ...ANY];

/** How far the year is, as seen on the tree, and what structural work costs it then. */
export const SEASON_WORDS: Record<SeasonStage, { text: string; factor: number }> = {
  dormant: { text: 'Dormant', factor: 0.95 },
  'buds-swelling': { text: 'Buds swelling', factor: 0.9 },
  'leafing-out': { text: 'Leafing out', factor: 0.4 },
  soft: { text: 'Flush still soft', factor: 0.5 },
  hardened: { text: 'Flush hardened', factor: 1 },
  colouring: { text: 'Colouring, or slowing down', factor: 0.95 },
};
