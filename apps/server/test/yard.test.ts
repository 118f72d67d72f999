import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generateTree, isoOf, dayOf } from '@ustle/core';
import { paths } from '@ustle/contract';
import ICAL from 'ical.js';
import { ask, doAct, start, TODAY, type Answer, type Running } from './server';

const folder = mkdtempSync(join(tmpdir(), 'ustle-yard-'));
let server: Running;
beforeAll(async () => {
  server = await start(folder, 4670);
});
afterAll(() => server.kill());

const call = (method: string, path: string, body?: unknown): Promise<Answer> => ask(server.address, method, path, body);
const day = (n: number): string => isoOf(dayOf(TODAY) + n);
const wired = {
  kind: 'wired',
  metal: 'copper',
  size: 2.05,
  strands: 1,
  angle: 45,
  hand: 'cw',
  start: 'over',
  gap: 0,
  bentDeg: 40,
  targetDeg: 35,
  over: 60,
} as const;

async function tree(name: string, seed: number): Promise<string> {
  const made = generateTree({ seed, name, species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 0 });
  const { id } = (await call('POST', paths.importTree(), made)).body;
  expect((await doAct(server.address, id, { ...wired, on: day(-60), branch: 'b1' })).status).toBe(200);
  return id;
}

test('benches give the walk its order; a bench twice, a bench that is not there and one without a name are refused, and nothing changes', async () => {
  const [a, b, c] = [await tree('Alder', 1), await tree('Birch', 2), await tree('Cedar', 3)];
  const benches = [
    { id: 'far', name: 'Far wall' },
    { id: 'near', name: 'Near wall' },
  ];
  expect((await call('PUT', paths.benches, { benches })).body).toEqual(benches);
  for (const [id, bench] of [[a, 'near'], [c, 'far']] as const) expect((await call('PUT', paths.stands(id), { bench })).status).toBe(204); // prettier-ignore
  const stops = async (): Promise<any[]> => (await call('GET', paths.walk)).body.stops;
  expect((await stops()).map((s) => s.treeName)).toEqual(['Cedar', 'Alder', 'Birch']);
  // The tree from another side, with the branch in question; from no side that there is not.
  const seen = async (quarters: number): Promise<Answer> => call('GET', paths.side(c, quarters, ['b1'], 1, 1));
  const [right, behind] = [(await seen(1)).body, (await seen(2)).body];
  for (const side of [right, behind]) expect(side).toMatchObject({ wood: expect.stringMatching(/^M/), outlines: { b1: expect.stringMatching(/^M/) } });
  expect(right.outlines.b1).not.toBe(behind.outlines.b1);
  expect(await seen(4)).toMatchObject({ status: 400, body: { field: 'quarters' } });
  expect((await stops())[0]).toMatchObject({ kind: 'wire', branch: 'b1', what: '2.1 mm copper', since: day(-60), bench: 'far' });
  expect(await call('PUT', paths.benches, { benches: [...benches, { id: 'x', name: ' Far wall ' }] })).toMatchObject({
    status: 400,
    body: { field: 'benches' },
  });
  expect(await call('PUT', paths.benches, { benches: [{ id: 'x', name: '' }] })).toMatchObject({ status: 400, body: { field: 'benches.0.name' } });
  expect(await call('PUT', paths.stands(a), { bench: 'nowhere' })).toMatchObject({ status: 404, body: { field: 'bench' } });
  expect((await call('GET', paths.benches)).body).toEqual(benches);
  await call('PUT', paths.benches, { benches: [benches[1], benches[0]] });
  expect((await stops()).map((s) => s.treeName)).toEqual(['Alder', 'Cedar', 'Birch']);
  // Along a bench: the order in which they were put there, until somebody says another.
  await call('PUT', paths.stands(b), { bench: 'near' });
  expect((await stops()).map((s) => s.treeName)).toEqual(['Alder', 'Birch', 'Cedar']);
  expect((await call('PUT', paths.line('near'), { trees: [b] })).status).toBe(204);
  await call('PUT', paths.stands(a), { bench: 'near' });
  expect((await stops()).map((s) => s.treeName)).toEqual(['Birch', 'Alder', 'Cedar']);
  expect((await call('GET', paths.trees)).body.map((t: any) => [t.name, t.place]).sort()).toEqual([['Alder', 1], ['Birch', 0], ['Cedar', 0]]); // prettier-ignore
  for (const trees of [[a, c], [a, a], ['none']]) expect(await call('PUT', paths.line('near'), { trees })).toMatchObject({ status: 400, body: { field: 'trees' } }); // prettier-ignore
  expect((await call('PUT', paths.line('nowhere'), { trees: [] })).status).toBe(404);
  expect((await stops()).map((s) => s.treeName)).toEqual(['Birch', 'Alder', 'Cedar']);
  await call('PUT', paths.stands(b), { bench: null });
  await call('PUT', paths.benches, { benches: [benches[0]] });
  expect((await stops()).map((s) => [s.treeName, s.bench])).toEqual([['Cedar', 'far'], ['Alder', null], ['Birch', null]]); // prettier-ignore
  expect((await doAct(server.address, b, { kind: 'inspected', branch: 'b1', stage: 'clear' })).status).toBe(200);
  expect((await stops()).find((s) => s.tree === b).seen).toEqual({ on: TODAY, stage: 'clear' });
});

test('what is seen on one tree is told to others of its kind, less than to itself; another kind learns nothing', async () => {
  const [id, other] = (await call('GET', paths.trees)).body.map((t: { id: string }) => t.id) as [string, string];
  const oak = (await call('POST', paths.generateTree, { name: 'Elder', species: 'oak', seed: 4 })).body.id;
  const known = async (of: string): Promise<any> => (await call('GET', paths.known(of))).body;
  const before = await known(other);
  expect((await doAct(server.address, id, { kind: 'inspected', branch: 'b1', stage: 'deep', on: day(-30) })).status).toBe(200);
  expect((await known(other)).growth.mean).toBeGreaterThan(before.growth.mean);
  expect((await known(oak)).growth).toEqual({ mean: 0, sd: 0.25 });
  const [learned] = (await call('GET', paths.learned)).body;
  expect(learned).toMatchObject({ species: 'maple-trident', trees: 3, cases: { inside: expect.any(Number), early: expect.any(Number) } });
  expect(learned.pace.likely).toBeGreaterThan(1);
  const plan = (await call('GET', paths.plan(other))).body;
  expect(plan.wires[0].unwiring.how).toBe('cut');
});

test('warmth is counted only when it is asked for; the station’s gaps are told', async () => {
  const id = (await call('GET', paths.trees)).body[0].id;
  expect((await call('GET', paths.known(id))).body.ahead).toEqual([]);
  const { days, station } = (await call('GET', paths.weather)).body;
  expect(days).toHaveLength(42);
  expect(station).toMatch(/shed/);
  expect((await call('PUT', paths.weather, { on: true })).body.on).toBe(true);
  expect((await call('GET', paths.known(id))).body.ahead.length).toBeGreaterThan(10);
  expect(await call('PUT', paths.weather, { on: 'yes' })).toMatchObject({ status: 400, body: { field: 'on' } });
  expect(await call('PUT', paths.weather, { on: true, hemisphere: 'west' })).toMatchObject({ status: 400, body: { field: 'hemisphere' } });
  // Moved to the other half of the earth, the station tells of that one's season, and nothing of this tree.
  expect((await call('PUT', paths.weather, { on: true, hemisphere: 'south' })).body).toMatchObject({ on: true, hemisphere: 'south' });
  expect((await call('GET', paths.known(id))).body).toMatchObject({ aheadIn: 'south' });
  await call('PUT', paths.weather, { on: true, hemisphere: 'north' });
  await call('PUT', paths.weather, { on: false });
});

test('a walk is announced once, also after a crash; the feed is a calendar, with its key only', async () => {
  const first = (await call('GET', paths.mail)).body;
  expect(first).toHaveLength(1);
  expect(first[0].subject).toMatch(/^Today: a walk past \d trees?, \d looks?$/);
  await server.kill();
  server = await start(folder, 4670);
  expect((await call('GET', paths.mail)).body).toEqual(first);
  const feed = (await call('GET', paths.feed)).body.path;
  const calendar = new ICAL.Component(ICAL.parse((await call('GET', feed)).body as string) as never);
  expect(calendar.getAllSubcomponents('vevent').length).toBeGreaterThan(0);
});
