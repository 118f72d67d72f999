import { useDeferredValue, useMemo, useState } from 'react';
import { limb, lengthOf, pointAt, rideAlong, type Band, type Limb, type PlanGuy, type Vec } from '@ustle/core';
import type { DrawnTie } from '../../turntable/Ties';
import { useAnswer, worker } from '../../jobs/use-planner';
import { useAddress } from '../address';
import type { Desk } from '../desk';
import { plannedCoils } from '../drawn-coils';
import { partsOfDevice } from '../drawn-ties';
import { usePlacedAfter, usePosedLines } from '../posed-lines';
import { kitOf, type Drawing } from '../stage';

/** So many places that a tie could go to are drawn. */
const DRAWN = 8;

const tieOf = (g: PlanGuy, line: Limb, at: number): DrawnTie => {
  const { point, diameter, direction } = pointAt(line, Math.min(at, lengthOf(line)));
  return { from: point, to: g.to, look: 'tie', cushion: { along: direction, diameter, width: g.cushion.width } };
};

const strainOf = (line: Limb, { strainAt, band }: { strainAt: number; band: Band }): DrawnTie => {
  const { point, diameter, direction } = pointAt(line, Math.min(strainAt, lengthOf(line)));
  return { from: point, to: point, look: 'strain', band, cushion: { along: direction, diameter, width: 0 } };
};

/** Ties as they will be drawn, the tree posed; of the chosen branch the places to tie it to, and how it bends as it is drawn. */
export function useGuyKit(desk: Desk) {
  const { tree, plan, branch, short } = desk;
  const placed = usePlacedAfter(tree);
  const lines = usePosedLines(tree, plan);
  const open = useAddress().get('device');
  const [share, setShare] = useState(1);
  const shown = useDeferredValue(share);
  const [turned, setTurned] = useState(1);
  const turnedSo = useDeferredValue(turned);
  const [at, setAt] = useState<{ branch: string; at: number } | null>(null);
  const own = useMemo(() => plan?.guys.filter((g) => g.branch === branch) ?? [], [plan, branch]);
  const tiedAt = at && at.branch === branch ? at.at : own[0]?.at;
  const choice = useAnswer(
    () =>
      plan && branch && branch !== 'trunk' && placed.byId.has(branch) ? worker('weighing').anchors(tree, plan.poses, branch, tiedAt) : Promise.resolve(null),
    [tree, plan, branch, tiedAt],
  );
  const drawn = useAnswer(
    () => (plan && own.length ? worker('weighing').drawn(tree, plan.poses, own, shown) : Promise.resolve(null)),
    [tree, plan, own, shown],
  );
  const device = plan?.devices.find((d) => d.id === open) ?? null;
  const set = useAnswer(
    () => (plan && device && !('fault' in device) ? worker('weighing').device(tree, plan.poses, device.device, turnedSo) : Promise.resolve(null)),
    [tree, plan, device, turnedSo],
  );
  const drawing = useMemo<Drawing>(() => {
    if (!plan || !lines) return {};
    const moved = new Map<string, Limb>(set?.lines);
    for (const g of plan.guys) moved.set(g.branch, limb(g.line, diametersOf(lines.get(g.branch)!, g.line)));
    if (drawn && own[0]) moved.set(own[0].branch, drawn.line);
    const bent = rideAlong(placed.tree, lines, moved);
    const ties = plan.guys.map((g) => tieOf(g, bent.get(g.branch)!, g.at));
    const place = tiedAt ?? choice?.at;
    const from = branch && place !== undefined && bent.get(branch) ? pointAt(bent.get(branch)!, place).point : null;
    const candidates = from && choice ? choice.anchors.slice(0, DRAWN).map((a): DrawnTie => ({ from, to: a.point, look: 'candidate' })) : [];
    const strained = drawn && own[0] ? [strainOf(bent.get(own[0].branch)!, drawn)] : [];
    for (const d of plan.devices)
      if (d.id === open && !('fault' in d)) strained.push(...d.moved.flatMap((m) => (bent.get(m.branch) ? strainOf(bent.get(m.branch)!, m) : [])));
    const on = new Set(plan.wires.map((w) => w.branch));
    const beside = (id: string) => !on.has(id) && plan.guys.some((g) => g.branch === id);
    const named = branch ? [branch] : plan.guys.map((g) => g.branch);
    return {
      bent,
      ties: [...ties, ...candidates, ...strained, ...plan.devices.flatMap((d) => partsOfDevice(set && d === device ? set : d))],
      poses: own.length && branch ? [{ line: lines.get(branch)! }] : [],
      labels: [...new Set(named)].map((id) => ({ branch: id, text: short(id) })),
      planned: plan.runs.flatMap(plannedCoils).filter((c) => beside(c.branch)),
      foliage: 0.3,
    };
  }, [plan, lines, placed, drawn, own, branch, choice, tiedAt, short, open, device, set]);
  return { drawing, share, setShare, own, choice, drawn, set, turned, setTurned, at: tiedAt, setAt };
}

/** Thickness along a line of other points on the same branch. */
const diametersOf = (line: Limb, points: readonly Vec[]): number[] => points.map((_, i) => pointAt(line, (lengthOf(line) * i) / (points.length - 1)).diameter);

export const useKit = kitOf(useGuyKit);
