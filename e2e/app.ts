import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { execFileSync } from 'node:child_process';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { start, type Running } from '../apps/server/test/server';

export interface App {
  server: Running;
  browser: Browser;
  page: Page;
  /** Errors the page threw or logged. */
  errors: string[];
  close: () => Promise<void>;
}

const FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
];

/** The built application on an empty folder, in a fresh browser. */
export async function open(port: number, viewport = { width: 1280, height: 800 }): Promise<App> {
  const server = await start(mkdtempSync(join(tmpdir(), 'ustle-e2e-')), port);
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: true,
    args: FLAGS,
    userDataDir: mkdtempSync(join(tmpdir(), 'ustle-browser-')),
  });
  const page = await browser.newPage();
  await page.setViewport(viewport);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(String(error)));
  // A stream of readings is broken off when its page is left; that is no failure.
  page.on('requestfailed', (request) => void (request.resourceType() === 'eventsource' || errors.push(`failed: ${request.url()}`)));
  return { server, browser, page, errors, close: async () => (await browser.close(), server.kill()) };
}

/** Loads the demo studio through its own loader. */
export function loadStudio(address: string): void {
  const loader = pathToFileURL(resolve(__dirname, '../demo/load.mjs')).href;
  execFileSync(process.execPath, [
    '--input-type=module',
    '-e',
    `const { loadStudio } = await import(${JSON.stringify(loader)}); await loadStudio(${JSON.stringify(address)})`,
  ]);
}

const READY = '[data-ready="1"]';

export const sceneReady = (page: Page): Promise<unknown> => page.waitForSelector(READY, { timeout: 60_000 });

/** Clicks the first button or link whose text begins so. */
export async function press(page: Page, text: string): Promise<void> {
  await page.waitForFunction(
    (t) => [...document.querySelectorAll('button, a')].some((e) => e.textContent!.trim().startsWith(t) && !(e as HTMLButtonElement).disabled),
    { timeout: 20_000 },
    text,
  );
  await page.evaluate((t) => {
    const found = [...document.querySelectorAll<HTMLElement>('button, a')].find(
      (e) => e.textContent!.trim().startsWith(t) && !(e as HTMLButtonElement).disabled,
    );
    found!.click();
  }, text);
}

export const text = (page: Page): Promise<string> => page.evaluate(() => document.body.innerText);

/** Puts a value into a field, as typing it would. */
export const fill = (page: Page, selector: string, value: string): Promise<void> =>
  page.$eval(
    selector,
    (field, v) => {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(field, v);
      field.dispatchEvent(new Event('input', { bubbles: true }));
    },
    value,
  );

/** Waits until the page says something; if it does not, tells what it says instead. */
export async function says(page: Page, pattern: RegExp): Promise<void> {
  try {
    await page.waitForFunction(
      (source, flags) => new RegExp(source, flags).test(document.body.innerText),
      { timeout: 20_000 },
      pattern.source,
      `${pattern.flags}s`,
    );
  } catch {
    throw new Error(`The page does not say ${pattern} but:\n${await text(page)}`);
  }
}
