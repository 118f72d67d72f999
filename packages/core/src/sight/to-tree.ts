import { clamp } from '../units/index.js';
import { add, bearingAndElevation, distance, lengthOf, limb, pointAt, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import { howKnown, keptInRecord, shoulderAt, type Branch, type KeptSight, type KnownAs, type Measured, type Station, type Tree } from '../tree/index.js';
import { partOf, withDeadWood, withRoots, type DrawnPart } from './drawn-parts.js';
import { keptCamera } from './kept.js';
import type { FoundLine } from './lines.js';
import type { Sight } from './set.js';

const tenth = (x: number): number => Math.round(x * 10) / 10;
const tenths = (v: Vec): Vec => [tenth(v[0]), tenth(v[1]), tenth(v[2])];

/** So many places along a trunk, and points along a branch, tell its shape. */
const STATIONS = 9;
const POINTS = 9;
/** A branch whose width was not drawn is about so many times as long as thick; its tip so thin; a trunk so many times as tall. Guesses. */
const LONG = 20;
const TIP = 0.35;
const TALL = 8;
const BY_EYE = 0.3;
/** Of a tree whose green nobody told, so much is on its branches, by their length. */
const ON_BRANCHES = 0.75;
const FINEST = 0.3;

const straight = (points: readonly Vec[]): Limb =>
  limb(
    [...points],
    points.map(() => 0),
  );

/** The trunk as it was found: stations from its foot up. */
function trunkOf(found: FoundLine, was: readonly Station[]): { trunk: Station[]; known: KnownAs } {
  const line = straight(found.points);
  const d = found.d ?? Math.max(FINEST, was.length ? was[0]!.d : found.length / TALL);
  const tip = found.tipD ?? Math.max(FINEST, TIP * d);
  const trunk = Array.from({ length: STATIONS }, (_, i): Station => {
    const share = i / (STATIONS - 1);
    const [x, y, z] = tenths(pointAt(line, share * lengthOf(line)).point);
    return { x, y, z, d: Math.max(0.5, tenth(d + (tip - d) * share)) };
  });
  return { trunk, known: knownOf(found, BY_EYE * d) };
}

/** How well a found line is known; where its width was not drawn, its thickness as well as before (`before`, mm). */
const knownOf = ({ d, sd, flat }: FoundLine, before: number): KnownAs => ({
  how: flat ? 'drawn' : 'photographs',
  d: tenth(d === null ? before : sd.d),
  deg: Math.min(90, tenth(sd.angleDeg)),
  length: tenth(sd.length),
});

/** Where along a parent a branch leaves that is seen to begin at a place and to run a way: its line is followed back to the parent's middle. */
function leaves(parent: Limb, from: Vec, way: Vec): { at: number; off: number } {
  const total = lengthOf(parent);
  let best = { at: 0, off: Infinity };
  const STEPS = 200;
  for (let i = 0; i <= STEPS; i++) {
    const { point, diameter } = pointAt(parent, (total * i) / STEPS);
    // Not farther back than the parent is thick: where both run side by side, what is nearest counts.
    const back = clamp((from[0] - point[0]) * way[0] + (from[1] - point[1]) * way[1] + (from[2] - point[2]) * way[2], 0, diameter);
    const off = distance(point, sub(from, scale(way, back)));
    if (off < best.off) best = { at: (total * i) / STEPS, off };
  }
  return best;
}

/** As trees are laid out, a branch leaves its parent the way its tip lies. */
const wayOf = ({ start, end }: FoundLine): Vec => unit(sub(end, start));
const limbOf = (found: FoundLine): Limb => {
  const along = straight(found.points);
  const d = found.d ?? found.length / LONG;
  const tip = found.tipD ?? TIP * d;
  return limb(
    found.points,
    along.along.map((s) => d + ((tip - d) * s) / Math.max(1, lengthOf(along))),
  );
};

export interface MeasuredBySight {
  /** Parts of the tree file, each whole. */
  measured: Partial<Measured>;
  /** Branches that are not in the list yet. */
  fresh: string[];
  /** Lines that the tree does not have, or has otherwise: nothing of it is to be taken in where there are none. */
  changed: string[];
}
const PLACED = ['parent', 'at', 'path', 'd', 'tipD'] as const;

/** A tree measured by its photos. docs: Photographs. */
export function measuredBySight(tree: Tree, kept: KeptSight, sight: Sight): MeasuredBySight {
  const trunkFound = sight.lines.find((l) => l.line === 'trunk');
  const own = trunkFound && trunkOf(trunkFound, tree.trunk);
  const trunk = own?.trunk ?? tree.trunk;
  const cameras = new Map(sight.cameras.map((c) => [c.photo, keptCamera(c.camera)]));
  const seen: KeptSight = {
    ...kept,
    photos: kept.photos.map(({ camera: _was, ...photo }) => {
      const camera = cameras.get(photo.photo);
      return camera ? { ...photo, camera } : photo;
    }),
  };
  const trunkLine = limb(
    trunk.map((s): Vec => [s.x, s.y, s.z]),
    trunk.map((s) => s.d),
  );
  const told = new Set(keptInRecord(tree.record));
  const before = new Map(tree.branches.map((b) => [b.id, b]));
  const isPart = (l: FoundLine, part: DrawnPart): boolean => partOf(l.line)?.part === part && !before.has(l.line);
  const [roots, dead] = [sight.lines.filter((l) => isPart(l, 'root')), sight.lines.filter((l) => isPart(l, 'shari'))];
  const found = sight.lines.filter((l) => l.line !== 'trunk' && !told.has(l.line) && !roots.includes(l) && !dead.includes(l));
  const limbs = new Map<string, Limb>([['trunk', trunkLine], ...found.map((l): [string, Limb] => [l.line, limbOf(l)])]);

  /** What a found line grows on: as the list says, else the nearest wood that does not grow on it itself. */
  const parentOf = new Map<string, string>();
  const growsOn = (id: string, on: string): boolean => {
    for (let at: string | undefined = on; at && at !== 'trunk'; at = parentOf.get(at) ?? before.get(at)?.parent) if (at === id) return true;
    return false;
  };
  for (const line of [...found].sort((a, b) => b.length - a.length)) {
    const listed = before.get(line.line)?.parent;
    if (listed !== undefined && (listed === 'trunk' || limbs.has(listed))) {
      parentOf.set(line.line, listed);
      continue;
    }
    const way = wayOf(line);
    const [nearest] = [...limbs]
      .filter(([id]) => id !== line.line && !growsOn(line.line, id))
      .map(([id, parent]) => {
        const { at, off } = leaves(parent, line.start, way);
        return { id, off: off - pointAt(parent, at).diameter / 2 };
      })
      .sort((a, b) => a.off - b.off);
    parentOf.set(line.line, nearest?.id ?? 'trunk');
  }

  const anyGreen = tree.branches.some((b) => b.green > 0);
  const lengths = found.reduce((sum, l) => sum + l.length, 0);
  const measuredAs = (line: FoundLine): Branch => {
    const was = before.get(line.line);
    const parent = parentOf.get(line.line)!;
    const on = limbs.get(parent)!;
    const { at } = leaves(on, line.start, wayOf(line));
    const from = pointAt(on, at);
    const to = bearingAndElevation(sub(line.end, from.point));
    const shoulder = shoulderAt(from, to);
    const along = straight(line.points);
    const path = Array.from({ length: POINTS }, (_, i): Vec =>
      i ? tenths(sub(pointAt(along, (lengthOf(along) * i) / (POINTS - 1)).point, shoulder)) : [0, 0, 0],
    );
    const d = Math.max(FINEST, tenth(line.d ?? was?.d ?? line.length / LONG));
    // What grows on it is measured along it as it is laid out.
    limbs.set(line.line, limb(path.map((p) => add(shoulder, p)), path.map((_, i) => d * (1 - (0.6 * i) / POINTS)))); // prettier-ignore
    const plain = {
      id: line.line,
      parent,
      at: tenth(at),
      bearing: tenth(to.bearing) % 360,
      elevation: tenth(to.elevation),
      length: Math.max(1, tenth(lengthOf(straight(path)))),
      d,
      tipD: clamp(tenth(line.tipD ?? was?.tipD ?? TIP * d), 0.1, d),
      path,
      known: knownOf(line, was ? howKnown(tree, was.id).d : BY_EYE * d),
    };
    if (was) return { ...was, ...plain };
    const green = anyGreen ? 0 : Math.floor((1000 * ON_BRANCHES * line.length) / Math.max(1, lengths)) / 1000;
    return { ...plain, bareTo: 0.35, green, state: 'normal', stage: 'wood', backBuds: true };
  };
  const depthOf = (id: string): number => {
    let depth = 0;
    for (let at = parentOf.get(id); at && at !== 'trunk'; at = parentOf.get(at) ?? before.get(at)?.parent) depth++;
    return depth;
  };
  const inOrder = [...found].sort((a, b) => depthOf(a.line) - depthOf(b.line));
  const placed = new Map(inOrder.map((l) => [l.line, measuredAs(l)]));
  const anew = new Map(found.map((l) => [l.line, placed.get(l.line)!]));
  const fresh = [...anew.keys()].filter((id) => !before.has(id));
  const branches = [...tree.branches.map((b) => anew.get(b.id) ?? b), ...fresh.map((id) => anew.get(id)!)];
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const byPart = [
    { lines: roots, was: tree.roots, now: withRoots(tree.roots, roots) },
    { lines: dead, was: tree.features, now: withDeadWood(tree.features, dead, trunkLine) },
  ] as const;
  const changed = [
    ...(own && !same(own.trunk, tree.trunk) ? ['trunk'] : []),
    ...byPart.filter((part) => !same(part.now, part.was)).flatMap((part) => part.lines.map((l) => l.line)),
    ...[...anew].flatMap(([id, b]) => (before.has(id) && PLACED.every((part) => same(b[part], before.get(id)![part])) ? [] : id)),
  ];
  return {
    measured: {
      sight: seen,
      ...(own ? { trunk: own.trunk, trunkKnown: own.known } : {}),
      ...(anew.size ? { branches } : {}),
      ...(roots.length ? { roots: byPart[0].now } : {}),
      ...(dead.length ? { features: byPart[1].now } : {}),
    },
    fresh,
    changed,
  };
}
