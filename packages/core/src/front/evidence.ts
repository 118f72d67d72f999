import { greatestOf, leastOf } from '../units/index.js';
import { add, direction, lengthOf, NO_EVIDENCE, pointAt, scale, screenAxes, smooth, type Evidence, type Vec, type View } from '../space/index.js';
import { seenTrunk, seenTwin, shortNamesOf, type PlacedTree } from '../tree/index.js';
import type { Front, Part } from './scores.js';

function baseSpread(placed: PlacedTree, view: View): Evidence {
  const { right } = screenAxes(view.bearing);
  const radius = placed.trunk.diameters[0]! / 2;
  const reach = placed.tree.roots.map((r) => {
    const tip = scale(direction({ bearingDeg: r.bearing, elevationDeg: 0 }), radius + r.length);
    return tip[0] * right[0] + tip[1] * right[1];
  });
  const [left, far] = [leastOf(reach, -radius), greatestOf(reach, radius)];
  const mark = (x: number): Vec[] => [add(scale(right, x), [0, 0, -radius * 0.3]), add(scale(right, x), [0, 0, radius * 0.6])];
  return { lines: [[scale(right, left), scale(right, far)], mark(left), mark(far)], words: [{ at: scale(right, far), text: `${(far - left).toFixed(0)} mm` }] };
}

function apexLean(placed: PlacedTree): Evidence {
  const total = lengthOf(placed.trunk);
  const from = pointAt(placed.trunk, total * 0.67).point;
  const to = pointAt(placed.trunk, total).point;
  return {
    lines: [
      [from, to],
      [from, [from[0], from[1], to[2]]],
    ],
    words: [{ at: to, text: 'apex' }],
  };
}

function ofBranches(placed: PlacedTree, ids: readonly string[], word: (id: string) => string): Evidence {
  const found = ids.flatMap((id) => placed.byId.get(id) ?? []);
  return {
    lines: found.map((b) => b.line.points),
    words: found.map((b) => ({ at: pointAt(b.line, lengthOf(b.line) * 0.6).point, text: word(b.branch.id) })),
  };
}

/** Each score part with what it sees, for drawing. */
export function frontEvidence(placed: PlacedTree, front: Front, part: Part): Evidence {
  const trunk = smooth(placed.trunk, 6);
  const short = shortNamesOf(placed.tree);
  switch (part) {
    case 'base':
      return baseSpread(placed, front);
    case 'movement':
      return { lines: [trunk.points], words: [] };
    case 'trunkInSight': {
      const low = seenTrunk(placed);
      const hiding = front.hiding.filter((h) => placed.byId.has(h.branch) && h.share > 0.01).slice(0, 5);
      const by = ofBranches(
        placed,
        hiding.map((h) => h.branch),
        (id) => `${short(id)} hides ${(hiding.find((h) => h.branch === id)!.share * 100).toFixed(0)}%`,
      );
      return { lines: [low.points, ...(seenTwin(placed) ? [seenTwin(placed)!.points] : []), ...by.lines], words: by.words };
    }
    case 'apex':
      return apexLean(placed);
    case 'eye':
    case 'greenKept':
      return ofBranches(placed, front.atEye, (id) => `${short(id)} at you`);
    case 'firstBranch':
      return ofBranches(placed, front.leading, short);
    case 'features':
      return {
        lines: placed.tree.features.map((f) => f.z.map((z) => featurePoint(placed, f.bearing, z))),
        words: placed.tree.features.map((f) => ({ at: featurePoint(placed, f.bearing, (f.z[0] + f.z[1]) / 2), text: f.kind })),
      };
    default:
      return NO_EVIDENCE;
  }
}

/** A point on the bark at a height, facing a bearing. */
function featurePoint(placed: PlacedTree, bearing: number, z: number): Vec {
  const { points, diameters } = placed.trunk;
  let i = 0;
  while (i < points.length - 2 && points[i + 1]![2] < z) i++;
  const share = Math.min(1, Math.max(0, (z - points[i]![2]) / Math.max(1e-6, points[i + 1]![2] - points[i]![2])));
  const at = add(scale(points[i]!, 1 - share), scale(points[i + 1]!, share));
  return add(at, scale(direction({ bearingDeg: bearing, elevationDeg: 0 }), (diameters[i]! * (1 - share) + diameters[i + 1]! * share) / 2));
}
