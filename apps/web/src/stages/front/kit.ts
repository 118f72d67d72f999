import { useCallback, useMemo } from 'react';
import { dayOf, outcomeOf, PARTS, tiltsFor, turnDeg, usualWeights, WEIGHT_PROFILES, type Part, type Tree, type View, type Weights } from '@ustle/core';
import { finite, oneOf, useAddress } from '../address';
import type { Desk } from '../desk';
import type { Picture } from '../SideBySide';
import { kitOf, type Drawing } from '../stage';
import { useFronts, useJudged } from './use-fronts';
import { LETTERS, sameView, sayView } from './views';

export const TILT_RANGES = ['level', 'trim', 'free'] as const;
export type TiltRange = (typeof TILT_RANGES)[number];
const TILT_STEPS: Record<TiltRange, number[]> = { level: [0], trim: [-5, 0, 5], free: [-20, -15, -10, -5, 0, 5, 10, 15, 20] };

/** Weights written as a list in the address, or those of a named profile. */
function readWeights(profile: string, list: string | null, usual: string): Weights {
  const numbers = (list ?? '').split(',').map((n) => finite(n, NaN));
  if (numbers.length === PARTS.length && numbers.every((n) => n >= 0 && n <= 3)) return Object.fromEntries(PARTS.map((p, i) => [p, numbers[i]])) as Weights;
  return WEIGHT_PROFILES[profile] ?? WEIGHT_PROFILES[usual]!;
}

/** What to set beside each other: the chosen front, those kept open, the one looked at; the best where there is only one. Four at most. */
function beside({ tree, here, setView }: Desk, candidates: readonly View[], after: Tree): Picture[] {
  const own = [
    ...(tree.plan.front ? [{ name: 'chosen', view: tree.plan.front }] : []),
    ...(tree.plan.pinned ?? []).map((view) => ({ name: 'kept open', view })),
    { name: 'this one', view: here },
  ];
  const best = candidates.map((view, i) => ({ name: `front ${LETTERS[i]}`, view }));
  const distinct = (list: typeof own): typeof own => list.filter(({ view }, i) => list.findIndex((x) => sameView(x.view, view)) === i);
  const kept = distinct(own);
  const shown = kept.length >= 2 ? kept.slice(0, 4) : distinct([...kept, ...best]).slice(0, 2);
  return shown.map(({ name, view }) => ({ name, view, note: sayView(view), after, onPick: () => setView(view) }));
}

/** What is searched for and compared, by whose weights. In the address: tilts, part, compare, profile, weights. */
export function useFrontKit(desk: Desk) {
  const { tree, today, here, bearing, setView, act } = desk;
  const { get, set } = useAddress();
  const usual: TiltRange = tiltsFor(tree, dayOf(today)).length > 3 ? 'free' : 'trim';
  const tilts = oneOf(get('tilts'), TILT_RANGES, usual);
  const usualProfile = usualWeights(tree);
  const list = get('weights');
  const named = get('profile') ?? usualProfile;
  const weights = useMemo(() => readWeights(named, list, usualProfile), [named, list, usualProfile]);
  const fronts = useFronts(tree, TILT_STEPS[tilts], weights);
  const judged = useJudged(tree, here, weights);
  const part = (PARTS as readonly string[]).includes(get('part') ?? '') ? (get('part') as Part) : null;
  const compare = get('compare') === '1';
  const { rose, candidates } = fronts;
  const evidence = part && judged ? judged.evidence[part] : undefined;
  const after = useMemo(() => outcomeOf(tree).tree, [tree]);
  const choose = useCallback(() => void act({ kind: 'front', front: here }), [act, here]);

  const drawing = useMemo<Drawing>(
    () => ({
      rose,
      flags: candidates.map((f, i) => ({ letter: LETTERS[i]!, bearing: f.bearing, filled: Math.abs(turnDeg(f.bearing, bearing)) < 1 })),
      onFlag: (letter) => {
        const found = candidates[LETTERS.indexOf(letter)];
        if (found) setView(found);
      },
      evidence,
      foliage: part ? 0.45 : 0.8,
      view: { ...here, bearing: null },
      beside: compare ? beside(desk, candidates, after) : [],
    }),
    // The desk is laid anew on every render; these say whether something else lies on it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [rose, candidates, bearing, here, evidence, part, compare, after, tree.plan.front, tree.plan.pinned, setView],
  );
  const keys = useMemo(
    () => [
      {
        keys: 'enter',
        what: 'choose the front you look at',
        run: (event: KeyboardEvent) => {
          if (!(event.target instanceof HTMLElement && event.target.closest('button, a, input, select, summary'))) choose();
        },
      },
    ],
    [choose],
  );
  return {
    drawing,
    keys,
    fronts,
    judged,
    part,
    setPart: (p: Part | null) => set({ part: p }),
    compare,
    setCompare: (on: boolean) => set({ compare: on ? '1' : null }),
    tilts,
    setTilts: (range: TiltRange) => set({ tilts: range }),
    profile: list ? 'by hand' : named,
    weights,
    setProfile: (profile: string) => set({ profile, weights: null }),
    setWeights: (w: Weights) => set({ weights: PARTS.map((p) => w[p]).join(',') }),
    choose,
  };
}

export const useFront = kitOf(useFrontKit);
