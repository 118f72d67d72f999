import fc from 'fast-check';
import {
  asItLay,
  asItStands,
  asMeasured,
  coilHold,
  curvatureHeld,
  dayOf,
  distance,
  generateTree,
  gripOf,
  isoOf,
  placeTree,
  pointAt,
  slope,
  speciesOf,
  treeOn,
  woodOf,
  worthMeasuring,
  type Intent,
  type RecordLine,
  type Tree,
} from '../src/index.js';
import { ByHand } from './by-hand.js';
import { COIL, thick } from './thick.js';
import { after } from './trees.js';

/** Bends are drawn in chords: true to so many mm, and so much of a branch's length. */
const close = (length: number): number => 0.4 + 0.012 * length;
const START = dayOf('2025-03-01');

/** What a coil leaves of a bend by hand, degrees. */
function settles(tree: Tree, diameter: number, handDeg: number, length: number): number {
  const hold = coilHold({ diameter, wireDiameter: COIL.size, strands: 1, coilAngleDeg: COIL.angle, grip: gripOf(0), metal: COIL.metal });
  return (curvatureHeld({ diameter, curvature: (handDeg * Math.PI) / 180 / length, wood: woodOf(speciesOf(tree.species)), hold }) * length * 180) / Math.PI;
}

const deed = fc.record({
  branch: fc.nat(11),
  what: fc.constantFrom('stage', 'stage', 'place', 'off', 'on again'),
  at: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
  over: fc.double({ min: 0.08, max: 0.3, noNaN: true }),
  handDeg: fc.integer({ min: 8, max: 60 }),
  toward: fc.record({ bearing: fc.integer({ min: 0, max: 359 }), elevation: fc.integer({ min: -80, max: 80 }) }),
  keeps: fc.double({ min: 0.4, max: 1, noNaN: true }),
});

test('the line of a branch is what bending the measured one by hand makes of it, step by step, whatever was bent, wired, released and carried along', () => {
  fc.assert(
    fc.property(fc.nat(10_000), fc.array(deed, { minLength: 1, maxLength: 14 }), (seed, deeds) => {
      const tree = generateTree({ seed, name: 'Any', species: 'larch', height: 500, base: 40, primaries: 5, secondaries: 2 });
      const placed = placeTree(tree);
      const byHand = new ByHand(placed);
      const record: RecordLine[] = [];
      /** Bends under the wire that is on: the angle by hand, and what it has now. */
      const under = new Map<
        string,
        { key: string; at: number; over: number; handDeg: number; now: number; placed: boolean; toward: { bearing: number; elevation: number } }[]
      >();
      const wired = new Set<string>();
      let day = START;
      const log = (line: object): void => void record.push({ on: isoOf(day), id: `l${record.length}`, ...line } as RecordLine);
      for (const d of deeds) {
        day += 30;
        const b = placed.branches[d.branch % placed.branches.length]!;
        const { id, length, d: thick } = b.branch;
        if (b.branch.state === 'dead') continue;
        const thickAt = (at: number): number => (at <= b.line.diameters[0]! ? b.line.diameters[0]! : pointAt(b.line, at).diameter);
        if (!wired.has(id)) {
          log({ kind: 'wired', branch: id, ...COIL });
          wired.add(id);
          under.set(id, []);
        }
        const own = under.get(id)!;
        const [at, over] = [Math.round(d.at * length), Math.max(2, Math.round(d.over * length))];
        const greatest = (): (typeof own)[number] | undefined =>
          own.reduce<(typeof own)[number] | undefined>((m, x) => (!m || x.handDeg > m.handDeg ? x : m), undefined);
        if (d.what === 'off') {
          const main = greatest();
          if (main) {
            // The angle is measured at the bend that asked most; the others kept as much of theirs.
            const wiredDeg = settles(tree, thick, main.handDeg, main.over);
            for (const x of [...own].sort((p, q) => q.at - p.at)) {
              byHand.bend(x.key, id, x.at, x.over, x.now * (d.keeps - 1), x.toward);
            }
            log({ kind: 'unwired', branch: id, method: 'cut', heldDeg: wiredDeg * d.keeps });
          } else log({ kind: 'unwired', branch: id, method: 'cut' });
          wired.delete(id);
        } else if (d.what === 'stage' && own.length && !own.at(-1)!.placed) {
          // A further stage of the last bend: the angle reached is told.
          const x = own.at(-1)!;
          const handDeg = Math.min(120, x.handDeg + d.handDeg / 2);
          const now = settles(tree, thickAt(x.at), handDeg, x.over);
          byHand.bend(x.key, id, x.at, x.over, now - x.now, x.toward);
          Object.assign(x, { handDeg, now });
          log({ kind: 'bent', branch: id, at: x.at, over: x.over, bentDeg: handDeg, toward: x.toward, stage: 2 });
        } else if (own.every((x) => !x.placed && (at > x.at + x.over || x.at > at + over))) {
          const x = {
            key: `b${record.length}`,
            at,
            over,
            handDeg: d.handDeg,
            now: settles(tree, thickAt(at), d.handDeg, over),
            placed: d.what === 'place',
            toward: d.toward,
          };
          byHand.bend(x.key, id, at, over, x.now, x.toward);
          own.push(x);
          if (d.what === 'place') log({ kind: 'placed', branch: id, bends: [{ at, over, bentDeg: d.handDeg, toward: d.toward }] });
          else log({ kind: 'bent', branch: id, at, over, bentDeg: d.handDeg, toward: d.toward, stage: 1 });
        }
      }
      const stands = asItStands({ ...tree, record }, day + 1);
      const now = placeTree(stands);
      for (const b of now.branches) {
        const { id } = b.branch;
        expect(distance(b.line.points.at(-1)!, byHand.tip(id))).toBeLessThan(close(b.branch.length));
        expect(distance(pointAt(b.line, byHand.middleAt(id)).point, byHand.middle(id))).toBeLessThan(close(b.branch.length));
      }
      expect(asMeasured(stands).branches).toEqual(tree.branches);
      expect(asItStands(stands, day + 1)).toBe(stands);
      // Without what is bent under the wire that is on, nothing of it is in the lines.
      if (![...wired].some((id) => under.get(id)!.length)) expect(asItLay(stands, day + 1).branches).toEqual(stands.branches);
    }),
    { numRuns: 100 },
  );
});

test('what wire let go of goes back by what was measured, else by what is foreseen, and says how unsure that is; measured anew it begins from there', () => {
  const wired = { kind: 'wired', on: '2026-03-01', branch: 'back', ...COIL, gap: 0, wrap: 'none' } as Intent;
  const bent: Intent = {
    kind: 'bent',
    on: '2026-03-01',
    branch: 'back',
    at: 6,
    over: 40,
    bentDeg: 50,
    targetDeg: 40,
    toward: { bearing: 180, elevation: -90 },
  };
  const under = after(thick(), wired, bent);
  const off = (on: string, own: object = {}): Tree => after(under, { kind: 'unwired', on, branch: 'back', method: 'cut', ...own } as Intent);
  const falls = (t: Tree, on = '2028-01-01'): number => slope(placeTree(asItStands(treeOn(t, dayOf(on)), dayOf(on))).byId.get('back')!).elevation;
  const grown = falls(thick());
  const unsure = (t: Tree): number => asItStands(t, dayOf('2028-01-01')).stands!.unsure.back!;
  expect(falls(under)).toBeLessThan(grown - 25);
  // Off at once it goes back far; after a year it keeps the more; never more than it had.
  expect(falls(off('2026-03-02'))).toBeGreaterThan(falls(off('2027-05-01')));
  expect(falls(off('2027-05-01'))).toBeGreaterThanOrEqual(falls(under));
  expect(unsure(off('2026-03-02'))).toBeGreaterThan(unsure(under));
  const measured = off('2026-03-02', { heldDeg: 30 });
  expect(unsure(measured)).toBeCloseTo(unsure(under), 6);
  expect(falls(after(off('2026-03-02'), { kind: 'measured', on: '2026-03-20', branch: 'back', heldDeg: 30 }))).toBeCloseTo(falls(measured), 6);
  // On a day before, it is as it was.
  expect(falls(measured, '2026-02-01')).toBeCloseTo(grown, 6);
  expect(falls(measured, '2026-03-01')).toBeCloseTo(falls(under), 6);
  // Measured anew under its wire it stands as measured; what the wire lets go of later comes off that.
  const anew = after(under, { kind: 'remeasure', on: '2026-04-01', branch: 'back', changes: { elevation: -20, bearing: 170 } });
  expect(falls(anew, '2026-04-02')).toBeCloseTo(-20, 6);
  expect(falls(anew, '2026-03-15')).toBeCloseTo(falls(under), 6);
  const asked = (t: Tree): string[] => worthMeasuring(t, dayOf('2026-04-02')).map((w) => w.branch);
  expect([asked(thick()), asked(off('2026-03-02')), asked(anew)]).toEqual([[], ['back'], []]);
  const let_go = after(anew, { kind: 'unwired', on: '2026-05-01', branch: 'back', method: 'cut', heldDeg: 20 } as Intent);
  expect(falls(let_go)).toBeGreaterThan(-20 + 8);
  // A bend of which it is not known which way leaves the line as it is.
  expect(falls(after(thick(), wired, { ...bent, toward: undefined } as Intent))).toBeCloseTo(grown, 9);
});
