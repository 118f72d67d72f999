import fc from 'fast-check';
import {
  asItLay,
  asItStands,
  asMeasured,
  coilHold,
  coilsOn,
  curvatureHeld,
  dayOf,
  distance,
  generateTree,
  gripOf,
  isoOf,
  layOut,
  movedBy,
  openSteps,
  placeTree,
  planTree,
  pointAt,
  posedLines,
  running,
  slope,
  speciesOf,
  treeOn,
  woodOf,
  worthMeasuring,
  type Intent,
  type PlanDevice,
  type PlanDocument,
  type RecordLine,
  type Tree,
  type Vec,
} from '../src/index.js';
import { ByHand } from './by-hand.js';
import { after, branch, tree } from './trees.js';

/** Bends are drawn in chords: true to so many mm, and so much of a branch's length. */
const close = (length: number): number => 0.4 + 0.012 * length;
const START = dayOf('2025-03-01');
const COIL = { metal: 'copper', size: 3.26, strands: 1, angle: 50, hand: 'cw', start: 'over', gap: 0 } as const;

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

/** A spruce of thick branches: their drops are made in stages. */
const thick = (): Tree =>
  after(
    tree(
      [
        branch('low', { at: 140, bearing: 80, elevation: 30, d: 16, length: 320, green: 0.2 }),
        branch('shoot', { parent: 'low', at: 150, bearing: 40, elevation: 20, d: 5, length: 120, green: 0.05 }),
        branch('right', { at: 260, bearing: 275, elevation: 25, d: 11, length: 260, green: 0.2 }),
        branch('back', { at: 360, bearing: 180, elevation: 20, d: 9, length: 220, green: 0.15 }),
      ],
      { species: 'spruce', vigour: 'strong' },
    ),
    { kind: 'front', front: { bearing: 0, pitch: 4, roll: -3 } },
    ...(['low', 'right', 'back', 'shoot'] as const).map((b): Intent => ({ kind: 'decide', branch: b, act: 'keep' })),
  );
const planOn = (t: Tree, day: number): PlanDocument => planTree(t, day, { fronts: false });
const tipsOf = (t: Tree, plan: PlanDocument, day: number): Map<string, Vec> =>
  new Map([...posedLines(placeTree(asItStands(t, day)), plan.poses)].map(([id, line]) => [id, line.points.at(-1)!]));

test('done half, a pose asks for the other half: the bends that are left lead where all of them were to lead', () => {
  const day = dayOf('2026-10-10');
  const start = thick();
  const first = planOn(start, day);
  const wanted = tipsOf(start, first, day);
  const begun = after(start, {
    kind: 'session',
    on: isoOf(day),
    session: 's',
    done: 'begun',
    hours: 9,
    holds: ['low', 'right', 'back', 'shoot'],
    did: layOut(start, first, day, { hours: 9, beyond: true }).settles,
  });
  let now = begun;
  let stages = 0;
  for (let i = 0; i < 60; i++) {
    const open = running(now, planOn(now, day), day)!.open;
    const next = open.find((s) => s.kind === 'wire' || s.kind === 'bend');
    if (!next) break;
    now = after(now, { kind: 'worked', on: isoOf(day), session: 's', step: next.key, as: next.as, answer: 'done', did: next.did } as Intent);
    if (next.kind !== 'bend') continue;
    stages++;
    const plan = planOn(now, day);
    const pose = plan.poses.find((p) => p.branch === next.branches[0])!;
    const before = first.poses.find((p) => p.branch === pose.branch)!;
    // What was made and what is left are together what was planned, or the bend is made.
    for (const b of pose.bends) {
      const whole = before.bends.find((x) => x.at === b.at)!;
      expect(b.made + b.angle).toBeCloseTo(whole.angle, 0);
    }
    // A hand leaves a bend some degrees past where it shall be in the end, and all beyond it rides along.
    for (const [id, tip] of tipsOf(now, plan, day)) expect(distance(tip, wanted.get(id)!)).toBeLessThan(45);
  }
  expect(stages).toBeGreaterThan(1);
  const held = asItStands(now, day).stands!.held;
  expect(Object.keys(held)).toContain('low');
  // Between the first stage and the last it lies between where it grew and where it shall lie.
  const [grew, stands, shall] = [placeTree(start), placeTree(asItStands(now, day))].map((p) => slope(p.byId.get('low')!).elevation).concat(first.poses.find((p) => p.branch === 'low')!.elevation); // prettier-ignore
  expect(stands!).toBeLessThan(grew! - 5);
  expect(stands!).toBeGreaterThan(shall! - 12);
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

test('a branch that cracked is neither bent nor wired again for its time, though its wire came off; a half that is off is off', () => {
  const day = dayOf('2026-03-10');
  const start = thick();
  const run = { kind: 'run', run: 'w7', metal: 'copper', size: 3.26, strands: 1, angle: 50 } as const;
  const settled = after(start, { ...run, branches: [{ branch: 'right', hand: 'cw', start: 'over' }, { branch: 'back', hand: 'ccw', start: 'over' }] } as Intent); // prettier-ignore
  const put = after(settled, {
    kind: 'wired', on: '2026-03-01', ...COIL, branch: 'right', second: { branch: 'back', hand: 'ccw', start: 'over' },
  } as Intent); // prettier-ignore
  const wiredBy = (t: Tree, on = day): (string | undefined)[] =>
    ['right', 'back'].map((b) => planOn(t, on).runs.find((r) => r.branches.some((x) => x.branch === b))?.id);
  const stepsFor = (t: Tree, on = day): string[] => openSteps(t, planOn(t, on), on).map((s) => s.key);
  expect(wiredBy(put)).toEqual(['w7', 'w7']);
  expect(stepsFor(put).filter((k) => k.startsWith('wire:') && /right|back/.test(k))).toEqual([]);

  // One half off: the other is a piece of one, and what is off is planned anew with another name.
  const half = after(put, { kind: 'unwired', on: '2026-03-05', branch: 'back', method: 'cut' } as Intent);
  expect(wiredBy(half)[0]).toBe('w7');
  expect(wiredBy(half)[1]).not.toBe('w7');
  expect(
    planOn(half, day)
      .runs.find((r) => r.id === 'w7')!
      .branches.map((b) => b.branch),
  ).toEqual(['right']);

  // Cracked: no wire, no bend, for as long as that takes, whatever came off meanwhile; its neighbour goes on.
  const cracked = (crack: 'along' | 'across'): Tree => after(half, { kind: 'bent', on: '2026-03-04', branch: 'back', crack } as Intent);
  for (const [crack, until] of [
    ['along', 90],
    ['across', 365],
  ] as const) {
    const t = cracked(crack);
    const last = dayOf('2026-03-04') + until - 1;
    for (const on of [day, last]) {
      expect(wiredBy(t, on)).toEqual(['w7', undefined]);
      expect(stepsFor(t, on).filter((k) => k.includes('back'))).toEqual([]);
      expect(
        planOn(t, on)
          .unwired.find((u) => u.branch === 'back')!
          .because.join(),
      ).toMatch(new RegExp(`cracked ${crack} the fibre`));
    }
    expect(wiredBy(t, last + 1)[1]).toBeDefined();
  }
  // Settled before it cracked, the half that is not on yet is let go of.
  const before = after(settled, { kind: 'bent', on: '2026-03-04', branch: 'back', crack: 'across' } as Intent);
  expect(
    planOn(before, day)
      .runs.find((r) => r.id === 'w7')!
      .branches.map((b) => b.branch),
  ).toEqual(['right']);
  expect(openSteps(before, planOn(before, day), day).find((s) => s.of === 'w7')!.branches).toEqual(['right']);

  // Wound twice under one name it is one coil, watched once.
  const twice = after(put, { kind: 'wired', on: '2026-03-08', ...COIL, branch: 'right', second: { branch: 'back', hand: 'ccw', start: 'over' } } as Intent);
  expect(coilsOn(twice, day).map((c) => `${c.run} ${c.branch} ${isoOf(c.since)}`)).toEqual(['w7 right 2026-03-08', 'w7 back 2026-03-08']);
});

test('a branch that a tie leads lies as the tie draws it, what grows on it rides along, and it goes back by what was measured, or foreseen, once the tie is off', () => {
  const day = dayOf('2026-03-01');
  const made = tree(
    [
      branch('low', { at: 140, bearing: 80, elevation: 35, d: 24, tipD: 8, length: 420, green: 0.3 }),
      branch('shoot', { parent: 'low', at: 300, bearing: 120, elevation: 20, d: 6, length: 110, green: 0.05 }),
      branch('back', { at: 340, bearing: 190, elevation: 20, d: 9, length: 220, green: 0.15 }),
    ],
    { species: 'yew', plan: { front: { bearing: 0, pitch: 3, roll: -4 }, decisions: [], poses: [], runs: [], guys: [] } },
  );
  const plan = planOn(made, day);
  const guy = plan.guys.find((g) => g.branch === 'low')!;
  const put = (t: Tree, share: number): Tree =>
    after(t, {
      ...{ kind: 'tie', on: '2026-03-01', guy: guy.id, branch: 'low', at: guy.at, anchor: guy.anchor, wire: guy.wire, cushion: guy.cushion },
      ...{ twists: 10 * share, tension: guy.tension, cameDeg: 30, bends: guy.bends.map((b) => ({ ...b, bentDeg: b.bentDeg * share })) },
    } as Intent);
  const tip = (t: Tree, id = 'low', on = '2026-03-02'): Vec =>
    placeTree(asItStands(t, dayOf(on)))
      .byId.get(id)!
      .line.points.at(-1)!;
  const drawn = put(made, 1);
  const from = tip(made);
  // As the rod lies, within a few hundredths of how far it came.
  expect(distance(tip(drawn), guy.line.at(-1)!)).toBeLessThan(0.06 * distance(from, guy.line.at(-1)!));
  expect(distance(tip(drawn, 'shoot'), tip(made, 'shoot'))).toBeGreaterThan(30);
  expect(distance(tip(drawn, 'back'), tip(made, 'back'))).toBe(0);
  // In stages: half, then all.
  const half = put(made, 0.5);
  const whole = after(half, { kind: 'guyed', on: '2026-03-02', branch: 'low', guy: guy.id, done: 'twisted', twists: 5, bends: guy.bends });
  expect(distance(from, tip(half))).toBeLessThan(0.7 * distance(from, tip(drawn)));
  expect(distance(tip(whole), tip(drawn))).toBeLessThan(0.01);
  // Off at once nearly all of it comes back; after years the most is kept; what was measured is so.
  const off = (on: string): Tree => after(drawn, { kind: 'untie', on, guy: guy.id });
  const back = (t: Tree, on = '2029-12-01'): number => distance(tip(t, 'low', on), from) / distance(tip(drawn), from);
  expect(back(off('2026-03-02'))).toBeLessThan(0.8);
  expect(back(off('2029-03-02'))).toBeGreaterThan(back(off('2026-03-02')) + 0.1);
  const measured = after(off('2026-03-02'), { kind: 'measured', on: '2026-03-10', branch: 'low', guy: guy.id, heldDeg: 15 });
  expect(back(measured)).toBeCloseTo(0.5, 1);
});

test('a spreader moves both of its stems apart as far as it is turned, and both go back by themselves when it is off', () => {
  const day = dayOf('2026-03-01');
  // Stems of their own, which no pose lays down.
  const stem = (id: string, bearing: number) => branch(id, { at: 20, bearing, elevation: 70, length: 480, d: 24, tipD: 8, green: 0.2 });
  const spreader = { kind: 'device', what: 'spreader', branch: 'a', at: 300, other: { branch: 'b', at: 300 }, by: 30 } as Intent;
  const made = after(tree([stem('a', 90), stem('b', 270)], { species: 'larch' }), spreader);
  const found = planOn(made, day).devices[0] as PlanDevice;
  const gap = (t: Tree, on = '2026-03-03'): number => {
    const { byId } = placeTree(asItStands(t, dayOf(on)));
    return distance(pointAt(byId.get('a')!.line, 300).point, pointAt(byId.get('b')!.line, 300).point);
  };
  const before = gap(made);
  const setUp = (share: number): Tree => after(made, { kind: 'set-up', on: '2026-03-01', device: found.id, twists: 10 * share, ...movedBy(found, share) });
  expect(gap(setUp(1)) - before).toBeGreaterThan(24);
  expect(gap(setUp(1)) - before).toBeLessThan(36);
  // Turned on by as much again it has moved them as far as at once.
  const turned = after(setUp(0.5), { kind: 'guyed', on: '2026-03-02', branch: 'a', guy: found.id, device: 'spreader', done: 'twisted', twists: 5 });
  expect(Math.abs(gap(turned) - gap(setUp(1)))).toBeLessThan(2);
  const off = after(setUp(1), { kind: 'take-down', on: '2026-03-02', device: found.id });
  expect(gap(off)).toBeLessThan(gap(setUp(1)) - 5);
});
