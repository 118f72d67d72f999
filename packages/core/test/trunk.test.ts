import {
  applyAct,
  asItLay,
  asItStands,
  dayOf,
  dueOn,
  generateTree,
  isoOf,
  isRefused,
  linesInWorld,
  openSteps,
  outcomeOf,
  placeTree,
  planTree,
  TRUNK_WAYS,
  trunkOptions,
  viewer,
  type Intent,
  type Limb,
  type PlanDevice,
  type Tree,
  type TrunkOption,
  type TrunkWay,
} from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';

const ON = dayOf('2026-03-01');

/** A trunk so thick (mm at the soil) and so many times as tall. */
const made = (base: number, times: number, species: string): Tree =>
  generateTree({ seed: base * 7 + 1, name: 'Any', species, height: base * times, base, primaries: 4, secondaries: 0 });

const choose = (o: TrunkOption): Intent => {
  const { branch: _trunk, ...device } = o.device ?? { branch: '' };
  return { kind: 'trunk-way', way: o.key as TrunkWay, ...(o.device ? { device } : {}) } as Intent;
};
const planOf = (t: Tree, day = ON) => planTree(t, day, { fronts: false });
const trunkOf = (t: Tree): Limb => linesInWorld(placeTree(t), []).get('trunk')!;
const endOf = ({ points }: Limb): readonly number[] => points.at(-1)!;

test('a trunk is offered bent only where its own wire or a device that bears its checks holds it, and the plan tells the same stages', () => {
  const found = { wire: 0, device: 0, none: 0 };
  for (const [base, times, species] of [
    [10, 16, 'larch'],
    [20, 16, 'yew'],
    [20, 9, 'juniper-needle'],
    [40, 16, 'maple-trident'],
    [60, 9, 'pine-two-needle'],
  ] as const) {
    const t = made(base, times, species);
    for (const o of trunkOptions(t, ON).filter((x) => x.kind === 'bend')) {
      const way = o.key as TrunkWay;
      if (o.stages === null) {
        found.none++;
        expect(o).toMatchObject({ band: 'no', years: null, dates: [], device: null });
        // Asked for all the same, it is refused with why; come in with a file, the trunk stays and the plan says so.
        const refused = applyAct(t, actFrom({ kind: 'trunk-way', way }), ON + 400);
        expect(isRefused(refused) && refused.refused[0]).toMatchObject({ field: 'way', message: expect.stringMatching(/stays as it stands/) });
        const came = planOf({ ...t, plan: { ...t.plan, trunkWay: way } });
        expect(came.trunk).toBeNull();
        expect(came.notes[0]).toMatch(/^The trunk stays as it stands/);
        continue;
      }
      const chosen = after(t, choose(o));
      const plan = planOf(chosen);
      const coil = plan.runs.find((r) => r.branches.some((b) => b.branch === 'trunk'));
      const device = plan.devices[0] as PlanDevice | undefined;
      expect(Boolean(coil)).toBe(!o.device);
      found[device ? 'device' : 'wire']++;
      const main = plan.trunk!.bends.reduce((a, b) => (b.risk > a.risk ? b : a));
      expect([o.stages, o.dates]).toEqual(device ? [device.stages, device.dates] : [main.stages, main.dates]);
      if (device) expect(device.checks.filter((c) => !c.ok)).toEqual([]);
      // By hand or by screw, once: what the device leads is no bend of the hand's.
      const steps = openSteps(chosen, plan, ON).filter((s) => s.branches.includes('trunk'));
      expect(steps.some((s) => s.kind === 'bend')).toBe(!device);
      expect(steps.some((s) => s.kind === 'device')).toBe(Boolean(device));
      // No arc that hands cannot make; it counts in what the tree bears.
      expect(Math.max(...plan.trunk!.bends.map((b) => b.handDeg ?? b.angle))).toBeLessThan(110);
      expect(plan.read.used).toBeGreaterThanOrEqual(planOf(t).read.used);
      const [x, y, z] = endOf(trunkOf(chosen)) as [number, number, number];
      if (way === 'cascade') expect([z < -0.3 * t.pot.height, Math.hypot(x, y) > Math.min(t.pot.width, t.pot.depth) / 2]).toEqual([true, true]);
      expect(endOf(trunkOf(chosen))[2]).toBeLessThan(endOf(trunkOf(t))[2]!);
    }
  }
  expect(found).toMatchObject({ wire: expect.any(Number), device: expect.any(Number) });
  for (const n of Object.values(found)) expect(n).toBeGreaterThan(2);
}, 120_000);

test('led by a device, the trunk comes over by its stages, once; taken down or measured anew it is not bent again', () => {
  const t = made(20, 16, 'pine-two-needle');
  const o = trunkOptions(t, ON).find((x) => x.key === 'slanting')!;
  let now = after(t, choose(o));
  const meant = endOf(trunkOf(now));
  let day = ON;
  for (let stage = 1; ; stage++) {
    const step = openSteps(now, planOf(now, day), day).find((s) => s.kind === 'device')!;
    now = after(now, { ...step.did[0], on: isoOf(day) } as unknown as Intent);
    const [device] = planOf(now, day).devices as [PlanDevice];
    if (!device.dates.length) {
      expect(stage).toBe(o.stages);
      break;
    }
    expect(dueOn(now, day).due.find((d) => d.kind === 'stage')).toMatchObject({ on: device.dates[0], branches: ['trunk'] });
    day = dayOf(device.dates[0]!);
  }
  const off = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((x, i) => x - b[i]!));
  const stands = planOf(now, day);
  expect(off(endOf(trunkOf(outcomeOf(now).tree)), meant)).toBeLessThan(0.03 * o.height);
  expect(stands.trunk).not.toBeNull();
  // Measured anew as it stands, the device still on: it is not bent once more; let go, it goes back from there.
  const { trunk } = asItStands(now, day);
  const anew = after(now, { kind: 'measure', on: isoOf(day + 3), measured: { trunk: trunk.map((s) => ({ ...s })) } } as Intent);
  const tipOf = (t: Tree, on: number): readonly number[] => [...trunkOf({ ...asItStands(t, on), plan: { ...t.plan, trunkWay: null } }).points.at(-1)!];
  expect(off(tipOf(anew, day + 4), tipOf(now, day + 4))).toBeLessThan(0.5);
  const [planned, again] = [now, anew].map((t) => planOf(t, day + 4));
  expect(again!.devices[0]).toMatchObject({ dates: [], on: { turns: (planned!.devices[0] as PlanDevice).on!.turns } });
  expect((again!.devices[0] as PlanDevice).force / (planned!.devices[0] as PlanDevice).force).toBeCloseTo(1, 1);
  expect(off(endOf(trunkOf({ ...asItLay(anew, day + 4) })), endOf(trunkOf({ ...asItLay(now, day + 4) })))).toBeLessThan(0.05 * 320);
  const gone = after(anew, { kind: 'take-down', device: 'd1', on: isoOf(day + 5) } as Intent);
  expect(tipOf(gone, day + 6)[2]).toBeGreaterThan(tipOf(anew, day + 4)[2]! + 5);
  // Off again years later, it is asked for no more.
  const down = after(now, { kind: 'take-down', device: 'd1', on: isoOf(day + 700) } as Intent);
  expect(planOf(down, day + 700).trunk).toBeNull();
  expect(planOf(down, day + 700).devices).toEqual([]);
});

test('bent it keeps its wood and takes years by its thickness, cut it loses height to a wound that has to close', () => {
  const of = (thick: number, species = 'juniper-scale') =>
    tree([branch('low', { at: 150, elevation: 40, d: 12, length: 220 }), branch('high', { at: 300, elevation: 50, d: 9, length: 160, bearing: 250 })], {
      species,
      pot: { shape: 'oval', width: 320, depth: 240, height: 70 },
      trunk: [0, 150, 300, 450, 600].map((z) => ({ x: z * 0.1, y: 0, z, d: thick * (1 - z / 900) })),
    });
  const on = dayOf('2026-01-10');
  const options = (thick: number, species?: string) => new Map(trunkOptions(of(thick, species), on).map((o) => [o.key, o]));
  const [thin, thick] = [options(16), options(60)];
  expect([...thin.keys()]).toEqual([...TRUNK_WAYS, 'high', 'low']);
  const heights = ['gentle-s', 'slanting', 'half-cascade', 'cascade'].map((way) => thin.get(way)!.height);
  expect([...heights].sort((a, b) => b - a)).toEqual(heights);
  expect([thin.get('slanting')!.stages === null, options(60, 'azalea').get('gentle-s')!.stages]).toEqual([false, null]);
  const years = (o: TrunkOption): number => o.years ?? 99;
  expect(years(options(24).get('slanting')!)).toBeGreaterThanOrEqual(years(thin.get('slanting')!));
  // Not in a month that is bad for it, and each after its rest.
  for (const o of thin.values()) {
    expect(o.dates.every((d) => !['12', '01', '05'].includes(d.slice(5, 7)))).toBe(true);
    for (let i = 1; i < o.dates.length; i++) expect(dayOf(o.dates[i]!) - dayOf(o.dates[i - 1]!)).toBeGreaterThanOrEqual(2);
  }
  expect(thick.get('low')!.wound).toBeGreaterThan(2 * thin.get('low')!.wound);
  expect(thick.get('low')!.years!).toBeGreaterThan(thin.get('low')!.years!);
});

test('two stays share the pull of one, keep it from swinging, and their wire bears it', () => {
  const t = made(20, 16, 'juniper-needle');
  const o = trunkOptions(t, ON).find((x) => x.key === 'slanting')!;
  expect(o.device).toMatchObject({ kind: 'stays' });
  const stays = planOf(after(t, choose(o))).devices[0] as PlanDevice;
  const [a, b] = stays.parts.map((p) => p.to.map((x, i) => x - p.from[i]!)) as [number[], number[]];
  // To either side of where the end leans, and as far: the sum of two like pulls goes between them.
  const length = (v: readonly number[]): number => Math.hypot(...v);
  const bearings = [a, b].map(([x, y]) => (Math.atan2(x!, y!) * 180) / Math.PI);
  expect(Math.abs(bearings[0]! - bearings[1]!)).toBeGreaterThan(40);
  const each = stays.checks.find((c) => c.check === 'wire')!.value;
  const pull = a.map((x, i) => (each * x) / length(a) + (each * b[i]!) / length(b));
  expect(length(pull) / stays.force).toBeCloseTo(1, 1);
  expect(each).toBeLessThan(150);
  // Nothing turns them on: they are drawn in one go, and only as far as the wood bears that.
  expect([stays.turns, stays.stages]).toEqual([null, 1]);
});

test('a trunk is wrapped before its wire as a work of its own, and what its bend asks of pot and planting is told', () => {
  const t = { ...made(20, 16, 'yew'), plan: { ...made(20, 16, 'yew').plan, front: { bearing: 40, pitch: 0, roll: 0 } } };
  const wrapped = trunkOptions(t, ON).find((x) => x.because.some((b) => b.includes('wrapped before')))!;
  const chosen = after(t, choose(wrapped));
  const steps = openSteps(chosen, planOf(chosen), ON).filter((s) => s.branches.includes('trunk'));
  expect(steps.map((s) => s.kind).slice(0, 2)).toEqual(['wrap', 'wire']);
  expect(steps[1]!.did[0]).toMatchObject({ kind: 'wired', wrap: 'raffia' });
  const hanging = trunkOptions(made(20, 16, 'juniper-needle'), ON).find((x) => x.key === 'cascade')!;
  const lowest = -Math.min(...hanging.then!.lines.find(([id]) => id === 'trunk')![1].points.map((p) => p[2]));
  expect(hanging.because.join(' ')).toContain(`It hangs ${lowest.toFixed(0)} mm below the soil`);
  // An S is planted so that its end comes nearer to standing over its base; what hangs is not tilted.
  const s = trunkOptions(t, ON).find((x) => x.key === 'gentle-s')!;
  const end = s.then!.lines.find(([id]) => id === 'trunk')![1].points.at(-1)!;
  const aside = (view: Parameters<typeof viewer>[0]): number => Math.abs(viewer(view)(end)[0]);
  expect(aside(s.planting!.view)).toBeLessThan(aside(t.plan.front) + 1);
  expect(hanging.planting!.view).toEqual({ bearing: 0, pitch: 0, roll: 0 });
});
