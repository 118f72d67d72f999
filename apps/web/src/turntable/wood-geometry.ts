import { BufferAttribute, BufferGeometry, Color } from 'three';
import { anySquare, cross, dot, lengthOf, limb, pointAt, rotateAbout, scale, smooth, sub, unit, type Limb, type PlacedTree, type Vec } from '@ustle/core';
import type { BarkLook } from './colours';
import { noise2 } from './noise';

export interface WoodPart {
  id: string;
  line: Limb;
  /** A wider foot, where a branch leaves its parent or the trunk the soil. */
  flare: number;
  /** How much of the line's beginning lies within its parent, mm. */
  within?: number;
  sides: number;
}

/** Frame carried along the line without twisting: one vector square to each direction. */
function frames(line: Limb): { tangent: Vec; across: Vec }[] {
  const last = line.points.length - 1;
  let across: Vec | null = null;
  let before: Vec | null = null;
  return line.points.map((_, i) => {
    const tangent = unit(sub(line.points[Math.min(last, i + 1)]!, line.points[Math.max(0, i - 1)]!));
    if (!across || !before) across = anySquare(tangent);
    else {
      const axis = cross(before, tangent);
      const sine = Math.hypot(...axis);
      if (sine > 1e-9) across = rotateAbout(across, unit(axis), Math.atan2(sine, dot(before, tangent)));
      across = unit(sub(across, scale(tangent, dot(across, tangent))));
    }
    before = tangent;
    return { tangent, across };
  });
}

/** Even steps along a line short enough that the bark has detail, with the flare at its foot. */
function resampled(line: Limb, step: number, flare: number, within: number): Limb {
  const total = lengthOf(line);
  const count = Math.max(3, Math.ceil(total / step));
  const at = Array.from({ length: count + 1 }, (_, i) => (total * i) / count);
  const samples = at.map((s) => pointAt(line, s));
  return limb(
    samples.map((p) => p.point),
    samples.map((p, i) => p.diameter * (1 + flare * Math.exp(-Math.max(0, at[i]! - within) / (0.7 * samples[0]!.diameter)))),
  );
}

/** Bark of branches and twigs has about so many triangles at most. */
const TRIANGLES = 60_000;

/** Steps along a part in full detail, mm: bark is finer than a plain outline. */
const stepOf = (part: WoodPart, plain: boolean): number => Math.max(2.4, part.line.diameters[0]! * (plain ? 0.2 : 0.08));

/** How finely branches are drawn, 0..1: the more wood there is, the less closely a piece of it is looked at. The trunk stays as it is. */
function detailFor(parts: readonly WoodPart[], plain: boolean): number {
  const triangles = parts.filter(({ id }) => id !== 'trunk').reduce((sum, part) => sum + (2 * part.sides * lengthOf(part.line)) / stepOf(part, plain), 0);
  return Math.min(1, TRIANGLES / Math.max(1, triangles));
}

export interface WoodMesh {
  geometry: BufferGeometry;
  /** Which part each triangle belongs to: the part's id from this triangle on. */
  ranges: { from: number; id: string }[];
}

/** A picture lower than this, in pixels of the screen, shows half of the detail. */
export const SMALL_PICTURE = 500;

/** Tapered bark for many lines as one mesh, with half the sides and steps where the picture is small. Furrows only go inward, so that a coil laid on the diameter touches the ridges. */
export function woodMesh(parts: readonly WoodPart[], look: BarkLook | null, small = false): WoodMesh {
  const plain = !look;
  const ofTrunk = small ? 0.5 : 1;
  const ofBranches = ofTrunk * Math.sqrt(detailFor(parts, plain));
  const positions: number[] = [];
  const colours: number[] = [];
  const indices: number[] = [];
  const ranges: WoodMesh['ranges'] = [];
  const light = new Color(look?.light ?? '#ffffff');
  const dark = new Color(look?.dark ?? '#ffffff');
  const colour = new Color();

  parts.forEach((part, seed) => {
    ranges.push({ from: indices.length / 3, id: part.id });
    const thick = part.line.diameters[0]!;
    const detail = part.id === 'trunk' ? ofTrunk : ofBranches;
    const sides = Math.max(5, Math.round(part.sides * detail));
    const line = resampled(smooth(part.line, Math.max(1, Math.round(6 * detail))), stepOf(part, plain) / detail, part.flare, part.within ?? 0);
    const ring = frames(line);
    const first = positions.length / 3;
    const furrows = look ? Math.max(3, Math.round(look.furrows * Math.min(1, 0.4 + thick / 60))) : 1;
    line.points.forEach((point, i) => {
      const { tangent, across } = ring[i]!;
      const radius = line.diameters[i]! / 2;
      const along = line.along[i]! / Math.max(6, thick);
      for (let k = 0; k <= sides; k++) {
        const turn = (k / sides) * 2 * Math.PI;
        // Long plates: the pattern is stretched along the limb, with a finer one over it.
        const u = (k / sides) * furrows;
        const plate = look
          ? noise2(u + 0.35 * Math.sin(along * 2), along * 1.3, seed, furrows) * 0.5 +
            noise2(u * 2, along * 3.6, seed + 7, furrows * 2) * 0.3 +
            noise2(u * 5, along * 11, seed + 13, furrows * 5) * 0.2
          : 1;
        const cut = look ? look.depth * Math.max(0, 0.62 - plate) * 2 : 0;
        const out = scale(rotateAbout(across, tangent, turn), radius * (1 - cut));
        positions.push(point[0] + out[0], point[1] + out[1], point[2] + out[2]);
        colour.copy(dark).lerp(light, Math.min(1, Math.max(0, (plate - 0.3) * 2.4)));
        colours.push(colour.r, colour.g, colour.b);
      }
    });
    const stride = sides + 1;
    for (let i = 0; i + 1 < line.points.length; i++) {
      for (let k = 0; k < sides; k++) {
        const a = first + i * stride + k;
        indices.push(a, a + 1, a + stride, a + 1, a + stride + 1, a + stride);
      }
    }
    // A rounded end.
    const tip = line.points[line.points.length - 1]!;
    const end = scale(ring[ring.length - 1]!.tangent, line.diameters[line.points.length - 1]! * 0.35);
    positions.push(tip[0] + end[0], tip[1] + end[1], tip[2] + end[2]);
    colours.push(light.r, light.g, light.b);
    const apex = positions.length / 3 - 1;
    const lastRing = first + (line.points.length - 1) * stride;
    for (let k = 0; k < sides; k++) indices.push(lastRing + k, lastRing + k + 1, apex);
  });

  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3));
  geometry.setAttribute('color', new BufferAttribute(new Float32Array(colours), 3));
  geometry.setIndex(indices);
  geometry.computeVertexNormals();
  return { geometry, ranges };
}

/** The same mesh without the triangles of some parts: their vertices stay, nothing is grown anew. */
export function withoutParts({ geometry, ranges }: WoodMesh, hidden: ReadonlySet<string>): WoodMesh {
  const whole = geometry.getIndex()!;
  const drawn = whole.array as Uint32Array;
  const all = (geometry.userData.whole ??= drawn.slice()) as Uint32Array;
  const ends = ranges.map((_, i) => (ranges[i + 1]?.from ?? all.length / 3) * 3);
  const kept: WoodMesh['ranges'] = [];
  let count = 0;
  ranges.forEach((r, i) => {
    if (hidden.has(r.id)) return;
    kept.push({ from: count / 3, id: r.id });
    const triangles = all.subarray(r.from * 3, ends[i]);
    drawn.set(triangles, count);
    count += triangles.length;
  });
  whole.needsUpdate = true;
  geometry.setDrawRange(0, count);
  return { geometry, ranges: kept };
}

/** The part a triangle belongs to. */
export function partOfFace(ranges: WoodMesh['ranges'], face: number): string | null {
  let found: string | null = null;
  for (const range of ranges) {
    if (range.from > face) break;
    found = range.id;
  }
  return found;
}

export const trunkPart = (placed: PlacedTree): WoodPart => ({ id: 'trunk', line: placed.trunk, flare: 0.12, sides: 72 });

const ROOTED_SHARE = 0.3;
const rooted = new WeakMap<Limb, Limb>();

/** A branch's line begun at its parent's axis, so that no open end shows where it leaves. */
function rootedLine({ line, parentDiameter }: PlacedTree['branches'][number]): Limb {
  const before = rooted.get(line);
  if (before) return before;
  const [first, second] = line.points as [Vec, Vec];
  const start = sub(first, scale(unit(sub(second, first)), ROOTED_SHARE * parentDiameter));
  const made = limb([start, ...line.points], [line.diameters[0]!, ...line.diameters]);
  rooted.set(line, made);
  return made;
}

export function branchPart(b: PlacedTree['branches'][number]): WoodPart {
  return { id: b.branch.id, line: rootedLine(b), within: ROOTED_SHARE * b.parentDiameter, flare: 0.28, sides: b.branch.d > 8 ? 22 : b.branch.d > 4 ? 12 : 7 };
}

/** Surface roots: from the foot of the trunk, swelling and dipping, into the soil. */
export function rootParts(placed: PlacedTree): WoodPart[] {
  const base = placed.trunk.diameters[0]! / 2;
  return placed.tree.roots.map((root, i): WoodPart => {
    const turn = (root.bearing * Math.PI) / 180;
    const points: Vec[] = [];
    const diameters: number[] = [];
    for (let k = 0; k <= 6; k++) {
      const t = k / 6;
      const reach = base * 0.45 + (base * 0.55 + root.length) * t;
      const sway = turn + 0.12 * Math.sin(t * 4 + i * 1.7);
      const drop = base * 0.55 * (1 - t) ** 2.2 - root.d * 0.12 - root.d * 0.62 * t ** 3;
      points.push([Math.sin(sway) * reach, Math.cos(sway) * reach, drop]);
      diameters.push(root.d * (1.25 - 0.75 * t));
    }
    return { id: 'trunk', line: limb(points, diameters), flare: 0.25, sides: 14 };
  });
}
