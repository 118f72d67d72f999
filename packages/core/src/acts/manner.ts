import { dayOf, sayDay } from '../units/index.js';
import { figure, FIRMNESSES, id, MANNER, oneOf, optional, orNull, WIRING_MANNER, type WiringManner } from '../tree/index.js';
import { METALS } from '../wood/index.js';
import { actKind, inPlan, missing } from './act.js';

const given = <T extends object>(fields: T): Partial<T> => Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined)) as Partial<T>;

/** Says how a tree is wired (how firmly, in which metal, which marks it bears) and what is learnt of it (its pace, from which day on). */
export const wireManner = actKind({
  kind: 'manner',
  fields: MANNER,
  guarded: true,
  apply: (tree, { firmness, tolerance, metal, pace, learnFrom }) => inPlan(tree, given({ firmness, tolerance, metal, pace, learnFrom })),
  say: ({ firmness, tolerance, metal, pace, learnFrom }) =>
    [
      firmness && `wire it ${firmness}`,
      metal !== undefined && `wire it in ${metal ?? 'the metal of its kind'}`,
      tolerance && `bear ${tolerance === 'fading' ? 'marks that fade' : 'no marks'}`,
      pace !== undefined && (pace === null ? 'take its pace from what was seen' : `take its pace for ${pace} times the usual`),
      learnFrom !== undefined && (learnFrom ? `learn from ${sayDay(dayOf(learnFrom))} on` : 'learn from all that was seen'),
    ]
      .filter(Boolean)
      .join(', ') || 'wire it as before',
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
      ...given({ metal, firmness, clip, past }),
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
