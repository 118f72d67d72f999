import { greatestOf, leastOf } from '../units/index.js';
import { lengthOf, axisAt, type Limb } from '../space/index.js';
import type { FlatBark } from './flat-bark.js';

/** Room between two wires beyond what they need to lie side by side, mm. */
export const MARGIN = 0.4;

/** A place of the bark beneath other wood: how thick that is there with what is wound on it (half, mm), and how high its middle is above the bark. */
interface Spot {
  s: number;
  turn: number;
  thick: number;
  high: number;
  /** Bark for a mm along the limb there. */
  stretch: number;
}

/** Wood that a wire on a limb has to go round: a branch that leaves it, or one that comes close to it. */
export interface Knot {
  branch: string;
  spots: readonly Spot[];
  /** The middle of all spots. */
  s: number;
  turn: number;
}

const STEP = 1.5;

/** How far from the middle of a spot a wire of some half width has to keep, mm on the bark; 0 where it passes beneath. */
export function keepOut({ thick, high }: Spot, half: number): number {
  const square = (thick + half + MARGIN) ** 2 - (high - half) ** 2;
  return square > 0 ? Math.sqrt(square) : 0;
}

const between = new WeakMap<FlatBark, WeakMap<FlatBark, { wound: number; half: number; knots: Knot[] }[]>>();

/** Where another limb, `wound` mm thicker on every side by its wire, is in the way of wires of up to half a `width` on this one; found once for each two. docs: Between the shoots. */
export function knotsOf(branch: string, bark: FlatBark, other: FlatBark, wound: number, half: number): Knot[] {
  const ofBark = between.get(bark) ?? new WeakMap<FlatBark, { wound: number; half: number; knots: Knot[] }[]>();
  between.set(bark, ofBark);
  const known = ofBark.get(other) ?? [];
  ofBark.set(other, known);
  const before = known.find((k) => k.wound === wound && k.half === half);
  if (before) return before.knots;
  const knots = findKnots(branch, bark, other.line, wound, half);
  known.push({ wound, half, knots });
  return knots;
}

function findKnots(branch: string, bark: FlatBark, other: Limb, wound: number, half: number): Knot[] {
  const knots: Knot[] = [];
  let spots: Spot[] = [];
  const close = (): void => {
    if (spots.length) knots.push({ branch, spots, s: middle(spots.map((p) => p.s)), turn: middle(spots.map((p) => p.turn)) });
    spots = [];
  };
  const length = lengthOf(other);
  let at = 0;
  while (at <= length) {
    const { point, diameter } = axisAt(other, at);
    const thick = diameter / 2 + wound;
    const far = bark.liftOf(point) - (thick + 2 * half + MARGIN);
    // It comes nearer by no more than it goes on.
    at += Math.max(STEP, far);
    if (far > 0) {
      close();
      continue;
    }
    const { s, turn, lift } = bark.placeOf(point);
    const spot = { s, turn: spots.length ? nearTurn(turn, spots[spots.length - 1]!.turn) : turn, thick, high: lift, stretch: bark.stretch(s, turn) };
    // Deep in the limb's own wood it has no place on the bark; before the limb is clear itself, nothing is wound on it.
    if (keepOut(spot, half) > 0 && s >= bark.clearFrom && lift > -0.7 * bark.radius(s)) spots.push(spot);
    else close();
  }
  close();
  return knots;
}

const middle = (values: readonly number[]): number => (leastOf(values) + greatestOf(values)) / 2;
/** A turn by the round that is nearest to another one. */
export const nearTurn = (turn: number, to: number): number => turn + Math.round((to - turn) / (2 * Math.PI)) * 2 * Math.PI;
