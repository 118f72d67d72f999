import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dayOf, generateTree, planTree, type Intent } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, doAct, doStep, start, TODAY, type Answer, type Running } from './server';

const folder = mkdtempSync(join(tmpdir(), 'ustle-guys-'));
let server: Running;
beforeAll(async () => {
  server = await start(folder, 4670);
});
afterAll(() => server.kill());

const call = (method: string, path: string, body?: unknown): Promise<Answer> => ask(server.address, method, path, body);
const add = async (): Promise<string> => {
  const tree = generateTree({ seed: 11, name: 'Tied', species: 'yew', height: 420, base: 48, primaries: 4, secondaries: 1 });
  return (await call('POST', paths.importTree(), { ...tree, pot: { ...tree.pot, holes: [{ bearing: 40, radius: 60 }] } })).body.id;
};
const tie: Intent = { kind: 'guy', branch: 'b1', at: 60, anchor: { kind: 'pot-hole', index: 0 }, wire: 1.2 };
const plan = async (id: string) => (await call('GET', paths.plan(id, TODAY))).body;

test('a tie is fixed, put on and taken off over the wire; the plan, the season and the record go with it, and outlast a crash', async () => {
  const id = await add();
  expect((await doAct(server.address, id, tie)).status).toBe(200);
  expect((await plan(id)).guys).toMatchObject([{ id: 'g1', branch: 'b1', fixed: true, anchor: { kind: 'pot-hole', index: 0 }, on: null }]);
  expect((await plan(id)).order.at(-1)).toBe('g1');
  const put = await doAct(server.address, id, { ...tie, kind: 'tie', guy: 'g1', on: '2026-03-01', twists: 5, tension: 44, cameDeg: 14, length: 180 } as Intent);
  expect(put.body.lines).toMatchObject([{ kind: 'guyed', done: 'placed', guy: 'g1', twists: 5 }]);
  const due = async () => (await call('GET', paths.season)).body.days.filter((d: { leadsTo: string }) => d.leadsTo === 'guy');
  expect(await due()).toMatchObject([{ branches: ['b1'], treeName: 'Tied' }]);

  await server.kill();
  server = await start(folder, 4670);
  const { tree } = (await call('GET', paths.tree(id))).body;
  const known = (await call('GET', paths.known(id))).body;
  expect(await plan(id)).toEqual(JSON.parse(JSON.stringify(planTree(tree, dayOf(TODAY), { known }))));
  expect((await plan(id)).guys[0]).toMatchObject({ tension: expect.any(Number), on: { since: '2026-03-01', twists: 5 } });

  await doAct(server.address, id, { kind: 'untie', guy: 'g1' });
  expect(await due()).toMatchObject([{ kind: 'held', title: expect.stringMatching(/see how far it went back/) }]);
  await doAct(server.address, id, { kind: 'measured', branch: 'b1', guy: 'g1', heldDeg: 20 });
  expect(await due()).toEqual([]);
  await doStep(server.address, id, 'undo');
  await doStep(server.address, id, 'undo');
  expect((await plan(id)).guys[0]).toMatchObject({ id: 'g1', on: { twists: 5 } });
});

test('what cannot be tied is refused with its field, and an old revision is told what came between', async () => {
  const id = await add();
  const before = (await call('GET', paths.tree(id))).body;
  const refused: [Partial<Record<string, unknown>>, number, string][] = [
    [{ at: 4000 }, 400, 'at'],
    [{ at: -3 }, 400, 'at'],
    [{ wire: 40 }, 400, 'wire'],
    [{ branch: 'nobody' }, 404, 'branch'],
    [{ anchor: { kind: 'pot-hole', index: 3 } }, 400, 'anchor'],
    [{ anchor: { kind: 'branch', branch: 'b1', at: 10 } }, 400, 'anchor'],
    [{ anchor: { kind: 'trunk' } }, 400, 'anchor'],
  ];
  for (const [own, status, field] of refused) {
    const { status: got, body } = await doAct(server.address, id, { ...tie, ...own } as Intent);
    expect([own, got, body.field]).toEqual([own, status, field]);
  }
  expect((await call('GET', paths.tree(id))).body).toEqual(before);
  await doAct(server.address, id, tie);
  expect(await doAct(server.address, id, { ...tie, at: 80 } as Intent, before.revision)).toMatchObject({ status: 409, body: { code: 'stale' } });
  // A third tie on one branch is one too many.
  expect((await doAct(server.address, id, { ...tie, anchor: { kind: 'pot-rim', bearing: 90 } } as Intent)).status).toBe(200);
  expect((await doAct(server.address, id, { ...tie, anchor: { kind: 'pot-rim', bearing: 180 } } as Intent)).body).toMatchObject({ field: 'branch' });
});

test('a device is planned, set up, turned on and taken off over the wire; each once, however often it is sent; a crash and an undo leave it as it was', async () => {
  const id = await add();
  const prop: Intent = { kind: 'device', device: 'd1', what: 'prop', branch: 'b1', at: 60, anchor: { kind: 'pot-rim', bearing: 90 }, by: 6 };
  expect((await doAct(server.address, id, prop)).status).toBe(200);
  const [planned] = (await plan(id)).devices;
  expect(planned).toMatchObject({ id: 'd1', force: expect.any(Number), stick: expect.any(Number), on: null });
  expect((await plan(id)).order.at(-1)).toBe('d1');

  const { revision } = (await call('GET', paths.tree(id))).body;
  const act = { id: 'set-up-once', on: '2026-03-01', kind: 'set-up', device: 'd1', tension: 40 };
  for (const _ of [1, 2]) expect((await call('POST', paths.acts(id), { act, revision })).status).toBe(200);
  const { tree } = (await call('GET', paths.tree(id))).body;
  expect(tree.record.filter((l: { kind: string }) => l.kind === 'guyed')).toMatchObject([{ guy: 'd1', device: 'prop', done: 'placed', tension: 40 }]);
  const due = (await call('GET', paths.season)).body.days.filter((d: { title: string }) => d.title.includes('prop'));
  expect(due).toMatchObject([{ leadsTo: 'guy', branches: ['b1'], title: expect.stringMatching(/where its prop presses/) }]);

  await server.kill();
  server = await start(folder, 4670);
  expect((await plan(id)).devices[0]).toMatchObject({ force: planned.force, on: { since: '2026-03-01' } });
  await doAct(server.address, id, { kind: 'take-down', device: 'd1', backMm: 2 });
  expect((await plan(id)).devices).toEqual([]);
  await doStep(server.address, id, 'undo');
  expect((await plan(id)).devices[0]).toMatchObject({ id: 'd1', on: { since: '2026-03-01' } });

  for (const [own, field] of [
    [{ what: 'lever' }, 'what'],
    [{ by: -2 }, 'by'],
    [{ pitch: 90 }, 'pitch'],
    [{ anchor: { kind: 'pot-hole', index: 7 } }, 'anchor'],
    [{ other: { branch: 'nobody', at: 3 } }, 'other.branch'],
  ] as const) {
    const { status, body } = await doAct(server.address, id, { ...prop, ...own } as Intent);
    expect([own, status >= 400, body.field]).toEqual([own, true, field]);
  }
  expect((await plan(id)).devices).toMatchObject([{ id: 'd1', device: { by: 6 } }]);
  expect((await doAct(server.address, id, { kind: 'set-up', device: 'd9' })).body).toMatchObject({
    field: 'device',
    message: expect.stringMatching(/not in this plan/),
  });
});
