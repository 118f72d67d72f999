import { useEffect, useMemo, useRef } from 'react';
import {
  dayOf,
  layOut,
  lengthOf,
  pointAt,
  placeTree,
  running,
  touchedWork,
  towardsYou,
  type Laid,
  type PlanGuy,
  type Running,
  type Tree,
  type WorkStep,
} from '@ustle/core';
import { usePace } from '../../shared/queries';
import { ballRound } from '../../turntable/framing';
import type { DrawnTie } from '../../turntable/Ties';
import { useAddress } from '../address';
import type { Desk } from '../desk';
import { plannedCoils } from '../drawn-coils';
import { partsOfDevice } from '../drawn-ties';
import { usePosedLines } from '../posed-lines';
import { kitOf, type Drawing } from '../stage';

/** Steps of which the branch is shown as it shall go. */
const POSED = new Set(['bend', 'place']);

/** What a branch grows on, up to the trunk: it is carried along where that goes. */
function limbsOf({ branches }: Pick<Tree, 'branches'>, id: string): string[] {
  const parent = branches.find((b) => b.id === id)?.parent;
  return !parent || parent === 'trunk' ? [] : [parent, ...limbsOf({ branches }, parent)];
}

const tieAt = (line: Parameters<typeof pointAt>[0], g: PlanGuy): DrawnTie => {
  const { point, diameter, direction } = pointAt(line, Math.min(g.at, lengthOf(line)));
  return { from: point, to: g.to, look: 'tie', cushion: { along: direction, diameter, width: g.cushion.width } };
};

/** The session that is open, the step that is looked at, and its picture turned to where the hands are. */
export function useWorkKit(desk: Desk) {
  const { tree, plan, today, short } = desk;
  const { get, set } = useAddress();
  const pace = usePace();
  const onDay = dayOf(today);
  const now = useMemo<Running | null>(() => (plan ? running(tree, plan, onDay, pace) : null), [tree, plan, onDay, pace]);
  const asked = get('step');
  const step: WorkStep | null = now?.open.find((s) => s.key === asked) ?? now?.open[0] ?? null;
  const touched = useMemo(() => (plan && now ? touchedWork(tree, plan, onDay, now.session) : []), [tree, plan, onDay, now]);
  const lines = usePosedLines(tree, plan);

  // Each step is turned to once: who turns the tree away from there means it.
  const turnedTo = useRef<string | null>(null);
  useEffect(() => {
    if (!step || turnedTo.current === step.key) return;
    turnedTo.current = step.key;
    const [branch] = step.branches;
    const own = branch && branch !== 'trunk' ? branch : null;
    set({ branch: own, ...(branch ? { bearing: String(towardsYou(placeTree(tree), branch, tree.plan.front?.bearing ?? 0)) } : {}) });
  }, [step, tree, set]);

  const drawing = useMemo<Drawing>(() => {
    if (!plan || !step) return { foliage: 0.5 };
    const own = step.branches.filter((b) => b !== 'trunk');
    const placed = placeTree(tree);
    const run = step.kind === 'wire' ? plan.runs.find((r) => r.id === step.of) : undefined;
    const guy = step.kind === 'guy' ? plan.guys.find((g) => g.id === step.of) : undefined;
    const device = step.kind === 'device' ? plan.devices.filter((d) => d.id === step.of) : [];
    const line = guy ? placed.byId.get(guy.branch)?.line : undefined;
    const ties = [...(guy && line ? [tieAt(line, guy)] : []), ...device.flatMap(partsOfDevice)];
    const seen = [
      ...own.flatMap((id) => placed.byId.get(id)?.line.points ?? []),
      ...(POSED.has(step.kind) ? own.flatMap((id) => lines?.get(id)?.points ?? []) : []),
      ...ties.flatMap((t) => [t.from, t.to]),
    ];
    return {
      closer: own.length && seen.length ? ballRound(seen) : null,
      labels: own.map((id) => ({ branch: id, text: short(id) })),
      planned: run ? plannedCoils(run) : [],
      poses: POSED.has(step.kind) ? [...own, ...own.flatMap((id) => limbsOf(tree, id))].flatMap((id) => lines?.get(id) ?? []).map((l) => ({ line: l })) : [],
      ...(ties.length ? { ties } : {}),
      foliage: own.length ? 0.25 : 0.6,
    };
  }, [plan, step, short, lines, tree]);

  const open = (key: string | null): void => set({ step: key, ...(key === null ? { branch: null } : {}) });
  const lay = (of: Parameters<typeof layOut>[3]): Laid | null => (plan ? layOut(tree, plan, onDay, { ...of, pace }) : null);
  return { drawing, now, step, touched, open, lay, pace };
}

export const useKit = kitOf(useWorkKit);
