import { ask } from '../apps/server/test/server';
import { fill, loadStudio, open, press, says, sceneReady, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4760);
  loadStudio(app.server.address);
});
afterAll(() => app.close());

const idOf = async (name: string): Promise<string> =>
  (await ask(app.server.address, 'GET', '/api/trees')).body.find((t: { name: string }) => t.name === name).id;
const stored = async (name: string) => (await ask(app.server.address, 'GET', `/api/trees/${await idOf(name)}`)).body;
const until = async (name: string, check: (view: Awaited<ReturnType<typeof stored>>) => boolean): Promise<void> => {
  for (let i = 0; i < 100; i++) {
    if (check(await stored(name))) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`Not stored: ${JSON.stringify((await stored(name)).tree.plan)}`);
};
const visit = async (path: string): Promise<void> => {
  await app.page.goto(app.server.address + path, { waitUntil: 'domcontentloaded' });
  if (path.startsWith('/tree')) await sceneReady(app.page);
};
/** Whether anything on the page is wider than the page itself. */
const overflows = (): Promise<boolean> => app.page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth + 1);

test("a client's tree waits for their word: refused, agreed, cut", async () => {
  const { page } = app;
  const id = await idOf('Gannet');
  await visit(`/tree/${id}/remove?sheet=cut`);
  await says(page, /belongs to The net loft.*Nothing is cut before it is agreed; open: b4\d, b4\d/);
  const before = (await stored('Gannet')).tree;
  await page.evaluate(() => [...document.querySelectorAll<HTMLElement>('aside ol button')].find((b) => b.textContent === 'Cut')!.click());
  await says(page, /note first who agreed to cut b4\d/);
  expect((await stored('Gannet')).tree).toEqual(before);
  await press(page, 'Read');
  await visit(`/tree/${id}/remove?sheet=cut`);
  await says(page, /Who agreed/);
  await fill(page, 'aside form input:not([type])', 'their steward');
  await press(page, 'Note it');
  await says(page, /their steward agreed on 2026-05-20/);
  await page.evaluate(() => [...document.querySelectorAll<HTMLElement>('aside ol button')].find((b) => b.textContent === 'Cut')!.click());
  await until('Gannet', (v) => v.tree.branches.length === before.branches.length - 1);
  expect((await stored('Gannet')).tree.record.map((e: { kind: string }) => e.kind)).toEqual(['agreed', 'removed']);
});

test('what is over the budget is left for a later session, and is due on its day', async () => {
  const { page } = app;
  const id = await idOf('Squall');
  for (const branch of ['b1', 'b5', 'b9', 'b13', 'b17']) {
    const { revision } = await stored('Squall');
    await ask(app.server.address, 'PUT', `/api/trees/${id}/plan/decisions/${branch}`, { revision, act: 'remove' });
  }
  await visit(`/tree/${id}/remove?sheet=outcome`);
  await says(page, /More than one session.*Now.*From \d+ \w+ 20\d\d/);
  // Wire that would lose its branch is named.
  await says(page, /What would be lost.*would lose the branch/);
  await press(page, 'Leave them for then');
  await until('Squall', (v) => v.tree.plan.decisions.some((d: { session?: number; until?: string }) => d.session === 2 && d.until));
  await page.waitForFunction(() => !document.body.innerText.includes('More than one session'));
  await visit('/season');
  await says(page, /Squall\s+.*: cut, as left for now/);
});

test('on the phone: the bench, a coil looked at, the list of cuts; nothing runs off the side', async () => {
  const { page } = app;
  await page.setViewport({ width: 390, height: 844 });
  await visit('/bench');
  await says(page, /Squall.*Lantern/);
  expect(await overflows()).toBe(false);
  await press(page, 'Lantern');
  await sceneReady(page);
  await says(page, /coils are on/);
  expect(await overflows()).toBe(false);
  await page.evaluate(() => [...document.querySelectorAll<HTMLElement>('aside li > button[aria-expanded]')][0]!.click());
  await says(page, /Presses.*Marks.*Set/);
  await press(page, 'clear');
  await until('Lantern', (v) => v.tree.record.at(-1).kind === 'inspected');
  await visit(`/tree/${await idOf('Lantern')}/cuts`);
  await says(page, /what to cut.*1\s+b38.*Mind yourself/);
  expect(await overflows()).toBe(false);
  for (const target of await page.$$('ol button')) {
    const box = (await target.boundingBox())!;
    expect([box.width >= 44, box.height >= 44]).toEqual([true, true]);
  }
  await page.setViewport({ width: 1280, height: 800 });
});

test('a gap is shown on the tree, a finding draws what it saw, the plumb line and grid come and go', async () => {
  const { page } = app;
  const id = await idOf('Lantern');
  await visit(`/tree/${id}/remove?sheet=outcome`);
  await says(page, /Gaps, and who could fill them.*mm wide/);
  await page.evaluate(() => [...document.querySelectorAll<HTMLElement>('aside li > button')].find((b) => /mm wide/.test(b.textContent!))!.click());
  await page.waitForFunction(() => [...document.querySelectorAll('[role=application] button')].some((b) => /mm wide/.test(b.textContent!)));
  await visit(`/tree/${id}/remove?branch=b37`);
  await page.waitForFunction(() => [...document.querySelectorAll('[role=application] button')].some((b) => b.textContent === 'bar'));
  await press(page, 'plumb line and cm grid');
  await says(page, /without the grid/);
  expect(new URL(page.url()).searchParams.get('plumb')).toBe('1');
});

test('keys are told, lamplight is kept, and what breaks in one place leaves the rest alive', async () => {
  const { page } = app;
  await visit('/bench');
  await says(page, /Lantern/);
  await page.keyboard.press('?');
  await says(page, /Remove: shorten, leave a stub/);
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await press(page, 'Lamp');
  await page.reload({ waitUntil: 'domcontentloaded' });
  await says(page, /Lantern/);
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe('lamp');
  await page.goto(`${app.server.address}/tree/nobody/front`, { waitUntil: 'domcontentloaded' });
  await says(page, /not here/);
  await press(page, 'Season');
  await says(page, /What is due by week.*Lantern/);
  expect(app.errors).toEqual([]);
});
