import type { Tree } from './types.js';

/** The trunk that a tree begins with: nobody measured it. */
const PLAIN_TRUNK = [0, 100, 200, 300, 400].map((z) => ({ x: 0, y: 0, z, d: Math.round(48 - z * 0.1) }));

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
  trunk: PLAIN_TRUNK.map((s) => ({ ...s })),
  roots: [],
  branches: [],
  features: [],
  plan: { front: null, decisions: [], poses: [], runs: [], guys: [] },
  record: [],
});

/** Whether somebody measured the trunk of a tree: it is not the one that each begins with. */
export const isTrunkMeasured = ({ trunk }: Tree): boolean =>
  trunk.length !== PLAIN_TRUNK.length || trunk.some((s, i) => (['x', 'y', 'z', 'd'] as const).some((k) => s[k] !== PLAIN_TRUNK[i]![k]));

/** Whether somebody looked at how strong a tree is, or said something of what was done to it; until then it is taken for one of normal growth. */
export const isRead = ({ plan, vigour, styledOn, repottedOn, collectedOn, record }: Tree): boolean =>
  Boolean(plan.reading || styledOn || repottedOn || collectedOn) || vigour !== 'normal' || record.length > 0;

/** The first name of its kind that is free: "Petrel", "Petrel 2", "Petrel 3". */
function freeName(name: string, taken: ReadonlySet<string>): string {
  const [, stem] = /^(.*?)(?: \d+)?$/.exec(name)!;
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`;
}

/** Another tree of the same shape to begin from: drawn after that one, with nothing planned and nothing done. */
export function likeThis({ trunk, roots, branches, pot, species, site, vigour, name }: Tree, taken: ReadonlySet<string>): Tree {
  const drawn = branches.map((b) => ({ ...b, known: { how: 'drawn' as const } }));
  return { ...blankTree(freeName(name, taken), species), trunk, trunkKnown: { how: 'drawn' }, roots, branches: drawn, pot, site, vigour };
}
