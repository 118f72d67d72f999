import { createContext, useCallback, useContext, useMemo } from 'react';
import type { StoredTree } from '@ustle/contract';
import {
  asItStands,
  dayOf,
  doneIn,
  namesOf,
  shortNamesOf,
  wrapDeg,
  type Intent,
  type Known,
  type Names,
  type PlanDocument,
  type Tree,
  type View,
} from '@ustle/core';
import { useNotice } from '../app/notice';
import { doAct, doStep } from '../shared/desk-store';
import { useKnown } from '../shared/queries';
import { usePlan } from '../jobs/use-planner';
import { finite, useAddress } from './address';
import { nowTaken } from './taken';

/** What every stage of one tree works with; the user's place (branch, bearing, day) is in the address. */
export interface Desk {
  /** As it is kept: with the measures as they were taken. */
  stored: StoredTree;
  /** As it stands today: what was bent since is bent. */
  tree: Tree;
  plan: PlanDocument | null;
  /** What others of its kind here taught, and the weather. */
  known: Known;
  today: string;
  /** What branches are called, in full and short enough for a label. */
  names: Names;
  short: Names;
  /** Does an act; says so where it is refused. Resolves to whether it was stored. */
  act: (intent: Intent) => Promise<boolean>;
  step: (kind: 'undo' | 'redo') => Promise<boolean>;
  /** The day shown on the turntable, today unless the ribbon was drawn along. */
  day: string;
  setDay: (day: string) => void;
  branch: string | null;
  setBranch: (branch: string | null) => void;
  bearing: number;
  setBearing: (bearing: number) => void;
  /** The view looked at: bearing and planting angle. */
  here: View;
  setView: (view: View) => void;
  plumb: boolean;
  setPlumb: (on: boolean) => void;
  /** The tree is seen on its photos, where it has such. */
  onPhoto: boolean;
  setOnPhoto: (on: boolean) => void;
}

export function useNewDesk(stored: StoredTree, today: string): Desk {
  const tree = useMemo(() => asItStands(stored.tree, dayOf(today)), [stored.tree, today]);
  const { attempt } = useNotice();
  const { get, set } = useAddress();
  const known = useKnown(stored.id);
  const plan = usePlan(stored.tree, today, known);
  const front = tree.plan.front ?? { bearing: 0, pitch: 0, roll: 0 };
  const bearing = wrapDeg(finite(get('bearing'), front.bearing));
  const pitch = finite(get('pitch'), front.pitch);
  const roll = finite(get('roll'), front.roll);
  const day = get('day') ?? today;
  const asked = get('branch');
  // What the names rest on: the branches, and from where they are seen.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const names = useMemo(() => namesOf(tree), [tree.branches, tree.trunk, tree.record, tree.plan.front?.bearing]);
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const short = useMemo(() => shortNamesOf(tree), [tree.branches, tree.trunk, tree.record, tree.plan.front?.bearing]);
  return {
    stored,
    tree,
    plan,
    known,
    today,
    names,
    short,
    act: useCallback(
      async (intent: Intent) => {
        const isDone = await attempt(() => doAct(stored, intent));
        if (isDone) nowTaken(doneIn(intent.kind));
        return isDone;
      },
      [attempt, stored],
    ),
    step: useCallback((kind: 'undo' | 'redo') => attempt(() => doStep(stored, kind)), [attempt, stored]),
    day: Number.isFinite(dayOf(day)) ? day : today,
    setDay: useCallback((d: string) => set({ day: d === today ? null : d }), [set, today]),
    branch: asked,
    setBranch: useCallback((branch: string | null) => set({ branch }), [set]),
    bearing,
    setBearing: useCallback((b: number) => set({ bearing: String(b) }), [set]),
    here: useMemo<View>(() => ({ bearing, pitch, roll }), [bearing, pitch, roll]),
    setView: useCallback((v: View) => set({ bearing: String(v.bearing), pitch: String(v.pitch), roll: String(v.roll) }), [set]),
    plumb: get('plumb') === '1',
    setPlumb: useCallback((on: boolean) => set({ plumb: on ? '1' : null }), [set]),
    onPhoto: get('on') === 'photo',
    setOnPhoto: useCallback((on: boolean) => set({ on: on ? 'photo' : null }), [set]),
  };
}

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('Only a stage of a tree has a desk.');
  return desk;
}
