import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generateTree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, doAct, doStep, start, TODAY, type Answer, type Running } from './server';

const folder = mkdtempSync(join(tmpdir(), 'ustle-rack-'));
let server: Running;
beforeAll(async () => {
  server = await start(folder, 4660);
});
afterAll(() => server.kill());

const call = (method: string, path: string, body?: unknown): Promise<Answer> => ask(server.address, method, path, body);
const write = (line: object): Promise<Answer> => call('POST', paths.rackLines, { line: { on: TODAY, ...line } });
const rack = async (): Promise<any> => (await call('GET', paths.rack)).body;
const roll = { id: 'l1', kind: 'in', roll: 'a', form: 'roll', origin: 'bought', metal: 'copper', size: 2.05, soft: true, length: 5000 };
const piece = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', length: 640, roll: 'a' } as const;

test('a roll comes once, however often it is sent; what is cut for a tree goes off it, and back when that is taken back; all of it outlasts a crash', async () => {
  const tree = generateTree({ seed: 5, name: 'Sample', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 });
  const id = (await call('POST', paths.importTree(), tree)).body.id;
  for (let sent = 0; sent < 3; sent++) expect(await write(roll)).toMatchObject({ status: 200, body: { stock: [{ id: 'a', left: 5000 }] } });

  await doAct(server.address, id, {
    kind: 'run',
    ...(({ metal, size, strands, angle }) => ({ metal, size, strands, angle }))(piece),
    length: 640,
    branches: [{ branch: 'b1', hand: 'cw', start: 'over' }],
  });
  expect(await rack()).toMatchObject({ reserved: [{ tree: id, length: 640 }], stock: [{ left: 5000 }] });
  expect((await doAct(server.address, id, { kind: 'wired', ...piece })).status).toBe(200);
  expect(await rack()).toMatchObject({
    reserved: [],
    stock: [{ left: 4360, events: [{ kind: 'in' }, { kind: 'cut', length: 640, treeName: 'Sample', branches: ['b1'] }] }],
  });
  await doStep(server.address, id, 'undo');
  expect((await rack()).stock[0].left).toBe(5000);
  await doStep(server.address, id, 'redo');
  expect((await rack()).stock[0].left).toBe(4360);

  const pieces = (await call('GET', paths.pieces(id))).body;
  expect(pieces.length).toBeGreaterThan(0);
  for (const p of pieces) expect(p).toMatchObject({ tree: id, metal: expect.any(String), length: expect.any(Number), branches: expect.stringMatching(/\w/) });

  await write({ id: 'l2', kind: 'weighed', roll: 'a', grams: 100 });
  const before = await rack();
  await server.kill();
  server = await start(folder, 4660);
  expect(await rack()).toEqual(before);
});

test('what is wrong is said with its field, and the rack stays as it was', async () => {
  const before = await rack();
  const refused: [object, number, string][] = [
    [{ ...roll, id: 'n1', roll: 'n', length: 0 }, 400, 'length'],
    [{ ...roll, id: 'n1', roll: 'n', size: 40 }, 400, 'size'],
    [{ ...roll, id: 'n1', roll: 'n', metal: 'iron' }, 400, 'metal'],
    [{ ...roll, id: 'n1' }, 400, 'roll'],
    [{ id: 'n2', kind: 'weighed', roll: 'nowhere', grams: 10 }, 404, 'roll'],
    [{ id: 'n3', kind: 'weighed', roll: 'a', grams: 9000 }, 400, 'grams'],
    [{ id: 'n4', kind: 'measured', roll: 'a', length: 100, on: '2027-01-01' }, 400, 'on'],
    [{ id: 'n5', kind: 'lost', roll: 'a' }, 400, 'kind'],
  ];
  for (const [line, status, field] of refused) {
    const { status: got, body } = await write(line);
    expect([line, got, body.field]).toEqual([line, status, field]);
    expect(body.message).toMatch(/[.?]$/);
  }
  expect(await rack()).toEqual(before);
});

test('the scale swings into a weight near what lies on it', async () => {
  const abort = new AbortController();
  const stream = await fetch(server.address + paths.scale, { signal: abort.signal });
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  await call('POST', paths.scalePress, { near: 212 });
  let seen = '';
  while (!seen.includes('"settled":true')) seen += (await reader.read()).value;
  abort.abort();
  const readings = [...seen.matchAll(/\{.*\}/g)].map((m) => JSON.parse(m[0]) as { value: number; settled: boolean });
  expect(readings.filter((r) => r.settled)).toHaveLength(1);
  expect(Math.abs(readings.at(-1)!.value - 212)).toBeLessThanOrEqual(0.5);
  expect(await call('POST', paths.scalePress, { near: -4 })).toMatchObject({ status: 400, body: { field: 'near' } });
});
