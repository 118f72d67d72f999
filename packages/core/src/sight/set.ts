import { toRad } from '../units/index.js';
import { bearingAndElevation, scale, sub, alignedTo, unit, type Vec } from '../space/index.js';
import type { Camera } from './camera.js';
import type { Pot } from '../tree/index.js';
import { camerasByPot, placeInPlane, POT_LINE } from './by-pot.js';
import type { SeenPhoto } from './cards.js';
import { PLUMB_LINE } from './drawn-parts.js';
import { placeLine, type DrawnLine, type FoundLine } from './lines.js';
import { standCameras } from './stand.js';

/** A set of photos as numbers: what was found in them, and what was drawn over them. Lengths in mm, places in px. */
export interface SightSet {
  cardSide: number;
  photos: readonly (SeenPhoto & { bearing?: number })[];
  drawn: readonly DrawnLine[];
  /** The pot, by whose width photos without cards are placed. */
  pot?: Pot;
}

/** A set worked out: z up, the origin where the trunk's line begins, bearing 0 towards the card with the lowest number. */
export interface Sight {
  rmsPx: number;
  focal: number;
  k1: number;
  cameras: { photo: string; at: Vec; bearing: number; found: true; camera: Camera }[];
  left: { photo: string; found: false; why: string }[];
  lines: FoundLine[];
  /** Lines that are not had, and why. */
  without: { line: string; why: string }[];
  notes: string[];
}

const TRUNK = 'trunk';

/** What was worked out of a set before: of what is drawn anew only that line is placed again. */
export class SightMemory {
  private stood: { key: string; cameras: ReturnType<typeof standCameras> } | null = null;
  private placed = new Map<string, { key: string; found: FoundLine | string }>();

  cameras(photos: readonly SeenPhoto[], cardSide: number): ReturnType<typeof standCameras> {
    const key = JSON.stringify([cardSide, photos.map(({ photo, width, height, focalGuess, cards }) => [photo, width, height, focalGuess, cards])]);
    if (this.stood?.key !== key) {
      this.stood = { key, cameras: standCameras(photos, cardSide) };
      this.placed.clear();
    }
    return this.stood.cameras;
  }

  line(line: string, drawn: readonly DrawnLine[], cameras: ReadonlyMap<string, Camera>): FoundLine | string {
    const key = JSON.stringify(drawn);
    const before = this.placed.get(line);
    if (before?.key === key) return before.found;
    const found = placeLine(line, drawn, cameras);
    this.placed.set(line, { key, found });
    return found;
  }
}

/** What is drawn, by line; the pot's width and what hangs plumb are none of the tree's. */
function linesOf(drawn: readonly DrawnLine[]): Map<string, DrawnLine[]> {
  const byLine = new Map<string, DrawnLine[]>();
  for (const d of drawn) if (d.line !== POT_LINE && d.line !== PLUMB_LINE) byLine.set(d.line, [...(byLine.get(d.line) ?? []), d]);
  return byLine;
}

/** Photos without cards: by the pot's width and the bearings that are told; one alone in its plane. */
function byPot(photos: SightSet['photos'], drawn: readonly DrawnLine[], pot: Pot): Sight | { refused: string; left: Sight['left'] } {
  const cameras = camerasByPot(photos, drawn, pot);
  const [one] = cameras;
  if (!one) return { refused: NO_CARDS, left: [] };
  const without: Sight['without'] = [];
  const lines = [...linesOf(drawn)].flatMap(([line, own]): FoundLine[] => {
    const flat = cameras.size === 1 ? own.find((d) => d.photo === one[0]) : undefined;
    const found = flat ? placeInPlane(line, flat, one[1], one[0]) : placeLine(line, own, cameras);
    if (typeof found !== 'string') return [found];
    without.push({ line, why: found });
    return [];
  });
  const foot = lines.find((l) => l.line === TRUNK)?.start ?? [0, 0, 0];
  const placed = (p: Vec): Vec => sub(p, foot);
  return {
    rmsPx: 0,
    focal: one[1].focal,
    k1: 0,
    cameras: [...cameras].map(([photo, camera]) => {
      const at = placed(camera.at);
      return { photo, at, bearing: bearingAndElevation([at[0], at[1], 0]).bearing, found: true, camera: { ...camera, at } };
    }),
    left: photos.flatMap(({ photo }) => (cameras.has(photo) ? [] : [{ photo, found: false as const, why: 'The pot’s width is not marked in it.' }])),
    lines: lines.map((l) => ({ ...l, points: l.points.map(placed), start: placed(l.start), end: placed(l.end) })),
    without,
    notes: [cameras.size === 1 ? ONE_PHOTO : WITHOUT_CARDS],
  };
}
const NO_CARDS = 'No cards are found in them. Take them again with cards, or mark the pot’s width in each: from its left rim to its right.';
const ONE_PHOTO = 'One photo, without cards: its lines lie in its plane, as good as drawn by eye. What comes towards you or goes away is not seen.';
const WITHOUT_CARDS = 'Without cards: by the pot’s width and the bearings that the photos are told to have. It is rougher: the camera is taken as held level.';

const flat = ([x, y]: Vec): Vec => [x, y, 0];

/** Brings space upright by what hangs plumb, where that is drawn in two photos or more; else the bench was level. */
function levelBy(drawn: readonly DrawnLine[], cameras: ReadonlyMap<string, Camera>): (v: Vec) => Vec {
  const plumb = placeLine(
    PLUMB_LINE,
    drawn.filter((d) => d.line === PLUMB_LINE),
    cameras,
  );
  if (typeof plumb === 'string') return (v) => v;
  const way = unit(sub(plumb.end, plumb.start));
  const up = way[2] < 0 ? scale(way, -1) : way;
  return alignedTo(up, [0, 0, 1]);
}

/** Works out a set of photos: cameras, lines in space, how well they are known; or says why it cannot be. docs: Photographs. */
export function workOutSight({ cardSide, photos, drawn, pot }: SightSet, memory = new SightMemory()): Sight | { refused: string; left: Sight['left'] } {
  if (pot && !photos.some((p) => p.cards.length > 1)) return byPot(photos, drawn, pot);
  const stood = memory.cameras(photos, cardSide);
  const leftOf = (left: ReadonlyMap<string, string>): Sight['left'] => [...left].map(([photo, why]) => ({ photo, found: false, why }));
  if ('refused' in stood) return { refused: stood.refused, left: leftOf(stood.left) };
  const byLine = linesOf(drawn);
  const without: Sight['without'] = [];
  const lines = [...byLine].flatMap(([line, own]): FoundLine[] => {
    const found = memory.line(line, own, stood.cameras);
    if (typeof found !== 'string') return [found];
    without.push({ line, why: found });
    return [];
  });
  const origin = lines.find((l) => l.line === TRUNK)?.start ?? [0, 0, 0];
  const level = levelBy(drawn, stood.cameras);
  const [, first] = [...stood.cards].reduce((a, b) => (b[0] < a[0] ? b : a));
  const zero = toRad(bearingAndElevation(flat(level(sub([first.x, first.y, 0], origin)))).bearing);
  const [c, s] = [Math.cos(zero), Math.sin(zero)];
  const turned = (v: Vec): Vec => {
    const [x, y, z] = level(v);
    return [x * c - y * s, x * s + y * c, z];
  };
  const placed = (p: Vec): Vec => turned(sub(p, origin));
  return {
    rmsPx: stood.rmsPx,
    focal: stood.focal,
    k1: stood.k1,
    cameras: [...stood.cameras].map(([photo, camera]) => {
      const at = placed(camera.at);
      const own: Camera = { ...camera, at, right: turned(camera.right), down: turned(camera.down), forward: turned(camera.forward) };
      return { photo, at, bearing: bearingAndElevation([at[0], at[1], 0]).bearing, found: true, camera: own };
    }),
    left: leftOf(stood.left),
    lines: lines.map((l) => ({
      ...l,
      points: l.points.map(placed),
      start: placed(l.start),
      end: placed(l.end),
      ...bearingAndElevation(turned(sub(l.end, l.start))),
    })),
    without,
    notes: [...stood.notes, ...lines.flatMap((l) => l.notes.map((n) => `${l.line}: ${n}`))],
  };
}
