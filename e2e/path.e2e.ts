import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ask } from '../apps/server/test/server';
import { idOf, open, press, pressWhere, says, sceneReady, stored, text, there, visit, write, type App } from './app';
import { loadStudio } from './load-studio';

let app: App;
beforeAll(async () => {
  app = await open(4700, 'nothing');
});
afterAll(() => app.close());

const upload = async (path: string): Promise<void> => {
  const input = await app.page.waitForSelector('input[type=file]');
  await (input as unknown as { uploadFile: (p: string) => Promise<void> }).uploadFile(path);
};

/** Share of the middle of the scene that is not the ground's colour, and its mean colour: the tree is really drawn. */
const drawn = (): Promise<{ share: number; hash: number }> =>
  app.page.evaluate(() => {
    const canvas = document.querySelector('canvas')!;
    const copy = document.createElement('canvas');
    copy.width = 200;
    copy.height = 160;
    const pen = copy.getContext('2d')!;
    pen.drawImage(canvas, 0, 0, 200, 160);
    const { data } = pen.getImageData(0, 0, 200, 160);
    let other = 0;
    let hash = 0;
    for (let i = 0; i < data.length; i += 4) {
      if (Math.abs(data[i]! - data[0]!) + Math.abs(data[i + 1]! - data[1]!) + Math.abs(data[i + 2]! - data[2]!) > 40) other++;
      hash = (hash * 31 + data[i]! + data[i + 1]! * 3 + data[i + 2]! * 7) >>> 0;
    }
    return { share: other / (data.length / 4), hash };
  });

test('an empty bench shows how to begin; a faulty file is refused with its places', async () => {
  const { page } = app;
  await visit(app, '/');
  await says(page, /No tree on the bench yet/);
  expect(page.url()).toMatch(/\/bench$/);
  const bad = JSON.parse(readFileSync(resolve(__dirname, '../demo/trees/gannet.ustle.json'), 'utf8'));
  bad.branches[2].d = -5;
  bad.branches[4].parent = 'nobody';
  delete bad.pot;
  const file = join(mkdtempSync(join(tmpdir(), 'ustle-bad-')), 'bad.json');
  writeFileSync(file, JSON.stringify(bad));
  await upload(file);
  await says(page, /was not taken in.*Nothing was stored.*\/pot.*\/branches\/2\/d/);
  await press(page, 'Close');
  expect((await ask(app.server.address, 'GET', '/api/trees')).body).toEqual([]);
});

test('a fresh tree: from its file to the front, the removals, the wire and the first look', async () => {
  const { page } = app;
  await visit(app, '/');
  await upload(resolve(__dirname, '../demo/trees/old-ferry.ustle.json'));
  await sceneReady(page);
  await says(page, /Movement.*Trunk in sight/);
  expect((await drawn()).share).toBeGreaterThan(0.1);

  // Turn by key and by dragging: the place is kept in the address, and the picture is another.
  const before = await drawn();
  const table = await there(page, '[role=application]');
  await table.focus();
  const from = Number(await table.evaluate((e) => e.getAttribute('data-bearing')));
  await page.keyboard.press('ArrowRight');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('bearing') === String((b + 3) % 360), {}, from);
  const box = (await table.boundingBox())!;
  await page.mouse.move(box.x + 200, box.y + 150);
  await page.mouse.down();
  await page.mouse.move(box.x + 320, box.y + 150, { steps: 5 });
  await page.mouse.up();
  await page.waitForFunction((b) => Math.abs(Number(new URLSearchParams(location.search).get('bearing')) - ((b + 53) % 360)) <= 2, {}, from);
  expect((await drawn()).hash).not.toBe(before.hash);

  // Choose the best front; it is stored.
  await press(page, 'A ');
  await press(page, 'Choose A');
  await says(page, /This is the front/);
  const front = (await stored(app, 'Old Ferry')).tree.plan.front;
  expect(front.bearing).toBe(Number(new URL(page.url()).searchParams.get('bearing')));

  // Findings, decided by keys; the tally adds up and undo takes back.
  await page.keyboard.press('4');
  await says(page, /What to remove.*Green coming off.*0% of at most 45%/i);
  await page.keyboard.press('l');
  await page.keyboard.press('x');
  await says(page, /take off/);
  const cut = (await stored(app, 'Old Ferry')).tree;
  expect(cut.plan.decisions).toHaveLength(1);
  const gone = cut.branches.filter((b: { id: string; parent: string }) => [b.id, b.parent].includes(cut.plan.decisions[0].branch));
  const percent = Math.round(gone.reduce((sum: number, b: { green: number }) => sum + b.green, 0) * 100);
  await says(page, new RegExp(`${percent}% of at most 45%`));
  await press(page, 'Undo');
  await says(page, /0% of at most/);
  await press(page, 'Redo');
  await says(page, new RegExp(`${percent}% of at most`));
  await page.keyboard.press('l');
  await page.keyboard.press('r');
  await says(page, /reserve/);

  // Wire one branch; the coil is drawn.
  await page.keyboard.press('6');
  await says(page, /pieces for \d+ branches/);
  const [first, called] = await page.evaluate(() => {
    const rows = [...document.querySelectorAll<HTMLElement>('aside li > button[data-run]')];
    const row = rows.find((r) => !r.querySelector('strong')!.innerText.includes(' and '))!;
    return [row.dataset.branch!, row.querySelector('strong')!.innerText];
  });
  await (await there(page, `aside li > button[data-branch="${first}"]`)).evaluate((row) => (row as HTMLElement).click());
  await says(page, /settle it as it is.*It is on .*Otherwise than planned/);
  await pressWhere(page, 'aside summary', /bent to about \d+°/);
  await says(page, /Bend to about \d+°.*Rules of thumb/);
  const unwired = await drawn();
  await pressWhere(page, 'aside summary', /^Otherwise than planned/);
  await write(page, 'form input[data-date]', '18 April 2026');
  await press(page, `It is on ${called}`);
  await page.waitForFunction((b) => !document.querySelector('form') && document.body.innerText.includes(`${b} carries wire`), {}, called!);
  await page.waitForFunction(() => document.querySelectorAll('canvas').length === 1);
  expect((await drawn()).hash).not.toBe(unwired.hash);
  expect((await stored(app, 'Old Ferry')).tree.record).toMatchObject([{ kind: 'wired', branch: first!, on: '2026-04-18', gap: 0, wrap: 'none' }]);

  // Watch: the race, a look, and the forecast moves.
  await page.keyboard.press('9');
  await says(page, /one coil is on.*Touching.*Marking.*Set/);
  const marks = async (): Promise<string> => /Marking\s+([^\n]+)/.exec(await text(page))![1]!;
  const expected = await marks();
  await press(page, 'marking');
  await says(page, /seen marking/i);
  await page.waitForFunction((was) => !document.body.innerText.includes(was), {}, expected);
  await says(page, /take it off/i);

  // It comes off.
  await press(page, 'It came off');
  await press(page, 'Cut off');
  await says(page, /No wire is on this tree/);

  // After a reload all is there.
  await visit(app);
  await says(page, /wire cut off/);
  expect(app.errors).toEqual([]);
});

test('the demo studio: the bench by what is due, a look that moves the siblings, the season and its calendar', async () => {
  const { page } = app;
  loadStudio(app.server.address);
  await visit(app, '/bench');
  await says(page, /Lantern.*Squall.*Gannet/);
  await press(page, 'Squall');
  await sceneReady(page);
  await says(page, /[5-7] coils are on/);
  const squall = await idOf(app, 'Squall');
  const wires = async () => (await ask(app.server.address, 'GET', `/api/trees/${squall}/plan`)).body.wires as { branch: string; marking: { p50: string } }[];
  const before = await wires();
  await (await there(page, 'aside li:last-child > button[data-branch]')).evaluate((row) => (row as HTMLElement).click());
  await says(page, /chance, in percent/);
  await press(page, 'marking');
  await says(page, /seen marking/);
  const after = await wires();
  const moved = before.filter((w) => after.find((x) => x.branch === w.branch)!.marking.p50 < w.marking.p50);
  expect(moved.length).toBeGreaterThan(1);

  // The ribbon: another day is shown, and kept in the address.
  const ribbon = await there(page, '[role=slider]');
  await ribbon.focus();
  await page.keyboard.press('PageUp');
  await page.waitForFunction(() => new URLSearchParams(location.search).has('day'));

  await press(page, 'Season');
  await says(page, /This week.*Squall.*take the wire off/i);
  const href = await (await there(page, 'a[download]')).evaluate((a) => (a as HTMLAnchorElement).href);
  expect((await ask(href, 'GET', '')).body).toMatch(/^BEGIN:VCALENDAR/);

  // Lamplight, and a page that is not there.
  await press(page, 'Lamp');
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe('lamp');
  await visit(app, '/nowhere');
  await says(page, /nothing at this address/i);
  expect(app.errors).toEqual([]);
});
