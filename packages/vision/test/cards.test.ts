import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import jpeg from 'jpeg-js';
import { CARD_FIELDS, cornersOf, isWhite, project, rayAt, type Camera, type LaidCard, type Px, type SeenPhoto, type Vec } from '@ustle/core';
import { focalGuessOf } from '../src/focal.js';
import { loadVision, type Picture } from '../src/vision.js';

const SIDE = 60;
const [WIDTH, HEIGHT] = [1000, 750];
const CARDS: Record<number, LaidCard> = {
  0: { x: 0, y: 130, turn: 0.3 },
  3: { x: -140, y: 20, turn: 2 },
  7: { x: 120, y: -60, turn: -1.2 },
  11: { x: 10, y: -150, turn: 4 },
};

/** A camera at a place (mm) that looks at the middle of the cards. */
function lookingFrom(at: Vec): Camera {
  const length = Math.hypot(...at);
  const forward = at.map((v) => -v / length) as unknown as Vec;
  const side = Math.hypot(forward[0], forward[1]);
  const right: Vec = [forward[1] / side, -forward[0] / side, 0];
  const down: Vec = [
    forward[1] * right[2] - forward[2] * right[1],
    forward[2] * right[0] - forward[0] * right[2],
    forward[0] * right[1] - forward[1] * right[0],
  ];
  return { at, right, down, forward, focal: 900, k1: 0.02, centre: [WIDTH / 2, HEIGHT / 2] };
}

/** How light the bench is at a place, by the cards that lie on it on white paper. */
function lightAt(x: number, y: number): number {
  for (const [card, { x: cx, y: cy, turn }] of Object.entries(CARDS)) {
    const [dx, dy] = [x - cx, y - cy];
    const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), dy * Math.cos(turn) - dx * Math.sin(turn)].map((p) => p / SIDE + 0.5) as [number, number];
    if (u < -0.2 || u > 1.2 || v < -0.2 || v > 1.2) continue;
    const [row, column] = [Math.floor((1 - v) * CARD_FIELDS), Math.floor(u * CARD_FIELDS)];
    if (row < 0 || column < 0 || row >= CARD_FIELDS || column >= CARD_FIELDS) return 235;
    return isWhite(Number(card), row, column) ? 235 : 25;
  }
  return 130 + 20 * Math.sin(x / 9) * Math.cos(y / 7);
}

function taken(camera: Camera): Picture {
  const data = new Uint8Array(4 * WIDTH * HEIGHT).fill(255);
  const FINE = [0.17, 0.5, 0.83];
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      let sum = 0;
      for (const a of FINE)
        for (const b of FINE) {
          const way = rayAt(camera, [x + a, y + b]);
          const k = -camera.at[2] / way[2];
          sum += way[2] < -0.01 ? lightAt(camera.at[0] + k * way[0], camera.at[1] + k * way[1]) : 200;
        }
      data.fill(Math.round(sum / 9), 4 * (y * WIDTH + x), 4 * (y * WIDTH + x) + 3);
    }
  return { width: WIDTH, height: HEIGHT, data };
}

const camera = lookingFrom([250, 420, 380]);
const picture = taken(camera);
const expectFound = (cards: SeenPhoto['cards']): void => {
  expect(cards.map((c) => c.card)).toEqual([0, 3, 7, 11]);
  for (const { card, corners } of cards)
    cornersOf(CARDS[card]!, SIDE).forEach(([x, y], i) => {
      const [px, py] = project(camera, [x, y, 0])!;
      // By number and by corner: each is where it was, from its own upper left on.
      expect(Math.hypot(corners[i]![0] - px, corners[i]![1] - py)).toBeLessThan(0.6);
    });
};

test('cards that lie as they are printed are found with their corners, clockwise from their own upper left', async () => {
  const vision = await loadVision();
  expectFound(vision.findCards(picture));
  const blank = { ...picture, data: new Uint8Array(picture.data.length).fill(200) };
  expect(vision.findCards(blank)).toEqual([]);
});

test('the command line reads photos into what it works out again: cards, sizes, a focal length; what is no photo is named', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-cards-'));
  const file = join(folder, 'one.jpg');
  writeFileSync(file, jpeg.encode({ ...picture, data: Buffer.from(picture.data) }, 95).data);
  const bin = resolve(__dirname, '../../../apps/cli/bin/ustle.mjs');
  const ustle = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8', timeout: 60_000 });
  const found = ustle('cards', file, '--json');
  expect(found).toMatchObject({ status: 0, stderr: '' });
  const [photo] = JSON.parse(found.stdout) as SeenPhoto[];
  expect(photo).toMatchObject({ photo: 'one.jpg', width: WIDTH, height: HEIGHT });
  expect(photo!.focalGuess).toBeCloseTo(focalGuessOf(picture, null), 6);
  expectFound(photo!.cards as unknown as { card: number; corners: [Px, Px, Px, Px] }[]);
  const text = join(folder, 'no.jpg');
  writeFileSync(text, 'not a picture');
  expect(ustle('cards', text)).toMatchObject({ status: 1, stderr: expect.stringMatching(/no photo that can be read/) });
}, 60_000);
