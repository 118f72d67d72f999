import { namesOf } from '@ustle/core';
import { actElsewhere, enter, focus, idOf, open, press, pressWhere, says, sceneReady, stored, tabTo, text, there, until, visit, write, type App } from './app';

let app: App;
let id = '';
beforeAll(async () => {
  app = await open(4740);
  id = await idOf(app, 'Old Ferry');
});
afterAll(() => app.close());

const ferry = () => stored(app, 'Old Ferry');
const decision = (view: Awaited<ReturnType<typeof ferry>>, branch: string) => view.tree.plan.decisions.find((d: { branch: string }) => d.branch === branch);

/** The branch whose row is open. */
const openRow = (): Promise<string> => app.page.evaluate(() => new URLSearchParams(location.search).get('branch') ?? '');

test('a tree from its findings to the list to take along, by keyboard; undo after a reload', async () => {
  const { page } = app;
  await visit(app, `/tree/${id}/front`);
  await press(page, 'Choose');
  await says(page, /This is the front/);
  await page.keyboard.press('4');
  await says(page, /What to remove.*Green coming off.*0% of at most 45%/i);

  // The first two findings: one off, one shortened; the advice gives its reasons and other ways.
  await page.keyboard.press('l');
  await page.waitForFunction(() => new URLSearchParams(location.search).has('branch'));
  const first = await openRow();
  await says(page, /One would .*; or /);
  await page.keyboard.press('x');
  await until(app, 'Old Ferry', (v) => decision(v, first)?.act === 'remove');
  // Decided, it steps on to the next.
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') !== b, {}, first);
  const second = await openRow();
  await page.keyboard.press('s');
  await until(app, 'Old Ferry', (v) => decision(v, second)?.act === 'shorten' && (decision(v, second).length || decision(v, second).toShoot));

  // A third one held in reserve, to a day typed in.
  await page.keyboard.press('l');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') !== b, {}, second);
  const third = await openRow();
  await page.keyboard.press('r');
  await until(app, 'Old Ferry', (v) => decision(v, third)?.until === '2027-05-20');

  // What follows: trunk and score before and after, the budget, gaps with who reaches.
  await tabTo(app, 'Decide');
  await page.keyboard.press('ArrowRight');
  await says(page, /Trunk in sight.*Score of the front.*Work for one session.*Gaps, and who could fill them.*Comes back later/);
  await enter(app, 'Wipe before and after');
  await page.waitForSelector('[aria-label="Before to the left, after to the right"][aria-valuenow="50"]');
  await focus(page, '[aria-label="Before to the left, after to the right"]');
  await page.keyboard.press('ArrowRight');
  await page.waitForSelector('[aria-label="Before to the left, after to the right"][aria-valuenow="55"]');

  // The list: numbered from below, what to cut where, with cautions.
  await visit(app, `/tree/${id}/remove?sheet=cut`);
  await says(page, /To cut \(2\)/);
  await enter(app, 'List to take along');
  await page.waitForFunction(() => location.pathname.endsWith('/cuts'));
  await sceneReady(page);
  await says(page, /what to cut.*2 cuts.*Cut off at.*o'clock.*Shorten to.*Mind yourself/);
  expect((await page.pdf()).length).toBeGreaterThan(20_000);

  // Ticked at the tree: the measured tree moves on; undo after a reload brings it back, the record tells both.
  await focus(page, 'ol button');
  await page.keyboard.press('Enter');
  await until(app, 'Old Ferry', (v) => !v.tree.branches.some((b: { id: string }) => b.id === first));
  await says(page, /one cut to make, 1 made,/);
  // A slip is taken back on the list itself; numbers stay as they were taken along.
  const tags = (): Promise<(string | null)[]> => page.$$eval('ol li > span', (all) => all.map((e) => e.textContent));
  expect(await tags()).toEqual(['1', '2']);
  await page.keyboard.press('Enter');
  await until(app, 'Old Ferry', (v) => v.tree.branches.some((b: { id: string }) => b.id === first));
  await page.waitForFunction(() => document.querySelector('ol button')!.getAttribute('aria-pressed') === 'false');
  await page.keyboard.press('Enter');
  await until(app, 'Old Ferry', (v) => !v.tree.branches.some((b: { id: string }) => b.id === first));
  await visit(app, `/tree/${id}/remove`);
  await press(page, 'Undo');
  await until(app, 'Old Ferry', (v) => v.tree.branches.some((b: { id: string }) => b.id === first));
  expect((await ferry()).tree.record.map((e: { kind: string }) => e.kind)).toEqual(['removed', 'withdrawn', 'removed', 'withdrawn']);
  await press(page, 'Redo');
  await until(app, 'Old Ferry', (v) => !v.tree.branches.some((b: { id: string }) => b.id === first));
  expect(app.errors).toEqual([]);
});

test('a reserve comes back as a task; a cut tree is shown as it was on a day before', async () => {
  const { page } = app;
  const { tree } = await ferry();
  const reserve = tree.plan.decisions.find((d: { act: string }) => d.act === 'reserve').branch;
  await actElsewhere(app, 'Old Ferry', { kind: 'decide', branch: reserve, act: 'reserve', until: '2026-05-20' });
  await visit(app, '/season');
  await says(page, /This week.*Old Ferry.*, in reserve: keep or take off/);
  await visit(app, `/tree/${id}/remove?sheet=cut`);
  await says(page, /taken off, \d+% of the green/);
  await press(page, 'see it before');
  await page.waitForFunction(() => new URLSearchParams(location.search).get('day') === '2026-05-19');
  await says(page, /as it was on\s+19 May 2026/);
  await press(page, 'back to today');
  await page.waitForFunction(() => !new URLSearchParams(location.search).has('day'));
  await visit(app, `/tree/${id}/remove?sheet=cut&day=2025-03-01`);
  await says(page, /as it was on\s+1 March 2025.*Cut so far.*taken off/);
  const shownDay = (): Promise<string | null> => page.evaluate(() => new URLSearchParams(location.search).get('day'));
  await write(page, 'aside section input[data-date]', '1 September 2026');
  await says(page, /1 September 2026 has not come yet/);
  expect(await shownDay()).toBe('2025-03-01');
  await write(page, 'aside section input[data-date]', '19 May 2026');
  await page.focus('aside section input[data-date]');
  await page.keyboard.press('Enter');
  await says(page, /as it was on\s+19 May 2026/);
  expect(await shownDay()).toBe('2026-05-19');
});

test('a cut that cannot be made is said where it is decided and is on no list; undo pressed quickly goes back as often', async () => {
  const { page } = app;
  const { tree } = await ferry();
  const branch = tree.branches.find(
    (b: { id: string }) => !decision({ tree } as never, b.id) && tree.branches.some((c: { parent: string }) => c.parent === b.id),
  ).id;
  await visit(app, `/tree/${id}/remove?branch=${branch}`);
  await page.keyboard.press('s');
  await until(app, 'Old Ferry', (v) => decision(v, branch)?.toShoot);
  // Told as a length, it is cut where it was to be cut; without one it is not cut at all.
  const select = `[data-branch="${branch}"] ~ div select`;
  await page.waitForSelector(select);
  await page.select(select, '');
  await until(app, 'Old Ferry', (v) => decision(v, branch)?.length > 0 && !decision(v, branch).toShoot);
  await actElsewhere(app, 'Old Ferry', { kind: 'decide', branch, act: 'shorten', length: null });
  await visit(app);
  await says(page, /shorten, not finished.*Not finished\. Say how much is left.*Until then nothing of it is cut/);
  await visit(app, `/tree/${id}/remove?sheet=cut`);
  await says(page, /Not on this list:/);
  await press(page, 'say it');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') === b, {}, branch);
  await write(page, `[data-branch="${branch}"] ~ div input[inputmode]`, '40');
  await until(app, 'Old Ferry', (v) => decision(v, branch)?.length === 40);
  await page.waitForFunction(() => !/not finished/i.test(document.body.innerText));

  // Three decisions, and three steps back as fast as keys go.
  const before = JSON.stringify((await ferry()).tree.plan.decisions);
  // Out of the field, where keys are its own.
  await focus(page, `button[data-branch="${branch}"]`);
  for (const [key, fate] of [
    ['k', 'keep'],
    ['r', 'reserve'],
    ['u', undefined],
  ] as const) {
    await page.keyboard.press(key);
    await until(app, 'Old Ferry', (v) => decision(v, branch)?.act === fate);
  }
  await page.keyboard.down('Control');
  for (let i = 0; i < 3; i++) await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await until(app, 'Old Ferry', (v) => JSON.stringify(v.tree.plan.decisions) === before);
  await says(page, /Shorten/);
  expect(await page.$('[role=alert]')).toBeNull();
  expect(app.errors).toEqual([]);
});

test('a turn by key draws one picture, however much of the page follows it', async () => {
  const { page } = app;
  await visit(app, `/tree/${id}/read`);
  const table = await there(page, '[role=application]');
  await page.waitForSelector('[data-ready="1"]');
  await table.focus();
  // What the page still brings (another's plan, a picture) is drawn before the count begins.
  const calls = (): Promise<string | null> => table.evaluate((e) => e.getAttribute('data-calls'));
  for (let was = '', now = (await calls())!; was !== now; now = (await calls())!) {
    was = now;
    await new Promise((done) => setTimeout(done, 2500));
  }
  await table.evaluate((e) => {
    e.setAttribute('data-drawn', '0');
    new MutationObserver((seen) => e.setAttribute('data-drawn', String(Number(e.getAttribute('data-drawn')) + seen.length))).observe(e, {
      attributes: true,
      attributeFilter: ['data-calls'],
    });
  });
  const from = Number(await table.evaluate((e) => e.getAttribute('data-bearing')));
  // However fast they come, no press is lost to the address that follows.
  for (let i = 1; i <= 4; i++) await page.keyboard.press('ArrowRight');
  await page.waitForFunction((to) => new URLSearchParams(location.search).get('bearing') === String(to), { polling: 50 }, (from + 12) % 360);
  await page.waitForFunction(
    (to) => document.querySelector('[role=application]')!.getAttribute('data-bearing') === String(to),
    { polling: 50 },
    (from + 12) % 360,
  );
  await new Promise((done) => setTimeout(done, 800));
  expect(Number(await table.evaluate((e) => e.getAttribute('data-drawn')))).toBeLessThanOrEqual(5);
});

test('a pair of which one goes is set side by side; rules are chosen, changed and reset', async () => {
  const { page } = app;
  const { tree } = await ferry();
  const [a, b] = tree.branches.filter((x: { parent: string }) => x.parent === 'trunk').map((x: { id: string }) => x.id);
  await actElsewhere(app, 'Old Ferry', { kind: 'either', a, b });
  const names = namesOf(tree);
  await visit(app, `/tree/${id}/remove?sheet=outcome`);
  await says(page, new RegExp(`Either ${names(a)} or ${names(b)}`));
  await press(page, 'side by side');
  await page.waitForFunction(() => document.querySelectorAll('canvas').length === 2);
  await press(page, `Keep ${names(b)}`);
  await until(app, 'Old Ferry', (v) => decision(v, a)?.act === 'remove' && decision(v, b)?.act === 'keep');
  await visit(app, `/tree/${id}/remove`);
  await page.waitForSelector('aside details summary');
  await page.click('aside details summary');
  await there(page, '[aria-label="Profile of rules"]');
  await says(page, /Rules: /);
  await page.select('[aria-label="Profile of rules"]', 'refinement');
  await until(app, 'Old Ferry', (v) => v.tree.plan.removal?.profile === 'refinement');
  await pressWhere(page, 'aside details label', /^upright$/);
  await says(page, /Rules: refinement, 1 changed/);
  expect(await text(page)).not.toMatch(/upright.*stands above/s);
  await press(page, 'Back to the profile');
  await until(app, 'Old Ferry', (v) => Object.keys(v.tree.plan.removal.rules).length === 0);
  expect(app.errors).toEqual([]);
});
