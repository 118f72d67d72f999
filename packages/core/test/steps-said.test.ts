import {
  dayOf,
  layOut,
  openSteps,
  PART_OF,
  planTree,
  STEP_KINDS,
  WORK_PARTS,
  generateTree,
  type Intent,
  type PlanDocument,
  type Tree,
  type WorkStep,
  sayByHand,
} from '../src/index.js';
import { after, branch, tree } from './trees.js';

const ON = dayOf('2026-10-10');
const planOf = (t: Tree): PlanDocument => planTree(t, ON, { fronts: false });
const step = (steps: readonly WorkStep[], key: RegExp): WorkStep => steps.find((s) => key.test(s.key))!;

/** A tree of which the figures are known: a branch to cut, one to wire and bend heavily, one to tie, a frame. */
const bench = after(
  tree(
    [
      branch('low', { at: 120, bearing: 90, d: 12, length: 220, elevation: 30 }),
      branch('off', { at: 200, bearing: 10, d: 8 }),
      branch('stub', { at: 260, bearing: 200, d: 9 }),
      branch('tied', { at: 320, bearing: 270, d: 10, length: 200 }),
    ],
    { species: 'yew', vigour: 'strong', plan: { front: { bearing: 0, pitch: 0, roll: 0 }, decisions: [], poses: [], runs: [], guys: [] } },
  ),
  { kind: 'decide', branch: 'off', act: 'remove', why: 'It points at the viewer.' },
  { kind: 'decide', branch: 'stub', act: 'stub', stub: 'jin', length: 30 },
  { kind: 'pose', branch: 'low', bearing: 95, elevation: -25 },
  { kind: 'guy', branch: 'tied', at: 120, anchor: { kind: 'pot-rim', bearing: 270 }, wire: 1 },
  { kind: 'device', what: 'frame', branch: 'tied', at: 100, bearing: 190, by: 6, pitch: 1 } as Intent,
);
const steps = openSteps(bench, planOf(bench), ON);

test('each step says what to do in figures, with what its answer takes into the record', () => {
  const cut = step(steps, /^cut:off/);
  expect(cut).toMatchObject({ kind: 'cut', branches: ['off'], did: [{ kind: 'take-off', branches: ['off'] }] });
  expect(cut.what.join(' ')).toMatch(/^Cut off at the trunk\. It is 200 mm up the trunk, .* \d+ mm wide at the cut\..*It points at the viewer\.$/);
  // What a step is asked for has no name in it: a cut that was left out stays so when another one changes the names.
  expect([cut.as, step(steps, /^cut:stub/).as]).toEqual(['remove', 'stub 30']);
  expect(step(steps, /^jin:stub/).what[0]).toMatch(/Peel the stub/);
  const wire = step(steps, /^wire:.*low/);
  expect(wire.what.find((w) => w.includes(' mm ') && !w.startsWith('Before'))).toMatch(
    /^\d\.\d mm (copper|aluminium).*, \d+ mm( each)?, at 45° to the branch\.$/,
  );
  expect(wire.what.join(' ')).toMatch(/(over the shoulder|from beneath the shoulder), (counter-)?clockwise seen from its parent, \d+\.\d turns/);
  // Wire goes on straight: what it was bent to is told by the bend.
  expect(wire.did[0]).toMatchObject({ kind: 'wired', anchor: 'good' });
  expect(wire.did[0]).not.toHaveProperty('bentDeg');
  const bend = step(steps, /^bend:low:1/);
  expect(bend.title).toMatch(/stage 1 of \d/);
  expect(bend.did[0]).toMatchObject({ kind: 'bent', branch: 'low', stage: 1 });
  const tie = step(steps, /^guy:tied:120/);
  expect(tie.what.join(' ')).toMatch(/1\.0 mm copper, doubled.*At 120 mm of the branch.*To the pot rim\. Draw \d+ mm in by hand, then \d+ twists today/);
  expect(tie.did[0]).toMatchObject({ kind: 'tie', branch: 'tied', at: 120, wire: 1 });
  expect(step(steps, /^device:/)).toMatchObject({ branches: ['tied'], did: [{ kind: 'set-up', twists: 6 }] });
  for (const s of steps) {
    expect(s.minutes).toBeGreaterThanOrEqual(1);
    expect(s.minutes).toBeLessThan(90);
    expect(`${s.title} ${s.what.join(' ')}`).not.toMatch(/NaN|undefined|Infinity|-\d+ mm/);
  }
});

test('a stage that waits days names the next, which stays out of the session; the placing waits for the last', () => {
  const stages = steps.filter((s) => s.kind === 'bend' && s.branches[0] === 'low');
  const pose = planOf(bench).poses.find((p) => p.branch === 'low')!;
  const main = [...pose.bends].sort((a, b) => b.risk - a.risk)[0]!;
  if (main.dates.length > 1) {
    expect(stages).toHaveLength(1);
    expect(stages[0]!.did[0]).toMatchObject({ next: main.dates[1] });
    expect(steps.some((s) => s.key === 'place:low')).toBe(false);
  } else {
    expect(stages).toHaveLength(main.stages!);
    expect(steps.some((s) => s.key === 'place:low')).toBe(true);
  }
  const last = stages[stages.length - 1]!.did[0] as { bentDeg: number };
  if (main.dates.length <= 1) expect(last.bentDeg).toBe(Math.round(main.handDeg ?? main.angle));
});

test('what to mind stands once, at the first step of its kind; what can hurt at every one; what is poisonous at the start', () => {
  const byKind = STEP_KINDS.map((kind) => steps.filter((s) => s.kind === kind));
  for (const of of byKind) for (const s of of.slice(1)) expect(s.mind).toEqual([]);
  for (const s of steps.filter((x) => ['cut', 'jin', 'wire', 'bend', 'guy', 'device'].includes(x.kind))) expect(s.danger.length).toBeGreaterThan(0);
  expect(step(steps, /^shelter/).danger.join(' ')).toMatch(/poison|toxic/i);
  expect(step(steps, /^jin/).danger.join(' ')).toMatch(/Lime sulphur.*label.*qualified person/s);
});

test('a session takes only the parts that are asked for, and leaves what belongs to none of them out of sight', () => {
  const plan = planOf(bench);
  for (const part of WORK_PARTS) {
    const laid = layOut(bench, plan, ON, { hours: 20, parts: [part], beyond: true });
    for (const s of [...laid.steps, ...laid.left.flatMap((l) => l.steps)]) expect([null, part]).toContain(PART_OF[s.kind]);
  }
  const cuts = layOut(bench, plan, ON, { hours: 20, parts: ['cuts'], beyond: true });
  expect(cuts.steps.map((s) => s.kind)).toEqual(['shelter', 'clear', 'cut', 'cut', 'jin', 'aftercare']);
  expect(layOut(bench, plan, ON, { hours: 20, parts: [], beyond: true }).holds).toEqual([]);
});

test('what was bent and wired lately counts against what a tree bears now', () => {
  const made = generateTree({ seed: 705, name: 'Any', species: 'larch', height: 500, base: 46, primaries: 5, secondaries: 2, faults: [] });
  const plan = planOf(made);
  const wires = (t: Tree): number => layOut(t, planOf(t), ON, { hours: 20 }).steps.filter((s) => s.kind === 'wire').length;
  const worn = plan.runs.slice(0, 3).map((r): Intent => {
    const { branch: id, hand, start } = r.branches[0]!;
    return {
      kind: 'wired',
      on: '2026-10-08',
      metal: r.metal,
      size: r.size,
      strands: 1,
      angle: 45,
      branch: id,
      hand,
      start,
      bentDeg: 60,
      targetDeg: 45,
      over: 20,
    };
  });
  const bent = worn.map((w): Intent => ({ kind: 'bent', on: '2026-10-08', branch: (w as { branch: string }).branch, stage: 3, bentDeg: 60 }));
  const then = (days: string): Tree => after(made, ...[...worn, ...bent].map((a) => ({ ...a, on: days }) as Intent));
  expect(wires(then('2026-10-08'))).toBeLessThanOrEqual(wires(then('2026-06-01')));
  expect(wires(made)).toBeGreaterThan(0);
});

test('a trunk is bent in the stages and with the rests that the plan gives its gravest bend, the others with it; what was heard stops it', () => {
  const young = (thick: number): Tree => ({
    ...tree([branch('a', { at: 300, bearing: 90, elevation: 45, d: 5, length: 150 })], {
      species: 'larch',
      trunk: [0, 150, 300, 450, 600].map((z) => ({ x: 0, y: 0, z, d: thick - z * 0.015 })),
    }),
    plan: { decisions: [], poses: [], runs: [], guys: [], trunkWay: 'gentle-s', front: { bearing: 0, pitch: 0, roll: 0 } },
  });
  for (const thick of [17, 23]) {
    const t = young(thick);
    const plan = planOf(t);
    const { bends } = plan.trunk!;
    const main = [...bends].sort((a, b) => b.risk - a.risk)[0]!;
    const own = openSteps(t, plan, ON).filter((s) => /^bend:trunk/.test(s.key));
    const overDays = main.dates.length > 0;
    expect(own).toHaveLength(overDays ? 1 : main.stages!);
    expect(own[0]!.what.join(' ')).toContain(`To about ${sayByHand((main.handDeg ?? main.angle) / main.stages!)} by hand`);
    for (const b of bends.filter((x) => x !== main)) expect(own[0]!.what.join(' ')).toContain(`${sayByHand(b.handDeg ?? b.angle)} at ${b.at.toFixed(0)} mm`);
    expect(own.slice(1).map((s) => s.rest)).toEqual(own.slice(1).map(() => main.restMinutes));
    // A wire that is not on the trunk bends nothing: its bends come after the wire; a crack across ends them.
    const cracked = after(t, { kind: 'bent', branch: 'trunk', at: 200, bentDeg: 5, crack: 'across', sound: 'none' } as Intent);
    expect(openSteps(cracked, planOf(cracked), ON).some((s) => /^bend:trunk/.test(s.key))).toBe(false);
  }
});
