import { dayOf, generateTree, layOut, planTree } from '../src/index.js';

const ON = dayOf('2026-10-10');

test('what Wire says of the pieces that the tree bears is what a session with time enough is laid out with', () => {
  let later = 0;
  for (let seed = 0; seed < 8; seed++) {
    const made = generateTree({
      seed: 40 + seed,
      name: 'Any',
      species: 'hornbeam-korean',
      height: 500,
      base: seed < 4 ? 46 : 70,
      primaries: 7,
      secondaries: 2,
      faults: [],
    });
    const tree = { ...made, vigour: seed % 2 ? ('weak' as const) : ('normal' as const) };
    const plan = planTree(tree, ON, { fronts: false });
    const tied = new Set(plan.guys.map((g) => g.branch));
    const laid = layOut(tree, plan, ON, { hours: 24 });
    const left = laid.left.flatMap((l) => l.steps).flatMap((s) => (s.kind === 'wire' && !s.branches.some((b) => tied.has(b)) ? s.of! : []));
    const said = plan.coverage.later.filter((id) => !plan.runs.find((r) => r.id === id)!.branches.some((b) => tied.has(b.branch)));
    expect(left).toEqual(said);
    later += said.length;
  }
  expect(later).toBeGreaterThan(3);
});
