import {
  add,
  depthOf,
  greatestOf,
  leastOf,
  lengthOf,
  pointAt,
  project,
  rayAt,
  scale,
  seeded,
  type Camera,
  type LaidCard,
  type Limb,
  type Pad,
  type PlacedTree,
  type Px,
  type Vec,
} from '@ustle/core';
import type { Picture } from '../vision.js';
import { Canvas, shaded, type Colour } from './canvas.js';
import { lightOfCard } from './cards-laid.js';
import type { Size } from './stands.js';

/** What stands before a made-up camera: a tree, and cards on its bench; how much of its foliage is on it. */
export interface Subject {
  placed: PlacedTree;
  cards: ReadonlyMap<number, LaidCard>;
  cardSide: number;
  /** Share of the leaves that are there, 0 to 1. */
  leafy: number;
}

const BARK: Colour = [104, 82, 62];
const GREEN: readonly Colour[] = [
  [66, 96, 52],
  [84, 116, 60],
  [50, 78, 46],
];
const POT: Colour = [126, 74, 58];
const SOIL: Colour = [72, 62, 50];
const PLANK: Colour = [168, 146, 116];
const WALL: Colour = [196, 192, 182];
/** Towards the light: from the left, above, a little from the viewer. */
const [LIGHT_ACROSS, LIGHT_FRONT] = [0.55, 0.7];
const LEAVES = 130;
const GRID = 8;

/** Repeatable unevenness of a surface, −1 to 1. */
const uneven = (x: number, y: number): number => {
  const s = Math.sin(x * 127.1 + y * 311.7) * 43758.5453;
  return 2 * (s - Math.floor(s)) - 1;
};

/** The bench with what lies on it, and the wall behind. */
function background(canvas: Canvas, camera: Camera, { cards, cardSide, placed }: Subject, seed: number): void {
  const top = -placed.tree.pot.height;
  const columns = Math.ceil(canvas.width / GRID) + 2;
  const rows = Math.ceil(canvas.height / GRID) + 2;
  const ways = new Float64Array(3 * columns * rows);
  for (let r = 0; r < rows; r++) for (let c = 0; c < columns; c++) ways.set(rayAt(camera, [c * GRID, r * GRID]), 3 * (r * columns + c));
  const laid = [...cards];
  const random = seeded(seed);
  // Things that lie about: pots, boxes, a cloth; they are told from wood by nobody's eye, yet have edges.
  const clutter = Array.from({ length: 14 }, () => ({
    x: 1400 * (random() - 0.5),
    y: 1400 * (random() - 0.5),
    r: 30 + 60 * random(),
    colour: shaded([190, 160 + 60 * random(), 120 + 90 * random()], 0.35 + 0.6 * random()),
  })).filter(({ x, y, r }) => Math.hypot(x, y) > 330 + r && laid.every(([, l]) => Math.hypot(l.x - x, l.y - y) > r + cardSide));
  const wallAt = (wx: number, wy: number, wz: number): Colour => {
    const [u, v] = [Math.atan2(wx, wy) * 5, wz * 5];
    return shaded(WALL, 0.84 + 0.05 * Math.sin(u * 2.1 + 3 * Math.sin(v)) + 0.04 * Math.sin(v * 3.3 + u));
  };
  const benchAt = (x: number, y: number): Colour => {
    for (const thing of clutter) if ((x - thing.x) ** 2 + (y - thing.y) ** 2 < thing.r ** 2) return thing.colour;
    const plank = Math.floor(x / 95);
    const gap = x / 95 - plank < 0.03 ? 0.6 : 1;
    return shaded(PLANK, gap * (0.86 + 0.08 * uneven(plank, 1) + 0.05 * Math.sin(y / 7 + 9 * uneven(plank, 2))));
  };
  const near = (x: number, y: number): (typeof laid)[number] | undefined => laid.find(([, l]) => Math.abs(l.x - x) < cardSide && Math.abs(l.y - y) < cardSide);
  const FINE = [0.17, 0.5, 0.83];
  for (let y = 0; y < canvas.height; y++)
    for (let x = 0; x < canvas.width; x++) {
      const [c, r] = [Math.floor(x / GRID), Math.floor(y / GRID)];
      const at = 3 * (r * columns + c);
      const way = (k: number, fx: number, fy: number): number => {
        const [u, v] = [(x + fx) / GRID - c, (y + fy) / GRID - r];
        return (ways[at + k]! * (1 - u) + ways[at + 3 + k]! * u) * (1 - v) + (ways[at + 3 * columns + k]! * (1 - u) + ways[at + 3 * columns + 3 + k]! * u) * v;
      };
      const down = way(2, 0.5, 0.5);
      const k = (top - camera.at[2]) / down;
      const [wx, wy] = [camera.at[0] + k * way(0, 0.5, 0.5), camera.at[1] + k * way(1, 0.5, 0.5)];
      if (down > -0.02 || wx * wx + wy * wy > BENCH_END ** 2) {
        canvas.over(x, y, wallAt(way(0, 0.5, 0.5), way(1, 0.5, 0.5), down), 1);
        continue;
      }
      const bench = benchAt(wx, wy);
      canvas.over(x, y, bench, 1);
      const card = near(wx, wy);
      if (!card) continue;
      let [light, covered] = [0, 0];
      for (const fx of FINE)
        for (const fy of FINE) {
          const own = (top - camera.at[2]) / way(2, fx, fy);
          const seen = lightOfCard(card[0], card[1], cardSide, camera.at[0] + own * way(0, fx, fy), camera.at[1] + own * way(1, fx, fy));
          if (seen === null) continue;
          light += seen;
          covered++;
        }
      if (covered) canvas.over(x, y, shaded([1, 1, 0.98], light / covered), covered / FINE.length ** 2);
    }
}
/** Farther out than this, mm, the bench ends. */
const BENCH_END = 1500;

interface Piece {
  depth: number;
  paint: () => void;
}

function woodOf(canvas: Canvas, camera: Camera, line: Limb, seed: number): Piece[] {
  const total = lengthOf(line);
  const count = Math.max(2, Math.min(60, Math.ceil(total / 5)));
  const spots = Array.from({ length: count + 1 }, (_, i) => pointAt(line, (total * i) / count));
  return spots.slice(1).flatMap((b, i): Piece[] => {
    const a = spots[i]!;
    const [pa, pb] = [project(camera, a.point), project(camera, b.point)];
    if (!pa || !pb) return [];
    const depth = depthOf(camera, scale(add(a.point, b.point), 0.5));
    const [ra, rb] = [a, b].map((s) => ((s.diameter / 2) * camera.focal) / depth) as [number, number];
    // Light comes from the picture's upper left: the side across counts by how the piece lies.
    const length = Math.hypot(pb[0] - pa[0], pb[1] - pa[1]) || 1;
    const [nx, ny] = [-(pb[1] - pa[1]) / length, (pb[0] - pa[0]) / length];
    const toLight = -(0.8 * nx + 0.6 * ny);
    return [
      {
        depth,
        paint: () =>
          canvas.rod(pa, pb, ra, rb, (across, along) => {
            const light = 0.42 + 0.5 * Math.max(0, LIGHT_FRONT * Math.sqrt(1 - across * across) + LIGHT_ACROSS * across * toLight);
            const grain = 0.09 * uneven(Math.round(across * 9) + seed, Math.round((i + along) * 4));
            return shaded(BARK, light + grain);
          }),
      },
    ];
  });
}

function leavesOf(canvas: Canvas, camera: Camera, pad: Pad, leafy: number, random: () => number): Piece[] {
  return Array.from({ length: Math.round(LEAVES * leafy) }, (): Piece | null => {
    const [u, v, w] = [0, 0, 0].map(() => 2 * random() - 1) as [number, number, number];
    const inside = u * u + v * v + w * w > 1 ? 0.7 : 1;
    const at = [u, v, w].reduce<Vec>((sum, x, k) => add(sum, scale(pad.axes[k]!, inside * x * pad.half[k]!)), pad.center);
    const px = project(camera, at);
    const colour = shaded(GREEN[Math.floor(3 * random())]!, 0.7 + 0.25 * w + 0.25 * random());
    const size = 3.2 + 2.6 * random();
    const turn = Math.PI * random();
    if (!px) return null;
    const depth = depthOf(camera, at);
    const half = (size * camera.focal) / depth;
    return { depth, paint: () => canvas.leaf(px, half, half * 0.45, turn, colour) };
  }).filter((p) => p !== null);
}

/** The outline of points of a picture: the least convex shape round them. */
function outlineOf(points: readonly Px[]): Px[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: readonly Px[]): Px[] => {
    const out: Px[] = [];
    for (const p of from) {
      const right = ([a, b]: [Px, Px]): boolean => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) <= 0;
      while (out.length > 1 && right([out[out.length - 2]!, out[out.length - 1]!])) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}

function paintPot(canvas: Canvas, camera: Camera, { placed }: Subject): void {
  const { width, depth, height, shape } = placed.tree.pot;
  const rim = Array.from({ length: 48 }, (_, i): Vec => {
    const turn = (2 * Math.PI * i) / 48;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    // A rectangle's rim, seen from its middle, is as far as its nearer pair of walls.
    const k = shape === 'rectangle' ? 1 / Math.max(Math.abs(c), Math.abs(s)) : 1;
    return [(k * c * width) / 2, (k * s * depth) / 2, 0];
  });
  const seen = (points: readonly Vec[]): Px[] => points.map((p) => project(camera, p)).filter((p) => p !== null);
  const body = outlineOf([...seen(rim), ...seen(rim.map(([x, y]): Vec => [0.9 * x, 0.9 * y, -height]))]);
  const [left, right] = [leastOf(body.map((p) => p[0])), greatestOf(body.map((p) => p[0]))];
  canvas.shape(body, (x) => shaded(POT, 0.6 + 0.4 * Math.sin(Math.PI * Math.min(1, Math.max(0, ((x - left) / (right - left)) * 0.8 + 0.1)))));
  canvas.shape(outlineOf(seen(rim.map(([x, y, z]): Vec => [0.94 * x, 0.94 * y, z]))), (x, y) => shaded(SOIL, 0.85 + 0.2 * uneven(x, y)));
  const mark = project(camera, [0, depth / 2, -height * 0.3]);
  if (mark && camera.at[1] > 0)
    canvas.leaf(mark, (6 * camera.focal) / depthOf(camera, [0, depth / 2, 0]), (6 * camera.focal) / depthOf(camera, [0, depth / 2, 0]), 0, [225, 220, 205]);
}

/** A picture of a tree as a hand-held camera takes it, with lens and noise; the same again for the same seed. */
export function takePicture(subject: Subject, camera: Camera, { width, height }: Size, seed: number): Picture {
  const canvas = new Canvas(width, height);
  background(canvas, camera, subject, 11);
  const { placed, leafy } = subject;
  const random = seeded(29);
  const pads = [...placed.branches.map((b) => b.pad), placed.apexPad].filter((p) => p !== null);
  const foot = depthOf(camera, [0, 0, 0]);
  const limbs = [placed.trunk, ...placed.branches.map((b) => b.line)];
  const pieces = [...limbs.flatMap((line, i) => woodOf(canvas, camera, line, i)), ...pads.flatMap((pad) => leavesOf(canvas, camera, pad, leafy, random))].sort(
    (a, b) => b.depth - a.depth,
  );
  // What hangs behind the pot is covered by it; whatever else is painted after it.
  const hanging = new Set(limbs.some((l) => l.points.some((p) => p[2] < 0)) ? pieces.filter((p) => p.depth > foot) : []);
  for (const piece of hanging) piece.paint();
  paintPot(canvas, camera, subject);
  for (const piece of pieces) if (!hanging.has(piece)) piece.paint();
  return canvas.developed(0.35, 9, seeded(seed));
}
