import { clamp, toDeg } from '../units/index.js';

/** One bend of a trunk line as seen: how far it turns (degrees, signed) over what length (mm). */
export interface LineBend {
  turnDeg: number;
  length: number;
}

type Point = readonly [number, number];

/** A bend smaller than this is the ruler's doing. */
const LEAST_BEND_DEG = 8;

/** The bends of a line on the screen, from below. */
export function bendsOf(points: readonly Point[]): LineBend[] {
  const bends: LineBend[] = [];
  let heading: number | null = null;
  for (let i = 1; i < points.length; i++) {
    const dx = points[i]![0] - points[i - 1]![0];
    const dy = points[i]![1] - points[i - 1]![1];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) continue;
    const next = Math.atan2(dx, dy);
    if (heading !== null) {
      let turn = next - heading;
      if (turn > Math.PI) turn -= 2 * Math.PI;
      if (turn < -Math.PI) turn += 2 * Math.PI;
      const last = bends[bends.length - 1];
      if (last && last.turnDeg * turn >= 0) {
        last.turnDeg += toDeg(turn);
        last.length += length;
      } else bends.push({ turnDeg: toDeg(turn), length });
    }
    heading = next;
  }
  return bends.filter((b) => Math.abs(b.turnDeg) >= LEAST_BEND_DEG);
}

/** Longest stretch whose points stray less than 2.5% of it from its chord, mm. */
export function longestStraight(points: readonly Point[]): number {
  let longest = 0;
  for (let i = 0; i < points.length - 1; i++) {
    for (let j = i + 1; j < points.length; j++) {
      const ax = points[j]![0] - points[i]![0];
      const ay = points[j]![1] - points[i]![1];
      const chord = Math.hypot(ax, ay);
      if (chord <= longest) continue;
      let strays = false;
      for (let k = i + 1; k < j && !strays; k++) {
        const off = Math.abs(ax * (points[k]![1] - points[i]![1]) - ay * (points[k]![0] - points[i]![0])) / chord;
        strays = off > 0.025 * chord;
      }
      if (!strays) longest = chord;
    }
  }
  return longest;
}

const VARIETY = [0, 0.5, 0.8, 1];

/** 0..1: much turning, in several bends that shrink upward; `enoughDeg` of turning in all is enough. */
function liveliness(bends: readonly LineBend[], enoughDeg: number): number {
  const amount = clamp(bends.reduce((sum, b) => sum + Math.min(75, Math.abs(b.turnDeg)), 0) / enoughDeg, 0, 1) ** 0.7;
  const pairs = bends.slice(1).map((b, i) => (b.length <= bends[i]!.length ? 1 : 0) as number);
  const shrinking = pairs.length ? pairs.reduce((a, b) => a + b, 0) / pairs.length : 0.5;
  return amount * (0.75 * VARIETY[Math.min(3, bends.length)]! + 0.25 * shrinking);
}

export interface Movement {
  score: number;
  side: LineBend[];
  depth: LineBend[];
  /** Longest straight run over the height. */
  straight: number;
}

/** Movement of a trunk line given as points (right, up, toward): seven parts sideways, three in depth, less for a straight run. */
export function movementOf(line: readonly (readonly [number, number, number])[]): Movement {
  const seen = line.map((p): Point => [p[0], p[1]]);
  const fromSide = line.map((p): Point => [p[2], p[1]]);
  // From its highest to its lowest point: the growing end of a cascade may hang at the height of its base.
  const heights = line.map((p) => p[1]);
  const height = Math.max(1, Math.max(...heights) - Math.min(...heights));
  const side = bendsOf(seen);
  const depth = bendsOf(fromSide);
  const straight = longestStraight(seen) / height;
  const cost = 0.4 * clamp((straight - 0.25) / 0.5, 0, 1);
  return { score: clamp(0.7 * liveliness(side, 200) + 0.3 * liveliness(depth, 130) - cost, 0, 1), side, depth, straight };
}
