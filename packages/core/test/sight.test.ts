import reference from './reference-sight.json';
import { cornersOf, project, workOutSight, type Px, type SeenPhoto, type Sight, type SightSet, type Vec } from '../src/index.js';

type Truth = { focal: number; cameras: { photo: string; at: Vec }[]; lines: { line: string; start: Vec; end: Vec; length: number; d: number }[] };
const sets = reference.sets as unknown as (SightSet & { truth: Truth })[];
const solved = (set: SightSet): Sight => {
  const found = workOutSight(set);
  if ('refused' in found) throw new Error(found.refused);
  return found;
};
const off = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const quantile = (values: readonly number[], p: number): number => [...values].sort((a, b) => a - b)[Math.floor(p * (values.length - 1))]!;

/** How far a solution is from the truth, turned about the upright until the cameras fit. */
function missOf(found: Sight, truth: Truth) {
  const at = new Map(truth.cameras.map((c) => [c.photo, c.at]));
  const [c, s] = found.cameras.reduce(
    (sum, { photo, at: [x, y] }) => {
      const t = at.get(photo)!;
      return [sum[0]! + x * t[0] + y * t[1], sum[1]! + x * t[1] - y * t[0]];
    },
    [0, 0],
  ) as [number, number];
  const turn = Math.atan2(s, c);
  const turned = ([x, y, z]: Vec): Vec => [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn), z];
  const of = (line: string) => truth.lines.find((l) => l.line === line)!;
  const way = (a: Vec, b: Vec): Vec => b.map((v, i) => (v - a[i]!) / off(a, b)) as unknown as Vec;
  return {
    cameras: found.cameras.map((x) => off(turned(x.at), at.get(x.photo)!)),
    angle: found.lines.map((l) => {
      const [a, b] = [way(turned(l.start), turned(l.end)), way(of(l.line).start, of(l.line).end)];
      return (Math.acos(Math.min(1, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])) * 180) / Math.PI;
    }),
    length: found.lines.map((l) => Math.abs(l.length / of(l.line).length - 1)),
    start: found.lines.map((l) => off(turned(l.start), of(l.line).start)),
    d: found.lines.flatMap((l) => (l.d === null ? [] : Math.abs(l.d / of(l.line).d - 1))),
    told: found.lines.map((l) => l.sd.angleDeg),
  };
}

test.each(sets.map((s, i) => [i + 1, s] as const))('made-up photos, set %i: cameras and lines as near to the truth as its noise lets them', (_, set) => {
  const found = solved(set);
  expect([found.left, found.without, found.notes]).toEqual([[], [], []]);
  expect(found.rmsPx).toBeLessThan(0.4);
  expect(Math.abs(found.focal / set.truth.focal - 1)).toBeLessThan(0.01);
  const miss = missOf(found, set.truth);
  expect(Math.max(...miss.cameras)).toBeLessThan(8);
  for (const [values, median, ninth] of [
    [miss.angle, 1.5, 4],
    [miss.length, 0.02, 0.07],
    [miss.start, 6, 10],
    [miss.d, 0.07, 0.2],
  ] as const)
    expect([quantile(values, 0.5) < median, quantile(values, 0.9) < ninth]).toEqual([true, true]);
  // What is told of how well a line is known is neither too proud nor too shy.
  const times = miss.angle.map((a, i) => a / miss.told[i]!);
  expect(quantile(times, 0.5)).toBeGreaterThan(0.4);
  expect(quantile(times, 0.5)).toBeLessThan(1.6);
  expect([found.lines[0]!.line, off(found.lines[0]!.start, [0, 0, 0])]).toEqual(['trunk', 0]);
});

const [first] = sets as [SightSet & { truth: Truth }];
const withPhotos = (photos: readonly SeenPhoto[]): SightSet => ({ ...first, photos });
const inPhotos = (names: readonly string[], change: (p: SeenPhoto) => SeenPhoto): SightSet =>
  withPhotos(first.photos.map((p) => (names.includes(p.photo) ? change(p) : p)));
const stillRight = (found: Sight): void => {
  const miss = missOf(found, first.truth);
  expect([Math.max(...miss.cameras) < 12, quantile(miss.angle, 0.5) < 1.6]).toEqual([true, true]);
};

test('a card that was moved meanwhile is named with its photos and left out there', () => {
  const known = solved(first);
  const sees = (p: SeenPhoto, card: number): boolean => p.cards.length > 3 && p.cards.some((c) => c.card === card);
  const where = first.photos.filter((p) => sees(p, 2)).map((p) => p.photo).slice(-2); // prettier-ignore
  expect(where).toHaveLength(2);
  const moved = inPhotos(where, (p) => {
    const { camera } = known.cameras.find((c) => c.photo === p.photo)!;
    const corners = cornersOf({ x: 150, y: -190, turn: 1.1 }, first.cardSide).map(([x, y]) => project(camera, [x, y, -70])!);
    return { ...p, cards: p.cards.map((c) => (c.card === 2 ? { ...c, corners: corners as unknown as typeof c.corners } : c)) };
  });
  const found = solved(moved);
  expect(found.notes).toContain(`Card 2 lies elsewhere in ${where.join(', ')}: it was moved, and is left out there.`);
  stillRight(found);
});

test('what does not belong is left out with why: a mirrored photo, one of other cards, one without; a wrong focal length does no harm', () => {
  const mirrored = inPhotos(['p3'], (p) => ({
    ...p,
    cards: p.cards.map((c) => ({ ...c, corners: c.corners.map(([x, y]): Px => [p.width - x, y]) as unknown as typeof c.corners })),
  }));
  const others = inPhotos(['p5'], (p) => ({ ...p, cards: p.cards.map((c, i, all) => ({ ...c, card: all[(i + 1) % all.length]!.card })) }));
  for (const [set, photo, why] of [
    [mirrored, 'p3', /mirrored/],
    [others, 'p5', /lie otherwise/],
    [inPhotos(['p7'], (p) => ({ ...p, cards: [] })), 'p7', /No card was found/],
    [inPhotos(['p7'], (p) => ({ ...p, cards: p.cards.slice(0, 1) })), 'p7', /Only one card/],
  ] as const) {
    const found = solved(set);
    expect(found.left).toEqual([{ photo, found: false, why: expect.stringMatching(why) }]);
    stillRight(found);
  }
  const wrong = solved(withPhotos(first.photos.map((p) => ({ ...p, focalGuess: 1.5 * p.focalGuess }))));
  expect(Math.abs(wrong.focal / first.truth.focal - 1)).toBeLessThan(0.02);
  stillRight(wrong);
  expect(workOutSight(withPhotos(first.photos.slice(0, 1)))).toMatchObject({ refused: expect.stringMatching(/Two photos/) });
  expect(workOutSight(withPhotos(first.photos.map((p) => ({ ...p, cards: [] }))))).toMatchObject({ refused: expect.any(String), left: { length: 14 } });
});

test('photos from one side, two cards only, a line of another branch: said, never a wrong tree', () => {
  const near = solved(withPhotos(first.photos.filter((p) => ['p1', 'p2', 'p3'].includes(p.photo))));
  expect(near.notes.join(' ')).toMatch(/from one side/);
  expect(near.without.length).toBeGreaterThan(0);
  for (const { why } of near.without) expect(why).toMatch(/^(It is drawn|The photos it is drawn in|Its drawings).*\.$|second one\.$/);
  const two = withPhotos(first.photos.map((p) => ({ ...p, cards: p.cards.filter((c) => c.card < 2) })));
  const pair = solved(two);
  expect(pair.cameras.length).toBeGreaterThan(5);
  expect(quantile(missOf(pair, first.truth).angle, 0.5)).toBeLessThan(2.5);
  // The line of one branch in a photo is another's.
  const [branch, other] = ['b3', 'b5'];
  const photo = first.drawn.find((d) => d.line === branch && first.drawn.some((o) => o.line === other && o.photo === d.photo))!.photo;
  const wrong = first.drawn.map((d) =>
    d.line === branch && d.photo === photo ? { ...first.drawn.find((o) => o.line === other && o.photo === photo)!, line: branch } : d,
  );
  const found = solved({ ...first, drawn: wrong });
  expect(found.notes).toContain(`${branch}: In ${photo} it does not lie where the other photos have it: it is left out there. Another branch?`);
  stillRight(found);
  // In two photos that show different branches the sight lines do not meet.
  const twice = [
    first.drawn.find((d) => d.line === 'b3' && d.photo === photo)!,
    { ...first.drawn.find((d) => d.line === 'b9' && d.photo !== photo)!, line: 'b3' },
  ];
  const apart = solved({ ...first, drawn: [...first.drawn.filter((d) => d.line === 'trunk'), ...twice] });
  expect([...apart.notes, ...apart.without.map((w) => w.why)].join(' ')).toMatch(/mm off|do not meet|from another/);
});
