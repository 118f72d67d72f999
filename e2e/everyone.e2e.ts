import { readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { idOf, open, press, sceneReady, visit, type App } from './app';

const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

let app: App;
beforeAll(async () => {
  app = await open(4765);
});
afterAll(() => app.close());

/** A session's step at hand; begun where none is open yet. */
async function atAStep(page: Page): Promise<void> {
  await page.waitForFunction(() => document.querySelector('article[aria-label]') ?? document.querySelector('ol[aria-label="Its steps"]'));
  if (!(await page.$('article[aria-label]'))) await press(page, 'Begin the session');
  await page.waitForSelector('article[aria-label]');
}

/** Every view: its address, of which tree, and what is opened on it. */
const VIEWS: [name: string, tree: string | null, path: string, opened?: (page: Page) => Promise<void>][] = [
  ['bench', null, '/bench'],
  ['season', null, '/season'],
  ['lanes', null, '/season?as=lanes'],
  ['walk', null, '/walk'],
  ['benches', null, '/walk/benches'],
  ['walk sheet', null, '/walk/sheet'],
  ['phone', null, '/phone'],
  ['rack', null, '/rack?roll=copper-1.63'],
  ['wire comes in', null, '/rack?new='],
  ['pieces on paper', 'Squall', '/pieces'],
  ['read', 'Squall', '/read'],
  ['measure', 'Perseverance', '/measure'],
  [
    'photographs',
    'Levanter',
    '/measure?measures=photographs',
    (page) => page.waitForFunction(() => /stand in space/.test(document.body.innerText)).then(() => undefined),
  ],
  ['by photos', null, '/new?by=photos'],
  ['front', 'Lantern', '/front'],
  ['findings', 'Old Ferry', '/remove?branch=b1'],
  ['what follows', 'Squall', '/remove?sheet=outcome'],
  ['to cut', 'Gannet', '/remove?sheet=cut'],
  ['list to take along', 'Gannet', '/cuts'],
  ['pose', 'Levanter', '/pose?branch=b1&bend=0&arch=1'],
  ['trunk', 'Gannet', '/pose?sheet=trunk'],
  ['wire', 'Squall', '/wire?branch=b1'],
  ['guy', 'Lantern', '/guy'],
  ['a tie', 'Perseverance', '/guy', async (page) => (await page.waitForSelector('[data-guy]'))!.evaluate((row) => (row as HTMLElement).click())],
  ['work to begin', 'Lantern', '/work'],
  ['work', 'Levanter', '/work', atAStep],
  ['record', 'Perseverance', '/record', (page) => press(page, 'lay it over the tree')],
  ['proposal', 'Gannet', '/proposal'],
  ['report', 'Perseverance', '/report'],
  ['work on paper', 'Squall', '/sheet'],
  ['watch', 'Lantern', '/watch'],
  ['wire off', 'Squall', '/watch?branch=b1', (page) => press(page, 'It came off')],
  ['about a tree', 'Lantern', '/watch', (page) => press(page, 'About it')],
  ['no such tree', null, '/tree/nobody/front'],
  ['nothing there', null, '/nowhere'],
];

const SIZES = [
  { width: 1280, height: 800 },
  { width: 390, height: 844, hasTouch: true, isMobile: true },
];

/** To a place within the open application, as the browser's own forward button goes there. */
const goTo = (page: Page, path: string): Promise<void> =>
  page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);

/** Opens a view afresh, from a place that shares nothing with it. */
async function see([, tree, path, opened]: (typeof VIEWS)[number]): Promise<void> {
  const { page } = app;
  await goTo(page, '/nowhere');
  await page.waitForFunction(() => /nothing at this address/i.test(document.body.innerText));
  await page.evaluate(() => document.querySelectorAll('style[data-look]').forEach((style) => style.remove()));
  if (path !== '/nowhere') {
    await goTo(page, tree ? `/tree/${await idOf(app, tree)}${path}` : path);
    await page.waitForFunction(() => !/nothing at this address/i.test(document.body.innerText));
    const drawn = tree && !/^\/(cuts|pieces|proposal|report|sheet)/.test(path);
    if (drawn) await sceneReady(page);
  }
  await page.waitForFunction(() => document.querySelector('main h1') && !document.querySelector('main [aria-hidden] .animate-pulse'));
  await opened?.(page);
}

/** Changes how the page looks until the next view is opened. */
const look = (page: Page, css: string): Promise<void> =>
  page.evaluate((rules) => {
    const style = document.createElement('style');
    style.dataset.look = '';
    style.textContent = rules;
    document.head.append(style);
  }, css);

/** What axe finds on the page by all its rules, or by one, each fault with where it is. */
const faults = (page: Page, rule?: string): Promise<string[]> =>
  page.evaluate(async (only) => {
    const { violations } = await (window as any).axe.run(document, { resultTypes: ['violations'], ...(only ? { runOnly: [only] } : {}) });
    return violations.flatMap((v: any) =>
      v.nodes.map((n: any) => `${v.id}: ${n.target.join(' ')} ${n.any[0]?.message ?? n.failureSummary ?? ''}`.slice(0, 300)),
    );
  }, rule);

/** What a finger cannot hit, and words that are too small to read. */
const unhandy = (page: Page, touch: boolean): Promise<string[]> =>
  page.evaluate((fingers) => {
    const inSight = (e: Element): boolean => e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) && e.getBoundingClientRect().width > 1;
    const say = (e: Element): string => `<${e.tagName.toLowerCase()}> "${(e.textContent || e.getAttribute('aria-label') || '').trim().slice(0, 40)}"`;
    const small = [...document.querySelectorAll('body *')]
      .filter((e) => [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent!.trim()) && inSight(e) && !e.closest('.sr-only'))
      .filter((e) => parseFloat(getComputedStyle(e).fontSize) < (e.closest('[role=application], svg') ? 14 : 15))
      .map((e) => `${say(e)} is written at ${getComputedStyle(e).fontSize}`);
    if (!fingers) return small;
    // A word within a sentence is hit where its line is; labels on the tree reach farther than they are drawn.
    const inLine = (e: Element): boolean => e.tagName === 'A' && getComputedStyle(e).display === 'inline';
    const tight = [...document.querySelectorAll('button, a[href], summary, select, input:not([type=hidden]), textarea, [role=slider], [role=tab]')]
      .filter((e) => inSight(e) && !inLine(e) && !e.matches('[type=file], .sr-only') && !e.closest('svg') && !e.hasAttribute('data-label'))
      .map((e) => ({ e, box: (e.matches('[type=checkbox], [type=radio]') ? (e.closest('label') ?? e) : e).getBoundingClientRect() }))
      .filter(({ box }) => box.width < 43.5 || box.height < 43.5)
      .map(({ e, box }) => `${say(e)} is ${Math.round(box.width)} × ${Math.round(box.height)}`);
    return [...small, ...tight];
  }, touch);

/** By how much a page runs off the side at widths between a phone's and a table's. */
async function offTheSide(page: Page): Promise<string[]> {
  const wide: string[] = [];
  // The scene takes whatever room it is given: it is not drawn anew for each.
  await look(page, '[role=application] > * { display: none !important; }');
  for (const width of [360, 600, 768, 1024]) {
    await page.setViewport({ width, height: 740, deviceScaleFactor: 0.5 });
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    const over = await page.evaluate(() => {
      const pane = document.querySelector('#root .overflow-auto') ?? document.body;
      return Math.max(document.documentElement.scrollWidth - window.innerWidth, pane.scrollWidth - pane.clientWidth);
    });
    if (over > 1) wide.push(`at ${width} it runs off the side by ${over} px`);
  }
  return wide;
}

test.each(SIZES)('at $width × $height nothing is in the way of anybody, by day and by lamp, nor off the side at other widths', async (size) => {
  const { page } = app;
  const found: string[] = [];
  await page.setViewport({ deviceScaleFactor: 0.5, ...size });
  await visit(app, '/bench');
  await page.evaluate(axe);
  for (const view of VIEWS) {
    await page.setViewport({ deviceScaleFactor: 0.5, ...size });
    await see(view);
    // What stands on the page is the same on a phone: names, roles and colours are looked at once, and by lamp only the colours.
    if (!size.hasTouch) {
      // Colours that fade from one theme to the other are read when they are there.
      await look(page, '* { transition: none !important; }');
      found.push(...(await faults(page)).map((f) => `${view[0]}: ${f}`));
      const byDay = await page.evaluate(() => document.documentElement.dataset.theme!);
      await page.evaluate(() => void (document.documentElement.dataset.theme = 'lamp'));
      found.push(...(await faults(page, 'color-contrast')).map((f) => `${view[0]}, by lamp: ${f}`));
      await page.evaluate((theme) => void (document.documentElement.dataset.theme = theme), byDay);
    }
    found.push(...(await unhandy(page, size.hasTouch ?? false)).map((f) => `${view[0]}: ${f}`));
    if (!size.hasTouch) found.push(...(await offTheSide(page)).map((f) => `${view[0]}: ${f}`));
  }
  expect([...new Set(found)]).toEqual([]);
});
