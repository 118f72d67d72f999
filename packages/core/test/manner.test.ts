import fc from 'fast-check';
import {
  bandOf,
  pastsFor,
  allSpecies,
  coilsOn,
  dayOf,
  decidedWork,
  likelyStage,
  MARK_STAGES,
  placeTree,
  planTree,
  proposedWork,
  proposePoses,
  raceIfWired,
  readTree,
  speciesOf,
  toleranceOf,
  watch,
  type Intent,
  type PlanDocument,
  type Tree,
  type Vigour,
} from '../src/index.js';
import { after, branch, tree } from './trees.js';

const SPRING = dayOf('2026-03-01');
const low = (own: Partial<Tree> = {}): Tree =>
  tree([branch('b1', { at: 120, elevation: 40 }), branch('b2', { at: 200, bearing: 270, elevation: 35 }), branch('b3', { at: 280, elevation: 45 })], own);
const plan = (t: Tree, on = SPRING): PlanDocument => planTree(t, on, { fronts: false });

test('a tree that is wired firmly gets no thinner wire anywhere than one wired lightly, and is bent less past', () => {
  for (const species of ['larch', 'maple-trident', 'hornbeam-korean']) {
    const parts = (firmness: 'firm' | 'usual' | 'light') =>
      plan(after(low({ species }), { kind: 'manner', firmness })).runs.map((r) => ({ ...r.branches[0]!, size: r.size * Math.cbrt(r.strands) }));
    const [firm, usual, light] = [parts('firm'), parts('usual'), parts('light')];
    // What a firm wire cannot hold any more is given none: no branch gets more by it.
    const everywhere = firm.filter((part) => [usual, light].every((of) => of.some((p) => p.branch === part.branch)));
    expect(everywhere.length).toBeGreaterThan(0);
    for (const part of everywhere) {
      const same = (of: typeof firm) => of.find((p) => p.branch === part.branch)!;
      expect(part.size).toBeGreaterThanOrEqual(same(usual).size);
      expect(same(usual).size).toBeGreaterThanOrEqual(same(light).size);
      expect(part.firmness.overbend).toBeLessThanOrEqual(1.25 + 0.005);
      expect(same(light).firmness.overbend).toBeLessThanOrEqual(1.6 + 0.005);
    }
  }
});

test('a bend is left the least past its target that opens a window; where none opens, what sets soonest and asks no more of the wood than a tenth', () => {
  let [opened, shut] = [0, 0];
  for (const species of ['larch', 'juniper-scale', 'maple-trident', 'elm', 'hemlock', 'pine-two-needle']) {
    const t = low({ species });
    const placed = placeTree(t);
    for (const run of plan(t).runs) {
      const part = run.branches[0]!;
      const past = part.settles / part.target - 1;
      const wire = {
        branch: part.branch,
        metal: run.metal,
        size: run.size,
        strands: run.strands,
        angle: run.angle,
        bentDeg: part.bendTo,
        targetDeg: part.target,
        over: part.bendLength,
        gap: part.gap,
      };
      expect(past).toBeGreaterThan(-0.01);
      expect(past).toBeLessThan(0.26);
      const { window } = raceIfWired(placed, wire, SPRING);
      if (window) opened++;
      else {
        shut++;
        const choices = pastsFor(t, SPRING, part.branch);
        const [own, tenth] = [past, 0.1].map((p) => choices.reduce((a, b) => (Math.abs(b.past - p) < Math.abs(a.past - p) ? b : a)));
        expect(own!.race.forecast.setSure ?? Infinity).toBeLessThanOrEqual(tenth!.race.forecast.setSure ?? Infinity);
        expect(bandOf(own!.risk)).toBe(bandOf(tenth!.risk));
      }
    }
  }
  expect(opened).toBeGreaterThan(2);
  expect(shut).toBeGreaterThan(0);
});

test('marks are borne where bark lets them grow out, on a tree in strength; the artist may say otherwise', () => {
  for (const species of allSpecies()) {
    const of = (vigour: Vigour, tolerance?: 'none' | 'fading') =>
      toleranceOf(after(low({ species: species.key, vigour }), ...(tolerance ? [{ kind: 'manner', tolerance } as Intent] : [])));
    expect(of('normal')).toBe(species.markFadeYears === null ? 'none' : 'fading');
    expect([of('refined'), of('weak')]).toEqual(['none', 'none']);
    expect([of('normal', 'none'), of('refined', 'fading')]).toEqual(['none', 'fading']);
  }
});

test('the plan counts what is decided and done for the session, and tells beside it what all that is proposed would ask', () => {
  const t = low();
  const placed = placeTree(t);
  const { poses } = proposePoses(placed);
  expect(poses).toHaveLength(3);
  expect(decidedWork(placed, poses, SPRING)).toEqual({ heavyBends: 0, wiredShare: 0 });
  expect(proposedWork(placed, poses).wiredShare).toBe(1);
  const none = plan(t).read;
  expect(none.used).toBe(0);
  expect(none.ifAll).toBeGreaterThanOrEqual(0.3);
  expect(none.because.join()).not.toContain('asks for more');

  const wire = { metal: 'copper' as const, size: 2.05, strands: 1, angle: 45, hand: 'cw' as const, start: 'over' as const };
  const lately = after(t, { kind: 'wired', branch: 'b1', ...wire, on: '2026-02-25' } as Intent);
  expect(plan(lately).read.used).toBeCloseTo(0.1, 2);
  // Wire of another session burdens this one no more, even though its run is still in the plan.
  expect(plan(lately, dayOf('2026-05-01')).read.used).toBe(0);
  expect(coilsOn(lately, dayOf('2026-05-01'))).toHaveLength(1);

  const read = readTree(t, SPRING, { heavyBends: 5, wiredShare: 0 }, { heavyBends: 1, wiredShare: 1 });
  expect(read.used).toBeCloseTo(1.25, 9);
  expect(read.ifAll).toBeCloseTo(1.55, 9);
  expect(read.because.join()).toMatch(/asks for more than this/);
});

test('a tree that bleeds says so before it is in leaf, at Read, in either hemisphere; afterwards not', () => {
  const says = (species: string, on: string, hemisphere: 'north' | 'south' = 'north') =>
    readTree(low({ species, site: { hemisphere } }), dayOf(on)).because.join(' ');
  const bleeding = allSpecies().filter((s) => s.bleeds);
  expect(bleeding.map((s) => s.key)).toEqual(expect.arrayContaining(['birch', 'hornbeam', 'maple-trident']));
  for (const s of bleeding) {
    const month = s.months.pruning.bad[0]!;
    const iso = (m: number) => `2026-${String(m).padStart(2, '0')}-15`;
    expect(says(s.key, iso(month))).toMatch(/bleeds when cut before it is in leaf/);
    expect(says(s.key, iso(((month + 5) % 12) + 1), 'south')).toMatch(/bleeds/);
    expect(says(s.key, iso(month))).not.toMatch(/good month/);
  }
  expect(says('birch', '2026-07-15')).not.toMatch(/bleeds/);
  expect(speciesOf('larch').bleeds).toBe(false);
});

test('the stage that is shown of a coil on any day lies between what was seen before it and after it', () => {
  const wired: Intent = { kind: 'wired', branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', bentDeg: 50, over: 60 };
  const iso = (later: number) => new Date(Date.UTC(2026, 2, 1 + later)).toISOString().slice(0, 10);
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 300 }), fc.constantFrom(...MARK_STAGES)), { minLength: 1, maxLength: 3 }), (looks) => {
      // Looks in the order in which a coil can have been seen: what has bedded in does not come out again.
      const days = looks.map(([later]) => later).sort((a, b) => a - b);
      const stages = looks.map(([, stage]) => stage).sort((a, b) => MARK_STAGES.indexOf(a) - MARK_STAGES.indexOf(b));
      const seen = days.map((later, i) => ({ kind: 'inspected', branch: 'b1', stage: stages[i]!, on: iso(later) }) as Intent);
      const t = after(low(), { ...wired, on: '2026-03-01' } as Intent, ...seen);
      const { state } = watch(placeTree(t), dayOf(iso(310)))[0]!;
      for (const [i, later] of days.entries()) {
        const shown = MARK_STAGES.indexOf(likelyStage(state, dayOf(iso(later))));
        expect(shown).toBeGreaterThanOrEqual(MARK_STAGES.indexOf(stages[i]!));
        const next = days.findIndex((d) => d > later);
        if (next >= 0) expect(shown).toBeLessThanOrEqual(MARK_STAGES.indexOf(stages[next]!));
      }
    }),
    { numRuns: 30 },
  );
});
