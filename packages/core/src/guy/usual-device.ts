import { closestBetween, distance, lengthOf, pointAt, stretch, type Limb, type Vec } from '../space/index.js';
import type { Device, DeviceKind } from '../tree/index.js';
import type { GuyWorld } from './world.js';

/** A block is set between branches that come so near each other, mm. */
const NEAR = 60;
/** What stands close at its foot needs no block there: beyond this share of its length. */
const OUTER = 0.3;

/** Where a device of a kind would usually be set on a branch or the trunk, and how far it would move that. */
export function usualDevice(world: GuyWorld, kind: DeviceKind, branch: string): Omit<Device, 'id'> {
  const line = world.lines.get(branch)!;
  const total = lengthOf(line);
  const at = Math.round((kind === 'clamp' ? 0.4 : 0.6) * total);
  const { point, diameter, direction } = pointAt(line, at);
  const bearing = bearingOf(point);
  const by = { spreader: 8, spacer: 2, prop: 10, bar: 10, jack: 8, clamp: 4, frame: 10 }[kind];
  const base = { kind, branch, at, by };
  // Wood that runs out level is drawn to its side, the rest to where it stands already.
  const side = Math.hypot(direction[0], direction[1]) > 0.5 ? (bearingOf(direction) + 90) % 360 : bearingOf(point);
  const besides = [...world.lines]
    .filter(([id]) => id !== branch && !isAlong(world, id, branch))
    .map(([id, other]) => {
      // Like wood first: a bar between a stem and a twig would move but the twig.
      const place = Math.round(levelWith(other, point[2]));
      const { point: there, diameter: d } = pointAt(other, place);
      return { branch: id, at: place, far: distance(there, point) * (1 + 3 * Math.abs(Math.log(d / diameter))) };
    })
    .sort((a, b) => a.far - b.far);
  const other = besides[0] && { branch: besides[0].branch, at: besides[0].at };
  switch (kind) {
    case 'spacer': {
      const near = touching(world, branch);
      return { ...base, ...(near ? { at: near.at, other: near.other } : other ? { other } : {}) };
    }
    case 'spreader':
      return { ...base, ...(other ? { other } : {}) };
    case 'bar':
      return { ...base, ...(other ? { other } : {}), anchor: { kind: 'pot-rim', bearing } };
    case 'prop':
      return { ...base, anchor: { kind: 'pot-rim', bearing } };
    case 'jack':
      return { ...base, anchor: { kind: 'pot-rim', bearing }, pitch: 1 };
    case 'clamp':
      return { ...base, bearing: side, span: Math.round(Math.min(2 * Math.min(at, total - at), Math.max(60, 10 * diameter))), pitch: 1 };
    case 'frame':
      return { ...base, bearing: side };
  }
}

/** Where on a line (mm along it) its outer part is at a height, or nearest to that: a bar lies level. */
function levelWith(line: Limb, z: number): number {
  const places = Array.from({ length: 13 }, (_, i) => (OUTER + 0.05 * i) * lengthOf(line));
  const off = (at: number): number => Math.abs(pointAt(line, at).point[2] - z);
  return places.reduce((best, at) => (off(at) < off(best) ? at : best));
}

const bearingOf = ([x, y]: Vec): number => Math.round(((Math.atan2(x, y) * 180) / Math.PI + 360) % 360);

/** Where a branch comes nearest to another that it neither grows on nor carries. */
function touching(world: GuyWorld, branch: string): { at: number; other: { branch: string; at: number } } | null {
  const outer = (line: Limb): Limb => stretch(line, OUTER * lengthOf(line), lengthOf(line));
  const line = world.lines.get(branch)!;
  let best: { gap: number; at: number; other: { branch: string; at: number } } | null = null;
  for (const [id, other] of world.lines) {
    if (id === branch || isAlong(world, id, branch)) continue;
    const found = closestBetween(outer(line), outer(other), best?.gap ?? NEAR);
    if (!found) continue;
    const [at, there] = [OUTER * lengthOf(line) + found.alongA, OUTER * lengthOf(other) + found.alongB];
    best = { gap: found.gap, at: Math.floor(at), other: { branch: id, at: Math.floor(there) } };
  }
  return best;
}

/** A stem of several leaves the trunk this low: share of its length. */
const STEM_BELOW = 0.2;

/** Whether one grows on the other, at whatever remove; stems of one tree stand beside each other. */
function isAlong({ branches, trunk }: GuyWorld, a: string, b: string): boolean {
  const grows = (id: string, on: string): boolean => {
    for (let own = branches.get(id); own; own = branches.get(own.parent)) {
      const stem = own.parent === 'trunk' && own.at < STEM_BELOW * lengthOf(trunk);
      if (own.parent === on && !stem) return true;
    }
    return false;
  };
  return grows(a, b) || grows(b, a);
}
