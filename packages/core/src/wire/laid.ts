import { boxed, boxesApart, type Box, type Vec } from '../space/index.js';
import type { FlatBark } from './flat-bark.js';
import { oncePerPair } from './once.js';
import type { WirePath } from './path.js';

/** A wire as it lies: its centre line with half its width, mm, in stretches with a box round each, and the box round all. */
export interface LaidWire {
  half: number;
  /** How high its middle is above the bark, mm. */
  lift: number;
  stretches: { points: readonly Vec[]; box: Box }[];
  box: Box;
}

const STRETCH = 16;

/** What may be in the way by so much is not: hands draw it tight past it; mm. */
const GIVES = 0.25;

export function laidWire({ points }: Pick<WirePath, 'points'>, half: number, lift: number): LaidWire {
  const stretches = Array.from({ length: Math.ceil((points.length - 1) / STRETCH) }, (_, i) => {
    const own = points.slice(i * STRETCH, (i + 1) * STRETCH + 1);
    return { points: own, box: boxRound(own, half) };
  });
  return { half, lift, stretches, box: boxRound(points, half) };
}

function boxRound(points: readonly Vec[], half: number): Box {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const p of points)
    for (const k of [0, 1, 2] as const) {
      if (p[k] - half < low[k]) low[k] = p[k] - half;
      if (p[k] + half > high[k]) high[k] = p[k] + half;
    }
  return { low, high };
}

const liesIn = oncePerPair((wire: LaidWire, bark: FlatBark): boolean => {
  const box = boxed(bark.line);
  return wire.stretches.some((own) => !boxesApart(box, own.box, 0) && own.points.some((p) => bark.liftOf(p) < wire.lift - GIVES));
});

/** Whether a wire lies in wood. */
export const liesInWood = (wire: LaidWire, barks: readonly FlatBark[]): boolean =>
  barks.some((bark) => !boxesApart(boxed(bark.line), wire.box, 0) && liesIn(wire, bark));

const crosses = oncePerPair((wire: LaidWire, other: LaidWire): boolean => {
  const least = wire.half + other.half - GIVES;
  return wire.stretches.some((a) =>
    other.stretches.some((b) => !boxesApart(a.box, b.box, 0) && (comeNearer(a.points, b.points, least) || comeNearer(b.points, a.points, least))),
  );
});

/** Whether a wire lies across one of others. */
export const liesAcross = (wire: LaidWire, others: readonly LaidWire[]): boolean =>
  others.some((other) => !boxesApart(other.box, wire.box, 0) && crosses(wire, other));

/** Whether a point of one centre line comes nearer to the other one than a distance, mm. */
function comeNearer(a: readonly Vec[], b: readonly Vec[], than: number): boolean {
  // Points of a wire are at most four mm apart.
  const far = (than + 5) ** 2;
  for (const p of a) {
    for (let i = 0; i + 1 < b.length; i++) {
      const q = b[i]!;
      const x = p[0] - q[0];
      const y = p[1] - q[1];
      const z = p[2] - q[2];
      if (x * x + y * y + z * z > far) continue;
      const r = b[i + 1]!;
      const wx = r[0] - q[0];
      const wy = r[1] - q[1];
      const wz = r[2] - q[2];
      const square = wx * wx + wy * wy + wz * wz;
      const t = square > 0 ? Math.min(1, Math.max(0, (x * wx + y * wy + z * wz) / square)) : 0;
      if ((x - t * wx) ** 2 + (y - t * wy) ** 2 + (z - t * wz) ** 2 < than * than) return true;
    }
  }
  return false;
}
