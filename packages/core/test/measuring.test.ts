import fc from 'fast-check';
import {
  bearingOfClock,
  clockOf,
  crooked,
  dayOf,
  lengthOf,
  measureFaults,
  mirroredBranch,
  movedPoint,
  normaliseGreen,
  offsetOf,
  placeTree,
  plantingAngle,
  readTree,
  reshaped,
  slope,
  stationOf,
  tiltsFor,
  turnDeg,
  type Tree,
  withBranches,
} from '../src/index.js';
import { after, anyTree, branch, tree } from './trees.js';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('clock hours are bearings: six towards the mark, and back again', () => {
  expect([6, 9, 12, 3].map(bearingOfClock)).toEqual([0, 90, 180, 270]);
  fc.assert(fc.property(fc.integer({ min: 0, max: 119 }), (i) => expect(Math.abs(turnDeg(bearingOfClock(clockOf(i * 3)), i * 3))).toBeLessThan(1e-9)));
});

test('a crooked branch turned and stretched keeps its shape and gets what was typed', () => {
  fc.assert(
    fc.property(anyTree, between(0, 359), between(-60, 70), between(0.5, 2), (t, bearing, elevation, factor) => {
      const before = t.branches[0]!;
      const after = reshaped(before, { bearing, elevation, length: before.length * factor });
      const placed = placeTree({ ...t, branches: [after] }).branches[0]!;
      expect(Math.abs(turnDeg(slope(placed).bearing, bearing))).toBeLessThan(1);
      expect(Math.abs(slope(placed).elevation - elevation)).toBeLessThan(1);
      expect(lengthOf(placed.line) / (before.length * factor)).toBeCloseTo(1, 1);
    }),
    { numRuns: 40 },
  );
});

test('a straight branch made crooked stays where it was until a point is moved; only that point moves', () => {
  const straight = branch('a', { bearing: 40, elevation: 25, length: 160 });
  const bent = crooked(straight);
  expect(bent.path).toHaveLength(5);
  const moved = movedPoint(bent, 4, [0, 0, -40]);
  expect(moved.path!.slice(0, 4)).toEqual(bent.path!.slice(0, 4));
  expect(moved.elevation).toBeLessThan(25);
  expect(movedPoint(bent, 0, [9, 9, 9]).path).toEqual(bent.path);
});

test('faults in place: what cannot be is told from what is unlikely', () => {
  const of = (own: Parameters<typeof branch>[1]) => measureFaults(tree([branch('a', own)])).map((f) => [f.field, f.wrong]);
  expect(of({})).toEqual([]);
  expect(of({ length: -4 })).toEqual([['length', true]]);
  expect(of({ tipD: 20 })).toEqual([['tipD', true]]);
  expect(of({ at: 700 })).toContainEqual(['at', false]);
  expect(of({ d: 45 })).toContainEqual(['d', false]);
});

test('shares of green beyond the whole are scaled, their proportion kept', () => {
  const { branches, sum } = normaliseGreen(tree([branch('a', { green: 0.9 }), branch('b', { green: 0.6 })]));
  expect(sum).toBeCloseTo(1.5, 9);
  expect(branches[0]!.green / branches[1]!.green).toBeCloseTo(1.5, 2);
  expect(branches.reduce((s, b) => s + b.green, 0)).toBeLessThanOrEqual(1);
});

test('a mirrored copy lies as far on the other side; a station comes back from offset and bearing', () => {
  fc.assert(
    fc.property(between(0, 359), between(0, 359), (bearing, from) => {
      const copy = mirroredBranch(branch('a', { bearing }), 'b', from);
      expect(Math.abs(turnDeg(from, bearing) + turnDeg(from, copy.bearing)) % 360).toBeLessThan(0.1);
      const station = stationOf(offsetOf({ x: 30 * Math.cos(bearing), y: 30 * Math.sin(bearing), z: 100, d: 20 }));
      expect(Math.hypot(station.x, station.y)).toBeCloseTo(30, 1);
    }),
  );
});

test('measuring anew lets the plan go of branches that are gone, and of no others', () => {
  const t = tree([branch('a'), branch('b', { at: 300 })]);
  t.plan.decisions.push({ branch: 'a', act: 'keep' }, { branch: 'b', act: 'remove' });
  t.plan.runs.push({
    id: 'w1',
    metal: 'copper',
    size: 2,
    strands: 1,
    angle: 45,
    branches: [
      { branch: 'a', hand: 'cw', start: 'over' },
      { branch: 'b', hand: 'ccw', start: 'over' },
    ],
  });
  const next = withBranches(t, [branch('a')]);
  expect(next.plan.decisions).toEqual([{ branch: 'a', act: 'keep' }]);
  expect(next.plan.runs[0]!.branches.map((b) => b.branch)).toEqual(['a']);
  const view = { bearing: 10, pitch: 0, roll: 0 };
  const pinned = after(t, { kind: 'keep-open', view });
  expect(pinned.plan.pinned).toEqual([view]);
  expect(after(pinned, { kind: 'keep-open', view }).plan.pinned).toEqual([]);
});

test('tilted to the viewer, what grows towards them falls and what grows away rises; the wedge and root ball follow', () => {
  const t = tree([branch('front', { bearing: 90, elevation: 0 }), branch('back', { bearing: 270, elevation: 0, at: 300 })]);
  const { branches, wedge, rootBallRise, tiltDeg } = plantingAngle(placeTree(t), { bearing: 90, pitch: 12, roll: 0 });
  expect(branches.map((b) => Math.round(b.after.elevation))).toEqual([-12, 12]);
  expect(branches[1]!.astray).toBe('rises');
  expect(tiltDeg).toBeCloseTo(12, 6);
  expect(wedge).toBeCloseTo(320 * Math.tan((12 * Math.PI) / 180), 6);
  expect(rootBallRise).toBeCloseTo(0.45 * 320 * Math.sin((12 * Math.PI) / 180), 6);
  expect(tiltsFor({ ...t, repottedOn: '2026-03-01' }, dayOf('2026-06-01'))).toEqual([-5, 0, 5]);
});

test('the signs seen and the season seen go before the calendar, and it says from when more is possible', () => {
  const on = dayOf('2026-04-10');
  const read = (own: Partial<Tree>, reading?: Tree['plan']['reading']) => {
    const t = tree([], { vigour: 'normal', ...own });
    return readTree({ ...t, plan: { ...t.plan, ...(reading ? { reading } : {}) } }, on);
  };
  const calendar = read({});
  expect(calendar.verdict).toBe('light');
  expect(calendar.moreFrom!.verdict).toBe('go');
  expect(dayOf(calendar.moreFrom!.on)).toBeGreaterThan(on);
  expect(read({}, { on: '2026-04-08', signs: [], season: 'hardened' }).verdict).toBe('go');
  expect(read({}, { on: '2026-01-08', signs: [], season: 'hardened' }).verdict).toBe('light');
  expect(read({}, { on: '2026-04-08', signs: ['pest'], season: 'hardened' }).capacity).toBeCloseTo(0.36, 6);
  expect(read({ site: { hemisphere: 'south' } }).capacity).toBeGreaterThan(calendar.capacity);
});
