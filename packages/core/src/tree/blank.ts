import type { Tree } from './types.js';

/** A tree to begin measuring: a plain trunk in a pot, no branch yet. */
export const blankTree = (name: string, species: string): Tree => ({
  format: 'ustle-tree',
  version: 1,
  name,
  species,
  styledOn: null,
  repottedOn: null,
  collectedOn: null,
  vigour: 'normal',
  site: { hemisphere: 'north' },
  pot: { shape: 'oval', width: 300, depth: 220, height: 60, holes: [] },
  trunk: [0, 100, 200, 300, 400].map((z) => ({ x: 0, y: 0, z, d: Math.round(48 - z * 0.1) })),
  roots: [],
  branches: [],
  features: [],
  plan: { front: null, decisions: [], poses: [], runs: [], guys: [] },
  record: [],
});
