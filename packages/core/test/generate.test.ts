import fc from 'fast-check';
import {
  allSpecies,
  FAULTS,
  findingsOf,
  formOf,
  FORMS,
  generateTree,
  largeTree,
  measureFaults,
  placeTree,
  sizeAtAge,
  stemsOf,
  type Branch,
  type Fault,
  type Growing,
  type Rule,
} from '../src/index.js';
import { branch, tree } from './trees.js';

const anyGrowing = fc.record({
  seed: fc.nat(1_000_000),
  species: fc.constantFrom(...allSpecies().map((s) => s.key)),
  age: fc.integer({ min: 3, max: 200 }),
  faults: fc.subarray([...FAULTS]),
  secondaries: fc.integer({ min: 0, max: 4 }),
  form: fc.constantFrom(...FORMS),
});

test('a made-up tree of any species, age and faults is one that could be measured, the same for the same seed', () => {
  fc.assert(
    fc.property(anyGrowing, ({ age, ...growing }) => {
      const grow = () => generateTree({ ...growing, name: 'Made up', ...sizeAtAge(growing.species, age) });
      const tree = grow();
      expect(measureFaults(tree).filter((f) => f.wrong)).toEqual([]);
      expect(tree.branches.reduce((sum, b) => sum + b.green, 0)).toBeLessThanOrEqual(1.0005);
      expect(tree.branches.every((b) => b.state !== 'dead' || b.green === 0)).toBe(true);
      expect(new Set(tree.branches.map((b) => b.id)).size).toBe(tree.branches.length);
      const placed = placeTree(tree);
      expect(placed.height).toBe(Math.max(...tree.trunk.map((s) => s.z)));
      for (const b of placed.branches) expect(b.line.points.flat().every(Number.isFinite)).toBe(true);
      expect(formOf(tree)).toBe(growing.form);
      // What hangs past the rim hangs clear of the table that the pot stands on.
      expect(Math.min(...tree.trunk.map((s) => s.z))).toBeGreaterThan(-tree.pot.height);
      expect(grow()).toEqual(tree);
    }),
    { numRuns: 60 },
  );
});

test('older is larger, in every species', () => {
  for (const { key } of allSpecies()) {
    const sizes = [3, 8, 15, 30, 60, 120].map((age) => sizeAtAge(key, age));
    sizes.forEach((s, i) => {
      if (!i) return;
      expect(s.base).toBeGreaterThanOrEqual(sizes[i - 1]!.base);
      expect(s.height).toBeGreaterThanOrEqual(sizes[i - 1]!.height);
      expect(s.primaries).toBeGreaterThanOrEqual(sizes[i - 1]!.primaries);
    });
  }
});

test.each<[Fault, Rule]>([
  ['bar', 'bar'],
  ['whorl', 'whorl'],
  ['dead', 'dead'],
  ['blind', 'blind'],
  ['hanging', 'hanging'],
])('the fault "%s" is what the findings call %s', (fault, rule) => {
  // A branch wavers as it grows, so that not every one meant to face another does.
  const found = [1, 2, 3, 4, 5].filter((seed) => {
    const grown = generateTree({ seed, name: 'Faulty', species: 'larch', height: 600, base: 50, primaries: 7, secondaries: 3, faults: [fault] });
    return findingsOf(placeTree(grown), null).some((f) => f.rule === rule);
  });
  expect(found.length).toBeGreaterThanOrEqual(3);
});

test('a tree for measuring speed has as many branches as asked', () => {
  expect([75, 300, 1000].map((n) => largeTree(n, 3).branches.length)).toEqual([75, 300, 1000]);
});

test('what is a stem and what a branch is told at the very limits', () => {
  // The trunk is 600 mm high and 50 mm thick at its foot.
  const stem = (own: Partial<Branch>): Branch => branch('s', { at: 48, elevation: 50, d: 22.5, length: 240, ...own });
  const others = [branch('t', { at: 10, elevation: 60, d: 17.5, length: 100, bearing: 200 }), branch('u', { parent: 's', at: 20, elevation: 80, d: 20 })];
  const form = (...branches: Branch[]) => [formOf(tree(branches)), [...stemsOf(tree(branches))].join()];
  expect(form(stem({}))).toEqual(['twin', 's']);
  for (const own of [{ at: 48.1 }, { elevation: 49.9 }, { d: 22.4 }, { length: 239 }, { parent: 'u' }]) expect(form(stem(own))).toEqual(['upright', '']);
  // Of several, thinner and shorter ones are stems as well; what grows on one of them is none.
  expect(form(stem({ d: 17.5, length: 100 }), ...others)).toEqual(['clump', 's,t']);
  expect(form(stem({ d: 17.4 }), ...others)).toEqual(['upright', '']);
});

// What somebody practised on is found again by its seed, in every version: the pot's width, the trunk's tip, and a branch of it.
test.each<[string, Partial<Growing>, (number | string)[]]>([
  [
    'an upright',
    { faults: ['bar', 'whorl', 'dead', 'blind', 'hanging'], lean: 0.1, leanBearing: 40 },
    [10, 260.4, 18.7, 46.6, 420, 'b10', 'b1', 101.5, 96.6, 50.7, 0.077],
  ],
  ['a cascade', { form: 'cascade', leanBearing: 200 }, [6, 126, -94.7, -165.7, -132.7, 'b6', 'b5', 18.7, 197.8, 15.6, 0.041]],
])('a seed makes %s that stays the same', (_, own, expected) => {
  const { pot, trunk, branches } = generateTree({ seed: 7, name: 'Seeded', species: 'larch', height: 420, base: 36, primaries: 3, secondaries: 1, ...own });
  const [tip, last] = [trunk[trunk.length - 1]!, branches[branches.length - 1]!];
  expect([branches.length, pot.width, tip.x, tip.y, tip.z, last.id, last.parent, last.at, last.bearing, last.length, last.green]).toEqual(expected);
});
