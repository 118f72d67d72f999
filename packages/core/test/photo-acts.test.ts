import {
  applyAct,
  blankTree,
  cameraOf,
  dayOf,
  decided,
  generateTree,
  isRefused,
  MOST_SIGHT_PHOTOS,
  outcomeOf,
  placeTree,
  planOnPhoto,
  posedLines,
  PRINTED_SIDE,
  project,
  proposePoses,
  type Act,
  type Tree,
} from '../src/index.js';

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

test('the plan over a photo: what goes and what is led elsewhere lie where its lens brings them, on the photo nearest to the front', () => {
  const camera = { at: [-20, -900, 250] as [number, number, number], forward: [0, 1, -0.05] as [number, number, number], up: [0, 0, 1] as [number, number, number], focal: 1000, k1: -0.08, centre: [600, 450] as [number, number] }; // prettier-ignore
  const grown = generateTree({ seed: 3, name: 'Any', species: 'larch', height: 420, base: 40, primaries: 5, secondaries: 0 });
  const front = { bearing: 180, pitch: 0, roll: 0 };
  const other = { ...camera, at: [900, 0, 250] as [number, number, number], forward: [-1, 0, 0] as [number, number, number] };
  const sight = {
    on: ON,
    cardSide: 60,
    drawn: [],
    photos: [
      { ...photo('p1'), camera: other },
      { ...photo('p2'), camera },
    ],
  };
  const cut = grown.branches.find((b) => b.parent === 'trunk')!.id;
  const tree = decided({ ...grown, sight, plan: { ...grown.plan, front } }, cut, 'remove');
  const after = placeTree(outcomeOf(tree).tree);
  const { poses } = proposePoses(after);
  const over = planOnPhoto(tree, { poses })!;
  expect([over.photo, over.number]).toEqual(['p2', 2]);
  const starts = (path: string) => [...path.matchAll(/M(-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
  const near = (path: string, at: readonly [number, number]) => Math.min(...starts(path).map(([x, y]) => Math.hypot(x - at[0], y - at[1])));
  const seen = cameraOf(camera);
  const line = placeTree(tree).byId.get(cut)!.line;
  // An outline begins half a thickness beside where its line does.
  const half = (d: number) => (0.5 * d * camera.focal) / 800 + 1;
  expect(starts(over.goes)).toHaveLength(1);
  expect(near(over.goes, project(seen, line.points[0]!)!)).toBeLessThan(half(line.diameters[0]!));
  const lines = posedLines(after, poses);
  for (const p of poses) expect(near(over.meant, project(seen, lines.get(p.branch)!.points[0]!)!)).toBeLessThan(half(lines.get(p.branch)!.diameters[0]!));
  const [left, top, wide, high] = over.box;
  expect([left >= 0, top >= 0, left + wide <= 1200, top + high <= 900]).toEqual([true, true, true, true]);
  expect(planOnPhoto({ ...tree, plan: { ...tree.plan, front: null } }, { poses })).toBeNull();
});
