import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { validateBytes } from 'gltf-validator';
import sharp from 'sharp';
import type { ElementHandle, KeyInput, Page } from 'puppeteer-core';
import { start } from '../apps/server/test/server';
import { actElsewhere, enter, idOf, open, press, says, stored, tabTo, text, there, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4830);
});
afterAll(() => app.close());

interface Line {
  id: string;
  kind: string;
  on: string;
  branch?: string;
  answer?: string;
  step?: string;
  metal?: string;
  crack?: string;
  session?: string;
  minutes?: number;
  photo?: string;
}
const lines = async (name: string): Promise<Line[]> => (await stored(app, name)).tree.record;
const worked = async (name: string): Promise<Line[]> => (await lines(name)).filter((l) => l.kind === 'worked');
const title = (page: Page): Promise<string> => page.$eval('article[aria-label]', (e) => e.getAttribute('aria-label')!);

/** A step takes answers once it has stood for a moment. */
const SETTLED = 'article[aria-label][data-settled="1"]';

/** Answers the step at hand with a key, and waits until another one is. */
async function answer(page: Page, key: KeyInput): Promise<void> {
  await page.waitForSelector(SETTLED);
  const before = await title(page);
  await page.keyboard.press(key);
  await anotherStep(page, before);
}
/** Waits until another step is at hand; if none comes, tells what the page says instead. */
async function anotherStep(page: Page, than: string): Promise<void> {
  try {
    await page.waitForFunction((t) => document.querySelector('article[aria-label]')?.getAttribute('aria-label') !== t, { polling: 50, timeout: 40_000 }, than);
  } catch {
    throw new Error(`Still at "${than}":\n${await text(page)}`);
  }
}
/** Goes on as planned until a step is at hand whose title begins so. */
async function upTo(page: Page, begins: RegExp): Promise<void> {
  for (let i = 0; !begins.test(await title(page)); i++) {
    if (i > 60) throw new Error(`No step ${begins}; at hand is ${await title(page)}`);
    await answer(page, 'd');
  }
}

test('a tree from its plan through a whole session by keyboard: a piece that ran out, a crack, a mind changed, a server cut off, another device', async () => {
  const { page } = app;
  const id = await idOf(app, 'Lantern');
  await visit(app, `/tree/${id}/work`);
  await says(page, /3 cuts, \d+ pieces of wire.*What is only proposed counts too/);
  await write(page, 'xpath/.//aside//label[starts-with(normalize-space(), "Time there is")]/following::input[1]', '0');
  await says(page, /Time there is: between 0.25 and 24 hours; not 0/);
  // Nothing begins with the old value in place of the wrong one: the field has the focus instead, with what was typed.
  await press(page, 'Begin the session');
  expect(await page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('0');
  expect((await lines('Lantern')).some((l) => l.kind === 'session')).toBe(false);
  await write(page, 'xpath/.//aside//label[starts-with(normalize-space(), "Time there is")]/following::input[1]', '3');
  await write(page, 'xpath/.//aside//label[starts-with(normalize-space(), "Who works")]//input', 'Robin');
  await enter(app, 'Begin the session');
  await until(app, 'Lantern', (v) => v.tree.record.some((l: Line) => l.kind === 'session'));
  await says(page, /Step 1 of \d+.*begun 20 May 2026 by Robin.*shelter and tools/i);

  // A step answered, by two strokes as wet hands make them: the second one answers nothing. Then the server is gone before the next.
  await page.waitForSelector(SETTLED);
  const begun = await title(page);
  await page.keyboard.press('d');
  await page.keyboard.press('d');
  await anotherStep(page, begun);
  expect(await title(page)).toMatch(/^Clear/);
  await app.server.kill();
  await answer(page, 'd');
  expect(await title(page)).toMatch(/^Cut 1/);
  app.server = await start(app.folder, 4830);
  await until(app, 'Lantern', (v) => v.tree.record.filter((l: Line) => l.kind === 'worked').length === 2);
  await visit(app);
  await says(page, /Step 3 of \d+.*Cut 1: /);
  const branches = (await stored(app, 'Lantern')).tree.branches.length;
  await answer(page, 'd');
  await until(app, 'Lantern', (v) => v.tree.branches.length < branches);

  // On another device the same session is at the same step; what is answered there is not asked here, and nothing is done twice.
  const other = await app.browser.newPage();
  await other.setViewport({ width: 800, height: 700, deviceScaleFactor: 0.4 });
  await other.goto(`${app.server.address}/tree/${id}/work`, { waitUntil: 'domcontentloaded' });
  await other.waitForSelector('article[aria-label]', { timeout: 60_000 });
  expect(await title(other)).toBe(await title(page));
  const step = await title(page);
  await other.bringToFront();
  await answer(other, 'd');
  await until(app, 'Lantern', (v) => v.tree.record.filter((l: Line) => l.kind === 'worked').length === 4);
  await other.close();
  await page.bringToFront();
  if ((await title(page)) === step) await page.keyboard.press('d');
  await anotherStep(page, step);
  expect((await worked('Lantern')).map((l) => l.step)).toHaveLength(new Set((await worked('Lantern')).map((l) => l.step)).size);

  // The wire ran out: another one is taken, and the piece goes on with it.
  await upTo(page, /^Wire /);
  await says(page, /copper, \d+ mm, at 45° to the branch.*(Cut it from the roll|There is no .* on the rack)/);
  await page.keyboard.press('w');
  await there(page, 'dialog[aria-label="The wire ran out"] li button');
  const instead = await page.$eval('dialog li button', (e) => e.textContent!);
  await page.keyboard.press('Enter');
  await until(app, 'Lantern', (v) => v.tree.record.some((l: Line) => l.kind === 'worked' && l.answer === 'ran-out'));
  await page.waitForFunction(() => !document.querySelector('dialog[open]'));
  await says(page, new RegExp(`${/(aluminium|copper)/.exec(instead)![1]}, (\\d side by side, )?\\d+ mm`));
  await answer(page, 'd');
  const put = (await lines('Lantern')).findLast((l) => l.kind === 'wired')!;
  expect(instead).toContain(put.metal);

  // It cracked across: what to do now is said, the record keeps it, and that branch is bent no further.
  await upTo(page, /^Bend /);
  // Otherwise, with an angle that no branch bends to: said beside the field, held back with what was typed, and nothing noted.
  const answered = (await worked('Lantern')).length;
  await page.keyboard.press('o');
  const bentTo = 'xpath/.//dialog//label[starts-with(normalize-space(), "Bent to")]/following::input[1]';
  await write(page, bentTo, '400');
  await says(page, /Bent to, by hand: .*not 400/);
  await press(page, 'So it was done');
  expect(await page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('400');
  expect((await worked('Lantern')).length).toBe(answered);
  await page.keyboard.press('Escape');
  await page.waitForFunction(() => !document.querySelector('dialog[open]'));
  await page.keyboard.press('x');
  await enter(app, 'Across it');
  await says(page, /what lies beyond may die/);
  await enter(app, 'Note the crack');
  await until(app, 'Lantern', (v) => v.tree.record.some((l: Line) => l.kind === 'bent' && l.crack === 'across'));
  const cracked = (await lines('Lantern')).find((l) => l.crack === 'across')!.branch!;

  // Changed my mind about a branch: the plan is changed where that is done, and the session says what it touches.
  await upTo(page, /^Place /);
  await page.keyboard.press('m');
  await there(page, 'dialog[aria-label="Changed my mind"]');
  await press(page, 'Whether ');
  await page.waitForFunction(() => location.pathname.endsWith('/remove'));
  const about = new URL(page.url()).searchParams.get('branch')!;
  expect(about).not.toBe(cracked);
  await page.waitForSelector('[data-ready="1"]');
  await page.keyboard.press('x');
  await until(app, 'Lantern', (v) => v.tree.plan.decisions.some((d: { branch: string; act: string }) => d.branch === about && d.act === 'remove'));
  await page.keyboard.press('8');
  await says(page, /Wire that went on in this session is on wood that now goes/);
  expect(await text(page)).toMatch(/Cut \d+: /);
  await page.goBack();
  await page.goForward();
  await says(page, /is on wood that now goes/);
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await page.waitForFunction(() => !/on wood that now goes/.test(document.body.innerText), { timeout: 40_000, polling: 50 });

  await upTo(page, /^Aftercare/);
  await says(page, /Leave it alone: .*for 6 weeks.*The next styling/);
  await enter(app, 'Promise: the next styling');
  await until(app, 'Lantern', (v) => v.tree.record.some((l: Line) => l.kind === 'promised'));
  await page.waitForSelector(SETTLED);
  await page.keyboard.press('d');
  await says(page, /All is done/);
  await enter(app, 'Close the session');
  await says(page, /let alone until 1 July 2026/);
  const all = await lines('Lantern');
  expect(all.filter((l) => l.kind === 'bent' && l.branch === cracked).length).toBe(1);
  expect(all.filter((l) => l.kind === 'wired' && l.on === '2026-05-20').length).toBeGreaterThan(2);

  // The promise is in Season, in its month.
  await visit(app, '/season');
  await says(page, /Lantern.*the next styling, as promised/);
  expect(app.errors.filter((e) => !/failed: .*\/api\//.test(e))).toEqual([]);
}, 300_000);

test('the report as its owner reads it, the record redrawn on an earlier day beside its photo, and files that leave', async () => {
  const { page } = app;
  const id = await idOf(app, 'Old Ferry');
  const [first, second] = (await stored(app, 'Old Ferry')).tree.branches.filter((b: { parent: string }) => b.parent === 'trunk');
  const on = '2026-05-20';
  for (const act of [
    { kind: 'decide', branch: first.id, act: 'remove' },
    { kind: 'session', session: 's1', done: 'begun', by: 'Robin' },
    { kind: 'worked', session: 's1', step: 'cut', title: 'The cut', answer: 'done', minutes: 70, did: [{ kind: 'take-off', on, branches: [first.id] }] },
    { kind: 'worked', session: 's1', step: 'bend', title: 'The bend', answer: 'cracked', did: [{ kind: 'bent', on, branch: second.id, crack: 'along' }] },
    { kind: 'promised', what: 'feed', from: '2026-07-01' },
    { kind: 'session', session: 's1', done: 'closed' },
  ])
    await actElsewhere(app, 'Old Ferry', act as never);
  await visit(app, `/tree/${id}/report`);
  await says(
    page,
    /Old Ferry: what was done.*20 May 2026.*It cracked.*By\s+Robin.*Time\s+1 h 10 min.*Cuts\s+1.*How to keep it now.*What comes next.*[Ff]eed it, from 1 July 2026/,
  );
  const pdf = Buffer.from(await (await fetch(`${app.server.address}/api/trees/${id}/papers/report.pdf`)).arrayBuffer());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');

  // A photo from a file: refused with a sentence where it is none, kept where it is one.
  await visit(app, `/tree/${id}/record`);
  const folder = mkdtempSync(join(tmpdir(), 'ustle-photos-'));
  const [bad, good] = [join(folder, 'tree.png'), join(folder, 'before.jpg')];
  writeFileSync(bad, '<svg xmlns="http://www.w3.org/2000/svg"/>');
  await sharp({ create: { width: 300, height: 400, channels: 3, background: '#8a6' } })
    .jpeg()
    .toFile(good);
  await page.$eval('summary', (e) => e.click());
  const input = async (file: string): Promise<void> => (await page.$('input[type=file]'))!.uploadFile(file) as unknown as Promise<void>;
  await input(bad);
  await says(page, /tree\.png: This is no photo: JPEG, PNG and WebP are taken/);
  await press(page, 'let it go');
  await input(good);
  await until(app, 'Old Ferry', (v) => v.tree.record.some((l: Line) => l.kind === 'photo' && l.photo));
  await press(page, 'lay it over the tree');
  await there(page, 'img[alt="The chosen photo, over the tree"]');
  await visit(app);
  await there(page, 'img[alt="The chosen photo, over the tree"]');
  await press(page, 'Take it off');

  // The camera beside the turning table goes all round it.
  await press(page, 'All round, 8 pictures');
  const shots = ({ tree }: { tree: { record: (Line & { bearing?: number })[] } }): number[] =>
    tree.record.flatMap((l) => (l.kind === 'photo' && l.bearing !== undefined ? [l.bearing] : []));
  await until(app, 'Old Ferry', (v) => shots(v).join() === '0,45,90,135,180,225,270,315');

  // Filtered by kind, and an earlier day drawn: what was cut since is on the tree again.
  await press(page, 'cuts');
  await page.waitForFunction(() => !/seen touching|press test/.test(document.querySelector('ol[aria-label="Record"]')!.textContent!), { polling: 50 });
  await tabTo(app, 'and before the cuts');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => /19 May 2026/.test(document.querySelector('section[aria-label="The tree on that day"]')!.textContent!), { polling: 50 });
  expect(new URL(page.url()).searchParams.get('day')).toBe('2026-05-19');

  // The tree in three dimensions, as another program reads it.
  await visit(app, `/tree/${id}/work`);
  const client = await page.createCDPSession();
  await client.send('Page.setDownloadBehavior' as never, { behavior: 'allow', downloadPath: folder } as never);
  await press(page, 'About it');
  await press(page, 'The tree with its wire in 3D');
  await press(page, 'The plan drawn (SVG)');
  await press(page, 'What the table shows (PNG)');
  const made = ['old-ferry.glb', 'old-ferry-plan.svg', 'old-ferry.png'];
  for (const end = Date.now() + 40_000; !made.every((f) => readdirSync(folder).includes(f)); await new Promise((done) => setTimeout(done, 100)))
    if (Date.now() > end) throw new Error(`Only ${readdirSync(folder).join()}`);
  const { issues } = await validateBytes(new Uint8Array(readFileSync(join(folder, 'old-ferry.glb'))));
  expect(issues.numErrors).toBe(0);
  expect(readFileSync(join(folder, 'old-ferry-plan.svg'), 'utf8')).toMatch(/^<svg .*<\/svg>\s*$/s);
  expect((await sharp(join(folder, 'old-ferry.png')).metadata()).width).toBeGreaterThan(200);
}, 120_000);

test('a whole studio goes to an empty installation by hand; a file that is none is refused with a sentence', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-moved-'));
  const [zip, no] = [join(folder, 'studio.zip'), join(folder, 'no.zip')];
  writeFileSync(zip, Buffer.from(await (await fetch(`${app.server.address}/api/studio`)).arrayBuffer()));
  writeFileSync(no, 'not a studio');
  const moved = await open(4835, 'nothing');
  try {
    await visit(moved, '/bench');
    await says(moved.page, /No tree on the bench yet/);
    const input = await there(moved.page, 'input[aria-label="The file of a studio"]');
    await (input as ElementHandle<HTMLInputElement>).uploadFile(no);
    await says(moved.page, /not the file of a studio, or it is damaged/);
    await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
    await says(moved.page, /(?=.*Lantern)(?=.*Perseverance)/);
    expect((await stored(moved, 'Old Ferry')).tree).toEqual((await stored(app, 'Old Ferry')).tree);
  } finally {
    await moved.close();
  }
});

test('on the phone, by touch, the page opens again without a network and what is answered then arrives', async () => {
  const { page } = app;
  await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 0.5, hasTouch: true, isMobile: true });
  // Who leaves while answers wait is asked; here they mean it.
  page.on('dialog', (asked) => void asked.accept());
  const id = await idOf(app, 'Squall');
  await visit(app, `/tree/${id}/work`);
  await press(page, 'Begin the session');
  await page.waitForSelector('article[aria-label]');
  // Nothing stands out at the side, and every answer is large enough for a thumb.
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  const heights = await page.$$eval('[aria-label="How it went"] .btn:not(.btn-sm)', (all) => all.map((e) => e.getBoundingClientRect().height));
  expect(Math.min(...heights)).toBeGreaterThanOrEqual(44);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => true));
  // Once under the worker's hand, so that what the session needs is kept.
  await visit(app);
  await page.waitForSelector('article[aria-label]');
  await app.server.kill();
  await page.reload({ waitUntil: 'domcontentloaded' });
  await page.waitForSelector('article[aria-label]', { timeout: 60_000 });
  await page.waitForSelector(SETTLED);
  const before = await title(page);
  await (await there(page, 'xpath/.//button[normalize-space()="Done as planned"]')).tap();
  await page.waitForFunction((t) => document.querySelector('article[aria-label]')?.getAttribute('aria-label') !== t, { polling: 50 }, before);
  await page.reload({ waitUntil: 'domcontentloaded' });
  await page.waitForSelector('article[aria-label]', { timeout: 60_000 });
  expect(await title(page)).not.toBe(before);
  app.server = await start(app.folder, 4830);
  await until(app, 'Squall', (v) => v.tree.record.filter((l: Line) => l.kind === 'worked').length === 1);
}, 150_000);
