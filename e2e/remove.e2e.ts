import { ask } from '../apps/server/test/server';
import { loadStudio, open, press, says, sceneReady, text, type App } from './app';

let app: App;
let id = '';
beforeAll(async () => {
  app = await open(4740);
  loadStudio(app.server.address);
  id = (await ask(app.server.address, 'GET', '/api/trees')).body.find((t: { name: string }) => t.name === 'Old Ferry').id;
});
afterAll(() => app.close());

const stored = async () => (await ask(app.server.address, 'GET', `/api/trees/${id}`)).body;
const until = async (check: (view: Awaited<ReturnType<typeof stored>>) => boolean): Promise<void> => {
  for (let i = 0; i < 100; i++) {
    if (check(await stored())) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`Not stored: ${JSON.stringify((await stored()).tree.plan)}`);
};
const decision = (view: Awaited<ReturnType<typeof stored>>, branch: string) => view.tree.plan.decisions.find((d: { branch: string }) => d.branch === branch);

/** Walks by Tab to the control that says or is called so. */
async function tabTo(name: string): Promise<void> {
  for (let i = 0; i < 160; i++) {
    const here = await app.page.evaluate(() => {
      const e = document.activeElement!;
      return `${e.getAttribute('aria-label') ?? ''}|${(e.textContent ?? '').trim()}`;
    });
    if (here.split('|').some((words) => words.startsWith(name))) return;
    await app.page.keyboard.press('Tab');
  }
  throw new Error(`Tab never comes to "${name}"`);
}
const enter = async (name: string): Promise<void> => {
  await tabTo(name);
  await app.page.keyboard.press('Enter');
};
/** The branch whose row is open. */
const openRow = (): Promise<string> => app.page.evaluate(() => new URLSearchParams(location.search).get('branch') ?? '');

test('a tree from its findings to the list to take along, by keyboard; undo after a reload', async () => {
  const { page } = app;
  await page.goto(`${app.server.address}/tree/${id}/front`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await press(page, 'Choose');
  await says(page, /This is the front/);
  await page.keyboard.press('4');
  await says(page, /What to remove.*Green coming off.*0% of at most 45%/i);

  // The first two findings: one off, one shortened; the advice gives its reasons and other ways.
  await page.keyboard.press('j');
  await page.waitForFunction(() => new URLSearchParams(location.search).has('branch'));
  const first = await openRow();
  await says(page, /One would .*; or /);
  await page.keyboard.press('x');
  await until((v) => decision(v, first)?.act === 'remove');
  await page.keyboard.press('j');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') !== b, {}, first);
  const second = await openRow();
  await page.keyboard.press('s');
  await until((v) => decision(v, second)?.act === 'shorten' && (decision(v, second).length || decision(v, second).toShoot));

  // A third one held in reserve, to a day typed in.
  await page.keyboard.press('j');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') !== b, {}, second);
  const third = await openRow();
  await page.keyboard.press('r');
  await until((v) => decision(v, third)?.until === '2027-05-20');

  // What follows: trunk and score before and after, the budget, gaps with who reaches.
  await enter('What follows');
  await says(page, /Trunk in sight.*Score of the front.*Work for one session.*Gaps, and who could fill them.*Comes back later/);
  await enter('Wipe before and after');
  await page.waitForSelector('[aria-label="Before to the left, after to the right"][aria-valuenow="50"]');
  await page.focus('[aria-label="Before to the left, after to the right"]');
  await page.keyboard.press('ArrowRight');
  await page.waitForSelector('[aria-label="Before to the left, after to the right"][aria-valuenow="55"]');

  // The list: numbered from below, what to cut where, with cautions.
  await page.goto(`${app.server.address}/tree/${id}/remove?sheet=cut`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await says(page, /To cut \(2\)/);
  await enter('List to take along');
  await page.waitForFunction(() => location.pathname.endsWith('/cuts'));
  await sceneReady(page);
  await says(page, new RegExp(`what to cut.*2 cuts.*${first}.*Cut off at.*o'clock.*Shorten to.*Mind yourself`));
  expect((await page.pdf()).length).toBeGreaterThan(20_000);

  // Ticked at the tree: the measured tree moves on; undo after a reload brings it back, the record tells both.
  await enter(`${first} was cut today`);
  await until((v) => !v.tree.branches.some((b: { id: string }) => b.id === first));
  await says(page, /1 cut,/);
  await page.goto(`${app.server.address}/tree/${id}/remove`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await press(page, 'Undo');
  await until((v) => v.tree.branches.some((b: { id: string }) => b.id === first));
  expect((await stored()).tree.record.map((e: { kind: string }) => e.kind)).toEqual(['removed', 'withdrawn']);
  await press(page, 'Redo');
  await until((v) => !v.tree.branches.some((b: { id: string }) => b.id === first));
  expect(app.errors).toEqual([]);
});

test('a reserve comes back as a task; a cut tree is shown as it was on a day before', async () => {
  const { page } = app;
  const { tree } = await stored();
  const reserve = tree.plan.decisions.find((d: { act: string }) => d.act === 'reserve').branch;
  const { revision } = await stored();
  await ask(app.server.address, 'PUT', `/api/trees/${id}/plan/decisions/${reserve}`, { revision, act: 'reserve', until: '2026-05-20' });
  await page.goto(`${app.server.address}/season`, { waitUntil: 'networkidle0' });
  await says(page, new RegExp(`This week.*Old Ferry.*${reserve}, in reserve: keep or take off`));
  await page.goto(`${app.server.address}/tree/${id}/watch`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await says(page, /taken off, \d+% of the green/);
  await press(page, 'see it before');
  await page.waitForFunction(() => new URLSearchParams(location.search).get('day') === '2026-05-19');
});

test('a pair of which one goes is set side by side; rules are chosen, changed and reset', async () => {
  const { page } = app;
  const { revision, tree } = await stored();
  const [a, b] = tree.branches.filter((x: { parent: string }) => x.parent === 'trunk').map((x: { id: string }) => x.id);
  await ask(app.server.address, 'PUT', `/api/trees/${id}/plan/either`, { revision, a, b });
  await page.goto(`${app.server.address}/tree/${id}/remove?sheet=outcome`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await says(page, new RegExp(`Either ${a} or ${b}`));
  await press(page, 'side by side');
  await page.waitForFunction(() => document.querySelectorAll('canvas').length === 2);
  await press(page, `Keep ${b}`);
  await until((v) => decision(v, a)?.act === 'remove' && decision(v, b)?.act === 'keep');
  await page.goto(`${app.server.address}/tree/${id}/remove`, { waitUntil: 'domcontentloaded' });
  await sceneReady(page);
  await page.waitForSelector('aside details summary');
  await page.click('aside details summary');
  await page.select('[aria-label="Profile of rules"]', 'refinement');
  await until((v) => v.tree.plan.removal?.profile === 'refinement');
  await page.evaluate(() => [...document.querySelectorAll<HTMLElement>('aside details label')].find((l) => l.textContent === 'upright')!.click());
  await says(page, /Rules: refinement, 1 changed/);
  expect(await text(page)).not.toMatch(/upright.*stands above/s);
  await press(page, 'Back to the profile');
  await until((v) => Object.keys(v.tree.plan.removal.rules).length === 0);
  expect(app.errors).toEqual([]);
});
