import { useCallback, useLayoutEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { dayOf, PARTS, tiltsFor, usualWeights, WEIGHT_PROFILES, wrapDeg, type Part, type Tree, type View, type Weights } from '@ustle/core';
import { REMOVE_SHEETS, type RemoveSheet, type TiltRange } from './tree-context';

const TILT_STEPS: Record<TiltRange, number[]> = { level: [0], trim: [-5, 0, 5], free: [-20, -15, -10, -5, 0, 5, 10, 15, 20] };

const finite = (text: string | null, otherwise: number): number => (text !== null && text !== '' && Number.isFinite(Number(text)) ? Number(text) : otherwise);

/** Weights written as a list in the address, or those of a named profile. */
function readWeights(profile: string, list: string | null, usual: string): Weights {
  const numbers = (list ?? '').split(',').map(Number);
  if (numbers.length === PARTS.length && numbers.every((n) => n >= 0 && n <= 3)) return Object.fromEntries(PARTS.map((p, i) => [p, numbers[i]])) as Weights;
  return WEIGHT_PROFILES[profile] ?? WEIGHT_PROFILES[usual]!;
}

/** The user's place on a tree, kept in the address: it survives a reload and can be passed on. */
export function usePlace(tree: Tree, today: string) {
  const [params, setParams] = useSearchParams();
  // The router makes its function anew with every address; what hangs on ours, down to the drawn tree, shall stay as it is.
  const latest = useRef(setParams);
  useLayoutEffect(() => void (latest.current = setParams), [setParams]);
  const set = useCallback(
    (values: Record<string, string | null>) =>
      latest.current(
        (before) => {
          const next = new URLSearchParams(before);
          for (const [key, value] of Object.entries(values)) {
            if (value === null) next.delete(key);
            else next.set(key, value);
          }
          return next;
        },
        { replace: true },
      ),
    [],
  );
  const front = tree.plan.front ?? { bearing: 0, pitch: 0, roll: 0 };
  const bearing = wrapDeg(finite(params.get('bearing'), front.bearing));
  const pitch = finite(params.get('pitch'), front.pitch);
  const roll = finite(params.get('roll'), front.roll);
  const here = useMemo<View>(() => ({ bearing, pitch, roll }), [bearing, pitch, roll]);
  const day = params.get('day') ?? today;
  const usual: TiltRange = tiltsFor(tree, dayOf(today)).length > 3 ? 'free' : 'trim';
  const asked = params.get('tilts');
  const tilts = asked !== null && asked in TILT_STEPS ? (asked as TiltRange) : usual;
  const usualProfile = usualWeights(tree);
  const list = params.get('weights');
  const named = params.get('profile') ?? usualProfile;
  const weights = useMemo(() => readWeights(named, list, usualProfile), [named, list, usualProfile]);
  const part = params.get('part');
  const sheet = params.get('sheet');
  const pair = params.get('pair');
  return {
    branch: params.get('branch'),
    setBranch: useCallback((branch: string | null) => set({ branch }), [set]),
    bearing,
    setBearing: useCallback((b: number) => set({ bearing: String(b) }), [set]),
    here,
    setView: useCallback((v: View) => set({ bearing: String(v.bearing), pitch: String(v.pitch), roll: String(v.roll) }), [set]),
    day: Number.isFinite(dayOf(day)) ? day : today,
    setDay: useCallback((d: string) => set({ day: d === today ? null : d }), [set, today]),
    tilts,
    tiltSteps: TILT_STEPS[tilts],
    setTilts: useCallback((range: TiltRange) => set({ tilts: range }), [set]),
    part: (PARTS as readonly string[]).includes(part ?? '') ? (part as Part) : null,
    setPart: useCallback((p: Part | null) => set({ part: p }), [set]),
    sheet: (REMOVE_SHEETS as readonly string[]).includes(sheet ?? '') ? (sheet as RemoveSheet) : 'decide',
    setSheet: useCallback((s: RemoveSheet) => set({ sheet: s === 'decide' ? null : s }), [set]),
    wiping: params.get('wipe') === '1',
    setWiping: useCallback((on: boolean) => set({ wipe: on ? '1' : null }), [set]),
    pair: pair === null || !Number.isInteger(Number(pair)) ? null : Number(pair),
    setPair: useCallback((p: number | null) => set({ pair: p === null ? null : String(p) }), [set]),
    plumb: params.get('plumb') === '1',
    setPlumb: useCallback((on: boolean) => set({ plumb: on ? '1' : null }), [set]),
    compare: params.get('compare') === '1',
    setCompare: useCallback((on: boolean) => set({ compare: on ? '1' : null }), [set]),
    profile: list ? 'by hand' : named,
    weights,
    setProfile: useCallback((profile: string) => set({ profile, weights: null }), [set]),
    setWeights: useCallback((w: Weights) => set({ weights: PARTS.map((p) => w[p]).join(',') }), [set]),
  };
}
