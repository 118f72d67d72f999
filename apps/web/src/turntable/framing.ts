import { toRad } from '@ustle/core';

/** The camera's angle of view, bottom to top. */
export const FOV_DEG = 24;

/** A ring of points round the table's axis: radius and height, mm. */
export interface Ring {
  radius: number;
  z: number;
}

export interface Framing {
  /** From the camera to the point on the axis it looks at, mm. */
  distance: number;
  /** Height of that point, mm. */
  aim: number;
}

/** Least and greatest place on the screen of the rings (1 = the picture's edge), for a camera looking down at the axis. */
function extents(
  rings: readonly Ring[],
  { distance, aim }: Framing,
  half: number,
  aspect: number,
  downRad: number,
): { low: number; high: number; wide: number } {
  let [low, high, wide] = [Infinity, -Infinity, 0];
  for (const { radius, z } of rings) {
    for (let i = 0; i < 24; i++) {
      const turn = (i / 24) * 2 * Math.PI;
      const near = Math.cos(turn) * radius;
      const up = z - aim;
      const depth = distance - near * Math.cos(downRad) - up * Math.sin(downRad);
      const y = (up * Math.cos(downRad) - near * Math.sin(downRad)) / (depth * half);
      low = Math.min(low, y);
      high = Math.max(high, y);
      wide = Math.max(wide, Math.abs(Math.sin(turn) * radius) / (depth * half * aspect));
    }
  }
  return { low, high, wide };
}

/** The nearest stand from which all rings are in the picture, with a margin (share of the picture). The same from every bearing. */
export function frameRings(rings: readonly Ring[], fovDeg: number, aspect: number, downDeg: number, margin = 0.03): Framing {
  const half = Math.tan(toRad(fovDeg / 2));
  const down = toRad(downDeg);
  const reach = Math.max(...rings.map((r) => Math.hypot(r.radius, r.z)));
  const centred = (distance: number): Framing => {
    let aim = 0;
    for (let i = 0; i < 6; i++) {
      const { low, high } = extents(rings, { distance, aim }, half, aspect, down);
      aim += ((low + high) / 2) * half * distance;
    }
    return { distance, aim };
  };
  let near = reach;
  let far = reach * 60;
  for (let i = 0; i < 40; i++) {
    const middle = (near + far) / 2;
    const seen = extents(rings, centred(middle), half, aspect, down);
    if (Math.max(seen.high, -seen.low, seen.wide) > 1 - margin) near = middle;
    else far = middle;
  }
  return centred(far);
}
