import { lengthOf } from '../space/index.js';
import { seenTrunk, type Pad, type PlacedTree } from '../tree/index.js';
import { clear, drawPad, drawPot, drawSegment, newLayer, type Layer } from './depth-buffer.js';
import { BUFFER_WIDTH, rotation, screenOf, segmentsOf, turn, type Screen } from './screen.js';

export interface Hiding {
  /** Share 0..1 of the lower trunk's outline that something stands in front of. */
  hidden: number;
  /** Share of the outline each branch hides, by id ("trunk" for the foliage of the apex, "pot" for the pot); largest first. */
  by: () => HiddenBy[];
}

/** What one branch hides of the lower trunk: its share of the outline, and between which parts of its line (0 base, 1 top). */
export interface HiddenBy {
  branch: string;
  share: number;
  from: number;
  to: number;
}

/** How much of the trunk's outline the other layer hides, and which of its marks hide what. `along` is the share of the trunk's line at each of its points. */
function compare(trunk: Layer, others: Layer, { rows }: Screen, along: readonly number[], names: readonly string[]): Hiding {
  let seen = 0,
    hidden = 0;
  const counts = new Int32Array(names.length);
  const lowest = new Float64Array(names.length).fill(1);
  const highest = new Float64Array(names.length);
  for (let at = 0; at < rows * BUFFER_WIDTH; at++) {
    if (trunk.depth[at] === -Infinity) continue;
    seen++;
    if (others.depth[at]! <= trunk.depth[at]!) continue;
    const by = others.mark[at]!;
    const on = trunk.mark[at]!;
    const share = along[Math.floor(on)]! + (along[Math.ceil(on)]! - along[Math.floor(on)]!) * (on % 1);
    hidden++;
    counts[by]!++;
    if (share < lowest[by]!) lowest[by] = share;
    if (share > highest[by]!) highest[by] = share;
  }
  const by = (): HiddenBy[] =>
    names
      .map((branch, i) => ({ branch, share: seen ? counts[i]! / seen : 0, from: lowest[i]!, to: highest[i]! }))
      .filter(({ share }) => share > 0)
      .sort((a, b) => b.share - a.share || (a.branch < b.branch ? -1 : 1));
  return { hidden: seen ? hidden / seen : 0, by };
}

/** A depth buffer over the lower trunk's box on the screen. Roll turns the picture and hides nothing new, so it is not asked for. */
export function hidingOf(placed: PlacedTree): (bearing: number, pitch: number) => Hiding {
  const names = [...placed.branches.map((b) => b.branch.id), 'trunk', 'pot'];
  const wood = segmentsOf(placed.branches.map(({ line }, owner) => ({ line, owner })));
  const low = seenTrunk(placed);
  const trunk = segmentsOf([{ line: low, owner: -1 }]);
  const along = low.along.map((s) => s / lengthOf(low));
  const pads: { pad: Pad; owner: number }[] = placed.branches.flatMap(({ pad }, owner) => (pad ? [{ pad, owner }] : []));
  if (placed.apexPad) pads.push({ pad: placed.apexPad, owner: names.indexOf('trunk') });
  // An upright tree stands on its pot and never behind it.
  const pot = low.points.some((p) => p[2] < 0) ? placed.tree.pot : null;

  const [ofTrunk, ofOthers] = [newLayer(), newLayer()];
  const turned = new Float64Array(wood.data.length);
  const turnedTrunk = new Float64Array(trunk.data.length);

  return (bearing, pitch) => {
    const m = rotation(bearing, pitch);
    turn(trunk.data, turnedTrunk, m);
    turn(wood.data, turned, m);
    const screen = screenOf(turnedTrunk);
    clear(ofTrunk, screen);
    clear(ofOthers, screen);
    // The trunk's cells are marked with where on its line they lie, the others with whose they are.
    for (let i = 0; i < turnedTrunk.length; i += 8) drawSegment(screen, ofTrunk, turnedTrunk, i, i / 8, 1);
    for (let i = 0; i < turned.length; i += 8) {
      // What lies wholly behind the trunk hides none of it.
      const nearest = Math.max(turned[i + 2]!, turned[i + 6]!) + Math.max(turned[i + 3]!, turned[i + 7]!);
      if (nearest > screen.back) drawSegment(screen, ofOthers, turned, i, wood.owner[i / 8]!, 0);
    }
    for (const { pad, owner } of pads) drawPad(screen, ofOthers, pad, m, owner);
    if (pot) drawPot(screen, ofOthers, pot, m, names.length - 1);
    return compare(ofTrunk, ofOthers, screen, along, names);
  };
}
