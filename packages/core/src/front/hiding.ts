import { lengthOf } from '../space/index.js';
import { seenTrunk, seenTwin, type Pad, type PlacedTree } from '../tree/index.js';
import { clear, drawPad, drawPot, drawSegment, newLayer, type Layer } from './depth-buffer.js';
import { BUFFER_WIDTH, rotation, screenOf, segmentsOf, turn, type Screen } from './screen.js';

export interface Hiding {
  /** Share 0..1 of the lower trunk's outline (of twins: both trunks') that something stands in front of. */
  hidden: number;
  /** Share of the outline each branch hides, by id ("trunk" for the foliage of the apex, "pot" for the pot); largest first. */
  by: () => HiddenBy[];
}

/** What one branch hides: its share of the outline, and between which parts of the trunk's line (0 base, 1 top; from 1 to 0 where it hides only a twin). */
export interface HiddenBy {
  branch: string;
  share: number;
  from: number;
  to: number;
}

/** What is as near as what it is compared with hides nothing of it, mm: a twin is drawn in both layers. */
const SAME_MM = 0.5;

/** Cells of the trunks' outlines, those hidden, and by whom: how many, and between which shares of the trunk's line. */
interface Counts {
  seen: number;
  hidden: number;
  by: Int32Array;
  lowest: Float64Array;
  highest: Float64Array;
}

/** Counts what the other layer hides of a trunk. `along` is the share of its line at each of its points; null where that is not asked. */
function count(trunk: Layer, others: Layer, { rows }: Screen, along: readonly number[] | null, into: Counts): void {
  for (let at = 0; at < rows * BUFFER_WIDTH; at++) {
    if (trunk.depth[at] === -Infinity) continue;
    into.seen++;
    if (others.depth[at]! <= trunk.depth[at]! + SAME_MM) continue;
    const by = others.mark[at]!;
    into.hidden++;
    into.by[by]!++;
    if (!along) continue;
    const on = trunk.mark[at]!;
    const share = along[Math.floor(on)]! + (along[Math.ceil(on)]! - along[Math.floor(on)]!) * (on % 1);
    if (share < into.lowest[by]!) into.lowest[by] = share;
    if (share > into.highest[by]!) into.highest[by] = share;
  }
}

/** A depth buffer over the lower trunk's box on the screen. Roll turns the picture and hides nothing new, so it is not asked for. */
export function hidingOf(placed: PlacedTree): (bearing: number, pitch: number) => Hiding {
  const names = [...placed.branches.map((b) => b.branch.id), 'trunk', 'pot'];
  const apex = names.indexOf('trunk');
  const low = seenTrunk(placed);
  const twin = seenTwin(placed);
  // Of twins each may stand before the other.
  const wood = segmentsOf([...placed.branches.map(({ line }, owner) => ({ line, owner })), ...(twin ? [{ line: placed.trunk, owner: apex }] : [])]);
  const stems = [low, ...(twin ? [twin] : [])].map((line) => segmentsOf([{ line, owner: -1 }]).data);
  const [trunkEnd, length] = [stems[0]!.length, stems.reduce((sum, s) => sum + s.length, 0)];
  const all = new Float64Array(length);
  stems.forEach((s, i) => all.set(s, i ? trunkEnd : 0));
  const along = low.along.map((s) => s / lengthOf(low));
  const pads: { pad: Pad; owner: number }[] = placed.branches.flatMap(({ pad }, owner) => (pad ? [{ pad, owner }] : []));
  if (placed.apexPad) pads.push({ pad: placed.apexPad, owner: apex });
  // An upright tree stands on its pot and never behind it.
  const pot = low.points.some((p) => p[2] < 0) ? placed.tree.pot : null;

  const [ofStem, ofOthers] = [newLayer(), newLayer()];
  const turned = new Float64Array(wood.data.length);
  const turnedStems = new Float64Array(length);

  return (bearing, pitch) => {
    const m = rotation(bearing, pitch);
    turn(all, turnedStems, m);
    turn(wood.data, turned, m);
    const screen = screenOf(turnedStems);
    clear(ofOthers, screen);
    for (let i = 0; i < turned.length; i += 8) {
      // What lies wholly behind the trunk hides none of it.
      const nearest = Math.max(turned[i + 2]!, turned[i + 6]!) + Math.max(turned[i + 3]!, turned[i + 7]!);
      if (nearest > screen.back) drawSegment(screen, ofOthers, turned, i, wood.owner[i / 8]!, 0);
    }
    for (const { pad, owner } of pads) drawPad(screen, ofOthers, pad, m, owner);
    if (pot) drawPot(screen, ofOthers, pot, m, names.length - 1);

    const counts: Counts = {
      seen: 0,
      hidden: 0,
      by: new Int32Array(names.length),
      lowest: new Float64Array(names.length).fill(1),
      highest: new Float64Array(names.length),
    };
    // A stem's cells are marked with where on its line they lie, the others with whose they are.
    const look = (from: number, to: number, shares: readonly number[] | null): void => {
      clear(ofStem, screen);
      for (let i = from; i < to; i += 8) drawSegment(screen, ofStem, turnedStems, i, (i - from) / 8, 1);
      count(ofStem, ofOthers, screen, shares, counts);
    };
    look(0, trunkEnd, along);
    if (twin) look(trunkEnd, length, null);
    const { seen, hidden } = counts;
    const by = (): HiddenBy[] =>
      names
        .map((branch, i) => ({ branch, share: seen ? counts.by[i]! / seen : 0, from: counts.lowest[i]!, to: counts.highest[i]! }))
        .filter(({ share }) => share > 0)
        .sort((a, b) => b.share - a.share || (a.branch < b.branch ? -1 : 1));
    return { hidden: seen ? hidden / seen : 0, by };
  };
}
