import { applyAct, blankTree, dayOf, isRefused, MOST_SIGHT_PHOTOS, PRINTED_SIDE, type Act, type Tree } from '../src/index.js';

const ON = '2026-05-01';
const outcome = (tree: Tree, of: object) => applyAct(tree, { id: 'a1', on: ON, ...of } as Act, dayOf(ON));
const done = (tree: Tree, of: object): Tree => {
  const found = outcome(tree, of);
  if (isRefused(found)) throw new Error(found.refused[0]!.message);
  return found.tree;
};
const refused = (tree: Tree, of: object): [field: string, code: string] => {
  const found = outcome(tree, of);
  if (!isRefused(found)) throw new Error('It was done.');
  return [found.refused[0]!.field, found.refused[0]!.code];
};
const photo = (id: string) => ({ photo: id, width: 1200, height: 900, focalGuess: 900, cards: [] });
const blank = blankTree('Curlew', 'larch');
const points: [number, number][] = [
  [600, 700],
  [610, 500],
  [605, 200],
];

test('photos come in one by one, each once; the first says when, and how large the cards are until that is told', () => {
  const one = done(blank, { kind: 'add-photo', of: photo('p1') });
  expect(one.sight).toEqual({ on: ON, cardSide: PRINTED_SIDE, photos: [photo('p1')], drawn: [] });
  const two = done(one, { kind: 'add-photo', of: photo('p2') });
  expect(two.sight!.photos.map((p) => p.photo)).toEqual(['p1', 'p2']);
  expect(refused(two, { kind: 'add-photo', of: photo('p1') })).toEqual(['of', 'duplicate']);
  const full = { ...one, sight: { ...one.sight!, photos: Array.from({ length: MOST_SIGHT_PHOTOS }, (_, i) => photo(`q${i}`)) } };
  expect(refused(full, { kind: 'add-photo', of: photo('p1') })).toEqual(['of', 'limit']);
});

test('a line is drawn over a photo, drawn anew in its place, taken away; over a photo that is none of the tree’s it is refused', () => {
  const tree = done(done(blank, { kind: 'add-photo', of: photo('p1') }), { kind: 'add-photo', of: photo('p2') });
  const line = { kind: 'draw-line', line: 'trunk', photo: 'p1' };
  const drawn = done(done(tree, { ...line, points }), { ...line, photo: 'p2', points, widths: [[0.1, 40]] });
  expect(drawn.sight!.drawn).toEqual([
    { line: 'trunk', photo: 'p1', points },
    { line: 'trunk', photo: 'p2', points, widths: [[0.1, 40]] },
  ]);
  const anew = done(drawn, { ...line, points: points.slice(0, 2) });
  expect(anew.sight!.drawn.filter((d) => d.photo === 'p1')).toEqual([{ line: 'trunk', photo: 'p1', points: points.slice(0, 2) }]);
  expect(done(anew, { ...line, points: null }).sight!.drawn.map((d) => d.photo)).toEqual(['p2']);
  expect(refused(tree, { ...line, photo: 'p9', points })).toEqual(['photo', 'not-found']);
  expect(refused(blank, { ...line, points })).toEqual(['photo', 'not-found']);
  // Nothing of the tree itself moves by it.
  expect([drawn.trunk, drawn.branches]).toEqual([blank.trunk, blank.branches]);
});
