import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import { clamp, slopeProfile, type Tree } from '@ustle/core';
import { useDesk } from '../desk';
import { HIGH, LOW, shareAt, slopeAt, WIDTH } from './ladder-scale';

/** Where the curve is held, as shares of the height. */
const HELD = [0.12, 0.35, 0.6, 0.85];

/** A point of the wanted slopes: share of the height, degrees. */
export interface LadderPoint {
  height: number;
  slope: number;
}

/** By how many degrees an arrow key moves; with Shift five. */
export function arrowStep(event: KeyboardEvent): number {
  const by = ({ ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key] ?? 0) * (event.shiftKey ? 5 : 1);
  if (by) event.preventDefault();
  return by;
}

/** What is dragged on the ladder: a point of the curve, the curve drawn by hand, a branch's own slope. Kept as an act where it is let go. */
export function useLadderDrags(tree: Tree) {
  const { setBranch, act } = useDesk();
  const svg = useRef<SVGSVGElement>(null);
  const [draft, setDraft] = useState<LadderPoint[] | null>(null);
  const [moved, setMoved] = useState<{ branch: string; slope: number } | null>(null);
  const profile = slopeProfile(tree);
  const curve: LadderPoint[] = draft ?? tree.plan.posing?.curve ?? HELD.map((share) => ({ height: share, slope: Math.round(profile.at(share)) }));
  const sorted = [...curve].sort((a, b) => a.height - b.height);

  const place = ([clientX, clientY]: [number, number]): { x: number; y: number } => {
    const { left, top, width } = svg.current!.getBoundingClientRect();
    const scale = WIDTH / width;
    return { x: (clientX - left) * scale, y: (clientY - top) * scale };
  };
  const store = async (points: LadderPoint[]): Promise<void> => {
    await act({ kind: 'posing', curve: points.map(({ height: h, slope }) => ({ height: Math.round(h * 100) / 100, slope })) });
    setDraft(null);
  };
  const withPoint = (i: number, slope: number): LadderPoint[] => sorted.map((p, k) => (k === i ? { ...p, slope: clamp(slope, LOW, HIGH) } : p));

  const hold = useDrag(
    ({ args: [i], xy, last, event }) => {
      event.stopPropagation();
      const next = withPoint(i as number, slopeAt(place(xy).x));
      setDraft(next);
      if (last) void store(next);
    },
    { pointer: { keys: false }, filterTaps: true },
  );
  const drawn = useRef<LadderPoint[]>([]);
  const draw = useDrag(
    ({ xy, first, last, tap }) => {
      if (tap) return;
      if (first) drawn.current = [];
      const { x, y } = place(xy);
      // One point for each step of the height: what is drawn last counts.
      const step = Math.round(shareAt(y) * 10) / 10;
      drawn.current = [...drawn.current.filter((p) => p.height !== step), { height: step, slope: slopeAt(x) }].sort((a, b) => a.height - b.height);
      setDraft(drawn.current);
      if (last && drawn.current.length > 1) void store(drawn.current);
      else if (last) setDraft(null);
    },
    { pointer: { keys: false }, filterTaps: true, threshold: 4 },
  );
  const poseAt = async (id: string, bearing: number, slope: number): Promise<void> => {
    await act({ kind: 'pose', branch: id, bearing, elevation: slope, bends: [] });
    setMoved(null);
  };
  const lift = useDrag(
    ({ args: [id, bearing], xy, last, tap, event }) => {
      event.stopPropagation();
      if (tap) return setBranch(id as string);
      const slope = slopeAt(place(xy).x);
      setMoved({ branch: id as string, slope });
      if (last) void poseAt(id as string, bearing as number, slope);
    },
    { pointer: { keys: false }, filterTaps: true },
  );
  return { svg, sorted, moved, store, withPoint, poseAt, hold, draw, lift };
}
