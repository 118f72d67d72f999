import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { asItStands, dayOf, generateTree, lengthOf, placeTree, pointAt, project, turnDeg, type Camera, type Limb, type Px, type Tree } from '@ustle/core';
import { photographOf } from '@ustle/vision/simulated';
import { focus, idOf, open, press, pressWhere, says, sceneReady, stored, there, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4775);
});
afterAll(() => app.close());

/** Presses at a place of the photo that is open, px of the photo. */
async function pressAt([x, y]: Px): Promise<void> {
  const lie = await app.page.evaluate(() => {
    const box = document.querySelector<HTMLElement>('[data-photo]')!;
    const { left, top } = box.querySelector('img')!.getBoundingClientRect();
    return { left, top, scale: Number(box.dataset.scale) };
  });
  await app.page.mouse.click(lie.left + x * lie.scale, lie.top + y * lie.scale);
}

const lookAt = async (number: number): Promise<void> => {
  await app.page.waitForFunction(
    (n) => {
      const all = [...document.querySelectorAll<HTMLElement>('[aria-label^="Photos, round"] button')];
      const found = all.find((b) => new RegExp(`^Photo ${n}(?!\\d)`).test(b.textContent!));
      if (found?.ariaPressed !== 'true') found?.click();
      return found?.ariaPressed === 'true';
    },
    {},
    number,
  );
};

const drawnIn = (line: string, count: number) => (view: { tree: Tree }) => view.tree.sight!.drawn.filter((d) => d.line === line).length === count;

/** Where a share of a branch is seen by a camera, from its parent's bark on. */
const seenAt = (camera: Camera, line: Limb, from: number, share: number): Px => project(camera, pointAt(line, from + share * (lengthOf(line) - from)).point)!;

const SIZE = { width: 1000, height: 750 };

/** Pictures of a tree as files, one from each stand. */
async function filesOf(subject: Tree, stands: readonly { bearing: number; downDeg: number; cards: boolean }[]): Promise<{ file: string; camera: Camera }[]> {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-photos-'));
  return Promise.all(
    stands.map(async (stand, i) => {
      const { picture, camera } = photographOf(subject, stand, SIZE);
      const file = join(folder, `round ${i + 1}.jpg`);
      await sharp(Buffer.from(picture.data.buffer), { raw: { ...SIZE, channels: 4 } }).removeAlpha().jpeg().toFile(file); // prettier-ignore
      return { file, camera };
    }),
  );
}
const bring = async (files: readonly string[]): Promise<void> => {
  const input = (await there(app.page, 'input[aria-label="Photos to measure by"]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(...files);
};

test('a branch of a tree that is being measured by photos: two presses in each of two photos, and it stands in space; the tree takes it, and is seen on its photos', async () => {
  const { page } = app;
  const id = await idOf(app, 'Levanter');
  const { tree } = (await stored(app, 'Levanter')) as { tree: Tree };
  const on = tree.record.find((l) => l.kind === 'photo')!.on;
  const standing = asItStands(tree, dayOf(on));
  const shots = [1, 7].map((number) => ({
    number,
    ...photographOf(standing, { bearing: (number - 1) * 45, downDeg: 12, cards: true }, { width: 1200, height: 900 }),
  }));
  const { placed } = shots[0]!;
  const drawn = new Set(tree.sight!.drawn.map((d) => d.line));
  const [chosen] = placed.branches.filter((b) => b.order === 1 && !drawn.has(b.branch.id)).sort((a, b) => lengthOf(b.line) - lengthOf(a.line));
  await visit(app, `/tree/${id}/measure?measures=photographs`);
  await says(page, /8 photos stand in space, their corners within 0\.\d px/);
  await page.select('aside select', chosen!.branch.id);
  for (const [i, { number, camera }] of shots.entries()) {
    await lookAt(number);
    await pressAt(seenAt(camera, chosen!.line, 0.2 * chosen!.parentDiameter, 0));
    await pressAt(seenAt(camera, chosen!.line, 0.2 * chosen!.parentDiameter, 1));
    await until(app, 'Levanter', drawnIn(chosen!.branch.id, i + 1));
  }
  await says(page, /\d+ ± \d+ mm long, at −?\d+ ± \d+°/);
  // A press away from what is drawn begins the next branch; where it is drawn in the other photo, a ring shows its shoulder there.
  const [further] = placed.branches.filter((b) => b.order === 1 && !drawn.has(b.branch.id) && b !== chosen);
  const place = (i: number, share: number): Px => seenAt(shots[i]!.camera, further!.line, 0.2 * further!.parentDiameter, share);
  await pressAt(place(1, 0));
  await says(page, /New branch \d+: press its tip.*not this one/i);
  await press(page, 'not this one');
  await says(page, /where it strays press beside it/);
  await pressAt(place(1, 0));
  await pressAt(place(1, 1));
  await says(page, /New branch \d+\s*drawn in one photo/i);
  await lookAt(1);
  await page.waitForSelector('circle[data-waits]');
  await pressAt(place(0, 1));
  await says(page, /New branch \d+\s*\d+ ± \d+ mm long/i);
  await press(page, 'take its drawings away');
  await press(page, 'Measure the tree by them');
  await says(page, /The tree is measured by them/);
  const now = ((await stored(app, 'Levanter')) as { tree: Tree }).tree.branches.find((b) => b.id === chosen!.branch.id)!;
  expect(now.known?.how).toBe('photographs');
  expect([Math.abs(turnDeg(now.bearing, chosen!.branch.bearing)) < 6, Math.abs(now.elevation - chosen!.branch.elevation) < 6]).toEqual([true, true]);
  // From then on it is seen on them; turning goes from photo to photo.
  for (const stage of ['remove', 'wire', 'work']) {
    await visit(app, `/tree/${id}/${stage}?bearing=10`);
    await press(page, 'on the photo');
    await page.waitForSelector('[data-on-photo]');
    const first = await page.$eval('[data-on-photo]', (e) => (e as HTMLElement).dataset.onPhoto);
    await focus(page, '[role="application"]');
    for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowRight');
    await page.waitForFunction((was) => document.querySelector<HTMLElement>('[data-on-photo]')!.dataset.onPhoto !== was, {}, first);
    await sceneReady(page);
    await press(page, 'off the photo');
  }
  await visit(app, `/tree/${id}/proposal`);
  await says(page, /On the photo/);
  await page.waitForSelector('[aria-label^="Photo"] svg image');
  await page.goBack();
  // What was taken in is taken back in one step.
  await press(page, 'Undo');
  await until(app, 'Levanter', (v) => v.tree.branches.find((b: { id: string }) => b.id === chosen!.branch.id).known?.how !== 'photographs');
  expect(app.errors).toEqual([]);
});

test('a new tree by photos: what is none is said by its name, the trunk is drawn by keyboard alone, and a reload in the middle loses nothing', async () => {
  const { page } = app;
  const subject = generateTree({ seed: 4, name: 'Knot', species: 'larch', height: 400, base: 42, primaries: 4, secondaries: 0 });
  const placed = placeTree(subject);
  const shots = await filesOf(subject, [0, 90, 200, 290].map((bearing) => ({ bearing, downDeg: 25, cards: true }))); // prettier-ignore
  const folder = mkdtempSync(join(tmpdir(), 'ustle-photos-'));
  const [heic, text] = [join(folder, 'IMG_1.heic'), join(folder, 'list.jpg')];
  writeFileSync(heic, Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'));
  writeFileSync(text, 'no picture');
  await visit(app, '/new?by=photos');
  await write(page, 'input[name="name"]', 'Knot');
  await page.keyboard.type('larch');
  await press(page, 'Bring photos in');
  await bring([heic, ...shots.map((shot) => shot.file), text]);
  await says(page, /4 photos stand in space/);
  await says(page, /IMG_1\.heic: HEIC pictures are not read.*list\.jpg: It is no picture that can be read/);
  // The cross by the arrow keys, one place after the other.
  const { camera } = shots[0]!;
  const steps = async (from: Px, to: Px): Promise<void> => {
    const scale = await page.$eval('[data-photo]', (e) => Number((e as HTMLElement).dataset.scale));
    for (const [k, less, more] of [
      [0, 'ArrowLeft', 'ArrowRight'],
      [1, 'ArrowUp', 'ArrowDown'],
    ] as const) {
      const times = Math.round(((to[k] - from[k]) * scale) / 6);
      for (let i = 0; i < Math.abs(times); i++) await page.keyboard.press(times < 0 ? less : more);
    }
    await page.keyboard.press('Enter');
  };
  await lookAt(1);
  await focus(page, '[data-photo]');
  const [foot, top] = [seenAt(camera, placed.trunk, 0, 0), seenAt(camera, placed.trunk, 0, 1)];
  await steps([500, 375], foot);
  await says(page, /Trunk: press its top/);
  await steps(foot, top);
  await until(app, 'Knot', drawnIn('trunk', 1));
  await visit(app);
  await says(page, /Trunk\s*drawn in one photo/);
  await lookAt(2);
  await pressAt(seenAt(shots[1]!.camera, placed.trunk, 0, 0));
  await pressAt(seenAt(shots[1]!.camera, placed.trunk, 0, 1));
  await says(page, /Trunk\s*\d+ ± \d+ mm long/);
  await press(page, 'Measure the tree by them');
  await until(app, 'Knot', ({ tree }) => tree.trunkKnown?.how === 'photographs' && Math.abs(tree.trunk.at(-1).z / 400 - 1) < 0.06);
  // A photo that is in the way is taken out, with what was drawn on it.
  await pressWhere(page, 'button', /^take its drawings away$/);
  await until(app, 'Knot', drawnIn('trunk', 0));
  expect(app.errors).toEqual([]);
});

test('one photo without a card: the pot’s width is marked, and what is drawn lies in its plane, known no better than by eye', async () => {
  const { page } = app;
  const subject = generateTree({ seed: 4, name: 'Knot', species: 'larch', height: 400, base: 42, primaries: 4, secondaries: 0 });
  const [{ file, camera }] = (await filesOf(subject, [{ bearing: 0, downDeg: 2, cards: false }])) as [{ file: string; camera: Camera }];
  await visit(app, '/new?by=photos');
  await write(page, 'input[name="name"]', 'Stint');
  await page.keyboard.type('larch');
  await press(page, 'Bring photos in');
  await bring([file]);
  await says(page, /No cards are found in them.*mark the pot’s width/);
  await press(page, 'Mark the pot’s width');
  await says(page, /Pot, from rim to rim: press its left rim/);
  const half = subject.pot.width / 2;
  await pressAt(project(camera, [half, 0, 0])!);
  await says(page, /press its right rim/);
  await pressAt(project(camera, [-half, 0, 0])!);
  await says(page, /One photo stands by the pot’s width.*lines lie in its plane/);
  await pressWhere(page, 'aside li button', /^Trunk/);
  const placed = placeTree(subject);
  await pressAt(seenAt(camera, placed.trunk, 0, 0));
  await pressAt(seenAt(camera, placed.trunk, 0, 1));
  await says(page, /Trunk\s*\d+ ± \d+ mm long/);
  await press(page, 'Measure the tree by them');
  await until(app, 'Stint', ({ tree }) => tree.trunkKnown?.how === 'drawn' && tree.trunk.at(-1).z > 100);
  expect(app.errors).toEqual([]);
});

test('on a phone: lines by the finger, foliage from the photos, and a new round that keeps the one before', async () => {
  const { page } = app;
  const id = await idOf(app, 'Levanter');
  // On a page of its own: to become a phone is to be loaded anew.
  await visit(app, '/bench');
  await page.goto('about:blank');
  await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 1, hasTouch: true, isMobile: true });
  await visit(app, `/tree/${id}/measure?measures=photographs&line=trunk`);
  await says(page, /8 photos stand in space/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  // A finger beside the trunk's line, on the wood: it is led through there.
  await lookAt(4);
  const drawn = (): Promise<string> => page.$eval('polyline[data-drawn="trunk"]', (e) => e.getAttribute('points')!);
  const before = await drawn();
  const count = before.split(' ').length;
  const [x, y] = before.split(' ')[3]!.split(',').map(Number) as [number, number];
  const box = (await (await there(page, '[data-photo]')).boundingBox())!;
  await page.touchscreen.tap(box.x + x + 14, box.y + y + 9);
  await until(app, 'Levanter', ({ tree }) =>
    tree.sight.drawn.some((d: { line: string; points: unknown[] }) => d.line === 'trunk' && d.points.length === count + 1),
  );
  await press(page, 'Undo');
  await page.waitForFunction((was) => document.querySelector('polyline[data-drawn="trunk"]')?.getAttribute('points') === was, {}, before);
  await press(page, 'Measure the tree by them');
  await says(page, /The tree is measured by them/);
  await press(page, 'Foliage from the photos');
  await says(page, /Found: [\d.]+% of it is the crown/);
  const { tree } = (await stored(app, 'Levanter')) as { tree: Tree };
  expect(tree.branches.reduce((sum, b) => sum + b.green, 0)).toBeLessThanOrEqual(1);
  expect(tree.branches.filter((b) => b.green > 0).length).toBeGreaterThan(10);
  // Later: the photos of now are kept, and new ones wait to be brought to them.
  await press(page, 'photograph it again');
  await says(page, /A new round: the photos of .* are kept/);
  const files = await filesOf(tree, [20, 110, 200, 290].map((bearing) => ({ bearing, downDeg: 25, cards: true }))); // prettier-ignore
  await bring(files.map((f) => f.file));
  await says(page, /Draw the trunk and three branches or more/);
  await until(app, 'Levanter', ({ tree: t }) => t.sight.photos.length === 4 && t.sight.earlier.length === 1 && t.sight.earlier[0].photos.length === 8);
  expect(app.errors).toEqual([]);
});
