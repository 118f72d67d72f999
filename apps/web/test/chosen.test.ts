import type { TreeSummary } from '@ustle/contract';
import { chosen } from '../src/bench/chosen';

const tree = (name: string, own: Partial<TreeSummary> = {}): TreeSummary =>
  ({ id: name, name, species: 'larch', coils: 0, next: null, trouble: null, ...own }) as TreeSummary;
const next = (kind: string, on: string, title: string): Partial<TreeSummary> => ({ next: { kind, on, title } as TreeSummary['next'] });

const TREES = [
  tree('Tree 10', { coils: 2, ...next('look', '2026-05-21', 'first left: look at the wire') }),
  tree('Tree 2', { species: 'Trident maple', ...next('plan', '2026-05-20', 'choose the front') }),
  tree('Anchor', { coils: 1, ...next('look', '2026-07-01', 'back: look at the wire') }),
];
const found = (address: Record<string, string>): string[] => chosen(TREES, { get: (key) => address[key] ?? null }, '2026-05-20').map((t) => t.name);

test('a tree is found by words of its name, kind and task; some are shown, in the order asked for, and numbers in names count', () => {
  expect(found({})).toEqual(['Tree 10', 'Tree 2', 'Anchor']);
  expect(found({ order: 'name' })).toEqual(['Anchor', 'Tree 2', 'Tree 10']);
  expect(found({ order: 'kind' })).toEqual(['Anchor', 'Tree 10', 'Tree 2']);
  expect([found({ find: 'WIRE look' }), found({ find: 'maple' }), found({ find: 'tree wire' }), found({ find: 'nothing' })]).toEqual([
    ['Tree 10', 'Anchor'],
    ['Tree 2'],
    ['Tree 10'],
    [],
  ]);
  expect([found({ show: 'week' }), found({ show: 'wire', order: 'name' }), found({ show: 'plan' })]).toEqual([['Tree 10'], ['Anchor', 'Tree 10'], ['Tree 2']]);
});
