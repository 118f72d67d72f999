import {
  applyAct,
  dayOf,
  generateTree,
  isRefused,
  openSteps,
  outcomeOf,
  pieceStrip,
  placesFor,
  placeTree,
  PlanMemory,
  planRun,
  planTree,
  planWiring,
  proposePoses,
  sayRoute,
  type Form,
  type Intent,
  type PlanDocument,
  type Tree,
} from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';
import { wireFaults } from './wire-checker.js';

const ON = dayOf('2026-03-01');
const planOf = (t: Tree): PlanDocument => planTree(t, ON, { fronts: false, paths: true, places: true });

/** A tree of which each main branch has one strong shoot; all are bent near their shoulders only. */
function forked(made: Tree, which: number): Tree {
  const branches = made.branches.map((b) => {
    const on = made.branches.find((x) => x.id === b.parent);
    const strong = on && made.branches.filter((x) => x.parent === on.id)[which] === b;
    return strong ? { ...b, d: Math.round(on.d * 7.5) / 10, length: Math.max(b.length, 0.45 * on.length) } : b;
  });
  const t = { ...made, branches };
  const poses = proposePoses(placeTree(t)).poses.filter((p) => branches.some((b) => b.id === p.branch && b.parent === 'trunk') && p.bends.length > 0);
  const first = poses.map(({ branch: id, bearing, elevation, bends: [bend] }) => ({
    ...{ branch: id, bearing, elevation },
    bends: [{ at: bend!.at, over: bend!.length, angle: bend!.angle, toward: bend!.toward }],
  }));
  return { ...t, plan: { ...t.plan, poses: first } };
}

test('wire led on along the strongest shoot of many branches lies on both, crosses nothing, and is as long as said', () => {
  const forms: Form[] = ['upright', 'cascade', 'clump'];
  const made = [
    ...Array.from({ length: 8 }, (_, i) =>
      generateTree({
        seed: 300 + i,
        name: 'Fork',
        species: ['larch', 'yew', 'elm'][i % 3]!,
        form: forms[i % 3]!,
        height: 450 + 20 * i,
        base: 45,
        primaries: 6,
        secondaries: 3,
      }),
    ),
  ];
  const faults: string[] = [];
  let carried = 0;
  for (const [i, t] of made.flatMap((m) => [forked(m, 1), forked(m, 2)]).entries()) {
    const placed = placeTree(outcomeOf(t).tree);
    const { runs } = planWiring(placed, proposePoses(placed));
    const plan = { runs: runs.map((run) => planRun(run, { paths: true, places: false })), order: runs.map((run) => run.id) };
    faults.push(...wireFaults(placed.tree, plan).map((f) => `tree ${i}: ${f}`));
    carried += plan.runs.flatMap((r) => r.branches).filter((b) => b.onFrom !== null).length;
  }
  expect(faults).toEqual([]);
  expect(carried).toBeGreaterThan(8);
});

/** A branch with a strong shoot in its outer half and a weak one, bent only near its shoulder. */
const fork = (own: Partial<Tree> = {}): Tree => {
  const t = tree(
    [
      branch('low', { length: 320, d: 10, tipD: 6, bearing: 90 }),
      branch('strong', { parent: 'low', at: 210, bearing: 35, elevation: 30, d: 8.5, length: 160 }),
      branch('weak', { parent: 'low', at: 130, bearing: 130, d: 5, tipD: 2, length: 90 }),
    ],
    own,
  );
  t.plan.front = { bearing: 0, pitch: 0, roll: 0 };
  t.plan.poses.push({ branch: 'low', bearing: 90, elevation: -5, bends: [{ at: 10, over: 60, angle: 14, toward: { bearing: 90, elevation: -6 } }] });
  return t;
};
const OUTER = { at: 240, over: 50, angle: 12, toward: { bearing: 90, elevation: 5 } };
const pieceOn = (plan: PlanDocument, id: string) => plan.runs.find((r) => r.branches.some((b) => b.branch === id))!;
const idsOf = (run: PlanDocument['runs'][number]): string[] => run.branches.map((b) => b.branch);

test('a branch that is bent only near its shoulder leads its wire on along its thickest shoot, which needs no anchor of its own', () => {
  const plan = planOf(fork());
  const run = pieceOn(plan, 'strong');
  expect(run).toMatchObject({
    kind: 'single',
    branches: [
      { branch: 'low', onFrom: null },
      { branch: 'strong', onFrom: 'low' },
    ],
  });
  expect(idsOf(pieceOn(plan, 'weak'))).toEqual(['weak']);
  const [low, strong] = run.branches;
  // Beyond the shoot the branch is bare.
  expect(Math.max(...run.places!.filter((p) => p.limb === 'low').map((p) => p.s))).toBeLessThan(235);
  expect(low!.turns).toBeGreaterThan(1);
  expect(strong!.because.join(' ')).toContain('goes on along it');
  const straight = pieceStrip(run, fork(), plan, (id) => id)!;
  expect(straight.marks.filter((m) => m.kind === 'shoulder').map((m) => m.branch)).toEqual(['low', 'strong']);
  expect(straight.marks.filter((m) => m.kind === 'shoot').map((m) => m.branch)).toEqual(['weak']);
  expect(sayRoute(run, (id) => id)).toContain('from low on along strong');
  // Each place of it is drawn with one of its branches, and none is left out.
  const drawn = idsOf(run).map((id) => placesFor(run.places!, idsOf(run), id));
  expect(drawn[0]!.length + drawn[1]!.length - 1).toBe(run.places!.length);
  expect(drawn[0]!.every((p) => p.limb !== 'strong')).toBe(true);
});

test('what bends farther out keeps its wire to its own tip, and a shoot too thin or settled by itself is not led on to', () => {
  const far = fork();
  far.plan.poses[0]!.bends.push(OUTER);
  expect(idsOf(pieceOn(planOf(far), 'low'))).toEqual(['low']);
  const thin = fork();
  thin.branches[1]!.d = 5;
  expect(idsOf(pieceOn(planOf(thin), 'low'))).toEqual(['low']);
  const { metal, size, strands, angle, branches } = pieceOn(planOf(fork()), 'low');
  const one = (id: string): Tree =>
    after(fork(), {
      kind: 'run',
      metal,
      size,
      strands,
      angle,
      branches: branches.filter((b) => b.branch === id).map(({ branch: on, hand, start }) => ({ branch: on, hand, start })),
    });
  for (const id of ['low', 'strong']) expect(idsOf(pieceOn(planOf(one(id)), id))).toEqual([id]);
});

test('settled as it was shown it lies as it did; put on, the record has a line for each branch; the shoot cut off, nothing is said to have lost its anchor', () => {
  const shown = pieceOn(planOf(fork()), 'low');
  const { metal, size, strands, angle } = shown;
  const branches = shown.branches.map(({ branch: on, hand, start }) => ({ branch: on, hand, start }));
  const settled = after(fork(), { kind: 'run', run: shown.id, metal, size, strands, angle, branches });
  expect(pieceOn(planOf(settled), 'low')).toEqual(shown);
  const [step] = openSteps(settled, planOf(settled), ON).filter((s) => s.kind === 'wire' && s.branches.includes('strong'));
  expect(step!.what.join()).toContain('on from');
  const wound = after(settled, ...(step!.did as Intent[]));
  expect(wound.record.filter((l) => l.kind === 'wired')).toMatchObject([
    { branch: 'low', run: shown.id, length: shown.length, turns: shown.branches[0]!.turns },
    { branch: 'strong', run: shown.id, turns: shown.branches[1]!.turns },
  ]);
  expect(wound.plan.runs).toEqual(settled.plan.runs);
  const cut = planOf(after(settled, { kind: 'decide', branch: 'strong', act: 'remove' }));
  expect(cut.coverage.said.join()).not.toContain('was anchored on');
  expect(idsOf(pieceOn(cut, 'low'))).toEqual(['low']);
});

test.each<[string, object[], string | null]>([
  ['its own shoot', [{ branch: 'low' }, { branch: 'weak' }], null],
  ['two shoots of one', [{ branch: 'low' }, { branch: 'strong' }, { branch: 'weak' }], 'one shoot of'],
  ['a branch twice', [{ branch: 'low' }, { branch: 'low' }], 'these are one'],
  ['a third end', [{ branch: 'low' }, { branch: 'other' }, { branch: 'third' }], 'two ends'],
  ['a shoot of another', [{ branch: 'other' }, { branch: 'weak' }], 'same limb'],
])('by hand, on along %s', (_what, on, why) => {
  const t = fork();
  t.plan.poses[0]!.bends.push(OUTER);
  t.branches.push(branch('other', { bearing: 270, at: 230 }), branch('third', { bearing: 180, at: 300 }));
  const plan = planOf(t);
  const windings = (['cw', 'ccw'] as const).flatMap((hand) => (['over', 'under'] as const).map((start) => ({ hand, start })));
  const [hand, start] = [pieceOn(plan, 'low').branches[0]!.hand, pieceOn(plan, 'low').branches[0]!.start];
  const said = windings.map((last) => {
    const branches = on.map((b, i) => ({ hand, start, ...b, ...(i === on.length - 1 ? last : {}) }));
    const outcome = applyAct(t, actFrom({ kind: 'run', metal: 'aluminium', size: 2.5, strands: 1, angle: 45, branches } as Intent), dayOf('2030-01-01'));
    return isRefused(outcome) ? outcome.refused[0]!.message : outcome.tree;
  });
  if (why !== null) for (const message of said) expect(message).toContain(why);
  else {
    const settled = said.find((s): s is Tree => typeof s !== 'string')!;
    const run = pieceOn(planOf(settled), 'weak');
    expect(run).toMatchObject({
      branches: [
        { branch: 'low', bends: [{}, null] },
        { branch: 'weak', onFrom: 'low' },
      ],
    });
    expect(run.branches[0]!.because.join()).toContain('its bend of 12° (240 mm along) has no wire');
  }
});

test('with the memory of the plan before a piece is led on as from nothing', () => {
  const t = forked(generateTree({ seed: 301, name: 'Fork', species: 'yew', form: 'upright', height: 480, base: 45, primaries: 5, secondaries: 3 }), 1);
  const memory = new PlanMemory();
  const changes: Partial<Tree['plan']>[] = [{}, { poses: t.plan.poses.slice(2) }, {}, { metal: 'aluminium' }, { poses: t.plan.poses.slice(0, 4) }, {}];
  for (const own of changes) {
    const changed = { ...t, plan: { ...t.plan, ...own } };
    expect(planTree(changed, ON, { fronts: false, places: true, memory })).toEqual(planTree(changed, ON, { fronts: false, places: true }));
  }
});

test.each<[string, object, string, string]>([
  ['a shoot that is not there', { along: [{ branch: 'gone' }] }, 'along', 'gone'],
  ['the same branch', { along: [{ branch: 'low' }] }, 'along', 'that it is on already'],
  ['something from the trunk', { branch: 'trunk', along: [{ branch: 'strong' }] }, 'second', 'a piece of its own'],
])('put on along %s is refused by its field', (_what, own, field, why) => {
  const winding = { hand: 'cw', start: 'over' };
  const along = (own as { along: object[] }).along.map((on) => ({ ...winding, ...on }));
  const act = actFrom({ kind: 'wired', branch: 'low', ...winding, metal: 'copper', size: 2.59, strands: 1, angle: 45, ...own, along } as Intent);
  const outcome = applyAct(fork(), act, dayOf('2030-01-01'));
  expect(isRefused(outcome) && outcome.refused[0]).toMatchObject({ message: expect.stringContaining(why) });
  expect(JSON.stringify(isRefused(outcome) && outcome.refused[0])).toContain(field);
});
