import type { HTTPRequest } from 'puppeteer-core';
import { actElsewhere, fill, idOf, open, press, pressWhere, says, sceneReady, stored, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4850);
});
afterAll(() => app.close());

/** Whether anything on the page is wider than the page itself. */
const overflows = (): Promise<boolean> => app.page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth + 1);

test("a client's tree waits for their word: refused, agreed, cut", async () => {
  const { page } = app;
  const id = await idOf(app, 'Gannet');
  await visit(app, `/tree/${id}/remove?sheet=cut`);
  await says(page, /belongs to The net loft.*Nothing is cut before it is agreed; open: \w+/);
  const before = (await stored(app, 'Gannet')).tree;
  await pressWhere(page, 'aside ol button', /^Cut$/);
  await says(page, /note first who agreed to cut \w+/);
  expect((await stored(app, 'Gannet')).tree).toEqual(before);
  await press(page, 'I see');
  await visit(app, `/tree/${id}/remove?sheet=cut`);
  await says(page, /Who agreed/);
  await fill(page, 'aside form input.w-40', 'their steward');
  await press(page, 'Note it');
  await says(page, /their steward agreed on 20 May 2026/);
  await pressWhere(page, 'aside ol button', /^Cut$/);
  await until(app, 'Gannet', (v) => v.tree.branches.length === before.branches.length - 1);
  expect((await stored(app, 'Gannet')).tree.record.slice(before.record.length).map((e: { kind: string }) => e.kind)).toEqual(['agreed', 'removed']);
});

test('what is over the budget is left for a later session, and is due on its day', async () => {
  const { page } = app;
  const id = await idOf(app, 'Squall');
  for (const branch of ['b1', 'b5', 'b9', 'b13', 'b17']) {
    await actElsewhere(app, 'Squall', { kind: 'decide', branch, act: 'remove' });
  }
  await visit(app, `/tree/${id}/remove?sheet=outcome`);
  await says(page, /More than one session.*Now.*From \d+ \w+ 20\d\d/);
  // Wire that would lose its branch is named.
  await says(page, /What would be lost.*would lose the branch/);
  await press(page, 'Leave them for then');
  await until(app, 'Squall', (v) => v.tree.plan.decisions.some((d: { session?: number; until?: string }) => d.session === 2 && d.until));
  await page.waitForFunction(() => !document.body.innerText.includes('More than one session'));
  await visit(app, '/season');
  await says(page, /Squall\s+.*: cut, as left for now/);
});

test('on the phone: the bench, a coil looked at, the list of cuts; nothing runs off the side', async () => {
  const { page } = app;
  await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 0.5 });
  await visit(app, '/bench');
  await says(page, /Lantern.*Squall/);
  expect(await overflows()).toBe(false);
  await press(page, 'Lantern');
  await sceneReady(page);
  await says(page, /coils are on/);
  expect(await overflows()).toBe(false);
  await pressWhere(page, 'aside li > button[data-branch]', /./);
  await says(page, /Touching.*Marking.*Set/);
  await press(page, 'clear');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'inspected');
  await visit(app, `/tree/${await idOf(app, 'Lantern')}/cuts`);
  await says(page, /what to cut.*1\s+\w+.*Mind yourself/);
  expect(await overflows()).toBe(false);
  for (const target of await page.$$('ol button')) {
    const box = (await target.boundingBox())!;
    expect([box.width >= 44, box.height >= 44]).toEqual([true, true]);
  }
  await page.setViewport({ width: 1280, height: 800, deviceScaleFactor: 0.5 });
});

test('a gap is shown on the tree, a finding draws what it saw, the plumb line and grid come and go', async () => {
  const { page } = app;
  const id = await idOf(app, 'Lantern');
  await visit(app, `/tree/${id}/remove?sheet=outcome`);
  await says(page, /Gaps, and who could fill them.*mm wide/);
  await pressWhere(page, 'aside li > button', /mm wide/);
  await page.waitForFunction(() => [...document.querySelectorAll('[role=application] button')].some((b) => /mm wide/.test(b.textContent!)));
  await visit(app, `/tree/${id}/remove?branch=b37`);
  await page.waitForFunction(() => [...document.querySelectorAll('[role=application] button')].some((b) => b.textContent === 'bar'));
  await press(page, 'plumb line and cm grid');
  await says(page, /without the grid/);
  expect(new URL(page.url()).searchParams.get('plumb')).toBe('1');
});

test('a page is not left over a change that is still on its way', async () => {
  const { page } = app;
  await visit(app, `/tree/${await idOf(app, 'Lantern')}/front`);
  await says(page, /Keep open.*Leave it open/);
  let release: () => void = () => undefined;
  const held = new Promise<void>((done) => (release = done));
  await page.setRequestInterception(true);
  const holdWrites = (request: HTTPRequest): void => void (request.method() === 'POST' ? held : Promise.resolve()).then(() => request.continue());
  page.on('request', holdWrites);
  const asked = new Promise<string>((done) => page.once('dialog', (dialog) => void dialog.dismiss().then(() => done(dialog.type()))));
  await page.click('::-p-text(Keep open)');
  await page.click('::-p-text(Leave it open)');
  await page.waitForFunction(() => /Being written/.test(document.body.innerText));
  await page.evaluate(() => window.location.reload());
  expect(await asked).toBe('beforeunload');
  expect((await stored(app, 'Lantern')).tree.plan.front).not.toBeNull();
  release();
  // Both changes arrive, one after the other, and then the page may be left.
  await until(app, 'Lantern', ({ tree }) => tree.plan.front === null && tree.plan.pinned?.length === 1);
  page.off('request', holdWrites);
  await page.setRequestInterception(false);
  await visit(app);
  await press(page, 'Undo');
  await until(app, 'Lantern', ({ tree }) => tree.plan.front !== null);
});

test('a change made elsewhere is told and shown; what does not arrive waits, is said, and is sent when the server answers', async () => {
  const { page } = app;
  const id = await idOf(app, 'Perseverance');
  await visit(app, `/tree/${id}/front`);
  await says(page, /Keep open/);
  const elsewhere = { bearing: 123, pitch: 0, roll: 0 };
  await actElsewhere(app, 'Perseverance', { kind: 'front', front: elsewhere });
  await press(page, 'Keep open');
  await says(page, /The plan was changed meanwhile.*decide again/);
  expect((await stored(app, 'Perseverance')).tree.plan).toMatchObject({ front: elsewhere });
  await press(page, 'I see');

  // Decided again on the tree as it is now: it is taken.
  await press(page, 'Keep open');
  await until(app, 'Perseverance', ({ tree }) => tree.plan.pinned?.length === 1 && tree.plan.front.bearing === 123);
  await says(page, /Let go/);

  await page.setOfflineMode(true);
  await press(page, 'Let go');
  await page.waitForFunction(() => /The server does not answer. one change waits here/.test(document.body.innerText));
  await page.waitForFunction(() => [...document.querySelectorAll('button')].some((e) => e.textContent === 'Keep open'));
  expect((await stored(app, 'Perseverance')).tree.plan.pinned).toHaveLength(1);
  await page.setOfflineMode(false);
  await until(app, 'Perseverance', ({ tree }) => !tree.plan.pinned?.length);
  // The request that was cut off is the only fault the page may have told.
  expect(app.errors.splice(0).every((e) => e.startsWith('failed: '))).toBe(true);
});

test('a tree is named anew, put aside and found again, and deleted only when asked twice', async () => {
  const { page } = app;
  const id = await idOf(app, 'Marigold');
  await visit(app, `/tree/${id}/read`);
  await press(page, 'About it');
  await write(page, 'dialog input', ' ');
  await says(page, /A tree needs a name; it stays Marigold/);
  await write(page, 'dialog input', 'Turnstone');
  await page.waitForFunction(async () => (await (await fetch('/api/trees')).text()).includes('Turnstone'), { timeout: 40_000, polling: 200 });
  await press(page, 'Put it aside');
  await says(page, /Since 20 May 2026 it is not on the bench/);
  await page.keyboard.press('Escape');
  await says(page, /put aside 20 May 2026/);
  await visit(app, '/bench');
  await says(page, /Put aside: 1/);
  expect(await page.$$eval('main > ul > li', (rows) => rows.map((r) => r.textContent).filter((t) => t!.startsWith('Turnstone')))).toEqual([]);
  await pressWhere(page, 'summary', /Put aside/);
  await press(page, 'Turnstone');
  await sceneReady(page);
  await press(page, 'About it');
  await press(page, 'Back on the bench');
  await says(page, /Put it aside/);
  await press(page, 'Delete it');
  await says(page, /Turnstone goes for good: \d+ measured branches.*Save its tree file first/);
  await press(page, 'Keep it');
  await press(page, 'Delete it');
  expect((await stored(app, 'Turnstone')).tree.name).toBe('Turnstone');
  await press(page, 'Delete Turnstone for good');
  await page.waitForFunction(() => window.location.pathname === '/bench');
  await page.waitForFunction(() => !document.body.innerText.includes('Turnstone'));
  expect(await (await fetch(`${app.server.address}/api/trees/${id}`)).status).toBe(404);
});

test('keys are told, lamplight is kept, and what breaks in one place leaves the rest alive', async () => {
  const { page } = app;
  await visit(app, '/bench');
  await says(page, /Lantern/);
  await page.keyboard.press('?');
  await says(page, /Keys\s.*Everywhere.*this sheet/);
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => !document.querySelector('dialog'));
  await press(page, 'Lamp');
  await visit(app);
  await says(page, /Lantern/);
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe('lamp');
  await page.goto(`${app.server.address}/tree/nobody/front`);
  await says(page, /not here/);
  await press(page, 'Season');
  await says(page, /What is due by week.*Lantern/);
  expect(app.errors).toEqual([]);
});
