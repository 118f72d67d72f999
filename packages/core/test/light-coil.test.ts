import { dayOf, largeTree, layOut, METAL_DATA, openSteps, placeTree, planTree, pointAt, type PlanDocument, type Tree } from '../src/index.js';
import { after, branch, tree } from './trees.js';

const ON = dayOf('2026-05-20');
const planOf = (t: Tree): PlanDocument => planTree(t, ON, { fronts: false, paths: true, places: true });
const tiedParts = (plan: PlanDocument) => plan.runs.flatMap((run) => run.branches.flatMap((part) => (part.tied ? [{ run, part }] : [])));

/** One thick yew branch that no coil brings down, without side shoots. */
const lone = (): Tree =>
  tree([branch('a', { d: 24, tipD: 8, length: 430, elevation: 40, at: 260, bearing: 80 }), branch('b', { bearing: 265, d: 9, tipD: 3, length: 200 })], {
    species: 'yew',
    trunk: [0, 150, 300, 450, 600].map((z) => ({ x: 0, y: 0, z, d: 90 - z * 0.1 })),
    plan: { front: { bearing: 0, pitch: 0, roll: 0 }, decisions: [], poses: [{ branch: 'a', bearing: 80, elevation: 8, bends: [] }], runs: [], guys: [] },
  });

test('what no coil brings down is drawn by a tie and carries one thin wire for its movement: a run like any other, on before the tie', () => {
  const own = lone();
  for (const t of [own]) {
    const plan = planOf(t);
    const parts = tiedParts(plan);
    expect(parts.length).toBeGreaterThan(0);
    for (const { run, part } of parts) {
      const wood = t.branches.find((b) => b.id === part.branch)!;
      const { bends } = plan.poses.find((p) => p.branch === part.branch)!;
      expect(run.strands).toBe(1);
      expect(Math.min(...METAL_DATA[run.metal].sizes.map((size) => Math.abs(size - run.size)))).toBeLessThan(0.01);
      expect(run.size).toBeLessThan(wood.d / 3);
      expect(run.path!.length).toBeGreaterThan(10);
      expect(plan.unwired.some((u) => u.branch === part.branch)).toBe(false);
      // The turn at the shoulder is the tie's; from where the wood is thin enough, the bends are the wire's, and the hand makes them.
      const firstHeld = part.bends.findIndex((b) => b !== null);
      expect(part.bends.map((b) => b === null)).toEqual(bends.map((_, i) => i < firstHeld));
      expect(bends[0]!.kind).toBe('drop');
      expect(firstHeld).toBeGreaterThan(0);
      expect(bends[firstHeld]!.kind).toBe('movement');
      expect(bends.map((b) => b.handDeg)).toEqual(part.bends.map((b) => b && b.bendTo));
      const ties = plan.guys.filter((g) => g.branch === part.branch);
      expect(ties.map((g) => g.coil)).toEqual(ties.map(() => run.id));
      for (const g of ties) expect(plan.order.indexOf(run.id)).toBeLessThan(plan.order.indexOf(g.id));
      expect(plan.cutList.flatMap((c) => c.pieces.map((p) => p.run))).toContain(run.id);
      // At the bench: the wire, its movement by hand, then the tie; the turn at the shoulder is nobody's but the tie's.
      const steps = openSteps(t, plan, ON).filter((s) => s.branches.includes(part.branch));
      expect(steps.map((s) => s.kind).filter((k, i, all) => k !== all[i - 1])).toEqual(expect.arrayContaining(['wire', 'guy', 'place']));
      expect(steps.findIndex((s) => s.kind === 'wire')).toBeLessThan(steps.findIndex((s) => s.kind === 'guy'));
      const drop = bends.find((b) => b.kind === 'drop')!;
      for (const s of steps) for (const d of s.did) if (d.kind === 'bent') expect(d.at).not.toBe(drop.at);
    }
  }
});

test('settled by hand, wound, tied: at each step wire and tie are both still there, and neither grows', () => {
  const first = planOf(lone());
  const [{ run, part }] = tiedParts(first) as [ReturnType<typeof tiedParts>[number]];
  const tie = first.guys.find((g) => g.branch === 'a')!;
  const { hand, start } = part;
  const settled = after(lone(), {
    kind: 'run',
    run: 'own',
    metal: run.metal,
    size: run.size,
    strands: 1,
    angle: run.angle,
    branches: [{ branch: 'a', hand, start }],
  });
  const wound = after(settled, {
    kind: 'wired',
    branch: 'a',
    metal: run.metal,
    size: run.size,
    strands: 1,
    angle: run.angle,
    hand,
    start,
    on: '2026-05-20',
  });
  for (const t of [settled, wound]) {
    const plan = planOf(t);
    expect(tiedParts(plan).map((p) => [p.run.id, p.run.size])).toEqual([['own', run.size]]);
    const again = plan.guys.filter((g) => g.branch === 'a');
    expect(again.map((g) => g.fixed)).toEqual([false]);
    expect(again[0]!.tension / tie.tension).toBeCloseTo(1, 1);
  }
  const tied = after(wound, ...openSteps(wound, planOf(wound), ON).flatMap((s) => (s.kind === 'guy' ? (s.did as never[]) : [])));
  const plan = planOf(tied);
  expect(plan.guys.map((g) => [g.branch, g.fixed, g.on !== null])).toEqual([['a', true, true]]);
  expect(plan.wires.map((w) => w.branch)).toEqual(['a']);
  expect(plan.runs.find((r) => r.id === 'own')).toBeDefined();
});

test('the tie is moved on to a turn of the wire that bears its pull: there the wire crosses the far side, as its own path says', () => {
  const t = lone();
  const plan = planOf(t);
  const [{ run }] = tiedParts(plan) as [ReturnType<typeof tiedParts>[number]];
  const [tie] = plan.guys.filter((g) => g.branch === 'a');
  expect(tie!.overWire).toMatch(/lies on a turn of its wire/);
  const { line } = placeTree(t).byId.get('a')!;
  const { point, diameter } = pointAt(line, tie!.at);
  const pull = tie!.to.map((x, k) => x - point[k]!);
  const side = Math.hypot(...pull);
  const nearest = Math.min(...run.path!.map((p) => Math.hypot(...p.map((x, k) => x - (point[k]! - (pull[k]! / side) * (diameter / 2 + run.size / 2))))));
  // Not at the near side, where the tie would lie on bare bark: within a third of the thickness of the far one.
  expect(nearest).toBeLessThan(diameter * 0.75);
  const fixed = after(t, {
    kind: 'guy',
    branch: 'a',
    at: tie!.at - Math.round(diameter * 1.7),
    anchor: tie!.anchor,
    wire: 2,
    cushion: { kind: 'tube', width: 12 },
  } as never);
  expect(planOf(fixed).guys[0]!.overWire).toMatch(/would spread the pull lies at \d+ mm: the tie is better there/);
});

test('a branch that ties hold is posed by nobody but its artist; a session without room for ties leaves their wire too, and uses its hours', () => {
  const t = lone();
  const tie = planOf(t).guys.find((g) => g.branch === 'a')!;
  const held = after({ ...t, plan: { ...t.plan, poses: [] } }, {
    kind: 'tie',
    branch: 'a',
    at: tie.at,
    anchor: tie.anchor,
    wire: 2,
    twists: 4,
    tension: 80,
    on: '2025-05-20',
  } as never);
  const plan = planOf(held);
  expect(plan.poses.some((p) => p.branch === 'a')).toBe(false);
  expect(plan.asGrown.find((b) => b.branch === 'a')!.because).toEqual(['A tie holds it: it lies where it was drawn.']);
  const big = largeTree(75, 3);
  const whole = planOf(big);
  const tied = new Set(whole.guys.map((g) => g.branch));
  for (const hours of [2, 8]) {
    const { steps, minutes } = layOut(big, whole, ON, { hours });
    expect(minutes).toBeGreaterThan(hours * 60 * 0.6);
    expect(steps.filter((s) => s.kind === 'guy' || (s.kind === 'wire' && s.branches.some((b) => tied.has(b))))).toEqual([]);
  }
});
