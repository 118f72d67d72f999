import type { CoilOn } from './limb-work.js';
import { TURN, turnOf, type Way } from './ways.js';

/** A coil as a way round its branch, sample by sample. */
export function wayOfCoil(coil: CoilOn, half: number): Way {
  const before = waysOfCoils.get(coil);
  if (before?.half === half) return before;
  const { places } = coil;
  const rising = places[places.length - 1]!.turn >= places[0]!.turn ? places : [...places].reverse();
  const first = Math.ceil((rising[0]!.turn * TURN) / (2 * Math.PI));
  const last = Math.floor((rising[rising.length - 1]!.turn * TURN) / (2 * Math.PI));
  const along: number[] = [];
  let i = 0;
  for (let k = first; k <= last; k++) {
    const turn = turnOf(k);
    while (i < rising.length - 2 && rising[i + 1]!.turn < turn) i++;
    const [a, b] = [rising[i]!, rising[i + 1]!];
    along.push(a.s + ((b.s - a.s) * (turn - a.turn)) / (b.turn - a.turn));
  }
  const way = { first, along, half };
  waysOfCoils.set(coil, way);
  return way;
}

const waysOfCoils = new WeakMap<CoilOn, Way>();
