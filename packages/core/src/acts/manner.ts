import { figure, FIRMNESSES, id, MANNER, oneOf, optional, orNull, WIRING_MANNER, type WiringManner } from '../tree/index.js';
import { METALS } from '../wood/index.js';
import { actKind, inPlan, missing } from './act.js';

/** Says how a tree is wired: how firmly, and which marks it bears. */
export const wireManner = actKind({
  kind: 'manner',
  fields: MANNER,
  guarded: true,
  apply: (tree, { firmness, tolerance, metal }) =>
    inPlan(tree, { ...(firmness ? { firmness } : {}), ...(tolerance ? { tolerance } : {}), ...(metal !== undefined ? { metal } : {}) }),
  say: ({ firmness, tolerance, metal }) =>
    firmness
      ? `wire it ${firmness}`
      : metal !== undefined
        ? `wire it in ${metal ?? 'the metal of its kind'}`
        : `bear ${tolerance === 'fading' ? 'marks that fade' : 'no marks'}`,
});

const { branch: _branch, ...OWN } = WIRING_MANNER.properties;

/** Says how one branch is wired; what is null is as for its tree again. */
export const branchManner = actKind({
  kind: 'branch-manner',
  fields: {
    branch: id('which branch'),
    metal: optional(orNull(oneOf(METALS, 'metal of its wire'))),
    firmness: optional(orNull(oneOf(FIRMNESSES, 'how firm its wire is'))),
    clip: OWN.clip,
    past: optional(orNull(figure(0, 0.25, 'share', 'how far past its target its bends are left to settle; by the window it opens where null', 0.05))),
  },
  guarded: true,
  apply: (tree, { branch, metal, firmness, clip, past }) => {
    const gone = missing(tree, branch, 'branch');
    if (gone) return gone;
    const all = tree.plan.wiring ?? [];
    const own = {
      ...all.find((w) => w.branch === branch),
      ...(metal !== undefined ? { metal } : {}),
      ...(firmness !== undefined ? { firmness } : {}),
      ...(clip !== undefined ? { clip } : {}),
      ...(past !== undefined ? { past } : {}),
    };
    const said = Object.entries(own).filter(([key, value]) => key !== 'branch' && value !== null && value !== false);
    const others = all.filter((w) => w.branch !== branch);
    return inPlan(tree, { wiring: said.length ? [...others, { branch, ...Object.fromEntries(said) } as WiringManner] : others });
  },
  say: ({ branch, clip, past }, names) =>
    clip
      ? `shape ${names(branch)} by cutting`
      : typeof past === 'number'
        ? `leave ${names(branch)} ${Math.round(past * 100)}% past its target`
        : `how ${names(branch)} is wired`,
});
