import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { generateTree, planTree, dayOf, type Tree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, start, type Running } from './server';

const sample = (own: Partial<Tree> = {}): Tree => ({
  ...generateTree({ seed: 5, name: 'Sample', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 }),
  ...own,
});
const wired = (revision: number, own = {}) => ({
  revision,
  on: '2026-03-01',
  branch: 'b1',
  metal: 'copper',
  size: 2.05,
  strands: 1,
  angle: 45,
  hand: 'cw',
  start: 'over',
  gap: 0,
  wrap: 'none',
  bentDeg: 40,
  targetDeg: 30,
  over: 50,
  ...own,
});

describe('the server', () => {
  let server: Running;
  const call = (method: string, path: string, body?: unknown) => ask(server.address, method, path, body);
  const add = async (tree: unknown = sample()): Promise<{ id: string; revision: number }> => (await call('POST', paths.importTree, tree)).body;

  beforeAll(async () => {
    server = await start(mkdtempSync(join(tmpdir(), 'ustle-server-')), 4620);
  });
  afterAll(() => server.kill());

  test('gives back a tree file as it came, unknown keys, nulls and record included', async () => {
    const tree = sample({ repottedOn: null, styledOn: '2025-04-01', record: [{ on: '2026-01-05', kind: 'note', id: 'n1', text: 'Full buds.', mood: 'good' }] });
    Object.assign(tree, { later: { a: [1, null] } });
    Object.assign(tree.branches[1]!, { colour: 'grey', name: 'the low one' });
    Object.assign(tree.plan, { mood: 'calm', front: { bearing: 12, pitch: 0, roll: 0 } });
    tree.plan.runs.push({
      id: 'w3',
      metal: 'copper',
      size: 2,
      strands: 1,
      angle: 50,
      branches: [
        { branch: 'b1', hand: 'cw', start: 'over' },
        { branch: 'b4', hand: 'ccw', start: 'under' },
      ],
    });
    const { id } = await add(tree);
    expect((await call('GET', paths.treeFile(id))).body).toEqual(tree);
  });

  test('refuses a bad file whole, with path and reason', async () => {
    const before = (await call('GET', paths.trees)).body.length;
    const bad = sample();
    bad.branches[0]!.d = -1;
    const refused = await call('POST', paths.importTree, bad);
    expect(refused).toMatchObject({ status: 400, body: { code: 'range', field: '/branches/0/d', faults: [{ path: '/branches/0/d' }] } });
    expect(await call('POST', paths.importTree, 'not json')).toMatchObject({ status: 400, body: { code: 'not-json' } });
    expect(await call('POST', paths.importTree, `"${'x'.repeat(50 << 20)}"`)).toMatchObject({ status: 413, body: { code: 'too-large' } });
    expect((await call('GET', paths.trees)).body).toHaveLength(before);
  });

  test('a bad value is 400 with field, code and sentence; an unknown thing is 404', async () => {
    const { id, revision } = await add();
    const cases: [string, string, unknown, string, string][] = [
      ['PUT', paths.decision(id, 'b1'), { revision, act: 'burn' }, 'act', 'choice'],
      ['PUT', paths.front(id), { revision, front: { bearing: 700, pitch: 0, roll: 0 } }, 'front.bearing', 'range'],
      ['PUT', paths.front(id), { revision, front: null, sneaky: 1 }, 'sneaky', 'unknown-field'],
      ['POST', paths.wired(id), wired(revision, { size: -2 }), 'size', 'range'],
      ['POST', paths.record(id), { on: 'today', kind: 'note' }, 'on', 'format'],
      ['POST', paths.record(id), { on: '2026-05-01', kind: 'inspected', branch: 'b1' }, 'stage', 'choice'],
    ];
    for (const [method, path, body, field, code] of cases) {
      const answer = await call(method, path, body);
      expect(answer).toMatchObject({ status: 400, body: { field, code, message: expect.stringMatching(/\.$/) } });
    }
    expect(await call('POST', paths.record(id), '{broken')).toMatchObject({ status: 400, body: { code: 'not-json' } });
    expect((await call('GET', paths.tree('nobody'))).status).toBe(404);
    expect((await call('PUT', paths.decision(id, 'b999'), { revision, act: 'keep' })).status).toBe(404);
    expect((await call('POST', paths.record(id), { on: '2026-05-01', kind: 'note', branch: 'zz' })).status).toBe(404);
    expect((await call('GET', paths.plan(id, '2026-99-01'))).status).toBe(400);
    expect((await call('GET', paths.tree(id))).body.revision).toBe(revision);
  });

  test('an old revision is answered 409 with the tree as it is; undo and redo walk the plan', async () => {
    const { id, revision } = await add();
    const first = await call('PUT', paths.decision(id, 'b1'), { revision, act: 'remove', why: 'bar' });
    expect(first.body).toMatchObject({ revision: revision + 1, undo: 'remove b1', redo: null });
    const stale = await call('PUT', paths.decision(id, 'b2'), { revision, act: 'keep' });
    expect(stale).toMatchObject({ status: 409, body: { code: 'stale', current: { revision: revision + 1 } } });
    const undone = await call('POST', paths.undo(id), { revision: revision + 1 });
    expect(undone.body).toMatchObject({ undo: null, redo: 'remove b1', tree: { plan: { decisions: [] } } });
    const again = await call('POST', paths.redo(id), { revision: revision + 2 });
    expect(again.body.tree.plan.decisions).toEqual([{ branch: 'b1', act: 'remove', why: 'bar' }]);
    expect(await call('POST', paths.redo(id), { revision: revision + 3 })).toMatchObject({ status: 409, body: { code: 'nothing-to-redo' } });
  });

  test('a coil is recorded with its run, watched, inspected, corrected and taken off; season and calendar follow', async () => {
    const { id, revision } = await add(sample({ name: 'Watched', repottedOn: '2026-01-05' }));
    const on = (await call('POST', paths.wired(id), wired(revision))).body;
    expect(on.tree.plan.runs).toMatchObject([{ id: 'w1', metal: 'copper', size: 2.05, branches: [{ branch: 'b1' }] }]);
    const plan = (await call('GET', paths.plan(id, '2026-05-20'))).body;
    expect(plan).toEqual(JSON.parse(JSON.stringify(planTree(on.tree, dayOf('2026-05-20')))));
    expect(plan.wires).toHaveLength(1);

    const mine = async () => (await call('GET', paths.season)).body.days.filter((d: { tree: string; kind: string }) => d.tree === id && d.kind !== 'plan');
    expect(await mine()).toMatchObject([{ branches: ['b1'] }]);
    const calendar = new ICAL.Component(ICAL.parse((await call('GET', paths.calendar)).body));
    expect(
      calendar
        .getAllSubcomponents('vevent')
        .map((e) => e.getFirstPropertyValue('summary'))
        .join(),
    ).toContain('Watched: b1');

    const seen = (await call('POST', paths.record(id), { on: '2026-05-20', kind: 'inspected', branch: 'b1', run: 'w1', stage: 'marking' })).body;
    expect((await mine())[0]).toMatchObject({ kind: 'remove', stage: 'marking' });
    const slip = seen.tree.record.at(-1).id;
    await call('POST', paths.record(id), { on: '2026-05-20', kind: 'withdrawn', corrects: slip });
    expect((await mine())[0]).toMatchObject({ stage: null });
    const off = (await call('POST', paths.record(id), { on: '2026-05-20', kind: 'unwired', branch: 'b1', run: 'w1', method: 'cut' })).body;
    expect(await mine()).toEqual([]);
    expect(off.tree.record.map((e: { kind: string }) => e.kind)).toEqual(['wired', 'inspected', 'withdrawn', 'unwired']);
  });

  test('branches are cut as decided and agreed; the record keeps the wood, and undo, redo and taking back hold to it', async () => {
    const { id, revision } = await add(sample({ client: 'The ferry office' }));
    const put = async (path: string, body: object) => (await call('PUT', path, { revision: (await now()).revision, ...body })).body;
    const now = async () => (await call('GET', paths.tree(id))).body;
    const cut = async (...branches: string[]) => call('POST', paths.cut(id), { revision: (await now()).revision, on: '2026-05-20', branches });
    const kinds = (view: { tree: Tree }) => view.tree.record.map((e) => e.kind);
    const { branches: before } = (await now()).tree as Tree;

    expect(await cut('b1')).toMatchObject({ status: 409, body: { code: 'not-decided', field: 'branches' } });
    await put(paths.decision(id, 'b1'), { act: 'remove' });
    expect(await cut('b1')).toMatchObject({ status: 409, body: { code: 'not-agreed', message: expect.stringMatching(/ferry office/) } });
    expect((await call('POST', paths.record(id), { on: '2026-05-19', kind: 'agreed', branches: ['b1'] })).body).toMatchObject({ field: 'by' });
    await call('POST', paths.record(id), { on: '2026-05-19', kind: 'agreed', by: 'their steward', branches: ['b1', 'b4'] });
    await put(paths.decision(id, 'b4'), { act: 'shorten', length: 60 });
    const done = await cut('b1', 'b4');
    expect(done.status).toBe(201);
    expect(kinds(done.body)).toEqual(['agreed', 'removed', 'shortened']);
    expect(done.body.tree.branches.find((b: { id: string }) => b.id === 'b1')).toBeUndefined();
    expect(done.body.tree.branches.find((b: { id: string }) => b.id === 'b4')).toMatchObject({ length: 60 });
    expect((await call('GET', paths.plan(id, '2026-05-20'))).body.green.pastYear).toBeGreaterThan(0);

    const undone = (await call('POST', paths.undo(id), { revision: (await now()).revision })).body;
    expect(undone.tree.branches).toEqual(before);
    expect(kinds(undone)).toEqual(['agreed', 'removed', 'shortened', 'withdrawn', 'withdrawn']);
    const redone = (await call('POST', paths.redo(id), { revision: (await now()).revision })).body;
    expect(redone.tree.branches).toEqual(done.body.tree.branches);
    expect(kinds(redone).slice(5)).toEqual(['removed', 'shortened']);
    // One line taken back puts that branch's wood back, and no other.
    const removed = redone.tree.record.findLast((e: { kind: string }) => e.kind === 'removed');
    const back = (await call('POST', paths.record(id), { on: '2026-05-20', kind: 'withdrawn', corrects: removed.id })).body;
    const withB4 = new Set(before.flatMap((b) => (b.parent === 'b4' ? [b.id] : [])));
    const expected = before.map((b) => b.id).filter((b) => !withB4.has(b));
    expect(back.tree.branches.map((b: { id: string }) => b.id).sort()).toEqual(expected.sort());
    expect(back.tree.branches.find((b: { id: string }) => b.id === 'b4')).toMatchObject({ length: 60 });
    expect(back.undo).toMatch(/take back the cut of b1/);
    expect((await call('POST', paths.importTree, back.tree)).status).toBe(201);

    const { revision: last } = await now();
    const cases: [string, object, string][] = [
      [paths.decision(id, 'b4'), { act: 'shorten', length: 60 }, 'length'],
      [paths.decision(id, 'b4'), { act: 'shorten', toShoot: 'b2' }, 'toShoot'],
      [paths.decision(id, 'b4'), { act: 'reserve', untilSet: 'b4' }, 'untilSet'],
      [paths.decision(id, 'b4'), { act: 'reserve', until: 'soon' }, 'until'],
      [paths.sessions(id), { branches: [], session: 2, until: null }, 'branches'],
      [paths.either(id), { a: 'b4', b: 'b4' }, 'b'],
      [paths.rules(id), { profile: 'wild', limits: {}, rules: {} }, 'profile'],
      [paths.rules(id), { profile: 'clump', limits: { barDeg: 900 }, rules: {} }, 'limits'],
      [paths.rules(id), { profile: 'clump', limits: {}, rules: { luck: true } }, 'rules'],
    ];
    for (const [path, body, field] of cases) expect(await call('PUT', path, { revision: last, ...body })).toMatchObject({ status: 400, body: { field } });
    expect(await call('PUT', paths.either(id), { revision: last, a: 'b4', b: 'nobody' })).toMatchObject({ status: 404, body: { field: 'b' } });
    expect((await now()).revision).toBe(last);
    expect(revision).toBe(1);
  });

  test('what was put off is due on its day', async () => {
    const { id } = await add(sample({ name: 'Later' }));
    const put = async (path: string, body: object) => call('PUT', path, { revision: (await call('GET', paths.tree(id))).body.revision, ...body });
    await put(paths.decision(id, 'b2'), { act: 'reserve', until: '2026-05-01' });
    await put(paths.decision(id, 'b5'), { act: 'remove' });
    await put(paths.sessions(id), { branches: ['b5'], session: 2, until: '2026-11-07' });
    const due = (await call('GET', paths.season)).body.days.filter((d: { tree: string; kind: string }) => d.tree === id && d.kind === 'promise');
    expect(due).toMatchObject([
      { on: '2026-05-20', branches: ['b2'], title: expect.stringMatching(/in reserve: keep or take off/) },
      { on: '2026-11-07', branches: ['b5'] },
    ]);
    expect((await call('GET', paths.calendar)).body).toContain('Later: b2');
  });

  test('many changes at once: each is whole, one wins a revision', async () => {
    const { id, revision } = await add();
    const answers = await Promise.all(Array.from({ length: 12 }, (_, i) => call('PUT', paths.decision(id, `b${i + 1}`), { revision, act: 'keep' })));
    expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array(11).fill(409)]);
    const notes = await Promise.all(
      Array.from({ length: 20 }, (_, i) => call('POST', paths.record(id), { on: '2026-05-01', kind: 'note', text: `note ${i}` })),
    );
    expect(new Set(notes.map((a) => a.status))).toEqual(new Set([201]));
    const { record } = (await call('GET', paths.tree(id))).body.tree;
    expect(new Set(record.map((e: { id: string }) => e.id)).size).toBe(20);
  });

  test('the API documents itself, with the rules of its bodies', async () => {
    const { body } = await call('GET', `${paths.docs}-json`);
    expect(body.paths[paths.wired('{id}').replace(/%7B/g, '{').replace(/%7D/g, '}')].post.requestBody).toBeTruthy();
    expect(body.components.schemas.WiredBody.properties.size).toMatchObject({ type: 'number', minimum: 0.3, maximum: 12 });
    expect((await call('GET', paths.docs)).body).toContain('swagger-ui');
  });
});

test('what was acknowledged is there after the server is killed in a stream of writes', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-kill-'));
  let server = await start(folder, 4660);
  const { id } = (await ask(server.address, 'POST', paths.importTree, sample())).body;
  const acknowledged: string[] = [];
  for (let round = 0; round < 3; round++) {
    let going = true;
    const writers = Array.from({ length: 4 }, async (_, w) => {
      for (let i = 0; going; i++) {
        const text = `${round}-${w}-${i}`;
        const answer = await ask(server.address, 'POST', paths.record(id), { on: '2026-05-01', kind: 'note', text }).catch(() => null);
        if (answer?.status === 201) acknowledged.push(text);
      }
    });
    await new Promise((done) => setTimeout(done, 400 + round * 130));
    await server.kill();
    going = false;
    await Promise.all(writers);
    server = await start(folder, 4660);
  }
  const { record } = (await ask(server.address, 'GET', paths.tree(id))).body.tree;
  const stored = new Set(record.map((e: { text: string }) => e.text));
  expect(acknowledged.length).toBeGreaterThan(20);
  expect(acknowledged.filter((text) => !stored.has(text))).toEqual([]);
  await server.kill();
}, 60_000);
