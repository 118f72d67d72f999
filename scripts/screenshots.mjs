// Refreshes docs/screenshots from the demo studio.
import { mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM_FLAGS } from './chromium-flags.mjs';
import { build, chromium, install, root, serve } from './lib.mjs';

install();
build();
const { default: puppeteer } = await import('puppeteer-core');
const { loadStudio } = await import('../demo/load.mjs');
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const { address, server } = await serve(
  { USTLE_DATA: mkdtempSync(join(tmpdir(), 'ustle-shots-')), USTLE_PORT: '4810', USTLE_NAME: 'Tidewall Yard', USTLE_TODAY: '2026-06-12' },
  { quiet: true },
);
await loadStudio(address);
const trees = await (await fetch(`${address}/api/trees`)).json();
const idOf = (name) => trees.find((t) => t.name === name).id;

const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const firstCoil = async (name) => (await (await fetch(`${address}/api/trees/${idOf(name)}/plan`)).json()).wires[0].branch;
const firstRun = async (name) => {
  const plan = await (await fetch(`${address}/api/trees/${idOf(name)}/plan`)).json();
  const on = new Set(plan.wires.map((w) => w.branch));
  return plan.runs.flatMap((r) => r.branches).find((b) => !on.has(b.branch)).branch;
};

/** The thickest branch on the trunk that stays. */
const thickest = async (name) => {
  const { tree } = await (await fetch(`${address}/api/trees/${idOf(name)}`)).json();
  const cut = new Set(tree.plan.decisions.map((d) => d.branch));
  return tree.branches.filter((b) => b.parent === 'trunk' && b.state !== 'dead' && !cut.has(b.id)).sort((a, b) => b.d - a.d)[0].id;
};

const firstPose = async (name) => (await (await fetch(`${address}/api/trees/${idOf(name)}/plan`)).json()).poses.find((p) => p.from === 'plan').branch;

/** Begins a session on a tree as the page would, and gives the key of its first piece of wire. */
const firstWire = async (name) => {
  const [{ tree }, plan] = await Promise.all([`/api/trees/${idOf(name)}`, `/api/trees/${idOf(name)}/plan`].map(async (p) => (await fetch(address + p)).json()));
  const { layOut, dayOf } = await import('@ustle/core');
  const laid = layOut(tree, plan, dayOf(plan.on), { hours: 4 });
  const act = {
    id: 'shown',
    on: plan.on,
    kind: 'session',
    session: 'shown',
    done: 'begun',
    by: 'Robin',
    hours: 4,
    holds: laid.holds,
    leaves: laid.leaves,
    did: laid.settles,
  };
  await fetch(`${address}/api/trees/${idOf(name)}/acts`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ act }) });
  return laid.steps.find((s) => s.kind === 'wire').key;
};

const VIEWS = [
  ['bench', '/bench', DESK],
  ['season', '/season', DESK],
  ['read', `/tree/${idOf('Lantern')}/read`, DESK],
  ['front', `/tree/${idOf('Lantern')}/front`, DESK],
  ['front-lamp', `/tree/${idOf('Gannet')}/front`, DESK, 'lamp'],
  ['season-lanes', '/season?as=lanes', DESK],
  ['measure', `/tree/${idOf('Gannet')}/measure?branch=b1`, DESK],
  ['remove', `/tree/${idOf('Lantern')}/remove?branch=b37`, DESK],
  ['remove-outcome', `/tree/${idOf('Lantern')}/remove?sheet=outcome&wipe=1`, DESK],
  ['pose', `/tree/${idOf('Levanter')}/pose?branch=${await firstPose('Levanter')}`, DESK],
  ['wire', `/tree/${idOf('Lantern')}/wire?branch=${await firstRun('Lantern')}`, DESK],
  ['rack', `/rack?trees=${idOf('Lantern')},${idOf('Gannet')}`, DESK],
  ['guy', `/tree/${idOf('Gannet')}/guy?branch=${await thickest('Gannet')}`, DESK],
  ['work', `/tree/${idOf('Lantern')}/work?step=${await firstWire('Lantern')}`, DESK],
  ['record', `/tree/${idOf('Perseverance')}/record?day=2026-04-13&photo=perseverance-3`, DESK],
  ['proposal', `/tree/${idOf('Gannet')}/proposal`, { width: 900, height: 1000 }],
  ['watch', `/tree/${idOf('Squall')}/watch?branch=${await firstCoil('Squall')}`, DESK],
  ['photographs', `/tree/${idOf('Levanter')}/measure?measures=photographs&line=b1`, DESK],
  ['phone-walk', '/walk', PHONE],
];

const browser = await puppeteer.launch({
  executablePath: await chromium(),
  headless: true,
  args: CHROMIUM_FLAGS,
});
for (const [name, path, viewport, theme = 'paper', key] of VIEWS) {
  const page = await (await browser.createBrowserContext()).newPage();
  await page.setViewport(viewport);
  await page.evaluateOnNewDocument((t) => localStorage.setItem('ustle-theme', t), theme);
  await page.goto(address + path, { waitUntil: 'load' });
  await page.waitForSelector(
    path.endsWith('/proposal') ? 'main dl' : path.startsWith('/tree') ? '[data-ready="1"]' : 'main li, main section, [aria-label="Lanes"] a',
  );
  await page.waitForFunction(() => !document.querySelector('.animate-pulse'));
  if (key) await page.keyboard.press(key);
  await new Promise((done) => setTimeout(done, 2500));
  await page.screenshot({ path: join(folder, `${name}.png`) });
  console.log(name);
  await page.close();
}
await browser.close();
server.removeAllListeners('exit');
server.kill();
