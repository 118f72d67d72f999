import { METALS, namesOf, rollLength, sayLength, sayRoute, saySize, sayStock, type Stock } from '@ustle/core';
import { branch, tree } from '../../../packages/core/test/trees';
import { sayAnchor } from '../src/stages/guy/words';
import { nearestSize, soldSizes } from '../src/shared/wire-words';

test('sizes as they are sold, each metal by its own, and the gauge with copper', () => {
  expect(saySize('copper', 2.05)).toMatch(/^2\.[01] mm, gauge 12$/);
  expect(saySize('aluminium', 2.5)).toBe('2.5 mm');
  for (const metal of METALS)
    for (const size of soldSizes(metal)) {
      expect(nearestSize(metal, size + 0.01)).toBe(size);
      expect(saySize(metal, size).includes('gauge')).toBe(metal === 'copper');
      expect(rollLength(metal, size)).toBeGreaterThan(1000);
    }
});

test('lengths and stock in words', () => {
  expect([sayLength(999.4), sayLength(1000), sayLength(41_260)]).toEqual(['999 mm', '1.0 m', '41.3 m']);
  const stock = { form: 'roll', origin: 'bought', since: '2026-03-12', left: 41_260 } as Stock;
  expect(sayStock(stock)).toBe('the roll of 12 March 2026, 41.3 m left');
  expect(sayStock({ ...stock, form: 'offcut', left: 640 })).toBe('an offcut of 640 mm');
  expect(sayStock({ ...stock, form: 'offcut', origin: 'straightened', left: 640 })).toBe('a straightened piece of 640 mm');
});

test('what holds a piece, and what a tie is tied to, by the names of the tree', () => {
  const t = tree([branch('a', { bearing: 90 }), branch('b', { bearing: 270, at: 300 })]);
  const names = namesOf(t);
  const run = (own: object) => ({ id: 'w1', branches: [{ branch: 'a' }], route: { side: 'behind', turnDeg: 540, length: 90 }, ...own }) as never;
  expect(sayRoute(run({ kind: 'pair' }), names)).toBe('1.5 turns round the back from shoulder to shoulder, 90 mm');
  expect(sayRoute(run({ kind: 'anchored', anchor: { run: 'w2', turns: 2, beside: 'a' } }), names)).toBe(
    `anchored by 2.0 turns beside the wire of ${names('a')}`,
  );
  expect(sayRoute(run({ kind: 'single', anchor: { run: null, turns: 1.3 } }), names)).toBe('anchored by 1.3 turns of its own round the limb');
  expect(sayRoute(run({ kind: 'trunk', anchor: { run: null, turns: 0, soil: 48 } }), names)).toMatch(/pushed 48 mm down into the soil/);
  expect(sayAnchor({ kind: 'branch', branch: 'b', at: 40 }, names)).toBe(`${names('b')}, 40 mm out, padded`);
  for (const kind of ['pot-hole', 'pot-rim', 'root', 'trunk', 'screw', 'jin'])
    expect(sayAnchor({ kind, index: 0, at: 10, bearing: 90, branch: 'a' }, names)).not.toMatch(/undefined|NaN/);
});
