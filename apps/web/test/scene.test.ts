import fc from 'fast-check';
import { Vector3 } from 'three';
import {
  distance,
  coilAlone,
  FlatBark,
  generateTree,
  largeTree,
  lengthOf,
  placeTree,
  pointAt,
  seeded,
  smooth,
  tilt,
  wedge,
  type Limb,
  type Vec,
} from '@ustle/core';
import { coilMesh, strandsOf, type DrawnCoil } from '../src/turntable/coil-geometry';
import { tiltMatrix } from '../src/turntable/stand';
import { showTufts, sortTufts, tuftGeometry, tuftsOf } from '../src/turntable/foliage';
import { barkLook, leafLook } from '../src/turntable/colours';
import { branchPart, partOfFace, rootParts, trunkPart, withoutParts, woodMesh } from '../src/turntable/wood-geometry';
import { speciesOf } from '@ustle/core';

const grown = (seed: number) => placeTree(generateTree({ seed, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 2 }));
const seeds = fc.nat(5000);

/** Nearest way from a point to the axis of a line, and the line's radius there. */
function toAxis(line: Limb, p: Vec): { away: number; radius: number } {
  let best = { away: Infinity, radius: 0 };
  for (let i = 0; i <= 400; i++) {
    const at = pointAt(line, (lengthOf(line) * i) / 400);
    const away = distance(at.point, p);
    if (away < best.away) best = { away, radius: at.diameter / 2 };
  }
  return best;
}

test('wire as drawn touches its branch all along, also where strands lie side by side', () => {
  fc.assert(
    fc.property(seeds, fc.constantFrom('cw', 'ccw'), fc.constantFrom('over', 'under'), fc.integer({ min: 1, max: 3 }), (seed, hand, start, strands) => {
      const b = grown(seed).branches.find((x) => x.order === 1)!;
      const places = coilAlone(b.branch.id, new FlatBark(b.line), { hand, start, angle: 45, size: 2 });
      const coil: DrawnCoil = { branch: b.branch.id, metal: 'copper', size: 2, strands, places, state: 'clear', planned: false };
      const lineOf = (): typeof b.line => b.line;
      const fine = smooth(b.line, 8);
      const drawn = strandsOf(coil, lineOf);
      expect(drawn).toHaveLength(strands);
      for (const p of drawn.flat()) {
        const { away, radius } = toAxis(fine, p);
        expect(Math.abs(away - radius - 1)).toBeLessThan(0.1);
      }
      drawn.slice(1).forEach((strand, k) => {
        const before = drawn[k]!;
        const gaps = strand.slice(4, -4).map((p) => Math.min(...before.map((q) => distance(p, q))));
        expect(Math.min(...gaps)).toBeGreaterThan(1.3);
        expect(Math.max(...gaps)).toBeLessThan(3.4);
      });
      expect(coilMesh([coil], lineOf).getAttribute('position').count).toBeGreaterThan(100 * strands);
    }),
    { numRuns: 12 },
  );
});

test('bark never swells over the measured thickness but for its flare, and every triangle tells its branch', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const placed = grown(seed);
      const parts = [trunkPart(placed), ...rootParts(placed), ...placed.branches.map(branchPart)];
      const { geometry, ranges } = woodMesh(parts, null);
      expect(ranges.map((r) => r.id)).toEqual(parts.map((p) => p.id));
      expect(geometry.getIndex()!.count % 3).toBe(0);
      expect(geometry.getIndex()!.array.every((i) => i < geometry.getAttribute('position').count)).toBe(true);
      ranges.forEach((r, i) => expect(partOfFace(ranges, r.from)).toBe(parts[i]!.id));
      expect(partOfFace(ranges, ranges[1]!.from - 1)).toBe('trunk');
      const b = placed.branches[0]!;
      const one = woodMesh([branchPart(b)], null).geometry.getAttribute('position');
      const fine = smooth(branchPart(b).line, 6);
      // It begins within its parent: no open end is seen.
      expect(distance(fine.points[0]!, b.line.points[0]!)).toBeCloseTo(0.3 * b.parentDiameter, 6);
      for (let i = 0; i < one.count; i += 37) {
        const { away, radius } = toAxis(fine, [one.getX(i), one.getY(i), one.getZ(i)]);
        expect(away).toBeLessThan(radius * 1.36 + 0.5);
      }
    }),
    { numRuns: 10 },
  );
});

test('however many branches there are, their bark stays within its budget, the trunk in full detail, every branch there', () => {
  const look = barkLook(speciesOf('larch'));
  const barkOf = (count: number, small = false) => {
    const placed = placeTree(largeTree(count, 3));
    const { geometry, ranges } = woodMesh([trunkPart(placed), ...placed.branches.map(branchPart)], look, small);
    const ends = [...ranges.slice(1).map((r) => r.from), geometry.getIndex()!.count / 3];
    return { trunk: ends[0]!, branches: ends.slice(1).map((end, i) => end - ends[i]!) };
  };
  const [few, many, scan] = [barkOf(20), barkOf(300), barkOf(2000)];
  const sum = (of: number[]): number => of.reduce((a, b) => a + b, 0);
  expect(sum(many.branches)).toBeLessThan(75_000);
  expect(Math.abs(many.trunk / few.trunk - 1)).toBeLessThan(0.35);
  // Below what can be told from a pole nothing is left out: five sides, a few rings.
  expect(Math.min(...scan.branches)).toBeGreaterThanOrEqual(5 * 3 * 2);
  expect(sum(scan.branches) / 2000).toBeLessThan(sum(many.branches) / 300);
  expect(scan.branches).toHaveLength(2000);
  // A small picture shows less than half of it, of every branch a part.
  const small = barkOf(300, true);
  expect(small.trunk).toBeLessThan(many.trunk / 3);
  expect(sum(small.branches)).toBeLessThan(sum(many.branches) / 2);
  expect(Math.min(...small.branches)).toBeGreaterThanOrEqual(5 * 3 * 2);
});

test('foliage stays within its pads, the same each time, and is sorted from back to front', () => {
  const species = speciesOf('larch');
  fc.assert(
    fc.property(seeds, fc.nat(359), (seed, bearing) => {
      const placed = grown(seed);
      const pads = placed.branches.flatMap((b) => (b.pad ? [b.pad] : []));
      const tufts = tuftsOf(pads, leafLook(species), placed.height);
      expect(tuftsOf(pads, leafLook(species), placed.height).positions).toEqual(tufts.positions);
      const reach = Math.max(...pads.flatMap((p) => p.half));
      for (let i = 0; i < tufts.positions.length; i += 3 * 11) {
        const at: Vec = [tufts.positions[i]!, tufts.positions[i + 1]!, tufts.positions[i + 2]!];
        expect(Math.min(...pads.map((p) => distance(p.center, at)))).toBeLessThan(reach * 1.2);
      }
      const geometry = tuftGeometry(tufts);
      const toward: [number, number, number] = [Math.sin((bearing * Math.PI) / 180), Math.cos((bearing * Math.PI) / 180), 0];
      sortTufts(geometry, toward);
      const positions = geometry.getAttribute('position');
      const order = geometry.getIndex()?.array ?? Array.from({ length: positions.count }, (_, i) => i);
      const depth = Array.from(order, (i) => positions.getX(i) * toward[0] + positions.getY(i) * toward[1] + positions.getZ(i) * toward[2]);
      const steps = depth.slice(1).filter((d, i) => d < depth[i]! - placed.height * 0.02).length;
      expect(steps).toBeLessThan(depth.length * 0.01);
    }),
    { numRuns: 8 },
  );
});

test('the tree stands on its wedge: turned as the core turns it, its low edge on the table, or following the viewer', () => {
  fc.assert(
    fc.property(fc.nat(359), fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 }), fc.nat(359), (bearing, pitch, roll, seenFrom) => {
      const { pot } = grown(1).tree;
      const point: Vec = [40, -25, 300];
      const seen = (view: Parameters<typeof tiltMatrix>[0]) => new Vector3(...point).applyMatrix4(tiltMatrix(view, seenFrom, pot));
      const turned = tilt({ point, frontDeg: bearing, pitchDeg: pitch, rollDeg: roll });
      const lift = wedge({ bearing, pitch, roll }, pot).height / 2;
      const at = seen({ bearing, pitch, roll });
      [turned[0], turned[1], turned[2] + lift].forEach((v, k) => expect(at.getComponent(k)).toBeCloseTo(v, 6));
      expect(seen({ bearing: null, pitch, roll }).toArray()).toEqual(seen({ bearing: seenFrom, pitch, roll }).toArray());
    }),
  );
  expect(seeded(4)()).toBe(seeded(4)());
});

test('what a cut hides is left out and comes back: triangles by branch, tufts by pad, nothing grown anew', () => {
  fc.assert(
    fc.property(seeds, fc.array(fc.nat(11), { maxLength: 6 }), (seed, picks) => {
      const placed = grown(seed);
      const parts = [trunkPart(placed), ...placed.branches.map(branchPart)];
      const whole = woodMesh(parts, null);
      const triangles = whole.geometry.getIndex()!.count / 3;
      const hidden = new Set(picks.map((i) => placed.branches[i % placed.branches.length]!.branch.id));
      const shown = withoutParts(whole, hidden);
      expect(shown.geometry).toBe(whole.geometry);
      expect(shown.ranges.map((r) => r.id)).toEqual(parts.map((p) => p.id).filter((id) => !hidden.has(id)));
      const ofPart = (mesh: typeof whole, id: string): number => {
        const i = mesh.ranges.findIndex((r) => r.id === id);
        return i < 0 ? 0 : (mesh.ranges[i + 1]?.from ?? (mesh === whole ? triangles : whole.geometry.drawRange.count / 3)) - mesh.ranges[i]!.from;
      };
      for (const { id } of parts) expect(ofPart(shown, id)).toBe(hidden.has(id) ? 0 : ofPart(whole, id));
      for (const r of shown.ranges) expect(partOfFace(shown.ranges, r.from)).toBe(r.id);
      withoutParts(whole, new Set());
      expect(whole.geometry.drawRange.count).toBe(triangles * 3);

      const pads = placed.branches.flatMap((b) => (b.pad ? [b.pad] : []));
      const tufts = tuftsOf(pads, leafLook(speciesOf('larch')), placed.height);
      const geometry = tuftGeometry(tufts);
      showTufts(geometry, tufts, (id) => !hidden.has(id));
      const size = geometry.getAttribute('size');
      tufts.owners.forEach((owner, i) => expect(size.getX(i) > 0).toBe(!hidden.has(owner)));
      showTufts(geometry, tufts, () => true);
      expect(Array.from(size.array)).toEqual(Array.from(tufts.sizes));
    }),
    { numRuns: 15 },
  );
});
