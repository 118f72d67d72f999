import fc from 'fast-check';
import {
  applyAct,
  dayOf,
  deviceFor,
  deviceKindsFor,
  DEVICE_KINDS,
  DEVICE_WORDS,
  distance,
  drawnDevice,
  dueOn,
  generateTree,
  isoOf,
  isRefused,
  layOut,
  leadBoth,
  leadWood,
  lengthOf,
  lerp,
  limb,
  modulus,
  namesOf,
  openSteps,
  placeTree,
  pointAt,
  posedLines,
  rideAlong,
  PlanMemory,
  planTree,
  sayLine,
  secondMoment,
  speciesOf,
  stickFor,
  woodOf,
  type Intent,
  type LedAsked,
  type Limb,
  type PlanDevice,
  type Tree,
  type Vec,
} from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';

const ON = dayOf('2026-05-20');
const finite = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const wood = woodOf(speciesOf('yew'));
const E = modulus(wood);
const even = (length: number, d: number) => limb([[0, 0, 0], [length / 2, 0, 0], [length, 0, 0]], [d, d, d]); // prettier-ignore
const asked = (length: number, d: number, own: Partial<LedAsked> = {}): LedAsked => ({ line: even(length, d), wood, heft: 0, at: length, way: [0, 0, 1], segments: 48, ...own }); // prettier-ignore

/** Two stems from one base, to either side. */
const twoStems = (own: Partial<Tree> = {}): Tree =>
  tree([
    branch('a', { at: 20, bearing: 80, elevation: 72, length: 400, d: 24, tipD: 8 }),
    branch('b', { at: 25, bearing: 275, elevation: 70, length: 380, d: 22, tipD: 8 }),
    branch('c', { at: 300, bearing: 10, elevation: 5, length: 220, d: 12, tipD: 4 }),
  ], own); // prettier-ignore

const spreader = { kind: 'device', what: 'spreader', branch: 'a', at: 240, other: { branch: 'b', at: 230 }, by: 8 } as const;
const worked = (t: Tree, memory?: PlanMemory): PlanDevice => {
  const [found] = planTree(t, ON, { fronts: false, memory }).devices;
  if (!found || 'fault' in found) throw new Error(found?.fault ?? 'no device');
  return found;
};

test('wood led by a little takes the force of a cantilever, 3EIδ/L³; bent past its limit less than that', () => {
  fc.assert(
    fc.property(finite(140, 160), finite(24, 28), (length, d) => {
      const stiff = (3 * E * secondMoment(d)) / length ** 3;
      const little = leadWood(asked(length, d), length / 400);
      expect(little.force / ((stiff * length) / 400)).toBeCloseTo(1, 1.3);
      const far = leadWood(asked(length, d), length / 3);
      expect(far.force).toBeLessThan(0.8 * stiff * (length / 3));
      expect(far.force).toBeGreaterThan(little.force);
      // It came so far, and is no longer than it was.
      const tip = far.line.points[far.line.points.length - 1]!;
      expect(tip[2]).toBeCloseTo(length / 3, 0);
      expect(lengthOf(far.line)).toBeCloseTo(length, 3);
    }),
    { numRuns: 15 },
  );
});

test('what one device moves shares the way so that both take one force: like wood halves it, the thicker gives less', () => {
  fc.assert(
    fc.property(finite(8, 20), finite(8, 20), finite(2, 30), (d, other, by) => {
      const [a, b] = leadBoth(asked(300, d), asked(300, other, { way: [0, 0, -1] }), by);
      expect(a.by + b.by).toBeCloseTo(by, 6);
      expect(Math.abs(a.force - b.force)).toBeLessThan(0.03 * a.force + 1e-3);
      if (Math.abs(d - other) < 0.01) expect(a.by).toBeCloseTo(by / 2, 1);
      else if (d > 1.05 * other) expect(a.by).toBeLessThan(b.by);
    }),
    { numRuns: 15 },
  );
});

test('a stick bears three times its load before it bows out', () => {
  const d = stickFor(200, 300);
  expect((Math.PI ** 2 * 10_000 * secondMoment(d)) / 300 ** 2).toBeCloseTo(600, 6);
});

test('a clamp presses a beam between two hooks: 48EIδ/L³ where it is thick and bends little', () => {
  const t = tree([branch('c', { at: 550 })], { trunk: [0, 200, 400, 600].map((z) => ({ x: 0, y: 0, z, d: 40 })), species: 'yew' });
  const own = { kind: 'clamp', branch: 'trunk', at: 300, bearing: 90, span: 400, by: 1, pitch: 1.25 } as const;
  const found = worked({ ...t, plan: { ...t.plan, devices: [{ ...own, id: 'd1' }] } });
  expect(found.force / ((48 * E * secondMoment(40)) / 400 ** 3)).toBeCloseTo(1, 1.3);
  expect(found.turns).toBeCloseTo(0.8, 6);
  const harder = worked({ ...t, plan: { ...t.plan, devices: [{ ...own, id: 'd1', by: 70 }] } });
  expect(harder.stages).toBeGreaterThan(1);
  expect(harder.dates).toHaveLength(harder.stages!);
  expect(harder.moved[0]!.strainAt).toBeGreaterThan(200);
  expect(harder.moved[0]!.strainAt).toBeLessThan(400);
});

test('a spreader between two stems: as long as it must be, thick enough, both stems moved, after coils and ties, with what it would leave and its danger', () => {
  const plan = planTree(after(twoStems(), spreader), ON, { fronts: false });
  const found = plan.devices[0] as PlanDevice;
  expect(plan.order.at(-1)).toBe('d1');
  expect(found.moved.map((m) => m.branch)).toEqual(['a', 'b']);
  expect(found.moved[0]!.by + found.moved[1]!.by).toBeCloseTo(8, 0);
  expect(found.stick).toBeGreaterThan(1);
  const [{ from, to }] = found.parts as [PlanDevice['parts'][number]];
  expect(Math.hypot(...from.map((x, i) => x - to[i]!)) + 8).toBeCloseTo(found.length, 0);
  expect(found.checks.map((c) => c.check)).toEqual(['force', 'wood', 'cushion', 'clear']);
  expect(found.marks).toMatch(/rubber/);
  expect(found.danger).toMatch(/stay out of its line.*protect your eyes/);
});

test('what is planned by one press bears every check, in hundreds of newtons at most; where nothing does, it is said why', () => {
  let [good, none] = [0, 0];
  const kinds = ['larch', 'yew', 'maple-trident', 'juniper-scale'];
  for (const [i, form] of (['upright', 'clump', 'upright'] as const).entries()) {
    const base = [14, 40, 70][i]!;
    const t = generateTree({ seed: 8 + i, name: 'Any', species: kinds[i]!, form, height: base * 11, base, primaries: 4, secondaries: 0 });
    const placed = placeTree(t);
    const memory = new PlanMemory();
    const { poses } = planTree(t, ON, { fronts: false, memory });
    const thickest = [...t.branches].filter((b) => b.parent === 'trunk').sort((a, b) => b.d - a.d);
    for (const on of ['trunk', thickest[0]!.id, thickest[2]!.id])
      for (const kind of deviceKindsFor(placed, poses, on)) {
        const found = deviceFor(placed, poses, kind, on);
        if ('why' in found) {
          none++;
          expect(found.why).toMatch(/^[A-Z].*\.$/);
          continue;
        }
        good++;
        const { force, checks, moved, stages } = worked({ ...t, plan: { ...t.plan, devices: [{ ...found, id: 'd1' }] } }, memory);
        expect(checks.filter((c) => !c.ok)).toEqual([]);
        expect(found.by).toBeGreaterThanOrEqual(1);
        expect(force).toBeLessThanOrEqual(900);
        expect(stages === null || Math.max(...moved.map((m) => m.risk)) > 1.6).toBe(false);
      }
  }
  expect(good).toBeGreaterThan(40);
  expect(none).toBeLessThan(10);
  // Two ends need two pieces of wood.
  const alone = placeTree(tree([branch('a', { at: 200, length: 200, d: 12, tipD: 4 })]));
  expect(deviceKindsFor(alone, [], 'trunk')).toEqual(['prop', 'stays', 'jack', 'clamp', 'frame']);
});

test('a jack is turned on in stages: each on its day, days that hold still, a force that follows its turns; what a check forbids is not begun', () => {
  const jack = { kind: 'device', what: 'jack', branch: 'c', at: 110, anchor: { kind: 'pot-rim', bearing: 10 }, by: 60, pitch: 1 } as const;
  const t = after(twoStems({ pot: { shape: 'oval', width: 420, depth: 340, height: 80 } }), jack);
  const stepsOn = (of: Tree, day: number) => openSteps(of, planTree(of, day, { fronts: false }), day).filter((s) => s.kind === 'device');
  const { stages, dates, stageForces, force } = worked(t);
  expect(stages).toBeGreaterThan(1);
  expect(stageForces).toHaveLength(stages!);
  expect([...stageForces].sort((a, b) => a - b)).toEqual(stageForces);
  expect(stageForces.at(-1)).toBe(force);
  let now = t;
  let day = ON;
  for (let stage = 0; stage < stages!; stage++) {
    const [step] = stepsOn(now, day);
    expect(step!.did[0]).toMatchObject({ tension: stageForces[stage], twists: expect.any(Number) });
    now = after(now, { ...step!.did[0], on: isoOf(day) } as unknown as Intent);
    if (stage + 1 === stages) break;
    const { on, dates: left } = worked(now);
    expect(on!.force).toBe(stageForces[stage]);
    expect(left[0]).toBe(dates[1] && stage === 0 ? dates[1] : left[0]);
    // Looked at some days on, its next stage is on the same day still; before that there is nothing to do.
    const then = dayOf(left[0]!);
    expect(planTree(now, then - 1, { fronts: false }).devices[0]).toMatchObject({ dates: left });
    expect(stepsOn(now, then - 1)).toEqual([]);
    expect(dueOn(now, then - 1).due).toContainEqual(expect.objectContaining({ kind: 'stage', on: left[0], branches: ['c'] }));
    day = then;
  }
  expect(stepsOn(now, day + 90)).toEqual([]);
  expect(planTree(now, day, { fronts: false }).devices[0]).toMatchObject({ on: { turns: 60, force }, dates: [] });
  // Far more than it bears: it stands among what is left, with what speaks against it.
  const much = after(t, { ...jack, device: 'd1', by: 90 });
  const laid = layOut(much, planTree(much, ON, { fronts: false }), ON, { hours: 8 });
  expect(laid.steps.some((s) => s.kind === 'device')).toBe(false);
  expect(laid.left).toContainEqual(
    expect.objectContaining({ why: expect.stringMatching(/bears|stands|set with/), steps: [expect.objectContaining({ key: 'device:d1' })] }),
  );
});

test.each([
  ['a place beyond the tip', { at: 999 }, 'at', /beyond its tip/],
  ['another end on the same branch', { other: { branch: 'a', at: 30 } }, 'other', /one branch/],
  ['another end that is not there', { other: { branch: 'x', at: 30 } }, 'other.branch', /not on this tree/],
  ['no other end', { other: undefined }, 'other', /two ends on wood/],
  ['a prop without a foot', { what: 'prop' }, 'anchor', /choose one/],
  ['a prop on a hole that is not there', { what: 'prop', anchor: { kind: 'pot-hole', index: 4 } }, 'anchor', /no such hole/],
  ['a clamp to no side', { what: 'clamp', span: 100 }, 'bearing', /bearing/],
  ['hooks beyond the wood', { what: 'clamp', span: 900, bearing: 90 }, 'span', /too much/],
] as const)('%s is said beside its field, and nothing is kept', (_, own, field, said) => {
  const refused = applyAct(twoStems(), actFrom({ ...spreader, ...own } as Intent), ON + 365);
  if (!isRefused(refused)) throw new Error('not refused');
  expect(refused.refused[0]).toMatchObject({ field, message: expect.stringMatching(said) });
});

test('set up, turned, looked at, taken off with what the wood went back by: in the record, in Season, out of the plan', () => {
  const set = after(twoStems(), spreader, { kind: 'set-up', device: 'd1', on: '2026-03-10' });
  expect(worked(set).on).toMatchObject({ since: '2026-03-10' });
  const { due } = dueOn(set, ON);
  expect(due.find((d) => d.leadsTo === 'guy')).toMatchObject({ branches: ['a'], title: expect.stringMatching(/where its spreader presses/) });
  const off = after(set, { kind: 'take-down', device: 'd1', on: '2026-05-01', backMm: 2.5 });
  expect(off.plan.devices).toEqual([]);
  // Some days after, what is left of it is seen; once said, it is asked no more.
  expect(dueOn(off, dayOf('2026-05-02')).due.find((d) => d.leadsTo === 'guy')).toMatchObject({ on: '2026-05-06', title: expect.stringMatching(/see how far/) });
  const told = after(off, { kind: 'measured', branch: 'a', guy: 'd1', backMm: 3, on: '2026-05-07' });
  for (const [t, day] of [
    [told, ON],
    [off, ON + 60],
    [after(off, spreader, { kind: 'set-up', device: 'd1', on: '2026-05-08' }), dayOf('2026-05-09')],
  ] as const)
    expect(dueOn(t, day).due.some((d) => d.leadsTo === 'guy' && d.kind === 'held')).toBe(false);
  expect(sayLine(told.record.at(-1)!, namesOf(told))).toBe('measured, went back by 3.0 mm without what held it');
  expect(sayLine(off.record.at(-1)!, namesOf(off))).toBe('spreader taken off, it went back by 2.5 mm');
  expect(sayLine(set.record.at(-1)!, namesOf(set))).toBe(`${DEVICE_WORDS.spreader.name} set up`);
  // A branch that goes takes its device along.
  expect(planTree(after(set, { kind: 'unlist', branches: ['b'] } as unknown as Intent), ON, { fronts: false }).devices).toEqual([]);
});

test('drawn by a share, wood is moved by that share, what grows on it rides along unbent, and the device stays on its bark', () => {
  const sided = (): Tree => ({
    ...twoStems(),
    branches: [...twoStems().branches, branch('twig', { parent: 'a', at: 200, bearing: 40, length: 90, d: 5, tipD: 2 })],
  });
  const t = after(sided(), { kind: 'device', what: 'clamp', branch: 'trunk', at: 300, bearing: 90, span: 300, by: 9 }, { ...spreader, device: 'd2' } as Intent);
  const placed = placeTree(t);
  const { poses } = planTree(t, ON, { fronts: false });
  const before = posedLines(placed, poses);
  const [clamp, bar] = t.plan.devices!;
  for (const share of [0.5, 1]) {
    const { lines, parts } = drawnDevice(placed, poses, bar!, share)!;
    expect(lines.map(([id]) => id)).toEqual(['a', 'b']);
    const gap = (of: ReadonlyMap<string, Limb>) => distance(pointAt(of.get('a')!, 240).point, pointAt(of.get('b')!, 230).point);
    const now = rideAlong(t, before, new Map(lines));
    expect(gap(now) - gap(before)).toBeGreaterThan(8 * share * 0.85);
    expect(gap(now) - gap(before)).toBeLessThan(8 * share * 1.15);
    const [was, is] = [before.get('twig')!.points, now.get('twig')!.points];
    for (let i = 1; i < was.length; i++) expect(distance(is[0]!, is[i]!)).toBeCloseTo(distance(was[0]!, was[i]!), 6);
    expect(distance(is[0]!, was[0]!)).toBeGreaterThan(0.5);
    expect(now.get('c')).toEqual(before.get('c'));
    // The bar's end lies on the bark of the wood that it moved.
    const ends = now.get('a')!;
    expect(Math.abs(distance(parts[0]!.from, pointAt(ends, 240).point) - pointAt(ends, 240).diameter / 2)).toBeLessThan(1);
    // A clamp arches the wood between its hooks, and keeps its length.
    const trunk = new Map(drawnDevice(placed, poses, clamp!, share)!.lines).get('trunk')!;
    const [low, middle, high] = [150, 300, 450].map((at) => pointAt(trunk, at).point) as [Vec, Vec, Vec];
    const chord = lerp(low, high, 0.5);
    expect(distance(middle, chord)).toBeGreaterThan(9 * share * 0.8);
    expect(distance(middle, chord)).toBeLessThan(9 * share * 1.2);
    expect(middle[0]).toBeGreaterThan(chord[0]);
    expect(lengthOf(trunk)).toBeCloseTo(lengthOf(placed.trunk), 0);
  }
});

test('over made-up trees: ends lie on bark, more way takes more force and no less strain, what stands in the pot is weighed against it, what stands on the tree is not', () => {
  let worked = 0;
  for (const [i, form] of (['upright', 'clump', 'twin', 'upright'] as const).entries()) {
    const kinds = ['larch', 'yew', 'maple-trident', 'juniper-scale'];
    const t = generateTree({ seed: 5 + i, name: 'Any', species: kinds[i]!, form, height: 460, base: 48, primaries: 5, secondaries: 2 });
    const placed = placeTree(t);
    const memory = new PlanMemory();
    const planOf = (own: object) => planTree({ ...t, plan: { ...t.plan, devices: [own as never] } }, ON, { fronts: false, memory }).devices[0]!;
    for (const kind of DEVICE_KINDS) {
      const found = deviceFor(placed, [], kind, t.branches[i]!.id);
      if ('why' in found) continue;
      const usual = { ...found, id: 'd1' };
      const [some, more] = [planOf({ ...usual, by: 3 }), planOf({ ...usual, by: 9 })];
      if ('fault' in some || 'fault' in more) continue;
      worked++;
      expect(more.force).toBeGreaterThanOrEqual(some.force);
      expect(Math.max(...more.moved.map((m) => m.strain))).toBeGreaterThanOrEqual(Math.max(...some.moved.map((m) => m.strain)));
      for (const { from, to } of some.parts) expect([...from, ...to].every(Number.isFinite)).toBe(true);
      if (kind === 'spreader') {
        const [{ from }] = some.parts as [PlanDevice['parts'][number]];
        const [a] = some.cushions as [PlanDevice['cushions'][number]];
        expect(Math.hypot(...from.map((x, k) => x - a.at[k]!))).toBeCloseTo(a.diameter / 2, 0);
      }
      const inPot = kind === 'prop' || kind === 'jack' || kind === 'bar' || kind === 'frame' || kind === 'stays';
      expect(some.checks.some((c) => c.check === 'pot')).toBe(inPot);
      expect(some.stages === null || some.stages >= 1).toBe(true);
      if (usual.pitch) expect(some.turns).toBeCloseTo(3 / usual.pitch!, 1);
    }
  }
  expect(worked).toBeGreaterThan(18);
});

test('a device that loses its wood or its anchor says so in the plan; its line of the record stays', () => {
  const t = twoStems({ pot: { shape: 'oval', width: 320, depth: 240, height: 60, holes: [{ bearing: 90, radius: 60 }] } });
  const prop = { kind: 'device', what: 'prop', branch: 'c', at: 120, anchor: { kind: 'pot-hole', index: 0 }, by: 8 } as const;
  const set = after(t, prop, { kind: 'set-up', device: 'd1', on: '2026-03-10' });
  const faultOf = (of: Tree): string | null => {
    const [found] = planTree(of, ON, { fronts: false }).devices;
    return found && 'fault' in found ? found.fault : null;
  };
  expect(faultOf(set)).toBeNull();
  expect(faultOf({ ...set, pot: { ...set.pot, holes: [] } })).toMatch(/stands on nothing: choose what it goes to/);
  expect(faultOf(after(set, { kind: 'decide', branch: 'c', act: 'shorten', length: 60 }))).toMatch(/no wood there/);
  expect(set.record.at(-1)).toMatchObject({ kind: 'guyed', device: 'prop' });
});
