import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { allSpecies, dayOf, FAULTS, formOf, FORMS, generateTree, planTree, type Intent, type Tree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, doAct, start, TODAY, type Answer, type Running } from './server';

const sample = (own: Partial<Tree> = {}): Tree => ({
  ...generateTree({ seed: 5, name: 'Sample', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 }),
  ...own,
});

let server: Running;
const call = (method: string, path: string, body?: unknown): Promise<Answer> => ask(server.address, method, path, body);
const act = (id: string, intent: Intent): Promise<Answer> => doAct(server.address, id, intent);
const add = async (tree: unknown = sample()): Promise<string> => (await call('POST', paths.importTree(), tree)).body.id;

beforeAll(async () => {
  server = await start(mkdtempSync(join(tmpdir(), 'ustle-trees-')), 4640);
});
afterAll(() => server.kill());

test('gives back a tree file as it came, unknown keys, nulls and record included', async () => {
  const tree = sample({ repottedOn: null, styledOn: '2025-04-01' });
  Object.assign(tree, { later: { a: [1, null] }, record: [{ on: '2026-01-05', kind: 'note', id: 'n1', text: 'Full buds.', mood: 'good' }] });
  Object.assign(tree.branches[1]!, { colour: 'grey', name: 'the low one' });
  Object.assign(tree.plan, { mood: 'calm', front: { bearing: 12, pitch: 0, roll: 0 } });
  const winds = [
    { branch: 'b1', hand: 'cw', start: 'over' },
    { branch: 'b4', hand: 'ccw', start: 'under' },
  ] as const;
  tree.plan.runs.push({ id: 'w3', metal: 'copper', size: 2, strands: 1, angle: 50, branches: [...winds] });
  const id = await add(tree);
  expect((await call('GET', paths.treeFile(id))).body).toEqual(tree);
});

test('refuses a bad file whole, with path and reason', async () => {
  const before = (await call('GET', paths.trees)).body.length;
  const bad = sample();
  bad.branches[0]!.d = -1;
  const refused = await call('POST', paths.importTree(), bad);
  expect(refused).toMatchObject({ status: 400, body: { code: 'range', field: '/branches/0/d', faults: [{ path: '/branches/0/d' }] } });
  expect(await call('POST', paths.importTree(), 'not json')).toMatchObject({ status: 400, body: { code: 'not-json' } });
  expect(await call('POST', paths.importTree(), `"${'x'.repeat(65 << 20)}"`)).toMatchObject({ status: 413, body: { code: 'too-large' } });
  expect((await call('GET', paths.trees)).body).toHaveLength(before);
});

test('a coil is watched, inspected, corrected and taken off; bench, season and calendar follow', async () => {
  const id = await add(sample({ name: 'Watched', repottedOn: '2026-01-05' }));
  const wire = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', bentDeg: 40, targetDeg: 30, over: 50 } as const;
  await act(id, { kind: 'wired', on: '2026-03-01', ...wire });
  const { tree } = (await call('GET', paths.tree(id))).body;
  expect((await call('GET', paths.plan(id, TODAY))).body).toEqual(JSON.parse(JSON.stringify(planTree(tree, dayOf(TODAY)))));

  const mine = async () => (await call('GET', paths.season)).body.days.filter((d: { tree: string; kind: string }) => d.tree === id && d.kind !== 'plan');
  expect(await mine()).toMatchObject([{ branches: ['b1'], treeName: 'Watched', leadsTo: 'watch' }]);
  const calendar = new ICAL.Component(ICAL.parse((await call('GET', paths.calendar)).body));
  expect(
    calendar
      .getAllSubcomponents('vevent')
      .map((e) => e.getFirstPropertyValue('summary'))
      .join(),
  ).toContain('Watched: first left');
  await act(id, { kind: 'inspected', branch: 'b1', run: 'w1', stage: 'marking' });
  expect((await mine())[0]).toMatchObject({ kind: 'remove', mark: 'marking' });
  const slip = (await call('GET', paths.tree(id))).body.tree.record.at(-1).id;
  await act(id, { kind: 'withdrawn', corrects: slip });
  expect((await mine())[0]).toMatchObject({ mark: null });
  await act(id, { kind: 'unwired', branch: 'b1', run: 'w1', method: 'cut' });
  // The wire is off: what is left is to measure the angle that it holds.
  expect((await mine()).map((d: { kind: string }) => d.kind)).toEqual(['held']);
});

test('what was put off is due on its day; dated work stands before open plans, the soonest first', async () => {
  const later = await add(sample({ name: 'Later one' }));
  await act(later, { kind: 'decide', branch: 'b1', act: 'reserve', until: '2026-08-01' });
  const sooner = await add(sample({ name: 'Sooner one' }));
  await act(sooner, { kind: 'decide', branch: 'b2', act: 'reserve', until: '2026-05-01' });
  await act(sooner, { kind: 'decide', branch: 'b5', act: 'remove' });
  await act(sooner, { kind: 'put-off', branches: ['b5'], session: 2, until: '2026-11-07' });
  const due = (await call('GET', paths.season)).body.days.filter((d: { tree: string; kind: string }) => d.tree === sooner && d.kind === 'promise');
  expect(due).toMatchObject([
    { on: TODAY, branches: ['b2'], title: expect.stringMatching(/in reserve: keep or take off/) },
    { on: '2026-11-07', branches: ['b5'] },
  ]);
  const open = await add(sample({ name: 'Open one' }));
  expect(open).toBeTruthy();
  const names = (await call('GET', paths.trees)).body.map((t: { name: string }) => t.name) as string[];
  expect(names.indexOf('Sooner one')).toBeLessThan(names.indexOf('Later one'));
  expect(names.indexOf('Later one')).toBeLessThan(names.indexOf('Open one'));
});

test('the bench answers the same until something is written, and then at once with it; who has it already is told so', async () => {
  const id = await add(sample({ name: 'Kept one' }));
  const get = (tag?: string): Promise<Response> => fetch(server.address + paths.trees, { headers: tag ? { 'If-None-Match': tag } : {} });
  const first = await get();
  const tag = first.headers.get('etag')!;
  const [before] = ((await first.json()) as { id: string; next: { title: string } }[]).filter((t) => t.id === id);
  expect((await get(tag)).status).toBe(304);
  expect((await get()).headers.get('etag')).toBe(tag);
  await act(id, { kind: 'decide', branch: 'b1', act: 'reserve', until: '2026-05-01' });
  const second = await get(tag);
  expect(second.status).toBe(200);
  const [after] = ((await second.json()) as { id: string; next: { title: string } }[]).filter((t) => t.id === id);
  expect(after!.next.title).not.toBe(before!.next.title);
  // Twenty at once, with a write among them: none that asks after it is answered is told the old.
  const asked = Array.from({ length: 20 }, () => get());
  await act(id, { kind: 'decide', branch: 'b1', act: 'undecided' });
  const last = (await (await get()).json()) as { id: string; next: { title: string } }[];
  expect(last.find((t) => t.id === id)!.next.title).toBe(before!.next.title);
  expect((await Promise.all(asked)).map((r) => r.status)).toEqual(Array(20).fill(200));
});

test('trees are made up of any species, age and fault; each has its small picture', async () => {
  const kinds = allSpecies().filter((_, i) => i % 9 === 0);
  for (const [i, s] of kinds.entries()) {
    const body = { name: `Made ${i}`, species: s.key, seed: i, age: 5 + i * 20, form: FORMS[i % FORMS.length], faults: [FAULTS[i % FAULTS.length]] };
    const made = await call('POST', paths.generateTree, body);
    expect(made).toMatchObject({ status: 201, body: { tree: { species: s.key } } });
    expect(formOf(made.body.tree as Tree)).toBe(FORMS[i % FORMS.length]);
    const picture = await call('GET', paths.silhouette(made.body.id, 1, 0));
    expect(Object.values(picture.body)).toEqual([expect.stringMatching(/^M/), expect.stringMatching(/^M/), expect.stringMatching(/^M/)]);
  }
  expect(await call('POST', paths.generateTree, { name: 'Old', species: 'larch', seed: 1, age: 4000 })).toMatchObject({ status: 400, body: { field: 'age' } });
  expect(await call('POST', paths.trees, { name: 'X', species: 'money-tree' })).toMatchObject({ status: 400, body: { field: 'species' } });
});

test('the caliper closes on what lies between its jaws: readings stream in, the last one settled', async () => {
  const response = await fetch(server.address + paths.caliper);
  const reader = response.body!.getReader();
  const readings: { value: number; settled: boolean }[] = [];
  const stream = (async () => {
    let text = '';
    while (!readings.some((r) => r.settled)) {
      const { value, done } = await reader.read();
      if (done) break;
      text += new TextDecoder().decode(value);
      readings.splice(0, readings.length, ...[...text.matchAll(/data: (\{.*\})\n/g)].map((match) => JSON.parse(match[1]!)));
    }
    await reader.cancel();
  })();
  await new Promise((done) => setTimeout(done, 200));
  expect((await call('POST', paths.caliperPress, { near: 12 })).status).toBe(201);
  await stream;
  const last = readings[readings.length - 1]!;
  expect([last.settled, Math.abs(last.value - 12) < 0.3]).toEqual([true, true]);
  expect(readings.slice(0, -1).every((r) => !r.settled && r.value > last.value)).toBe(true);
  expect((await call('POST', paths.caliperPress, { near: -3 })).body).toMatchObject({ field: 'near', code: 'range' });
});

test('the yard says its day; every species has its figures; what is not there is 404', async () => {
  expect((await call('GET', paths.yard)).body).toMatchObject({ today: TODAY });
  expect((await call('GET', paths.species)).body).toHaveLength(allSpecies().length);
  for (const path of ['/api/nothing', paths.tree('x'), paths.plan('x'), paths.treeFile('x'), paths.branchCsv('x'), paths.silhouette('x', 1, 0)])
    expect((await call('GET', path)).status).toBe(404);
  expect((await call('GET', paths.plan(await add(), '2026-99-01'))).status).toBe(400);
  // Any other address is the application itself.
  expect((await call('GET', '/tree/x/front')).body).toContain('<div id="root">');
});
