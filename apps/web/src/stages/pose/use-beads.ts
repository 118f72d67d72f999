import { useState } from 'react';
import { clamp, dot, lengthOf, pointAt, unit, type Limb, type PlanDocument, type PlanPose, type Vec } from '@ustle/core';
import type { Threaded } from '../../turntable/ThreadedHandles';
import type { Desk } from '../desk';
import { keptBend, keptPose } from './kept';
import { bendName } from './words';

/** Arcs that make a branch shorter are one snake: the first of them stands for all. */
export const isInArcs = ({ bends }: Pick<PlanPose, 'bends'>, i: number): boolean => bends[i]!.kind === 'arc' && bends[i - 1]?.kind === 'arc';

/** Beads on the bends of the chosen branch; one may be pushed along, and lies there until that is stored. */
export function useBeads({ plan, branch, act, tree }: Desk, line: Limb | undefined, chosen: number | null, setChosen: (bend: number | null) => void) {
  const pose = plan?.poses.find((p) => p.branch === branch);
  const [slid, setSlid] = useState<{ plan: PlanDocument; index: number; by: number } | null>(null);
  const pushed = slid && slid.plan === plan ? slid : null;
  const own = tree.plan.poses.find((p) => p.branch === branch);
  const placeOf = (i: number): number => {
    const bend = pose!.bends[i]!;
    const low = i ? pose!.bends[i - 1]!.at + pose!.bends[i - 1]!.length : 0;
    const high = (pose!.bends[i + 1]?.at ?? lengthOf(line!)) - bend.length;
    return clamp(bend.at + (pushed?.index === i ? pushed.by : 0), low, Math.max(low, high));
  };
  const shown = (pose?.bends ?? []).flatMap((_, i) => (isInArcs(pose!, i) ? [] : [i]));
  const onSlide = (bead: number, by: Vec, done: boolean): void => {
    if (!plan || !pose || !line) return;
    const index = shown[bead]!;
    const bend = pose.bends[index]!;
    const along = pointAt(line, bend.at + bend.length / 2).direction;
    const moved = (pushed?.index === index ? pushed.by : 0) + dot(by, unit(along));
    setSlid({ plan, index, by: moved });
    if (!done) return;
    const at = Math.round(placeOf(index));
    if (at !== bend.at) void act({ kind: 'pose', ...keptPose(pose, own), bends: pose.bends.map((b, i) => keptBend(i === index ? { ...b, at } : b)) });
  };
  const beads =
    pose && line
      ? shown.map((i) => {
          const b = pose.bends[i]!;
          return {
            at: pointAt(line, placeOf(i) + b.length / 2).point,
            band: b.band as Threaded['beads'][number]['band'],
            chosen: i === chosen,
            name: bendName(b, i),
          };
        })
      : [];
  return { beads, onSlide, onBead: (bead: number) => setChosen(shown[bead] ?? null) };
}
