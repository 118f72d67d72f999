import { greatestOf, leastOf, clamp, toDeg } from '../units/index.js';
import { cross, dot, norm, scale, sub, unit, type Vec } from '../space/index.js';

/** How a line turns about one axis from its base up: its bends one after the other, in turn to one side and the other. */
export interface Turning {
  /** Signed turn of each bend, degrees. */
  bends: number[];
  /** All turning, degrees, whichever way. */
  total: number;
  /** How much of it goes back on the bend before, degrees: none in an arc, half of the turning in an even S. */
  back: number;
  /** Where along the line it turns back, 0 base to 1 tip, on the mean; above the middle where bends shrink upward. */
  backAt: number;
}

/** A wavering of the line by less than this either way is the ruler's doing. */
const PLAY_DEG = 4;
const EVEN_DEG = 20;

/**
 * The turning of a line from its turn at each of its inner points (degrees, signed).
 * The heading is followed with some play, as a loose lever follows the hand, so that wavering counts nothing and every
 * figure grows from nothing as a bend does: no threshold at which a bend comes into being.
 */
export function turningOf(turns: readonly number[]): Turning {
  let [heading, followed, moved] = [0, 0, 0];
  const bends: number[] = [];
  const began: number[] = [];
  turns.forEach((turn, i) => {
    heading += turn;
    const step = clamp(followed, heading - PLAY_DEG, heading + PLAY_DEG) - followed;
    if (step === 0) return;
    followed += step;
    if (bends.length && bends[bends.length - 1]! * step > 0) bends[bends.length - 1]! += step;
    else {
      bends.push(step);
      // Between where it last turned one way and first the other.
      began.push(((i + moved) / 2 + 0.5) / turns.length);
    }
    moved = i;
  });
  const total = bends.reduce((sum, b) => sum + Math.abs(b), 0);
  const backs = bends.slice(1).map((b, i) => Math.min(Math.abs(b), Math.abs(bends[i]!)));
  const back = backs.reduce((sum, b) => sum + b, 0);
  // Small ones count less here, large ones alike.
  const weights = backs.map((b) => b / (b + EVEN_DEG));
  const weight = weights.reduce((sum, w) => sum + w, 0);
  return { bends, total, back, backAt: weight > 0 ? weights.reduce((sum, w, i) => sum + w * began[i + 1]!, 0) / weight : 0.5 };
}

type Point = readonly [number, number];

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

/** What one arc is worth beside many bends of as much turning. */
const ARC = 0.5;

/** 0..1: much turning (`enoughDeg` in all is enough), going back on itself, the more the bends shrink upward. */
function liveliness({ total, back, backAt }: Turning, enoughDeg: number): number {
  if (total === 0) return 0;
  const shrinking = clamp(0.5 + 1.5 * (backAt - 0.5), 0, 1);
  const variety = ARC + (1 - ARC) * Math.sqrt(back / total) * (0.75 + 0.25 * shrinking);
  return clamp(total / enoughDeg, 0, 1) ** 0.7 * variety;
}

/** Where the end of a cascade goes as seen from a view, mm: to the right, and to the viewer. */
export interface Fall {
  aside: number;
  toward: number;
}

const towardDeg = ({ aside, toward }: Fall): number => toDeg(Math.atan2(toward, Math.abs(aside)));

/** A fall shows whole from its side, its end up to so far forward; it is gone where it comes straight at the viewer or goes away. */
const FALL = { forwardDeg: 25, goneDeg: 60 };
const fallShown = (fall: Fall): number => {
  const off = towardDeg(fall);
  return clamp(1 - Math.max(0, -off, off - FALL.forwardDeg) / FALL.goneDeg, 0, 1);
};

export interface Movement {
  score: number;
  /** Turning as seen: positive to the viewer's left. */
  side: Turning;
  /** Turning to the viewer (positive) and away. */
  depth: Turning;
  /** Longest straight run over the height. */
  straight: number;
}

/**
 * Movement of a trunk line given as points (right, up, toward), 0..1: seven parts sideways, three in depth, less for a straight run; of a cascade half of it is the fall itself.
 * A turn counts sideways by its share about the line of sight: a bend seen end-on is in depth.
 */
export function movementOf(line: readonly Vec[], fall: Fall | null = null): Movement {
  const ways = line.slice(1).map((p, i) => unit(sub(p, line[i]!)));
  const turns = ways.slice(1).map((way, i) => {
    const axis = cross(ways[i]!, way);
    return {
      axis: scale(unit(axis), toDeg(Math.atan2(norm(axis), dot(ways[i]!, way)))),
      way: unit([way[0] + ways[i]![0], way[1] + ways[i]![1], way[2] + ways[i]![2]]),
    };
  });
  const side = turningOf(turns.map(({ axis }) => axis[2]));
  // About the line that lies square to the trunk and to the line of sight.
  const depth = turningOf(turns.map(({ axis, way }) => axis[1] * way[0] - axis[0] * way[1]));
  // From its highest to its lowest point: the growing end of a cascade may hang at the height of its base.
  const heights = line.map((p) => p[1]);
  const height = Math.max(1, greatestOf(heights) - leastOf(heights));
  const straight = longestStraight(line.map((p): Point => [p[0], p[1]])) / height;
  const kept = 1 - 0.5 * clamp((straight - 0.25) / 0.5, 0, 1);
  const turning = (0.7 * liveliness(side, 200) + 0.3 * liveliness(depth, 130)) * kept;
  return { score: fall ? 0.5 * fallShown(fall) + 0.5 * turning : turning, side, depth, straight };
}

/** A bend of less is not spoken of. */
const WORTH_SAYING_DEG = 6;

/** What an artist would say of the movement. */
export function sayMovement({ side, depth, straight }: Movement, fall: Fall | null): string {
  const bends = side.bends
    .filter((b) => Math.abs(b) >= WORTH_SAYING_DEG)
    .map((b) => (b > 0 ? 'left' : 'right'))
    .filter((way, i, all) => way !== all[i - 1]);
  const form = ['straight as seen from here', 'one arc', 'an S'][bends.length] ?? `${bends.length} bends`;
  const ways = bends.join(', ');
  const seen = bends.length ? `${form}${bends.length === 1 ? ' to the' : ':'} ${ways}, turning ${side.total.toFixed(0)}° in all` : form;
  const inDepth = depth.total >= WORTH_SAYING_DEG ? `; coming and going ${depth.total.toFixed(0)}°` : '; nothing in depth';
  return `${fall ? `falls ${sayFall(fall)}: ` : ''}${seen}${inDepth}${straight > 0.25 ? `; ${(straight * 100).toFixed(0)}% of its height is one straight run` : ''}`;
}

function sayFall(fall: Fall): string {
  const off = towardDeg(fall);
  if (Math.abs(off) > 60) return off > 0 ? 'straight at you' : 'away from you';
  const to = `to the ${fall.aside > 0 ? 'right' : 'left'}`;
  return Math.abs(off) < 10 ? to : `${to}, ${Math.abs(off).toFixed(0)}° ${off > 0 ? 'to you' : 'to the back'}`;
}
