import { paths } from '@ustle/contract';
import { generateTree } from '@ustle/core';
import { ask } from '../apps/server/test/server';
import { actElsewhere, focus, idOf, open, press, pressWhere, says, sceneReady, stored, tabTo, text, there, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4760);
});
afterAll(() => app.close());

const poseOf = (view: Awaited<ReturnType<typeof stored>>, branch: string) => view.tree.plan.poses.find((p: { branch: string }) => p.branch === branch);
const openRow = async (): Promise<string> => {
  await app.page.waitForFunction(() => new URLSearchParams(location.search).has('branch'));
  return app.page.evaluate(() => new URLSearchParams(location.search).get('branch')!);
};
const label = (name: string): string => `[aria-label^="${name}"]`;
/** The field that a label names, by its own words. */
const field = async (name: string): Promise<string> => {
  await app.page.waitForFunction((n) => [...document.querySelectorAll('label')].some((l) => l.textContent!.trim() === n), {}, name);
  return `#${CSS_ESCAPE(await app.page.evaluate((n) => [...document.querySelectorAll('label')].find((l) => l.textContent!.trim() === n)!.htmlFor, name))}`;
};
const CSS_ESCAPE = (id: string): string => id.replace(/[^\w-]/g, (c) => `\\${c}`);

test('a branch by keyboard: what moves it, its bends and the hand; accepted, its tip drawn, a bead pushed, a wrong figure said', async () => {
  const { page } = app;
  const id = await idOf(app, 'Old Ferry');
  await visit(app, `/tree/${id}/front`);
  await press(page, 'Choose');
  await says(page, /This is the front/);
  await page.keyboard.press('5');
  await says(page, /Pose.*branches would move.*down and out.*first/);
  await page.keyboard.press('l');
  const branch = await openRow();
  await says(
    page,
    /It grows at.*at the shoulder.*radius \d+ mm, strain [\d.]+%.*By hand to about \d+0°.*settles at \d+° and stays at \d+° ± \d+°.*In 2 stages/,
  );
  await page.keyboard.press('a');
  await until(app, 'Old Ferry', (v) => poseOf(v, branch)?.bends.length > 0);
  const accepted = poseOf(await stored(app, 'Old Ferry'), branch);
  // Accepted, it steps on to the next; back by a key.
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') !== b, {}, branch);
  await page.keyboard.press('j');
  await page.waitForFunction((b) => new URLSearchParams(location.search).get('branch') === b, {}, branch);
  await says(page, /Accepted/);

  // What was shown is what is kept: after a reload the same figures stand there.
  const shown = /at the shoulder[^.]*radius (\d+) mm/s.exec(await text(page))![1];
  await visit(app);
  await says(page, new RegExp(`at the shoulder.*radius ${shown} mm`));

  // The bead at the shoulder pushed outwards, not past its neighbour.
  await focus(page, label('bend 1, at the shoulder'));
  await page.keyboard.press('ArrowLeft');
  await until(app, 'Old Ferry', (v) => poseOf(v, branch).bends[0].at !== accepted.bends[0].at);

  // The first bend begun beyond the tip is refused beside its field; so is one that runs into the next. Nothing is stored.
  const before = (await stored(app, 'Old Ferry')).revision;
  await says(page, new RegExp(`${poseOf(await stored(app, 'Old Ferry'), branch).bends[0].at} to \\d+ mm; radius`));
  await pressWhere(page, 'ol button', /at the shoulder/);
  await write(page, await field('Begins at'), '900');
  await says(page, /begins at 900 mm, beyond the tip.*It can begin at/);
  await write(page, await field('Spread over'), '180');
  if (accepted.bends.length > 1) await says(page, /Bend 2 begins at \d+ mm, within the one before/);
  expect((await stored(app, 'Old Ferry')).revision).toBe(before);

  // The tip drawn down with the arrow keys, as its wood lets it.
  const { elevation } = poseOf(await stored(app, 'Old Ferry'), branch);
  await focus(page, '[data-tip]');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await until(app, 'Old Ferry', (v) => poseOf(v, branch).elevation < elevation - 1);
  // Taken back, the pose is as it was accepted.
  await says(page, /By hand to/);
  expect(app.errors).toEqual([]);
});

test('a tip dragged with the mouse: strain while it moves, and bends for where it was let go', async () => {
  const { page } = app;
  const id = await idOf(app, 'Lantern');
  const branch = 'b1';
  await visit(app, `/tree/${id}/pose?branch=${branch}`);
  await page.waitForFunction(() => [...document.querySelectorAll('button[aria-pressed="true"]')].some((b) => b.textContent === 'as posed'));
  await sceneReady(page);
  const tip = (await (await there(page, '[data-tip]')).boundingBox())!;
  const [x, y] = [tip.x + tip.width / 2, tip.y + tip.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) {
    await page.mouse.move(x + i * 3, y - i * 6);
    await new Promise((done) => setTimeout(done, 60));
  }
  await page.waitForFunction(() => /strain [\d.]+% at \d+ mm/.test(document.querySelector('[data-drag]')?.textContent ?? ''), { timeout: 20_000 });
  await page.mouse.up();
  await until(app, 'Lantern', (v) => poseOf(v, branch));
  await says(page, /yours.*At its|yours.*The plan has it at/);
  // Beside pulling alone: an even arch, farther from its straight line.
  await press(page, 'Beside pulling alone');
  await says(page, /Its tip only pulled there.*one even arch.*Wired it has its drop/);
});

test('slopes drawn by hand and by keyboard: the tree follows; a leggy branch is made shorter; what the wood will not do is said with what would', async () => {
  const { page } = app;
  const id = await idOf(app, 'Levanter');
  await visit(app, `/tree/${id}/pose`);
  await focus(page, label('Slope of the curve at 12%'));
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.up('Shift');
  await until(app, 'Levanter', (v) => v.tree.plan.posing.curve?.length === 4);
  await says(page, /your curve/);
  const wanted = async (): Promise<number[]> =>
    page.$$eval('[aria-label^="Slope wanted of"]', (all) => all.map((e) => Number(e.getAttribute('aria-valuenow'))));
  const before = await wanted();
  const ladder = (await (await there(page, label('Slope ladder'))).boundingBox())!;
  // From hanging below to steep above, in one stroke.
  await page.mouse.move(ladder.x + ladder.width * 0.1, ladder.y + ladder.height * 0.82);
  await page.mouse.down();
  for (let i = 1; i <= 12; i++) await page.mouse.move(ladder.x + ladder.width * (0.1 + 0.055 * i), ladder.y + ladder.height * (0.82 - 0.06 * i));
  await page.mouse.up();
  await until(app, 'Levanter', (v) => v.tree.plan.posing.curve?.length > 4);
  await page.waitForFunction(
    (was) => [...document.querySelectorAll('[aria-label^="Slope wanted of"]')].map((e) => Number(e.getAttribute('aria-valuenow'))).join() !== was,
    { timeout: 20_000 },
    before.join(),
  );

  const leggy = (await stored(app, 'Levanter')).tree.plan.poses.find((p: { reach?: number }) => p.reach).branch;
  await visit(app, `/tree/${id}/pose?branch=${leggy}`);
  await says(page, /Make it shorter: it is bare for 72%.*arcs in two planes.*radius \d+ mm/);
  await pressWhere(page, 'button', /^6 arcs in two planes/);
  await until(app, 'Levanter', (v) => poseOf(v, leggy).planes === 2);
  await write(page, await field('reaching'), '40');
  await says(page, /this wood takes no less than \d+ mm in one season.*graft/);
  await write(page, await field('reaching'), '900');
  await says(page, /900 mm is more than the branch.*it can be made shorter/);
  expect(poseOf(await stored(app, 'Levanter'), leggy).reach).toBe(40);
});

test('bending noted at the tree: fibre stops it, and the plan follows; the trunk bent against cut', async () => {
  const { page } = app;
  const id = await idOf(app, 'Gannet');
  await visit(app, `/tree/${id}/pose`);
  await says(page, /first left/);
  await pressWhere(page, '[data-branch]', /first left/);
  const branch = await openRow();
  await says(page, /Before you bend it: is any of this so/);
  await pressWhere(page, 'label', /bark in its crotch/);
  await until(app, 'Gannet', (v) => v.tree.plan.worse?.[0]?.what[0] === 'bark-in-crotch');
  await says(page, /Bark in the crotch splits/);
  await pressWhere(page, 'summary', /Note what was bent/);
  await press(page, 'fibre');
  await says(page, /Stop here\. Hold it, bind it/);
  await press(page, 'Note it');
  await until(app, 'Gannet', (v) => v.tree.record.some((l: { kind: string; sound?: string }) => l.kind === 'bent' && l.sound === 'fibre'));
  await says(page, /Bent: 1 of \d stages, next from.*Fibres were heard: hold it where it is/);
  expect((await actElsewhere(app, 'Gannet', { kind: 'bent', branch, stage: 2, sound: 'none', crack: 'across' })).status).toBe(200);
  await visit(app);
  await says(page, /no further.*cracked across the fibre: what lies beyond may die/);

  await tabTo(app, 'Branches');
  await page.keyboard.press('ArrowRight');
  // What nothing holds is not offered, and it is said how far it would come.
  await says(
    page,
    /bend it: a gentle S.*No coil of the sizes sold holds.*it comes over by \d+° this season.*cut above .*: a new leader.*The wound of \d+ mm closes/,
  );
  expect(await page.$$('xpath/.//aside//button[normalize-space()="Choose"]')).toEqual([]);
  // A slender one is led over by a device: chosen, it is in the plan with it; set up, it is turned on in stages.
  const slim = generateTree({ seed: 141, name: 'Spindrift', species: 'larch', height: 320, base: 20, primaries: 4, secondaries: 0 });
  expect((await ask(app.server.address, 'POST', paths.importTree(), slim)).status).toBe(201);
  await visit(app, `/tree/${await idOf(app, 'Spindrift')}/pose?sheet=trunk`);
  await says(page, /bend it: slanting.*Led by a (pair of stays|jack|frame).*fast into its pot first/);
  await pressWhere(page, 'aside li:nth-child(2) button', /^Choose$/);
  await until(app, 'Spindrift', (v) => v.tree.plan.trunkWay === 'slanting' && v.tree.plan.devices.length === 1);
  await says(page, /Chosen/);
  await visit(app, `/tree/${await idOf(app, 'Spindrift')}/guy?device=d1`);
  await says(page, /On the trunk, at.*Holds with\s+about [\d.]+ kg.*in the next stage/);
  await press(page, 'It is set up');
  await until(app, 'Spindrift', (v) => v.tree.record.at(-1)?.done === 'placed' && v.tree.record.at(-1).next);
  await visit(app, '/season');
  await says(page, /Spindrift\s+.*trunk: the next stage/);
  expect(app.errors).toEqual([]);
});
