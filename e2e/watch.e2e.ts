import { start } from '../apps/server/test/server';
import { actElsewhere, idOf, open, press, pressWhere, says, stored, text, until, visit, write, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4810);
});
afterAll(() => app.close());

/** The server ends as in a power cut, and starts again on another day. */
async function onDay(today: string, own: NodeJS.ProcessEnv = {}): Promise<void> {
  await app.server.kill();
  app.server = await start(app.folder, 4810, { USTLE_TODAY: today, ...own });
}

const lines = async (name: string): Promise<{ kind: string; branch?: string; stage?: string; pieces?: number }[]> => (await stored(app, name)).tree.record;
/** A thumb's press: what comes in the moment of another one's coming is not meant. */
async function tap(words: string): Promise<void> {
  await new Promise((done) => setTimeout(done, 600));
  await press(app.page, words);
}
const field = (label: string): string => `xpath/.//aside//label[starts-with(normalize-space(), "${label}")]/following::input[1]`;

test('a round without a network: the page opens again, answers wait on the phone, and each is stored once when the server is back', async () => {
  const { page } = app;
  await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 0.5 });
  await visit(app, '/walk');
  await says(page, /0 of \d+ looks done/);
  const all = Number(/0 of (\d+) looks/.exec(await text(page))![1]);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => true));
  const before = { Lantern: (await lines('Lantern')).length, Squall: (await lines('Squall')).length };
  await app.server.kill();
  await page.reload({ waitUntil: 'domcontentloaded' });
  await says(page, /No connection.*By the slip.*Lantern: first left/);
  await tap('touching');
  await says(page, /1 of \d+ looks done.*one answer waits.*Lantern: /);
  const here = Number(/All (\d+) here are clear/.exec(await text(page))![1]);
  expect(here).toBeGreaterThan(1);
  await tap(`All ${here} here are clear`);
  await says(page, /Clear: Lantern/);
  await tap(`Yes, I looked at all ${here}`);
  await says(page, new RegExp(`${here + 1} of \\d+ looks done.*${here + 1} answers wait.*Under the sail loft`));
  // Said at once, they are taken back at once; unsent, they are as if never said.
  await pressWhere(page, '[aria-label^="take back all"]', /./);
  await says(page, /1 of \d+ looks done.*one answer waits/);
  await page.goto(`${app.server.address}/walk`, { waitUntil: 'domcontentloaded' });
  await says(page, /By the slip.*Lantern: /);
  // What marks leads on: off, and what comes of the branch; taken back, all of it is.
  await tap('marking');
  await says(page, /Noted: marking\. Take it off now\?/);
  await tap('All of it is off');
  await says(page, /Does the branch hold/);
  await tap('It holds by itself');
  await says(page, /4 answers wait.*taken off, it holds/);
  await pressWhere(page, '[aria-label^="take back: Lantern"]:not([aria-label$="first left"])', /./);
  await says(page, /1 of \d+ looks done.*one answer waits/);
  await page.goto(`${app.server.address}/walk`, { waitUntil: 'domcontentloaded' });
  await says(page, /By the slip.*Lantern: /);
  await tap('marking');
  await tap('Later: it stays on for now');
  await says(page, /One is still on: Lantern, .*: marking/);
  await tap('clear');
  await says(page, /3 answers wait/);
  await page.reload({ waitUntil: 'domcontentloaded' });
  await says(page, /3 answers wait/);
  app.server = await start(app.folder, 4810);
  await until(app, 'Lantern', (v) => v.tree.record.length === before.Lantern + 3);
  await page.waitForFunction(() => !document.body.innerText.includes('wait on this device'), { timeout: 40_000 });
  expect((await lines('Lantern')).slice(before.Lantern).map((l) => [l.kind, l.stage])).toEqual(
    ['touching', 'marking', 'clear'].map((stage) => ['inspected', stage]),
  );
  // What was sent is taken back by a further line.
  await pressWhere(page, '[aria-label^="take back: Lantern"]', /./);
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'withdrawn');
  expect((await lines('Squall')).length).toBe(before.Squall);
  expect(all).toBeGreaterThan(6);
  // A branch that is cut meanwhile: the answer is not lost, and why it is not taken is said.
  const squall = await idOf(app, 'Squall');
  await page.goto(`${app.server.address}/walk?tree=${squall}`, { waitUntil: 'domcontentloaded' });
  await says(page, /Squall: .*aluminium/);
  const branch = await page.evaluate(
    async () => (await (await fetch('/api/walk')).json()).stops.find((s: { treeName: string }) => s.treeName === 'Squall').branch as string,
  );
  await app.server.kill();
  await tap('marking');
  await says(page, /one answer waits/);
  app.server = await start(app.folder, 4810);
  await actElsewhere(app, 'Squall', { kind: 'unlist', branches: [branch] } as never);
  await says(page, /1 of \d+ looks done/);
  await page.setViewport({ width: 1280, height: 800, deviceScaleFactor: 0.5 });
}, 180_000);

test('a year of one branch: looked at, its marking turns cut, taken off, measured after days, wired again from the shape that held', async () => {
  const { page } = app;
  const id = await idOf(app, 'Lantern');
  const watch = `/tree/${id}/watch?branch=b1`;
  await visit(app, watch);
  await says(page, /first left.*What you see|Seen on/);
  await write(page, field('Gap, if'), '1O');
  await says(page, /Gap, if you measured it: "1O" is not a number/);
  await write(page, field('Gap, if'), '');
  await press(page, 'touching');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).stage === 'touching');
  await press(page, 'put the look off');
  await press(page, 'Put off');
  await says(page, /Say why/);
  await write(page, 'xpath/.//aside//label[starts-with(normalize-space(), "Why")]//input', 'away at sea');
  await press(page, 'Put off');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'snoozed');
  await says(page, /Put off to .*away at sea/);

  await onDay('2026-06-12');
  await visit(app, '/season');
  await says(page, /Lantern\s.*first left.*: (look at the wire|take the wire off)/);
  await visit(app, watch);
  await press(page, 'marking');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).stage === 'marking');
  await press(page, 'Some turns came off');
  await says(page, /cut each turn across/i);
  await write(page, field('Pieces taken off'), '3');
  await press(page, 'Those turns are off');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'cut' && v.tree.record.at(-1).pieces === 3);
  await says(page, /Marks in the bark.*first left, about \d\.\d mm deep, the wire is still on.*likely grown out by/);

  await onDay('2026-07-06');
  await visit(app, watch);
  await press(page, 'It came off');
  await write(page, field('Pieces taken off'), '0');
  await says(page, /Pieces taken off.*between 1 and 1000 pieces; not 0/);
  await write(page, field('Pieces taken off'), '6');
  await write(page, field('Angle it holds now'), '50');
  await press(page, 'Cut off');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'unwired' && v.tree.record.at(-1).heldDeg === 50);

  await onDay('2026-07-13');
  await visit(app, '/season');
  await says(page, /Lantern\s+first left: measure the angle it holds/);
  await pressWhere(page, 'main a', /measure the angle it holds/);
  await says(page, /Angles to measure.*first left/);
  await write(page, field('Angle it holds'), '41');
  await says(page, /It has not set|It holds/);
  await press(page, 'Note it');
  await until(app, 'Lantern', (v) => v.tree.record.at(-1).kind === 'measured' && v.tree.record.at(-1).heldDeg === 41);
  await visit(app, '/season');
  await says(page, /What was learnt here.*Larch/);
  expect(await text(page)).not.toMatch(/measure the angle it holds/);

  const wire = {
    kind: 'wired',
    branch: 'b1',
    metal: 'copper',
    size: 3.26,
    strands: 1,
    angle: 45,
    hand: 'ccw',
    start: 'over',
    gap: 0,
    over: 120,
    bentDeg: 60,
    targetDeg: 55,
  } as const;
  expect((await actElsewhere(app, 'Lantern', wire)).status).toBe(200);
  await onDay('2027-05-20');
  await visit(app, watch);
  await says(page, /first left/);
  await visit(app, '/season?as=lanes');
  await says(page, /(?=.*Lantern)(?=.*Squall)/);
  await pressWhere(page, '[aria-label^="Look at Lantern"]', /^/);
  await says(page, /Lantern: look at .*with the walk of/);
  // Moved beyond what is sensible, it is said why not.
  await write(page, 'xpath/.//section[@aria-label="Chosen"]//label[normalize-space()="Move it to"]/following::input[1]', '1 Sep 2028');
  await write(page, 'xpath/.//section[@aria-label="Chosen"]//label[normalize-space()="Why"]//input', 'busy');
  await press(page, 'Move');
  await says(page, /Not beyond .*(it may mark|overdue)/);
}, 240_000);

test('the yard is opened to a phone: passphrase set by keyboard, a stranger sees nothing, the phone is let in and stays so after a restart', async () => {
  const { page, browser } = app;
  await onDay('2027-05-20');
  await visit(app, '/phone');
  await says(page, /Ustle answers this machine alone/);
  const words = 'xpath/.//label[contains(., "assphrase")]//input';
  await write(page, words, 'short');
  await page.keyboard.press('Enter');
  await says(page, /8 letters or more/);
  await write(page, words, 'the tide comes in');
  await page.keyboard.press('Enter');
  await says(page, /Another passphrase/);
  // What comes through a proxy is never this machine itself.
  const phone = await (await browser.createBrowserContext()).newPage();
  await phone.setExtraHTTPHeaders({ 'X-Forwarded-For': '192.0.2.9' });
  await phone.goto(`${app.server.address}/walk`, { waitUntil: 'domcontentloaded' });
  await says(phone, /The passphrase of the yard/);
  expect(await text(phone)).not.toMatch(/Lantern|Squall/);
  await write(phone, 'input[type="password"]', 'the tide goes out');
  await press(phone, 'Let me in');
  await says(phone, /not the passphrase of the yard/);
  await write(phone, 'input[type="password"]', 'the tide comes in');
  await press(phone, 'Let me in');
  await says(phone, /Walk.*looks? (done|today)|Nothing wants a look/);
  await onDay('2027-05-21');
  await phone.reload({ waitUntil: 'domcontentloaded' });
  await says(phone, /Walk/);
  expect(await text(phone)).not.toMatch(/The passphrase of the yard/);
}, 120_000);

test('the yard by keyboard: a bench is named, a tree put on it, the sheet and the tags follow; warmth is counted; a promise is moved', async () => {
  const { page } = app;
  await onDay('2026-05-20');
  await visit(app, '/walk/benches');
  await says(page, /By the slip.*Lee wall/);
  await write(page, 'xpath/.//label[contains(., "A further bench")]//input', 'Cold frame');
  await page.keyboard.press('Enter');
  await says(page, /4\. Cold frame/);
  await pressWhere(page, '[aria-label="Cold frame sooner"]', /./);
  await says(page, /3\. Cold frame/);
  const frame = await page.$eval('xpath/.//option[normalize-space()="Cold frame"]', (o) => (o as HTMLOptionElement).value);
  for (const name of ['Gannet', 'Perseverance']) {
    await page.select(`[aria-label="Where ${name} stands"]`, frame);
    await page.waitForSelector(`[aria-label="Cold frame"] [aria-label="Where ${name} stands"]`);
  }
  await page.focus('[aria-label="Perseverance sooner"]');
  await page.keyboard.press('Enter');
  await page.waitForSelector('[aria-label="Cold frame"] li:first-child [aria-label="Perseverance sooner"]');
  // The focus stays where it was pressed, though there is no sooner place.
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe('Perseverance sooner');
  await visit(app, '/walk/sheet');
  await says(page, /Perseverance.*Coast redwood, Cold frame/);
  // A code that leads to where no phone comes is none.
  await says(page, /No phone reaches this yard yet/);
  expect(await page.$$('svg[aria-label^="Code for"]')).toEqual([]);
  await onDay('2026-05-20', { USTLE_PROXY_PORT: '4811', USTLE_PROXY_NAME: 'yard.example.org' });
  await visit(app, '/walk/sheet');
  await page.waitForSelector('svg[aria-label^="Code for https://yard.example.org/walk?tree="]');
  await press(page, 'Tags for all trees');
  await says(page, /Tags.*Gannet.*Perseverance/);
  const codes = await page.$$eval('svg[aria-label^="Code for"]', (all) => all.map((e) => e.getAttribute('aria-label')));
  expect(new Set(codes).size).toBe(codes.length);
  expect(codes.every((c) => c!.includes('/walk?tree='))).toBe(true);
  await visit(app, '/season');
  await says(page, /by its warmth the season is/);
  await pressWhere(page, 'label', /Forecast growth by this warmth/);
  await page.waitForFunction(async () => (await (await fetch('/api/weather')).json()).on === true, { timeout: 20_000 });
  await visit(app, '/season?as=lanes');
  await says(page, /Lantern/);
  await pressWhere(page, 'button[aria-label*="in reserve"]', /^/);
  await says(page, /in reserve: keep or take off/);
  await write(page, 'xpath/.//section[@aria-label="Chosen"]//label[normalize-space()="Move it to"]/following::input[1]', '1 Feb 2027');
  await press(page, 'Move');
  await until(app, 'Lantern', (v) => v.tree.plan.decisions.some((d: { act: string; until?: string }) => d.act === 'reserve' && d.until === '2027-02-01'));
}, 120_000);
