import fc from 'fast-check';
import { applyAct, blankTree, crooked, drawnPoint, drawnTrunk, howKnown, isRefused, placeTree, pulledBranch, type Tree, type Vec } from '../src/index.js';

const trunk = blankTree('Teal', 'larch');
const place = fc.record({ z: fc.double({ min: 40, max: 360, noNaN: true }), turn: fc.double({ min: 0, max: 6.28, noNaN: true }) });
const reach = fc.record({ away: fc.double({ min: 40, max: 260, noNaN: true }), up: fc.double({ min: -120, max: 200, noNaN: true }) });
const off = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const act = (tree: Tree, of: object): Tree => {
  const done = applyAct(tree, { id: 'a1', on: '2026-05-01', ...of } as never, 20600);
  if (isRefused(done)) throw new Error(done.refused[0]!.message);
  return done.tree;
};

test('a branch pulled out of the wood begins where the hand began and ends where it let go, thinner than what it grows on, known as drawn', () => {
  fc.assert(
    fc.property(place, reach, ({ z, turn }, { away, up }) => {
      const at = (r: number, height: number): Vec => [r * Math.sin(turn), r * Math.cos(turn), height];
      const branch = pulledBranch(trunk, 'trunk', at(20, z), at(20 + away, z + up), 'b1');
      const tree = act(trunk, { kind: 'list-branch', branch, after: null });
      const placed = placeTree(tree).byId.get('b1')!;
      expect(Math.abs(branch.at - z)).toBeLessThan(3);
      expect(off(placed.line.points.at(-1)!, at(20 + away, z + up))).toBeLessThan(1.5);
      expect(branch.d).toBeLessThan(placed.parentDiameter);
      expect([howKnown(tree, 'b1').how, tree.branches.length]).toEqual(['drawn', 1]);
    }),
    { numRuns: 60 },
  );
});

test('points moved by eye leave it known as drawn; a figure that is typed is known by ruler from then on', () => {
  const branch = pulledBranch(trunk, 'trunk', [20, 0, 200], [200, 0, 230], 'b1');
  const tree = act(trunk, { kind: 'list-branch', branch, after: null });
  let moved = tree;
  for (let i = 0; i < 3; i++) {
    const now = moved.branches[0]!;
    moved = act(moved, { kind: 'remeasure', branch: 'b1', changes: drawnPoint(now, now.path!.length - 1, [0, 12, -8]) });
  }
  const [was, now] = [placeTree(tree), placeTree(moved)].map((p) => p.byId.get('b1')!.line.points);
  // By 12 mm thrice; its shoulder goes a little round the trunk with it.
  expect([Math.abs(now!.at(-1)![1] - was!.at(-1)![1] - 36) < 4, off(now![0]!, was![0]!) < 6]).toEqual([true, true]);
  expect(howKnown(moved, 'b1')).toMatchObject({ how: 'drawn', deg: 10 });
  const typed = act(moved, { kind: 'remeasure', branch: 'b1', changes: { d: 9.4 } });
  expect(howKnown(typed, 'b1')).toMatchObject({ how: 'drawn', deg: 10 });
  expect(howKnown(typed, 'b1').d).toBeLessThan(0.3);
});

test('what grows on a branch is pulled out of it; the trunk bends by its points, its foot stays', () => {
  const first = pulledBranch(trunk, 'trunk', [20, 0, 200], [240, 0, 220], 'b1');
  const tree = act(trunk, { kind: 'list-branch', branch: crooked(first), after: null });
  const shoot = pulledBranch(tree, 'b1', [140, 0, 212], [170, 80, 240], 'b2');
  expect([shoot.parent, shoot.at > 90 && shoot.at < 150, shoot.d < first.d]).toEqual(['b1', true, true]);
  const bent = drawnTrunk(trunk.trunk, 2, [30, -10, 0]);
  expect([bent[2]!.x, bent[2]!.y, bent[0], bent.length]).toEqual([30, -10, trunk.trunk[0], trunk.trunk.length]);
  expect(drawnTrunk(trunk.trunk, 0, [30, 0, 0])).toEqual(trunk.trunk);
});
