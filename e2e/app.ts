import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';
import type { Intent } from '@ustle/core';
import { ask, doAct, start, type Answer, type Running } from '../apps/server/test/server';
import { CHROMIUM_FLAGS } from '../scripts/chromium-flags.mjs';

export interface App {
  server: Running;
  /** Where it keeps its data: it can be started on it again. */
  folder: string;
  browser: Browser;
  page: Page;
  /** Errors the page threw or logged. */
  errors: string[];
  close: () => Promise<void>;
}

/** The built application on the demo studio or an empty folder, in a fresh browser. */
export async function open(port: number, on: 'studio' | 'nothing' = 'studio'): Promise<App> {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-e2e-'));
  if (on === 'studio') cpSync(process.env.USTLE_STUDIO!, folder, { recursive: true });
  const server = await start(folder, port);
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: true,
    args: CHROMIUM_FLAGS,
    userDataDir: mkdtempSync(join(tmpdir(), 'ustle-browser-')),
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800, deviceScaleFactor: 0.5 });
  page.setDefaultTimeout(60_000);
  // Asked by the clock: a page that another one covers draws no frames to ask at.
  const waitFor = page.waitForFunction.bind(page) as (...of: unknown[]) => unknown;
  page.waitForFunction = ((asked: unknown, options: object = {}, ...own: unknown[]) =>
    waitFor(asked, { polling: 50, ...options }, ...own)) as Page['waitForFunction'];
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(String(error)));
  // A stream of readings, or what was being read for the sake of another's change, is broken off when its page is left; that is no failure.
  page.on(
    'requestfailed',
    (request) =>
      void (request.resourceType() === 'eventsource' || request.failure()?.errorText === 'net::ERR_ABORTED' || errors.push(`failed: ${request.url()}`)),
  );
  const app: App = { server, folder, browser, page, errors, close: async () => (await browser.close(), app.server.kill()) };
  return app;
}

// What the API answers is read as it comes: a test says what it expects of it.

type Stored = any;

export async function idOf({ server }: App, name: string): Promise<string> {
  return (await ask(server.address, 'GET', '/api/trees')).body.find((t: { name: string }) => t.name === name).id;
}

/** The tree of a name as the server keeps it. */
export const stored = async (app: App, name: string): Promise<Stored> => (await ask(app.server.address, 'GET', `/api/trees/${await idOf(app, name)}`)).body;

/** Does an act on the tree of a name, as another page would. */
export const actElsewhere = async (app: App, name: string, intent: Intent): Promise<Answer> => doAct(app.server.address, await idOf(app, name), intent);

const READY = '[data-ready="1"]';

/** Waits until the turntable is drawn; if it is not, tells what the page says instead. */
export async function sceneReady(page: Page): Promise<void> {
  try {
    await page.waitForFunction((ready) => document.querySelector(ready), { timeout: 60_000, polling: 50 }, READY);
  } catch {
    throw new Error(`No turntable at ${page.url()}, but:\n${await text(page)}`);
  }
}

/** Waits until all that was changed on the page is stored. */
const written = (page: Page): Promise<unknown> => page.waitForFunction(() => document.body.dataset.writing !== '1', { timeout: 40_000, polling: 50 });

/** Goes to a place in the application, or loads this one anew; a tree's page is there once its scene is drawn. */
export async function visit({ page, server }: App, path?: string): Promise<void> {
  await written(page);
  if (path === undefined) await page.reload({ waitUntil: 'domcontentloaded' });
  else await page.goto(server.address + path, { waitUntil: 'domcontentloaded' });
  if (/^\/tree\/[^/]+\/(?!cuts|pieces|proposal|report|sheet)/.test(new URL(page.url()).pathname)) await sceneReady(page);
}

/** Waits until the stored tree of a name is so. */
export async function until(app: App, name: string, check: (view: Stored) => unknown): Promise<void> {
  for (const end = Date.now() + 40_000; ; await new Promise((done) => setTimeout(done, 100))) {
    const now = await stored(app, name);
    if (await check(now)) return;
    if (Date.now() > end) throw new Error(`Not stored so: ${JSON.stringify(now.tree).slice(0, 2000)}`);
  }
}

/** Presses what a selector and its text name, where the words alone would not tell it. */
export const pressWhere = (page: Page, selector: string, text: RegExp): Promise<unknown> =>
  page.waitForFunction(
    (s, source, flags) => {
      const found = [...document.querySelectorAll<HTMLElement>(s)].find((e) => new RegExp(source, flags).test(e.textContent!));
      found?.click();
      return found !== undefined;
    },
    { timeout: 40_000, polling: 50 },
    selector,
    text.source,
    text.flags,
  );

/** Clicks the first button or link whose text begins so. */
export async function press(page: Page, text: string): Promise<void> {
  await page.waitForFunction(
    (t) => [...document.querySelectorAll('button, a')].some((e) => e.textContent!.trim().startsWith(t) && !e.matches(':disabled, [aria-disabled=true]')),
    { timeout: 40_000, polling: 50 },
    text,
  );
  await page.evaluate((t) => {
    const found = [...document.querySelectorAll<HTMLElement>('button, a')].find(
      (e) => e.textContent!.trim().startsWith(t) && !e.matches(':disabled, [aria-disabled=true]'),
    );
    found!.click();
  }, text);
}

export const text = (page: Page): Promise<string> => page.evaluate(() => document.body.innerText);

/** What a selector names, once it is there. */
export const there = async (page: Page, selector: string): Promise<ElementHandle> => (await page.waitForSelector(selector))!;

/** Puts the focus on what a selector names. */
export const focus = async (page: Page, selector: string): Promise<void> =>
  (await there(page, selector)).evaluate((e) => (e as HTMLElement | SVGElement).focus());

/** Puts a value into a field, as typing it would. */
export const fill = async (page: Page, selector: string, value: string): Promise<void> =>
  (await there(page, selector)).evaluate((field, v) => {
    const kind = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement : HTMLInputElement;
    Object.getOwnPropertyDescriptor(kind.prototype, 'value')!.set!.call(field, v);
    field.dispatchEvent(new Event('input', { bubbles: true }));
  }, value);

/** Writes into a field as a person does, and leaves it: what was there is replaced. */
export async function write(page: Page, selector: string, value: string): Promise<void> {
  await focus(page, selector);
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(value);
  await page.keyboard.press('Tab');
}

/** Walks by Tab to the control that says or is called so. */
export async function tabTo({ page }: App, name: string): Promise<void> {
  for (let i = 0; i < 160; i++) {
    const here = await page.evaluate(() => {
      const e = document.activeElement!;
      return `${e.getAttribute('aria-label') ?? ''}|${(e.textContent ?? '').trim()}`;
    });
    if (here.split('|').some((words) => words.startsWith(name))) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never comes to "${name}"`);
}
/** Presses Enter on the control that says or is called so. */
export const enter = async (app: App, name: string): Promise<void> => {
  await tabTo(app, name);
  await app.page.keyboard.press('Enter');
};

/** Waits until the page says something and all that was written on it is stored; if it does not, tells what it says instead. */
export async function says(page: Page, pattern: RegExp): Promise<void> {
  try {
    await page.waitForFunction(
      (source, flags) => document.body.dataset.writing === '0' && new RegExp(source, flags).test(document.body.innerText),
      { timeout: 40_000, polling: 50 },
      pattern.source,
      `${pattern.flags}s`,
    );
  } catch {
    throw new Error(`The page does not say ${pattern} but:\n${await text(page)}`);
  }
}
