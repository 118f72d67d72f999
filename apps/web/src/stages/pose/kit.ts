import { useCallback, useDeferredValue, useMemo } from 'react';
import { clamp, type Limb, type PlanPose, type TrunkOption } from '@ustle/core';
import type { Key } from '../../shared/keys';
import type { DottedLine } from '../../turntable/TreeMesh';
import type { Threaded } from '../../turntable/ThreadedHandles';
import { useAnswer, worker } from '../../jobs/use-planner';
import { oneOf, useAddress } from '../address';
import type { Desk } from '../desk';
import { usePlacedAfter, usePosedLines } from '../posed-lines';
import { kitOf, type Drawing } from '../stage';
import { keptPose } from './kept';
import { waysBeside } from './trunk-pictures';
import { useBeads } from './use-beads';
import { useShare } from './use-share';
import { useTipDrag } from './use-tip-drag';

export const SHEETS = ['branches', 'trunk'] as const;
export type Sheet = (typeof SHEETS)[number];

/** Branches on the trunk from below, each followed by what grows on it. */
function useOrder({ tree, plan }: Desk): readonly string[] {
  const placed = usePlacedAfter(tree);
  return useMemo(() => {
    if (!plan) return [];
    const height = (id: string): number => placed.byId.get(id)!.line.points[0]![2];
    const on = (parent: string): string[] =>
      placed.tree.branches
        .filter((b) => b.parent === parent)
        .map((b) => b.id)
        .sort((a, b) => height(a) - height(b) || (a < b ? -1 : 1))
        .flatMap((id) => [id, ...on(id)]);
    return on('trunk');
  }, [placed, plan]);
}

/** Poses in dots, the tree bent by a share of them, the beads of the chosen branch. In the address: sheet, bend, arch, other. */
export function usePoseKit(desk: Desk) {
  const { tree, today, plan, branch, setBranch, short, names, act } = desk;
  const { get, set } = useAddress();
  const sheet = oneOf(get('sheet'), SHEETS, 'branches');
  const bend = get('bend') === null ? null : Number(get('bend'));
  const arching = get('arch') === '1';
  const { share, setShare, moveTo } = useShare(plan !== null);
  const shown = useDeferredValue(share);
  const lines = usePosedLines(tree, plan);
  const bent = usePosedLines(tree, plan, shown);
  const order = useOrder(desk);
  const pose = plan?.poses.find((p) => p.branch === branch);
  const line = branch && pose ? lines?.get(branch) : undefined;

  const pulled = useAnswer(
    () => (arching && pose && plan ? worker('weighing').pulledAlone(tree, plan.poses, pose.branch) : Promise.resolve(null)),
    [arching, tree, plan, branch],
  );
  const aside = tree.plan.aside?.find((p) => p.branch === branch);
  const other = useAnswer(
    () => (aside ? (worker('weighing').otherPose(tree, aside) as Promise<{ pose: PlanPose; line: Limb } | null>) : Promise.resolve(null)),
    [aside, tree],
  );

  const tip = line ? line.points[line.points.length - 1]! : null;
  const { drag, onTip } = useTipDrag(desk, tip);
  const beads = useBeads(desk, line, bend, (b) => set({ bend: b === null ? null : String(b) }));

  const beadPlaces = beads.beads.map((b) => b.at.join(' ')).join(';');
  const threaded = useMemo<Threaded | null>(
    () => {
      if (!line || !tip || sheet !== 'branches') return null;
      const tipName = `The tip of ${names(branch!)}: draw it, or move it with the arrow keys`;
      return { ...beads, tip: drag ? drag.line.points[drag.line.points.length - 1]! : tip, tipName, onTip };
    },
    // The handlers rest on what is listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [line, beadPlaces, bend, drag, plan, sheet],
  );

  const poses = useMemo<DottedLine[]>(() => {
    if (!lines || !plan) return [];
    const mains = new Set(tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id));
    const own = plan.poses.filter((p) =>
      branch ? p.branch === branch || tree.branches.find((b) => b.id === p.branch)?.parent === branch : mains.has(p.branch),
    );
    return [
      // Bent wholly, the tree lies on them itself.
      ...(shown === 1 ? [] : own.flatMap((p) => lines.get(p.branch) ?? []).map((l) => ({ line: l }))),
      ...(tree.plan.trunkWay && shown < 1 ? [{ line: lines.get('trunk')! }] : []),
      ...(drag ? [{ line: drag.line, beside: true }] : []),
      ...(pulled ? [{ line: pulled.line, beside: true }] : []),
      ...(other ? [{ line: other.line, beside: true }] : []),
    ];
  }, [lines, plan, shown, branch, tree, drag, pulled, other]);

  const weighing = sheet === 'trunk';
  const options = useAnswer(
    () => (weighing ? (worker('weighing').trunk(tree, today) as Promise<TrunkOption[]>) : Promise.resolve(null)),
    [weighing, tree, today],
  );
  const comparing = weighing && get('compare') === '1';
  const beside = useMemo(() => (comparing && options ? waysBeside(desk, options) : []), [comparing, options, desk.act, tree]); // eslint-disable-line react-hooks/exhaustive-deps

  const labels = useMemo(() => (branch ? [{ branch, text: short(branch) }] : []), [branch, short]);
  const drawing = useMemo<Drawing>(
    () => ({ poses, bent, threaded, labels, beside, foliage: shown > 0 ? 0.75 : 0.35 }),
    [poses, bent, threaded, labels, beside, shown],
  );

  const go = useCallback(
    (by: number): void => {
      const at = branch ? order.indexOf(branch) : -1;
      setBranch(order[clamp(at + by, 0, order.length - 1)] ?? null);
    },
    [branch, order, setBranch],
  );
  // A pose that is accepted steps on to the next.
  const accept = useCallback(async (): Promise<void> => {
    const own = tree.plan.poses.find((p) => p.branch === branch);
    if (pose && (await act({ kind: 'pose', ...keptPose(pose, own) }))) go(1);
  }, [tree, branch, pose, act, go]);
  const keys = useMemo<Key[]>(() => {
    return sheet === 'branches'
      ? [
          { keys: 'j', what: 'branch before', run: () => go(-1) },
          { keys: 'l', what: 'next branch', run: () => go(1) },
          { keys: 'a', what: 'accept its pose', run: () => void accept() },
          { keys: 'b', what: 'as it stands, as posed', run: () => moveTo(share > 0.5 ? 0 : 1) },
        ]
      : [];
  }, [go, accept, sheet, share, moveTo]);

  return {
    drawing,
    keys,
    order,
    sheet,
    setSheet: (s: Sheet) => set({ sheet: s === 'branches' ? null : s, compare: null }),
    options,
    comparing,
    setComparing: (on: boolean) => set({ compare: on ? '1' : null }),
    bend,
    setBend: (b: number | null) => set({ bend: b === null ? null : String(b) }),
    arching,
    setArching: (on: boolean) => set({ arch: on ? '1' : null }),
    pulled,
    other,
    share,
    setShare,
    moveTo,
    drag,
    accept,
  };
}

export const usePose = kitOf(usePoseKit);
