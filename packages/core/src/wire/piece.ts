import { gaugeOf, wireMass } from '../wood/index.js';
import type { FittedCoil } from './coil-fit.js';
import type { Need } from './limb-work.js';
import type { WirePath } from './path.js';
import { pieceLength } from './run-plan.js';
import { served, type Touch, type Wish } from './shoulders.js';

/** Wire, length and weight of a piece whose path is so long. */
export function asPiece({ metal, strands, angle }: Pick<Need, 'metal' | 'strands' | 'angle'>, size: number, path: number) {
  const length = pieceLength(path, size);
  return { metal, size, gauge: metal === 'copper' ? gaugeOf(size) : null, strands, angle, length, mass: wireMass(metal, size, length * strands) };
}

/** A coil of fewer turns holds nothing. docs: Hold. */
export const LEAST_COIL = 1;

/** Turns of a piece on one of its branches, beyond where it comes round the shoulder. */
export function turnsOn({ places, on }: WirePath, branch: string): number {
  const { from, to } = on.get(branch)!;
  const wound = places.filter((p) => p.limb === branch && p.along >= from && p.along <= to);
  return wound.length ? Math.abs(wound[wound.length - 1]!.turn - wound[0]!.turn) / (2 * Math.PI) : 0;
}

/** What a branch's bend would rather have, where there was no way for it. */
export function unserved(touch: Touch, wish: Wish): string[] {
  const { hand, start } = served(touch, wish);
  return [
    ...(start ? [] : [`${wish.start === 'over' ? 'Over the shoulder' : 'From beneath the shoulder'} would suit its bend better: no way leads up to it there.`]),
    ...(hand || wish.forShoot
      ? []
      : [`Wound ${wish.hand === 'cw' ? 'clockwise' : 'counter-clockwise'} it would tighten as the branch is bent: no way leads up to it so.`]),
  ];
}

/** A coil that is stopped before it has gone round once holds nothing. */
export const tooShort = ({ blocked, places }: FittedCoil): boolean =>
  blocked !== null && Math.abs(places[places.length - 1]!.turn - places[0]!.turn) < 2 * Math.PI;
