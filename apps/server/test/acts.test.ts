import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyAct, dayOf, generateTree, isRefused, type Act, type Intent, type RecordLine, type Tree } from '@ustle/core';
import { paths, type StepBack } from '@ustle/contract';
import { ask, doAct, doStep, start, TODAY, type Answer, type Running } from './server';

const sample = (own: Partial<Tree> = {}): Tree => ({
  ...generateTree({ seed: 5, name: 'Sample', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 }),
  ...own,
});
const WIRE = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', gap: 0, wrap: 'none' } as const;
const wired: Intent = { kind: 'wired', on: '2026-03-01', ...WIRE, bentDeg: 40, targetDeg: 30, over: 50 };

let server: Running;
const call = (method: string, path: string, body?: unknown): Promise<Answer> => ask(server.address, method, path, body);
const act = (id: string, intent: Intent & { id?: string }, revision?: number): Promise<Answer> => doAct(server.address, id, intent, revision);
const step = (id: string, kind: 'undo' | 'redo', own?: string): Promise<Answer> => doStep(server.address, id, kind, own);
const add = async (tree: unknown = sample()): Promise<string> => (await call('POST', paths.importTree(), tree)).body.id;
const now = async (id: string): Promise<{ revision: number; undo: StepBack | null; redo: StepBack | null; tree: Tree }> =>
  (await call('GET', paths.tree(id))).body;
const kinds = (tree: Tree): string[] => tree.record.map((line) => line.kind);

beforeAll(async () => {
  server = await start(mkdtempSync(join(tmpdir(), 'ustle-acts-')), 4620);
});
afterAll(() => server.kill());

test('an act does on the server what the same function does elsewhere, and answers with little', async () => {
  const id = await add();
  const { tree } = await now(id);
  const intent: Act = { id: 'a1', on: TODAY, kind: 'decide', branch: 'b1', act: 'remove', why: 'bar' };
  const answer = await act(id, intent);
  expect(answer).toEqual({
    status: 200,
    body: { revision: 2, lines: [], recorded: 0, undo: { of: 'a1', said: 'take off first left', at: { stage: 'remove', branch: 'b1' } }, redo: null },
  });
  const here = applyAct(tree, intent, dayOf(TODAY));
  expect((await now(id)).tree).toEqual(isRefused(here) ? null : here.tree);
});

test('sent twice by the same id it is done once, a step and a tree too', async () => {
  const id = await add();
  const note = { id: 'once', kind: 'note', text: 'Full buds.' } as const;
  const [first, second] = [await act(id, note), await act(id, note)];
  expect(second.body.lines).toEqual(first.body.lines);
  expect((await now(id)).tree.record).toHaveLength(1);
  await act(id, { kind: 'decide', branch: 'b2', act: 'keep' });
  await step(id, 'undo', 'back-once');
  expect(await step(id, 'undo', 'back-once')).toMatchObject({ status: 200, body: { tree: { record: [{ kind: 'note' }], plan: { decisions: [] } } } });
  const body = { id: 'begun-once', name: 'Plover', species: 'olive' };
  await call('POST', paths.trees, body);
  expect((await call('POST', paths.trees, body)).body.revision).toBe(1);
  expect((await call('GET', paths.trees)).body.filter((t: { name: string }) => t.name === 'Plover')).toHaveLength(1);
});

test('what is wrong is 400 with field, code and a sentence that names it; what is not there 404; nothing is changed', async () => {
  const id = await add();
  const before = await now(id);
  const bad: [Record<string, unknown>, field: string, code: string][] = [
    [{ kind: 'decide', branch: 'b1', act: 'burn' }, 'act', 'choice'],
    [{ kind: 'decide', branch: 'b1', act: 'shorten', length: 9999 }, 'length', 'range'],
    [{ kind: 'decide', branch: 'b1', act: 'shorten', length: 3999 }, 'length', 'value'],
    [{ kind: 'decide', branch: 'b1', act: 'shorten', toShoot: 'b5' }, 'toShoot', 'value'],
    [{ kind: 'decide', branch: 'b1', act: 'reserve', untilSet: 'b1' }, 'untilSet', 'value'],
    [{ kind: 'decide', branch: 'b1', act: 'reserve', until: 'soon' }, 'until', 'date'],
    [{ kind: 'front', front: { bearing: 700, pitch: 0, roll: 0 } }, 'front.bearing', 'range'],
    [{ kind: 'wired', ...WIRE, size: -2 }, 'size', 'range'],
    [{ kind: 'inspected', branch: 'b1' }, 'stage', 'required'],
    [{ kind: 'inspected', branch: 'b1', stage: 'clear', on: 'today' }, 'on', 'date'],
    [{ kind: 'note', on: '2026-05-21', text: 'not yet' }, 'on', 'not-yet'],
    [{ kind: 'note', text: 'x', metal: 'copper' }, 'metal', 'foreign-field'],
    [{ kind: 'put-off', branches: [], session: 2, until: null }, 'branches', 'count'],
    [{ kind: 'either', a: 'b1', b: 'b1' }, 'b', 'choice'],
    [{ kind: 'rules', profile: 'wild', limits: {}, rules: {} }, 'profile', 'choice'],
    [{ kind: 'rules', profile: 'clump', limits: { barDeg: 900 }, rules: {} }, 'limits', 'range'],
    [{ kind: 'rules', profile: 'clump', limits: {}, rules: { luck: true } }, 'rules', 'unknown-field'],
    [{ kind: 'measure', measured: { record: [] } }, 'measured.record', 'unknown-field'],
    [{ kind: 'measure', measured: { trunk: [] } }, 'measured.trunk', 'count'],
    [{ kind: 'measure', measured: { branches: [{ ...before.tree.branches[0], parent: 'nobody' }] } }, '/branches/0/parent', 'unknown-parent'],
    [{ kind: 'measure', measured: { species: 'money-tree' } }, '/species', 'unknown-species'],
    [{ kind: 'remeasure', branch: 'b1', changes: { d: -1 } }, 'changes.d', 'range'],
    [{ kind: 'remeasure', branch: 'b1', changes: { tipD: 300 } }, 'tipD', 'range'],
    [{ kind: 'remeasure', branch: 'b1', changes: { parent: 'b2' } }, 'parent', 'cycle'],
    [{ kind: 'fly' }, 'kind', 'choice'],
    [{}, 'kind', 'required'],
  ];
  for (const [intent, field, code] of bad)
    expect(await act(id, intent as Intent)).toMatchObject({ status: 400, body: { field, code, message: expect.stringMatching(/\.$/) } });
  for (const [intent, field] of [
    [{ kind: 'decide', branch: 'b999', act: 'keep' }, 'branch'],
    [{ kind: 'note', branch: 'zz', text: 'x' }, 'branch'],
    [{ kind: 'withdrawn', corrects: 'r9' }, 'corrects'],
    [{ kind: 'either', a: 'b1', b: 'nobody' }, 'b'],
  ] as const)
    expect(await act(id, intent as Intent)).toMatchObject({ status: 404, body: { field } });
  expect(await call('POST', paths.acts(id), { act: { id: 'x', on: TODAY, kind: 'note' }, sneaky: 1 })).toMatchObject({
    status: 400,
    body: { field: 'sneaky' },
  });
  expect(await call('POST', paths.acts(id), '{broken')).toMatchObject({ status: 400, body: { code: 'not-json' } });
  expect((await call('POST', paths.acts('nobody'), { act: { id: 'x', on: TODAY, kind: 'note' } })).status).toBe(404);
  expect(await now(id)).toEqual(before);
});

test('an act on an old revision is answered 409 with the tree as it is; lines of the record need none', async () => {
  const id = await add();
  await act(id, { kind: 'decide', branch: 'b1', act: 'remove' });
  expect(await act(id, { kind: 'decide', branch: 'b1', act: 'keep' }, 1)).toMatchObject({ status: 409, body: { code: 'stale', current: { revision: 2 } } });
  const without = { act: { id: 'bare', on: TODAY, kind: 'decide', branch: 'b2', act: 'keep' } };
  expect(await call('POST', paths.acts(id), without)).toMatchObject({ status: 409, body: { field: 'revision' } });
  expect((await act(id, { kind: 'note', text: 'Seen.' }, 1)).status).toBe(200);
  expect((await now(id)).revision).toBe(2);
});

test('many acts at once: each is whole, one wins a revision, every line is kept', async () => {
  const id = await add();
  const decisions = await Promise.all(Array.from({ length: 12 }, (_, i) => act(id, { kind: 'decide', branch: 'b1', act: 'keep', why: `the ${i}th` }, 1)));
  expect(decisions.map((a) => a.status).sort()).toEqual([200, ...Array(11).fill(409)]);
  const notes = await Promise.all(Array.from({ length: 20 }, (_, i) => act(id, { kind: 'note', text: `note ${i}` }, 2)));
  expect(new Set(notes.map((a) => a.status))).toEqual(new Set([200]));
  const { record } = (await now(id)).tree;
  expect(new Set(record.map((line) => line.id)).size).toBe(20);
});

test('undo takes back the last thing done, whatever it was; redo makes it again; both outlast the server', async () => {
  const id = await add();
  await act(id, wired);
  await act(id, { kind: 'unwired', on: '2026-05-01', branch: 'b1', run: 'w1', method: 'cut' });
  expect((await now(id)).undo!.said).toBe('first left: wire cut off');
  // The wire is on again, and what put it on is next.
  const undone = (await step(id, 'undo')).body;
  expect([kinds(undone.tree), undone.undo.said, undone.redo.said]).toEqual([['wired', 'unwired', 'withdrawn'], 'wire first left', 'first left: wire cut off']);
  expect((await call('GET', paths.plan(id))).body.wires).toHaveLength(1);
  const redone = (await step(id, 'redo')).body;
  expect(kinds(redone.tree)).toEqual(['wired', 'unwired', 'withdrawn', 'unwired']);
  expect((await call('GET', paths.plan(id))).body.wires).toHaveLength(0);
  expect(await step(id, 'redo')).toMatchObject({ status: 409, body: { code: 'nothing-to-redo' } });
  await step(id, 'undo');
  await step(id, 'undo');
  expect(await step(id, 'undo')).toMatchObject({ status: 409, body: { code: 'nothing-to-undo' } });
  expect((await now(id)).tree.plan.runs).toEqual([]);
});

test('branches are cut as decided and agreed; the record keeps the wood, and undo, redo and taking back hold to it', async () => {
  const id = await add(sample({ client: 'The ferry office' }));
  const cut = (...branches: string[]): Promise<Answer> => act(id, { kind: 'take-off', branches });
  const { branches: before } = (await now(id)).tree;
  expect(await cut('b1')).toMatchObject({ status: 409, body: { code: 'not-decided', field: 'branches' } });
  await act(id, { kind: 'decide', branch: 'b1', act: 'remove' });
  expect(await cut('b1')).toMatchObject({ status: 409, body: { code: 'not-agreed', message: expect.stringMatching(/ferry office/) } });
  await act(id, { kind: 'agreed', on: '2026-05-19', by: 'their steward', branches: ['b1', 'b4'] });
  await act(id, { kind: 'decide', branch: 'b4', act: 'shorten', length: 60 });
  expect((await cut('b1', 'b4')).status).toBe(200);
  const done = (await now(id)).tree;
  expect(kinds(done)).toEqual(['agreed', 'removed', 'shortened']);
  expect(done.branches.find((b) => b.id === 'b4')).toMatchObject({ length: 60 });
  expect((await call('GET', paths.plan(id))).body.green.pastYear).toBeGreaterThan(0);

  const undone = (await step(id, 'undo')).body.tree as Tree;
  expect([undone.branches, kinds(undone)]).toEqual([before, ['agreed', 'removed', 'shortened', 'withdrawn', 'withdrawn']]);
  const redone = (await step(id, 'redo')).body.tree as Tree;
  expect([redone.branches, kinds(redone).slice(5)]).toEqual([done.branches, ['removed', 'shortened']]);
  // One line taken back puts that branch's wood back, and no other.
  const removed = redone.record.filter((line) => line.kind === 'removed').at(-1) as RecordLine;
  await act(id, { kind: 'withdrawn', corrects: removed.id! });
  const back = (await now(id)).tree;
  const onB4 = new Set(before.flatMap((b) => (b.parent === 'b4' ? [b.id] : [])));
  expect(back.branches.map((b) => b.id).sort()).toEqual(
    before
      .map((b) => b.id)
      .filter((b) => !onB4.has(b))
      .sort(),
  );
  expect((await call('POST', paths.importTree(), back)).status).toBe(201);
});

test('a branch taken out of the measures while the record speaks of it is kept in the record, and the file can be read again', async () => {
  const id = await add();
  await act(id, wired);
  await act(id, { kind: 'unlist', branches: ['b1'] });
  const { tree } = await now(id);
  expect(tree.record.at(-1)).toMatchObject({ kind: 'removed', branch: 'b1', unlisted: true, called: 'first left' });
  expect((await call('POST', paths.importTree(), tree)).status).toBe(201);
  expect((await step(id, 'undo')).body.tree.branches).toEqual(sample().branches);
});

test('the plan of a large tree is computed beside the server: a decision made meanwhile is stored first', async () => {
  const big = generateTree({ seed: 3, name: 'Big', species: 'larch', height: 900, base: 80, primaries: 60, secondaries: 9 });
  const id = await add(big);
  let planned = false;
  const plan = call('GET', paths.plan(id)).then((answer) => {
    planned = true;
    return answer;
  });
  expect((await act(id, { kind: 'decide', branch: 'b7', act: 'remove' })).status).toBe(200);
  expect(planned).toBe(false);
  expect((await plan).body).toMatchObject({ format: 'ustle-plan', tree: 'Big', green: { removed: 0 } });
});

test('the API documents itself, with the descriptions that check its bodies', async () => {
  const { body } = await call('GET', `${paths.docs}-json`);
  const { schema } = body.paths['/api/trees/{id}/acts'].post.requestBody.content['application/json'];
  const wire = schema.properties.act.oneOf.find((s: { title: string }) => s.title === 'wired');
  expect(wire.properties.size).toMatchObject({ type: 'number', minimum: 0.3, maximum: 12, unit: 'mm' });
  expect((await call('GET', paths.docs)).body).toContain('swagger-ui');
});
