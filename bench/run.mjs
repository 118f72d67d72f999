// Performance and scale: times are of this machine, ratios and growth are what to compare.
import { randomUUID } from 'node:crypto';
import { Agent, get } from 'node:http';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createRequire } from 'node:module';
import { build, chromium, install, serve } from '../scripts/lib.mjs';
import { CHROMIUM_FLAGS } from '../scripts/chromium-flags.mjs';

install();
build();
// What it measures is there only now.
const {
  anchorsOf,
  asItStands,
  consequencesOf,
  dayOf,
  drawTipTo,
  energyOf,
  equilibrium,
  forecast,
  findingsOf,
  gapMap,
  generateTree,
  HEFT,
  hidingOf,
  judgeFront,
  largeTree,
  limb,
  MARK_LIMIT,
  NOTHING_KNOWN,
  placeTree,
  planTree,
  proposePoses,
  rodOf,
  scanFronts,
  searchFronts,
  shapeOf,
  slopeOf,
  speciesOf,
  tieDown,
  USUAL_COURSE,
  woodOf,
  PlanMemory,
} = await import('@ustle/core');
const { bentRecord } = await import('./bent-record.mjs');
const { rayCast } = await import('./ray-cast.mjs');
const { measureWiring, oneChange } = await import('./wiring.mjs');

/** Median of some runs, in milliseconds. */
function time(work, runs = 5) {
  const times = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)];
}
const ms = (t) => `${t < 10 ? t.toFixed(2) : t.toFixed(0)} ms`;
const rowOfWiring = ({ n, first, then, unchanged, change, worst, pieces, branches, paired }, growth = '') =>
  row(
    `pieces with their paths, ${n} branches`,
    ms(then),
    `${growth}the first time ${ms(first)}, unchanged ${ms(unchanged)}, after one change ${ms(change)}, at worst ${ms(worst)}; ${pieces} pieces, ${Math.round((100 * paired) / branches)}% of ${branches} branches in pairs`,
  );
const row = (name, value, note = '') => console.log(`${name.padEnd(52)} ${value.padStart(10)}  ${note}`);

console.log('\nRod: a tip dragged along a curve, 100 steps of about 3 mm');
const dragged = limb([[0, 0, 0], [100, 20, 10], [200, 10, 40], [300, 0, 60]], [14, 10, 7, 4]); // prettier-ignore
const LARCH = woodOf(speciesOf('larch'));
const place = (a) => [290 - 80 * a, 100 * Math.sin(4 * a), 40 - 200 * a];
/** The same energy with a plain gradient descent: the step halved until it goes down, doubled when it did. */
function descend(rod, pull, start, most) {
  let bends = start;
  let energy = energyOf(rod, bends, pull);
  let step = 1e-6;
  let count = 0;
  for (; count < most; count++) {
    const { gradient } = slopeOf(rod, bends, pull, shapeOf(rod, bends));
    const next = () => bends.map((b, i) => b - step * gradient[i]);
    let tried = next();
    let after = energyOf(rod, tried, pull);
    while (after > energy && step > 1e-14) {
      step /= 2;
      tried = next();
      after = energyOf(rod, tried, pull);
    }
    if (energy - after < 1e-9 * Math.abs(energy)) break;
    [bends, energy] = [tried, after];
    step *= 2;
  }
  return { count, energy };
}
const drags = [20, 40, 80].map((segments) => {
  const rod = rodOf(dragged, LARCH, { segments, heft: HEFT });
  let at = drawTipTo(rod, place(0));
  const times = [];
  let steps = 0;
  for (let i = 1; i <= 100; i++) {
    const start = performance.now();
    at = drawTipTo(rod, place(i / 100), at);
    times.push(performance.now() - start);
    steps += at.steps;
  }
  times.sort((a, b) => a - b);
  row(`${segments} segments`, ms(times[95]), `p95; median ${ms(times[50])}, ${(steps / 100).toFixed(1)} of Newton's steps`);
  return times[50];
});
row('growth by segments', `× ${(drags[1] / drags[0]).toFixed(1)}`, `20 to 40; × ${(drags[2] / drags[1]).toFixed(1)} from 40 to 80`);
const still = rodOf(dragged, LARCH, { segments: 40, heft: HEFT });
const spring = { spring: { to: place(1), stiffness: 2 } };
const newton = equilibrium(still, spring);
const newtonTime = time(() => equilibrium(still, spring), 3);
row('from rest to one place, 40 segments, Newton', ms(newtonTime), `${newton.energies.length - 1} steps`);
let descent;
const descentTime = time(() => (descent = descend(still, spring, new Float64Array(80), 4000)), 1);
const left = descent.energy - newton.energies.at(-1);
row(
  'the same with a plain gradient descent',
  ms(descentTime),
  `${descent.count} steps, × ${(descentTime / newtonTime).toFixed(0)}; ${left.toPrecision(2)} N·mm above the rest`,
);

console.log('\nPoses');
const posing = [75, 150, 300].map((n) => {
  const tree = { ...largeTree(n, 3) };
  const posed = { ...tree, plan: { ...tree.plan, front: { bearing: 30, pitch: 4, roll: 0 } } };
  const gaps = gapMap(placeTree(posed), placeTree(posed), posed.plan.front);
  return time(() => proposePoses(placeTree({ ...posed, branches: [...posed.branches] }), gaps));
});
posing.forEach((t, i) => row(`poses and bends, ${[75, 150, 300][i]} branches`, ms(t), i ? `× ${(t / posing[i - 1]).toFixed(2)} for twice the branches` : ''));

console.log('\nWire');
const wirings = measureWiring([75, 150, 300]);
wirings.forEach(({ n, then, ...of }, i) => rowOfWiring({ n, then, ...of }, i ? `× ${(then / wirings[i - 1].then).toFixed(1)} for twice the branches; ` : ''));

const whole = largeTree(300, 3);
const planOn = dayOf('2026-05-20');
const wholeMemory = new PlanMemory();
const planned = (tree) => planTree(tree, planOn, { fronts: false, places: true, memory: wholeMemory });
const wholeTook = time(() => planTree(whole, planOn, { fronts: false, places: true }), 2);
const wholePlan = planned(whole);
const wholeChanges = oneChange(whole, wholePlan).map((tree) => {
  const took = time(() => planned(tree), 1);
  planned(whole);
  return took;
});
wholeChanges.sort((a, b) => a - b);
row(
  'a whole plan, 300 branches',
  ms(wholeTook),
  `unchanged ${ms(time(() => planned(whole), 3))}, after one change ${ms(wholeChanges[Math.floor(wholeChanges.length / 2)])}, at worst ${ms(wholeChanges.at(-1))}`,
);

console.log('\nTies');
const bough = { line: limb([[0, 0, 200], [160, 20, 280], [360, 0, 360]], [26, 20, 12]), wood: woodOf(speciesOf('yew')), heft: HEFT, at: 250, toward: [1, 0.05, 0.05] }; // prettier-ignore
const tieTimes = [14, 20, 40, 80].map((segments) => time(() => tieDown({ ...bough, anchors: [[250, 0, 0]], segments }), 5));
tieTimes.forEach((t, i) => row(`one tie solved, ${[14, 20, 40, 80][i]} segments`, ms(t), i ? `× ${(t / tieTimes[i - 1]).toFixed(1)}` : ''));
row('two ties on one branch, 40 segments', ms(time(() => tieDown({ ...bough, anchors: [[260, -180, 0], [200, 220, 0]] }), 5))); // prettier-ignore
const tiedTree = placeTree(largeTree(150, 3));
const tiedPoses = proposePoses(tiedTree).poses;
const held = tiedTree.branches.find((b) => b.order === 1 && tiedPoses.some((p) => p.branch === b.branch.id)).branch.id;
let ranked;
const ranking = time(() => (ranked = anchorsOf(tiedTree, tiedPoses, held).anchors), 3);
row(`${ranked.length} anchors ranked, 150 branches`, ms(ranking), `${(ranking / ranked.length).toFixed(1)} ms each`);

console.log('\nFront search');
const TILTS = [-20, -15, -10, -5, 0, 5, 10, 15, 20];
const sizes = [75, 150, 300];
const level = sizes.map((n) => {
  const placed = placeTree(largeTree(n, 3));
  searchFronts(placed, { step: 15 });
  return time(() => searchFronts(placed));
});
level.forEach((t, i) => row(`120 bearings, level, ${sizes[i]} branches`, ms(t), i ? `× ${(t / level[i - 1]).toFixed(2)} for twice the branches` : ''));
const large = placeTree(largeTree(300, 3));
row('coarse rose (24 bearings), 300 branches', ms(time(() => [...scanFronts(large, { step: 15 })])));
const all = sizes.map((n) => {
  const placed = placeTree(largeTree(n, 3));
  return time(() => searchFronts(placed, { pitches: TILTS, rolls: TILTS }), 3);
});
all.forEach((t, i) => row(`9,720 views, ${sizes[i]} branches`, ms(t), i ? `× ${(t / all[i - 1]).toFixed(2)} for twice the branches` : ''));
const hiding = hidingOf(large);
const buffered = time(() => [0, 90, 180, 270].forEach((b) => hiding(b, 0))) / 4;
const cast = time(() => rayCast(large, 90, 0, 24, 32), 1) * ((96 * 128) / (24 * 32));
row('hidden share of one view, depth buffer', ms(buffered), `plain ray cast of as many cells: ${ms(cast)}, × ${(cast / buffered).toFixed(0)}`);

console.log('\nFindings and forecasts');
const found = [75, 150, 300].map((n) => {
  const placed = placeTree(largeTree(n, 3));
  const seen = judgeFront(placed, { bearing: 30, pitch: 0, roll: 0 });
  return time(() => findingsOf(placed, seen), 15);
});
found.forEach((t, i) => row(`all findings, ${sizes[i]} branches`, ms(t), i ? `× ${(t / found[i - 1]).toFixed(2)} for twice the branches` : ''));
const decidedTree = (n) => {
  const tree = largeTree(n, 3);
  const decisions = tree.branches.filter((_, i) => i % 5 === 0).map((b) => ({ branch: b.id, act: 'remove' }));
  return { ...tree, plan: { ...tree.plan, front: { bearing: 30, pitch: 0, roll: 0 }, decisions } };
};
const weighed = sizes.map((n) => {
  const tree = decidedTree(n);
  return time(() => consequencesOf(tree, dayOf('2026-10-10')), 15);
});
weighed.forEach((t, i) =>
  row(`all that follows from a decision, ${sizes[i]} branches`, ms(t), i ? `× ${(t / weighed[i - 1]).toFixed(2)} for twice the branches` : ''),
);
const coil = (i) => {
  const species = speciesOf(['larch', 'maple-trident', 'olive', 'juniper-scale'][i % 4]);
  const target = 0.006 + (i % 17) * 0.001;
  return {
    species,
    hemisphere: 'north',
    since: dayOf('2026-02-01') + (i % 90),
    diameter: 4 + (i % 11),
    wireDiameter: 2,
    factor: 0.7 + (i % 7) * 0.2,
    allowance: (i % 3) * 0.3,
    straight: null,
    course: USUAL_COURSE,
    markLimit: MARK_LIMIT[species.bark],
    bend: { wired: target * 1.1, stored: target * 0.3, target, storedSd: 0.2, assumedLength: null },
    unknown: NOTHING_KNOWN,
    seen: [],
  };
};
const bentTree = generateTree({ seed: 3, name: 'Bent', species: 'larch', height: 500, base: 50, primaries: 10, secondaries: 3 });
const standing = [0, 1, 2, 4].map((years) => {
  const record = bentRecord(bentTree, dayOf('2022-03-01'), years);
  return { lines: record.length, took: time(() => placeTree(asItStands({ ...bentTree, branches: [...bentTree.branches], record }, dayOf('2026-03-01'))), 25) };
});
standing.forEach(({ lines, took }, i) =>
  row(
    `lines as they stand, ${bentTree.branches.length} branches, ${lines} lines of record`,
    ms(took),
    i > 1 ? `× ${(took / standing[i - 1].took).toFixed(2)} for twice the lines` : '',
  ),
);

const races = [7500, 15_000, 30_000].map((n) => {
  const coils = Array.from({ length: n }, (_, i) => coil(i));
  return time(() => coils.forEach((c) => forecast(c)), 3);
});
races.forEach((t, i) => row(`forecasts of ${[7500, 15_000, 30_000][i]} coils`, ms(t), i ? `× ${(t / races[i - 1]).toFixed(2)} for twice the coils` : ''));

console.log('\nFirst load, in Chromium with software drawing');
const { default: puppeteer } = await import('puppeteer-core');
const { loadStudio } = await import('../demo/load.mjs');
const { address, server } = await serve({ USTLE_DATA: mkdtempSync(join(tmpdir(), 'ustle-bench-')), USTLE_PORT: '4800' }, { quiet: true });
await loadStudio(address);
const [tree] = await (await fetch(`${address}/api/trees`)).json();
const browser = await puppeteer.launch({ executablePath: await chromium(), headless: true, args: CHROMIUM_FLAGS });
for (const [name, path, sign] of [
  ['bench, six trees listed', '/bench', 'main li'],
  ['a tree, first frame of the turntable drawn', `/tree/${tree.id}/front`, '[data-ready="1"]'],
]) {
  const page = await (await browser.createBrowserContext()).newPage();
  await page.setViewport({ width: 1280, height: 800 });
  let bytes = 0;
  page.on('response', async (response) => {
    bytes += Number(response.headers()['content-length'] ?? (await response.buffer().catch(() => '')).length);
  });
  const start = performance.now();
  await page.goto(address + path);
  await page.waitForSelector(sign);
  row(name, ms(performance.now() - start), `${(bytes / 1024).toFixed(0)} kB`);
  await page.close();
}

console.log('\nWire in a worker of the browser, as the application plans it: the largest tree first, in a worker just started');
/** The measuring with the core in one file, for a worker that nothing else is served to. */
async function workerCode() {
  const { build: bundle } = await import(createRequire(new URL('../apps/web/package.json', import.meta.url)).resolve('vite'));
  const entry = fileURLToPath(new URL('./wiring.worker.mjs', import.meta.url));
  const [{ output }] = await bundle({ configFile: false, logLevel: 'error', build: { write: false, lib: { entry, formats: ['iife'], name: 'bench' } } });
  return output[0].code;
}
const blank = await browser.newPage();
const inWorker = await blank.evaluate(
  (code) =>
    new Promise((done, fail) => {
      const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
      worker.onmessage = ({ data }) => done(data);
      worker.onerror = ({ message }) => fail(new Error(message));
    }),
  await workerCode(),
);
await blank.close();
inWorker.forEach((w) => rowOfWiring(w));

console.log('\nThe scene at 300 branches: script per frame while it turns');
const answer = await fetch(`${address}/api/trees/import`, {
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(largeTree(300, 3)),
});
const { id } = await answer.json();
const page = await (await browser.createBrowserContext()).newPage();
await page.setViewport({ width: 1280, height: 800 });
await page.goto(`${address}/tree/${id}/front`);
await page.waitForSelector('[data-ready="1"]');
await page.waitForFunction(() => !document.querySelector('progress'), { timeout: 120_000 });
const scene = await page.$('[role=application]');
const box = await scene.boundingBox();
/** The page's own functions on its thread while the table is dragged, in ms a frame; the drawing itself is the browser's. */
const turning = async (moves) => {
  const session = await page.createCDPSession();
  await session.send('Profiler.enable');
  await session.send('Profiler.start');
  await page.mouse.move(box.x + 300, box.y + 200);
  await page.mouse.down();
  for (let i = 1; i <= moves; i++) {
    await page.mouse.move(box.x + 300 + i * 6, box.y + 200);
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  }
  const { profile } = await session.send('Profiler.stop');
  const ours = new Set(profile.nodes.filter((n) => n.callFrame.url.includes('/assets/')).map((n) => n.id));
  const micro = profile.samples.reduce((sum, id, i) => sum + (ours.has(id) ? profile.timeDeltas[i] : 0), 0);
  return micro / 1000 / moves;
};
await turning(5);
await page.mouse.up();
// What the page lays out anew once the table rests is not part of the next turn.
await new Promise((done) => setTimeout(done, 2500));
row('script per frame', ms(await turning(30)));
row('draw calls', String(await scene.evaluate((e) => e.getAttribute('data-calls'))));

console.log("\nA decision at 300 branches: the page's longest piece of work before it is seen, drawing in software included");
await page.goto(`${address}/tree/${id}/remove?branch=b40`);
await page.waitForSelector('[data-ready="1"]');
await page.waitForFunction(() => !document.querySelector('.animate-pulse'), { timeout: 120_000 });
await new Promise((done) => setTimeout(done, 4000));
await page.evaluate(() => {
  globalThis.tasks = [];
  new PerformanceObserver((list) => globalThis.tasks.push(...list.getEntries().map((e) => e.duration))).observe({ entryTypes: ['longtask'] });
});
const longest = [];
for (const key of ['x', 'k', 'x', 'k', 'x', 'k', 'x', 'k']) {
  await page.evaluate(() => (globalThis.tasks.length = 0));
  await page.keyboard.press(key);
  await new Promise((done) => setTimeout(done, 1500));
  longest.push(Math.max(50, ...(await page.evaluate(() => globalThis.tasks))));
}
row('first decision', ms(longest[0]));
row('median of the next seven', ms(longest.slice(1).sort((a, b) => a - b)[3]), 'below 50 ms is shown as 50');

console.log('\nA keystroke in Measure: from the key to what is on screen, typed at 150 ms a key');
for (const [n, to] of [
  [38, tree.id],
  [300, id],
]) {
  const sheet = await (await browser.createBrowserContext()).newPage();
  await sheet.setViewport({ width: 1280, height: 800 });
  await sheet.goto(`${address}/tree/${to}/measure`);
  await sheet.waitForSelector('[data-ready="1"]');
  await new Promise((done) => setTimeout(done, 3000));
  await sheet.focus('[data-row="3"][data-column="length"]');
  await sheet.evaluate(() => {
    globalThis.keys = [];
    addEventListener('keydown', ({ timeStamp }) => requestAnimationFrame(() => setTimeout(() => globalThis.keys.push(performance.now() - timeStamp))), true);
  });
  for (const key of ['1', '2', '3', 'Backspace', '4', 'Backspace', '5', 'Backspace', '6', 'Backspace', '7']) {
    await sheet.keyboard.press(key);
    await new Promise((done) => setTimeout(done, 150));
  }
  const taken = (await sheet.evaluate(() => globalThis.keys)).sort((a, b) => a - b);
  row(`median of ${taken.length} keys, ${n} branches`, ms(taken[Math.floor(taken.length / 2)]), `slowest ${ms(taken.at(-1))}`);
  await sheet.close();
}
await browser.close();

console.log('\nThe server');
const post = (path, body) =>
  fetch(address + path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }).then((r) => r.json());
const today = new Date().toISOString().slice(0, 10);
const decisions = [];
for (const n of [40, 2000]) {
  const large = largeTree(n, 3);
  const stored = await post('/api/trees/import', large);
  let { revision } = stored;
  const times = [];
  for (let i = 0; i < 41; i++) {
    const start = performance.now();
    const act = {
      id: randomUUID(),
      on: today,
      kind: 'decide',
      branch: large.branches[i % 20].id,
      act: i % 2 ? 'keep' : 'remove',
    };
    const answer = await post(`/api/trees/${stored.id}/acts`, { act, revision });
    revision = answer.revision;
    if (answer.statusCode) throw new Error(answer.message);
    times.push(performance.now() - start);
  }
  decisions.push(times.sort((a, b) => a - b)[20]);
}
row('a decision, stored, 40 branches', ms(decisions[0]));
row('a decision, stored, 2,000 branches', ms(decisions[1]), `× ${(decisions[1] / decisions[0]).toFixed(2)}`);

const others = 500 - (await (await fetch(`${address}/api/trees`)).json()).length;
for (let i = 0; i < others; i++) await post('/api/trees/import', { ...largeTree(20 + (i % 20), i + 1), name: `Row ${i}` });
await fetch(`${address}/api/trees`);
// What the server sends, as it comes over the wire: twenty browsers would unpack it on processors of their own.
const agent = new Agent({ keepAlive: true });
const received = (path) =>
  new Promise((done, fail) =>
    get(address + path, { agent, headers: { 'Accept-Encoding': 'gzip' } }, (answer) => answer.on('end', done).resume()).on('error', fail),
  );
const answers = [];
const client = async () => {
  for (let i = 0; i < 10; i++) {
    const start = performance.now();
    await received('/api/trees');
    answers.push(performance.now() - start);
  }
};
await Promise.all(Array.from({ length: 20 }, client));
answers.sort((a, b) => a - b);
row('the bench, 500 trees, 20 clients: median', ms(answers[100]));
row('95 of 100 within', ms(answers[190]));
agent.destroy();
server.removeAllListeners('exit');
server.kill();
