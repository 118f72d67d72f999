import type { Px } from '../tree/index.js';
import { greatestOf, wrapDeg } from '../units/index.js';
import type { Vec } from '../space/index.js';
import { moved, project, rayAt, type Camera } from './camera.js';
import { cornersOf, isMirrored, laidAt, type LaidCard, type SeenCard, type SeenPhoto } from './cards.js';
import { fit, type Block } from './least-squares.js';
import { camerasFromPlane } from './plane.js';

/** Where all cameras stood, and where the cards lay. */
export interface Stood {
  cameras: Map<string, Camera>;
  cards: Map<number, LaidCard>;
  focal: number;
  k1: number;
  /** What is left of the corners, px (root mean square). */
  rmsPx: number;
  /** Photos that are not used, and why; and what else is worth knowing. */
  left: Map<string, string>;
  notes: string[];
}

/** How well a corner is found, px. */
const CORNER_SD = 0.3;
/** Corners of one card in one photo are doubted beyond so many spreads; at first, when all is roughly guessed, far later. */
const DOUBTED = 6;
const TRUSTING = 200;
/** A card of a photo that is off by more than this, px, lay elsewhere then. */
const ELSEWHERE_PX = 3;
/** What is known of a lens before: its middle, px; its radial term; its focal length, as a logarithm. */
const LENS = { centre: 10, k1: 0.06, focal: 0.25 };
/** A camera that is first set by a card as its picture has it must fit its own corners so well, px. */
const START_PX = 8;
/** Seen over fewer degrees round the tree than this, depth is weak. */
const LEAST_ROUND = 70;

interface World {
  cards: Map<number, LaidCard>;
  cameras: Map<string, Camera>;
}

const lensOf = ({ width, height, focalGuess }: SeenPhoto): Pick<Camera, 'focal' | 'k1' | 'centre'> => ({
  focal: focalGuess,
  k1: 0,
  centre: [width / 2, height / 2],
});
const inPlane = ([x, y]: Px): Vec => [x, y, 0];

function offsOf(camera: Camera, laid: LaidCard, seen: SeenCard, side: number): number[] {
  return cornersOf(laid, side).flatMap((corner, i) => {
    const at = project(camera, inPlane(corner));
    return at ? [at[0] - seen.corners[i]![0], at[1] - seen.corners[i]![1]] : [1000, 1000];
  });
}

const rmsOf = (offs: readonly number[]): number => Math.sqrt(offs.reduce((sum, v) => sum + v * v, 0) / Math.max(1, offs.length / 2));

/** Where a camera sees a place of the picture in the plane of the cards; null above its horizon. */
function onPlane(camera: Camera, px: Px): Px | null {
  const way = rayAt(camera, px);
  if (way[2] > -0.01) return null;
  const k = -camera.at[2] / way[2];
  return [camera.at[0] + k * way[0], camera.at[1] + k * way[1]];
}

/** Lays the cards of a photo that are not laid yet where its camera sees them. */
function layFrom(world: World, photo: SeenPhoto, side: number): void {
  const camera = world.cameras.get(photo.photo)!;
  for (const seen of photo.cards) {
    if (world.cards.has(seen.card)) continue;
    const corners = seen.corners.map((c) => onPlane(camera, c));
    if (corners.every((c) => c !== null)) world.cards.set(seen.card, laidAt(corners, side).card);
  }
}

/** The camera of a photo by the cards of it that are laid, one of which may have been moved; null where they do not tell. */
function standBy(world: World, photo: SeenPhoto, side: number): Camera | null {
  const known = photo.cards.filter((c) => world.cards.has(c.card));
  const offs = (camera: Camera, seen: SeenCard): number[] => offsOf(camera, world.cards.get(seen.card)!, seen, side);
  const subsets = [known, ...(known.length > 2 ? known.map((left) => known.filter((c) => c !== left)) : [])];
  let best: { camera: Camera; rms: number } | null = null;
  for (const cards of subsets) {
    const plane = cards.flatMap((c) => cornersOf(world.cards.get(c.card)!, side));
    const seenAt = cards.flatMap((c) => c.corners);
    for (const start of camerasFromPlane(plane, seenAt, lensOf(photo))) {
      const blocks = cards.map((seen): Block => ({ on: [0, 1, 2, 3, 4, 5], residuals: (x) => offs(stepped(start, x, 0), seen), doubts: ROUGH_PX }));
      const { x } = fit(new Float64Array(6), blocks, { rounds: 25, scale: STEPS });
      const camera = stepped(start, x, 0);
      // The middle one of its cards: one that was moved does not spoil it.
      const rms = medianOf(known.map((seen) => rmsOf(offs(camera, seen))));
      if (!best || rms < best.rms) best = { camera, rms };
    }
    if (best && best.rms < START_PX) break;
  }
  return best && best.rms < 4 * START_PX ? best.camera : null;
}
/** Until all is adjusted together, what is off by so much, px, is doubted. */
const ROUGH_PX = 20;

/** Steps of place (in tenths of a metre, so that all unknowns are of one size) and of turning. */
const PLACE = 100;
const STEPS = [1, 1, 1, 1, 1, 1];
const stepped = (camera: Camera, x: ArrayLike<number>, at: number): Camera =>
  moved(camera, [x[at]! * PLACE, x[at + 1]! * PLACE, x[at + 2]! * PLACE], [x[at + 3]!, x[at + 4]!, x[at + 5]!]);

/** Sets up a world from one photo: one of its cards at the middle, the others where it sees them, the best of all its cards and of both ways to tilt it. */
function begin(photo: SeenPhoto, side: number): { world: World; rms: number } | null {
  let best: { world: World; rms: number } | null = null;
  for (const first of photo.cards)
    for (const camera of camerasFromPlane(cornersOf({ x: 0, y: 0, turn: 0 }, side), first.corners, lensOf(photo))) {
      const world: World = { cards: new Map([[first.card, { x: 0, y: 0, turn: 0 }]]), cameras: new Map([[photo.photo, camera]]) };
      layFrom(world, photo, side);
      const rms = adjust(world, [photo], side, null, TRUSTING);
      if (!best || rms < best.rms) best = { world, rms };
    }
  return best;
}

/** A lens: its focal length as a share of the longer side of its pictures, its radial term, and how far its middle is off, px. */
interface Lens {
  focal: number;
  k1: number;
  dx: number;
  dy: number;
}
const longSide = ({ width, height }: SeenPhoto): number => Math.max(width, height);

/** Adjusts all cameras and cards, and the lens where it is given, to the corners; what is left, px. */
function adjust(world: World, photos: readonly SeenPhoto[], side: number, lens: Lens | null, doubts: number): number {
  const used = photos.filter((p) => world.cameras.has(p.photo));
  const ids = [...world.cards.keys()].filter((id) => used.some((p) => p.cards.some((c) => c.card === id)));
  const fixed = ids[0]!;
  const cardAt = new Map(ids.filter((id) => id !== fixed).map((id, i) => [id, 4 + 3 * i]));
  const cameraAt = new Map(used.map((p, i) => [p.photo, 4 + 3 * cardAt.size + 6 * i]));
  const size = 4 + 3 * cardAt.size + 6 * used.length;
  const start = new Float64Array(size);
  if (lens) start.set([0, lens.k1, lens.dx / 100, lens.dy / 100]);
  const laid = (id: number, x: ArrayLike<number>): LaidCard => {
    const was = world.cards.get(id)!;
    const at = cardAt.get(id);
    return at === undefined ? was : { x: was.x + x[at]! * PLACE, y: was.y + x[at + 1]! * PLACE, turn: was.turn + x[at + 2]! };
  };
  const seenBy = (p: SeenPhoto, x: ArrayLike<number>): Camera => {
    const camera = stepped(world.cameras.get(p.photo)!, x, cameraAt.get(p.photo)!);
    if (!lens) return camera;
    const own = lensOf(p);
    return { ...camera, focal: lens.focal * longSide(p) * Math.exp(x[0]!), k1: x[1]!, centre: [own.centre[0] + 100 * x[2]!, own.centre[1] + 100 * x[3]!] };
  };
  const blocks: Block[] = used.flatMap((p) =>
    p.cards
      .filter((c) => world.cards.has(c.card))
      .map((seen): Block => {
        const own = cardAt.get(seen.card);
        const camera = cameraAt.get(p.photo)!;
        return {
          on: [...(lens ? [0, 1, 2, 3] : []), ...(own === undefined ? [] : [own, own + 1, own + 2]), ...[0, 1, 2, 3, 4, 5].map((k) => camera + k)],
          residuals: (x) => offsOf(seenBy(p, x), laid(seen.card, x), seen, side).map((v) => v / CORNER_SD),
          doubts,
        };
      }),
  );
  if (lens) {
    const known: [number, number][] = [
      [0, LENS.focal],
      [1, LENS.k1],
      [2, LENS.centre / 100],
      [3, LENS.centre / 100],
    ];
    for (const [i, sd] of known) blocks.push({ on: [i], residuals: (x) => [x[i]! / sd] });
  }
  const { x } = fit(start, blocks, { rounds: 40, scale: new Array<number>(size).fill(1) });
  const cards = new Map(ids.map((id) => [id, laid(id, x)]));
  const cameras = new Map(used.map((p) => [p.photo, seenBy(p, x)]));
  for (const [id, card] of cards) world.cards.set(id, card);
  for (const [id, camera] of cameras) world.cameras.set(id, camera);
  if (lens) Object.assign(lens, { focal: lens.focal * Math.exp(x[0]!), k1: x[1], dx: 100 * x[2]!, dy: 100 * x[3]! });
  return rmsOf(
    used.flatMap((p) => p.cards.flatMap((c) => (world.cards.has(c.card) ? offsOf(world.cameras.get(p.photo)!, world.cards.get(c.card)!, c, side) : []))),
  );
}

/** Where all photos were taken from, by the cards in them; `side` is a card's, mm. docs: Photographs. */
export function standCameras(photos: readonly SeenPhoto[], side: number): Stood | { refused: string; left: Map<string, string> } {
  const left = new Map<string, string>();
  const notes: string[] = [];
  const usable = photos.filter((p) => {
    if (p.cards.length && 2 * p.cards.filter(isMirrored).length > p.cards.length) {
      left.set(p.photo, 'It is mirrored: its cards run round the wrong way. Bring it in as the camera took it.');
      return false;
    }
    if (p.cards.length >= LEAST_CARDS) return true;
    left.set(
      p.photo,
      p.cards.length
        ? 'Only one card was found in it: take it again with two cards or more in sight.'
        : 'No card was found in it: take it again with two cards or more in sight, sharp and not in glare.',
    );
    return false;
  });
  if (usable.length < LEAST_PHOTOS) return { refused: 'Two photos or more are needed in which two cards or more are found.', left };
  const inOrder = [...usable].sort((a, b) => b.cards.length - a.cards.length || areaOf(b) - areaOf(a));
  let world: World | null = null;
  for (const photo of inOrder) {
    const found = begin(photo, side);
    if (!found || found.rms > START_PX) continue;
    world = found.world;
    grow(world, inOrder, side);
    if (2 * world.cameras.size > usable.length) break;
  }
  if (!world || world.cameras.size < LEAST_PHOTOS)
    return { refused: 'The photos do not fit together: is the side of the cards as it is printed, and did they lie flat?', left };
  for (const p of usable)
    if (!world.cameras.has(p.photo))
      left.set(
        p.photo,
        p.cards.some((c) => world.cards.has(c.card)) ? ELSEWHERE : 'No card in it is in another photo that is used: take one that shows cards of both.',
      );
  const focal = medianOf(usable.map((p) => p.focalGuess / longSide(p)));
  const lens: Lens = { focal, k1: 0, dx: 0, dy: 0 };
  let used = usable.filter((p) => world.cameras.has(p.photo));
  for (const doubts of [TRUSTING, 50, 15, DOUBTED]) adjust(world, used, side, lens, doubts);
  used = withoutMoved(world, used, side, left, notes);
  const rmsPx = adjust(world, used, side, lens, DOUBTED);
  const round = roundOf(world, used);
  if (round < LEAST_ROUND)
    notes.push(
      `All photos are from one side, over ${round.toFixed(0)}°: what comes towards them or goes away is not well known. Take some from the other sides.`,
    );
  return {
    cameras: new Map(used.map((p) => [p.photo, world.cameras.get(p.photo)!])),
    cards: world.cards,
    focal: lens.focal * longSide(used[0]!),
    k1: lens.k1,
    rmsPx,
    left,
    notes,
  };
}

const LEAST_CARDS = 2;
const LEAST_PHOTOS = 2;
const ELSEWHERE = 'Its cards lie otherwise than in the others: they were moved before it was taken, or it is of another tree.';

const medianOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

const areaOf = ({ cards }: SeenPhoto): number =>
  cards.reduce((sum, { corners: [a, b, c, d] }) => sum + Math.abs((c[0] - a[0]) * (d[1] - b[1]) - (d[0] - b[0]) * (c[1] - a[1])) / 2, 0);

/** Adds photo after photo, those with the most cards that are laid already first. */
function grow(world: World, photos: readonly SeenPhoto[], side: number): void {
  const known = (p: SeenPhoto): number => p.cards.filter((c) => world.cards.has(c.card)).length;
  const open = new Set(photos.filter((p) => !world.cameras.has(p.photo)));
  while (open.size) {
    const next = [...open].sort((a, b) => known(b) - known(a))[0]!;
    open.delete(next);
    if (!known(next)) return;
    const camera = standBy(world, next, side);
    if (!camera) continue;
    world.cameras.set(next.photo, camera);
    layFrom(world, next, side);
    adjust(
      world,
      photos.filter((p) => world.cameras.has(p.photo)),
      side,
      null,
      TRUSTING,
    );
  }
}

/** Leaves out what does not fit where all else does: cards that were moved meanwhile, photos in which most were. */
function withoutMoved(world: World, used: readonly SeenPhoto[], side: number, left: Map<string, string>, notes: string[]): SeenPhoto[] {
  const isOff = (p: SeenPhoto, c: SeenCard): boolean =>
    !world.cards.has(c.card) || rmsOf(offsOf(world.cameras.get(p.photo)!, world.cards.get(c.card)!, c, side)) > ELSEWHERE_PX;
  const elsewhere = new Map<number, string[]>();
  const kept = used.flatMap((p): SeenPhoto[] => {
    const off = p.cards.filter((c) => isOff(p, c));
    if (p.cards.length - off.length < LEAST_CARDS) {
      left.set(p.photo, ELSEWHERE);
      return [];
    }
    for (const c of off) elsewhere.set(c.card, [...(elsewhere.get(c.card) ?? []), p.photo]);
    return [off.length ? { ...p, cards: p.cards.filter((c) => !off.includes(c)) } : p];
  });
  for (const [card, where] of [...elsewhere].sort((a, b) => a[0] - b[0]))
    notes.push(`Card ${card} lies elsewhere in ${where.join(', ')}: it was moved, and is left out there.`);
  return kept;
}

/** Over how many degrees round the cards the photos were taken. */
function roundOf(world: World, used: readonly SeenPhoto[]): number {
  const middle = [...world.cards.values()].reduce((m, c, _, all) => [m[0] + c.x / all.length, m[1] + c.y / all.length] as [number, number], [0, 0] as [
    number,
    number,
  ]);
  const bearings = used
    .map((p) => world.cameras.get(p.photo)!.at)
    .map(([x, y]) => wrapDeg((Math.atan2(x - middle[0], y - middle[1]) * 180) / Math.PI))
    .sort((a, b) => a - b);
  const gaps = bearings.map((b, i) => (i ? b - bearings[i - 1]! : b + 360 - bearings[bearings.length - 1]!));
  return 360 - greatestOf(gaps);
}
