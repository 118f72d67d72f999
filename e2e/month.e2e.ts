import { generateTree } from '@ustle/core';
import { ask, start } from '../apps/server/test/server';
import { actElsewhere, enter, idOf, open, press, pressWhere, says, stored, there, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4840, 'nothing');
});
afterAll(() => app.close());

const NAME = 'Skerry';
const field = (label: string): string => `xpath/.//aside//label[starts-with(normalize-space(), "${label}")]/following::input[1]`;
const titleOf = (): Promise<string> => app.page.$eval('article[aria-label]', (e) => e.getAttribute('aria-label')!);

/** Answers steps as planned until one is at hand whose title begins so, or none is left. */
async function workUpTo(begins: RegExp | null): Promise<void> {
  const { page } = app;
  for (let i = 0; i < 90; i++) {
    await page.waitForFunction(() => document.querySelector('article[aria-label][data-settled="1"]') ?? /All is done/.test(document.body.innerText), {
      timeout: 40_000,
      polling: 50,
    });
    if (!(await page.$('article[aria-label]'))) return;
    const before = await titleOf();
    if (begins?.test(before)) return;
    await page.keyboard.press('d');
    await page.waitForFunction(
      (t) => document.querySelector('article[aria-label]')?.getAttribute('aria-label') !== t,
      { timeout: 40_000, polling: 50 },
      before,
    );
  }
}
const picture = async (): Promise<string> => {
  const [{ id, revision, recorded }] = (await ask(app.server.address, 'GET', '/api/trees')).body;
  return (await ask(app.server.address, 'GET', `/api/trees/${id}/silhouette?revision=${revision}&recorded=${recorded}`)).body.wood;
};

test('a pine from the empty bench: its kind is typed, it is measured, read, then judged', async () => {
  const { page } = app;
  await visit(app, '/bench');
  await enter(app, 'New tree');
  await says(page, /How does it come in/);
  await write(page, 'input[name="name"]', NAME);
  const kind = await there(page, 'input[list]');
  await kind.type('pine');
  await pressWhere(page, 'main li button', /^Ruler/);
  await enter(app, 'Measure it');
  await says(page, /Which one: .*pine/i);
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-invalid'))).toBe('true');
  await kind.evaluate((e) => (e as HTMLInputElement).select());
  await page.keyboard.type('pine, two-needle');
  await enter(app, 'Measure it');
  await page.waitForFunction(() => /\/measure/.test(location.pathname));
  const id = await idOf(app, NAME);
  await visit(app, `/tree/${id}/front`);
  await says(page, /nobody measured this one yet/);
  await visit(app, '/bench');
  await says(page, new RegExp(`${NAME}.*measure it`));
  const { trunk, branches, roots, pot } = generateTree({
    seed: 9,
    name: NAME,
    species: 'pine-two-needle',
    height: 520,
    base: 46,
    primaries: 6,
    secondaries: 1,
    faults: [],
  });
  await actElsewhere(app, NAME, { kind: 'measure', measured: { trunk, branches, roots, pot } });
  await visit(app, '/bench');
  await says(page, /read it: is it strong enough/);
  await visit(app, `/tree/${id}/read`);
  await says(page, /Not read yet/);
  await enter(app, 'Looked at: nothing stands out');
  await says(page, /Go|Only light work/);
  await visit(app, '/bench');
  await says(page, /choose the front/);
});

test('a session broken off goes on the next time; what was bent is bent wherever the tree is seen, and nothing more is asked of it', async () => {
  const { page } = app;
  const id = await idOf(app, NAME);
  await actElsewhere(app, NAME, { kind: 'front', front: { bearing: 40, pitch: 0, roll: 0 } });
  const { tree } = await stored(app, NAME);
  for (const b of tree.branches) await actElsewhere(app, NAME, { kind: 'decide', branch: b.id, act: 'keep' });
  const asGrown = await picture();

  await visit(app, `/tree/${id}/work`);
  await enter(app, 'Begin the session');
  await workUpTo(/^Place/);
  // Once all that was answered is stored.
  await says(page, /Close the session/);
  await press(page, 'Close the session');
  await until(app, NAME, (view) => view.tree.record.some((l: { kind: string; done?: string }) => l.kind === 'session' && l.done === 'closed'));
  const half = await picture();
  expect(half).not.toBe(asGrown);
  await visit(app, '/bench');
  await says(page, /go on where the session ended: .*to bend and place/);

  await visit(app, `/tree/${id}/work`);
  await says(page, /Only the bends that were begun go on|branch(es)? to place/);
  await enter(app, 'Begin the session');
  await workUpTo(null);
  await says(page, /Close the session/);
  await press(page, 'Close the session');
  await visit(app, '/bench');
  await says(page, new RegExp(NAME));
  const done = await picture();
  expect(new Set([asGrown, half, done]).size).toBe(3);

  // Wired and placed as planned, Pose asks nothing more of those branches; the record shows the day before as it grew.
  await visit(app, `/tree/${id}/pose`);
  await says(page, /bent and placed/);
  await visit(app, `/tree/${id}/report`);
  await says(page, /Bent.*Placed.*Wired/);
  const plan = (await ask(app.server.address, 'GET', `/api/trees/${id}/plan`)).body;
  const placed = (await stored(app, NAME)).tree.record.flatMap((l: { kind: string; branch: string }) => (l.kind === 'placed' ? [l.branch] : []));
  expect(placed.length).toBeGreaterThan(2);
  expect(plan.poses.map((p: { branch: string }) => p.branch).filter((b: string) => placed.includes(b))).toEqual([]);

  expect(app.errors).toEqual([]);
});

test('a month on: its wire is looked at, a coil comes off and its branch stands as it was measured to hold, the others as they were left', async () => {
  const { page } = app;
  const id = await idOf(app, NAME);
  const { today } = (await ask(app.server.address, 'GET', '/api/yard')).body;
  const branch = (await stored(app, NAME)).tree.record.find((l: { kind: string }) => l.kind === 'placed').branch;
  await app.server.kill();
  app.server = await start(app.folder, 4840, { USTLE_TODAY: new Date(Date.parse(today) + 31 * 86_400_000).toISOString().slice(0, 10) });
  const before = await picture();
  await visit(app, '/season');
  await says(page, new RegExp(`${NAME}\\s.*(look at the wire|take the wire off)`));
  await visit(app, `/tree/${id}/watch?branch=${branch}`);
  await press(page, 'clear');
  await until(app, NAME, (v) => v.tree.record.at(-1).kind === 'inspected');
  // Looked at, it stands as it stood.
  expect(await picture()).toBe(before);
  await press(page, 'It came off');
  await write(page, field('Pieces taken off'), '4');
  await write(page, field('Angle it holds now'), '5');
  await press(page, 'Cut off');
  await until(app, NAME, (v) => v.tree.record.at(-1).kind === 'unwired' && v.tree.record.at(-1).heldDeg === 5);
  expect(await picture()).not.toBe(before);
  await visit(app, `/tree/${id}/pose`);
  await says(page, /bent and placed/);
  expect(app.errors).toEqual([]);
});
