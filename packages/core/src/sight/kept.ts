import { cross, scale, unit } from '../space/index.js';
import type { KeptCamera, KeptSight, Pot } from '../tree/index.js';
import type { Camera } from './camera.js';
import type { SightSet } from './set.js';

const rounded =
  (digits: number) =>
  (v: number): number =>
    Math.round(v * 10 ** digits) / 10 ** digits;

/** A camera as it is kept with the tree: its axes by where it looks and what is up for it. */
export function keptCamera({ at, forward, down, focal, k1, centre }: Camera): KeptCamera {
  const [fine, finer, finest] = [rounded(2), rounded(5), rounded(7)];
  return {
    at: [fine(at[0]), fine(at[1]), fine(at[2])],
    forward: [finest(forward[0]), finest(forward[1]), finest(forward[2])],
    up: [finest(-down[0]), finest(-down[1]), finest(-down[2])],
    focal: fine(focal),
    k1: finer(k1),
    centre: [fine(centre[0]), fine(centre[1])],
  };
}

/** A kept camera as it sees; its axes are square to each other again. */
export function cameraOf({ at, forward: kept, up, focal, k1, centre }: KeptCamera): Camera {
  const forward = unit(kept);
  const right = unit(cross(forward, up));
  const down = scale(cross(right, forward), -1);
  return { at, right, down, forward, focal, k1, centre };
}

/** What a tree keeps of its photos, as a set to be worked out; with its pot, where photos without cards count. */
export const setOf = ({ cardSide, photos, drawn }: KeptSight, pot?: Pot): SightSet => ({ cardSide, photos, drawn, ...(pot ? { pot } : {}) });
