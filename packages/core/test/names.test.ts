import fc from 'fast-check';
import { dayOf, isoOf, namesOf, sayBranches, shortNamesOf, type Tree } from '../src/index.js';
import { after, anyTree, branch, mirrored, tree } from './trees.js';

const seen = (t: Tree, bearing: number): Tree => ({ ...t, plan: { ...t.plan, front: { bearing, pitch: 0, roll: 0 } } });
const named = (t: Tree): Record<string, string> => Object.fromEntries(t.branches.map((b) => [b.id, namesOf(t)(b.id)]));

test('branches are called by their place as seen from the front, counted from below on each side', () => {
  const t = tree([
    branch('low', { at: 120, bearing: 80 }),
    branch('high', { at: 400, bearing: 100 }),
    branch('west', { at: 200, bearing: 270 }),
    branch('far', { at: 250, bearing: 180 }),
    branch('top', { at: 580, bearing: 90 }),
    branch('shoot', { parent: 'west', at: 60, bearing: 270, elevation: 80 }),
    branch('twig', { parent: 'shoot', at: 30, bearing: 300 }),
    branch('beneath', { parent: 'west', at: 90, bearing: 270, elevation: -80 }),
  ]);
  expect(named(t)).toEqual({
    low: 'first left',
    high: 'second left',
    west: 'first right',
    far: 'back',
    top: 'crown',
    shoot: 'first right, first from the trunk on its upper side',
    twig: 'first right, first from the trunk on its upper side, first twig',
    beneath: 'first right, second from the trunk on its under side',
  });
  // From behind, left is right and the back is in front.
  expect(named(seen(t, 180))).toMatchObject({ low: 'first right', west: 'first left', far: 'front' });
  expect(['low', 'far', 'beneath'].map(shortNamesOf(t))).toEqual(['1 L', 'back', '1 R · 2']);
});

test('no two branches have one name; in the mirror left and right change places, and nothing else', () => {
  const swapped = (name: string): string => name.replace(/left|right/g, (side) => (side === 'left' ? 'right' : 'left'));
  fc.assert(
    fc.property(anyTree, (t) => {
      const names = named(seen(t, 0));
      expect(new Set(Object.values(names)).size).toBe(t.branches.length);
      const there = named(seen(mirrored(t), 0));
      for (const b of t.branches.filter((x) => x.parent === 'trunk')) expect(there[b.id]).toBe(swapped(names[b.id]!));
    }),
    { numRuns: 40 },
  );
});

test('an owner’s name goes before the place; what was cut keeps its name, which nobody else gets for a year; many are told in few words', () => {
  const t = tree([
    branch('a', { bearing: 80, green: 0.2 }),
    branch('b', { at: 300, bearing: 85, name: ' the old one ' }),
    branch('c', { at: 400, bearing: 90 }),
  ]);
  expect(named(t)).toEqual({ a: 'first left', b: 'the old one', c: 'third left' });
  const cut = after(t, { kind: 'decide', branch: 'a', act: 'remove' }, { kind: 'take-off', branches: ['a'] });
  expect([namesOf(cut)('a'), namesOf(cut)('c'), namesOf(cut)('never')]).toEqual(['first left', 'third left', 'never']);
  const { on } = cut.record.at(-1)!;
  const later = (days: number): Tree => after(cut, { kind: 'note', text: 'seen', on: isoOf(dayOf(on) + days) });
  expect([364, 366].map((days) => namesOf(later(days))('c'))).toEqual(['third left', 'second left']);
  // Taken out of the measures, it was never there; an owner's name leaves no place open.
  const unlisted = after(t, { kind: 'unlist', branches: ['a'] });
  expect([namesOf(unlisted)('b'), namesOf(unlisted)('c')]).toEqual(['the old one', 'second left']);
  expect(sayBranches(namesOf(t), ['a'])).toBe('first left');
  expect(sayBranches(namesOf(t), ['a', 'b', 'c'])).toBe('first left, the old one and third left');
  expect(sayBranches((id) => id, ['1', '2', '3', '4', '5'])).toBe('1, 2 and 3 more');
});

test('names do not depend on the order of the file; where two leave at one height the ids decide', () => {
  const twice = [
    branch('n', { at: 200, bearing: 80 }),
    branch('m', { at: 200, bearing: 95 }),
    branch('x2', { parent: 'm', at: 50, bearing: 40, length: 60 }),
    branch('x1', { parent: 'm', at: 50, bearing: 150, length: 60 }),
  ];
  const names = named(tree(twice));
  expect([names.m, names.n]).toEqual(['first left', 'second left']);
  expect([names.x1, names.x2].map((n) => /first left, (first|second) from the trunk/.exec(n!)?.[1])).toEqual(['first', 'second']);
  expect(named(tree([...twice].reverse()))).toEqual(names);
  // Names with a comma in them are told apart by semicolons.
  expect(sayBranches((id) => (id === 'x' ? 'first left, its shoot' : id), ['a', 'x', 'b'])).toBe('a; first left, its shoot and b');
  expect(sayBranches((id) => id, [])).toBe('');
});
