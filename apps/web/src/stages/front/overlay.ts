import type { TreeDesk } from '../tree-context';

export const LETTERS = 'ABCDE';

/** The rose and its lettered flags; the one looked at is filled. */
export function frontOverlay({ fronts, bearing, branch }: TreeDesk) {
  const looked = fronts.rose.find((f) => Math.abs(f.bearing - bearing) < 2);
  return {
    rose: fronts.rose,
    flags: fronts.candidates.map((f, i) => ({ letter: LETTERS[i]!, bearing: f.bearing, filled: f.bearing === bearing })),
    labels: [...new Set([...(branch ? [branch] : []), ...(looked?.atEye ?? []).slice(0, 3)])].map((id) => ({
      branch: id,
      text: looked?.atEye.includes(id) ? `${id} at the eye` : id,
    })),
  };
}
