import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import jpeg from 'jpeg-js';
import { cornersOf, depthOf, generateTree, lengthOf, pointAt, project, type Px, type SeenPhoto } from '@ustle/core';
import { focalGuessOf } from '../src/focal.js';
import { cardsRound, LAID_SIDE, photographOf } from '../src/simulated/index.js';
import { loadVision, type Picture } from '../src/vision.js';

const SIZE = { width: 1200, height: 900 };
const tree = generateTree({ seed: 77, name: 'Dunlin', species: 'larch', height: 420, base: 44, swing: 0.06, primaries: 8, secondaries: 0 });
const { picture, camera, placed } = photographOf(tree, { bearing: 30, downDeg: 40, cards: true }, SIZE);
const laid = cardsRound(tree.pot, LAID_SIDE);
/** As a phone keeps it, and as it is read again. */
const kept = jpeg.encode({ ...picture, data: Buffer.from(picture.data) }, 90).data;
const again: Picture = jpeg.decode(kept, { useTArray: true });

/** Where a card's corners are in the picture; null where one of them is beside it. */
const truthOf = (card: number): Px[] | null => {
  const seen = cornersOf(laid.get(card)!, LAID_SIDE).map(([x, y]) => project(camera, [x, y, -tree.pot.height])!);
  return seen.every(([x, y]) => x > 4 && y > 4 && x < SIZE.width - 4 && y < SIZE.height - 4) ? seen : null;
};
const expectFound = (cards: SeenPhoto['cards']): void => {
  const inSight = [...laid.keys()].filter(truthOf);
  // Behind trunk and pot one may be hidden; none is seen that is not there.
  expect(cards.length).toBeGreaterThanOrEqual(inSight.length - 1);
  for (const { card, corners } of cards) {
    const truth = truthOf(card)!;
    // By number and by corner: each is where it was, from its own upper left on.
    corners.forEach(([x, y], i) => expect(Math.hypot(x - truth[i]![0], y - truth[i]![1])).toBeLessThan(1));
  }
};

test('cards that lie as they are printed are found with their corners, clockwise from their own upper left; none where none lies', async () => {
  const vision = await loadVision();
  expectFound(vision.findCards(again));
  const without = photographOf(tree, { bearing: 30, downDeg: 40, cards: false }, { width: 600, height: 450 }).picture;
  expect(vision.findCards(without)).toEqual([]);
});

test('a line between two presses runs along the wood, or as it is known to run; how wide the wood is, is seen at its edges', async () => {
  const vision = await loadVision();
  const found = placed.branches.flatMap(({ line, parentDiameter }) => {
    const from = 0.25 * parentDiameter;
    const spot = (share: number) => pointAt(line, from + share * (lengthOf(line) - from));
    const truth = Array.from({ length: 21 }, (_, i) => project(camera, spot(i / 20).point)!);
    const off = (points: readonly Px[]): number =>
      Math.max(
        ...truth.map(([x, y]) =>
          Math.min(
            ...points.slice(1).map((b, i) => {
              const a = points[i]!;
              const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
              const k = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
              return Math.hypot(x - a[0] - k * dx, y - a[1] - k * dy);
            }),
          ),
        ),
      );
    const [first, last] = [truth[0]!, truth[20]!];
    if (Math.hypot(first[0] - last[0], first[1] - last[1]) < 60) return [];
    const alone = vision.follow(again, first, last);
    // Known from other photos, a few px beside the wood.
    const known = vision.follow(again, first, last, truth.map(([x, y]): Px => [x + 3, y - 2])); // prettier-ignore
    expect([alone.points[0], alone.points.at(-1)]).toEqual([first, last].map((p) => p.map((v) => Math.round(10 * v) / 10)));
    const wide = known.widths.map(([share, px]) => {
      const { point, diameter } = spot(share);
      return px / ((diameter * camera.focal) / depthOf(camera, point)) - 1;
    });
    return [{ alone: off(alone.points), known: off(known.points), wide }];
  });
  const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;
  expect(found.length).toBeGreaterThan(3);
  expect(median(found.map((f) => f.alone))).toBeLessThan(9);
  expect(median(found.map((f) => f.known))).toBeLessThan(6);
  const widths = found.flatMap((f) => f.wide);
  expect(widths.length).toBeGreaterThan(3);
  expect(Math.abs(median(widths))).toBeLessThan(0.25);
});

test('the command line reads photos into what it works out again: cards, sizes, a focal length; what is no photo is named', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-cards-'));
  const file = join(folder, 'one.jpg');
  writeFileSync(file, kept);
  const bin = resolve(__dirname, '../../../apps/cli/bin/ustle.mjs');
  const ustle = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8', timeout: 60_000 });
  const found = ustle('cards', file, '--json');
  expect(found).toMatchObject({ status: 0, stderr: '' });
  const [photo] = JSON.parse(found.stdout) as SeenPhoto[];
  expect(photo).toMatchObject({ photo: 'one.jpg', ...SIZE });
  expect(photo!.focalGuess).toBeCloseTo(focalGuessOf(SIZE, null), 6);
  expectFound(photo!.cards);
  const text = join(folder, 'no.jpg');
  writeFileSync(text, 'not a picture');
  expect(ustle('cards', text)).toMatchObject({ status: 1, stderr: expect.stringMatching(/no photo that can be read/) });
}, 60_000);
