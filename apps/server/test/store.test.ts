import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import Database from 'libsql';
import { generateTree, type Tree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, doAct, doStep, start } from './server';

const folder = (): string => mkdtempSync(join(tmpdir(), 'ustle-store-'));
const sample = generateTree({ seed: 5, name: 'Sample', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 });
const fixture = (name: string): string => resolve(__dirname, 'fixtures', name);

test('a database of the first shape comes along: trees, plans and records as they were, unknown keys included', async () => {
  const data = folder();
  cpSync(fixture('first-shape.sqlite'), join(data, 'ustle.sqlite'));
  const server = await start(data, 4660);
  const trees = (await ask(server.address, 'GET', paths.trees)).body as { id: string; name: string }[];
  expect(trees.map((t) => t.name).sort()).toEqual(['Dunlin', 'Kittiwake']);
  const { id } = trees.find((t) => t.name === 'Kittiwake')!;
  expect((await ask(server.address, 'GET', paths.treeFile(id))).body).toEqual(JSON.parse(readFileSync(fixture('kittiwake.ustle.json'), 'utf8')));
  // It goes on from there.
  expect((await doAct(server.address, id, { kind: 'decide', branch: 'b4', act: 'keep' })).status).toBe(200);
  expect((await doStep(server.address, id, 'undo')).body.tree.plan.decisions).toEqual([{ branch: 'b3', act: 'reserve', until: '2026-12-01' }]);
  await server.kill();
});

test('a database of a later version is not written to', async () => {
  const data = folder();
  cpSync(fixture('first-shape.sqlite'), join(data, 'ustle.sqlite'));
  const db = new Database(join(data, 'ustle.sqlite'));
  db.exec(`INSERT INTO migrations (timestamp, name) VALUES (99, 'FromTheFuture99')`);
  db.close();
  const before = readFileSync(join(data, 'ustle.sqlite'));
  await expect(start(data, 4662)).rejects.toThrow(/newer Ustle/);
  expect(readFileSync(join(data, 'ustle.sqlite')).equals(before)).toBe(true);
});

test('one server to a folder; a clean stop leaves one file, with streams open too', async () => {
  const data = folder();
  const server = await start(data, 4664);
  await expect(start(data, 4665)).rejects.toThrow(`Another Ustle uses this folder already at ${server.address}`);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  const stream = fetch(server.address + paths.caliper);
  await stream;
  const ended = once(server.child, 'exit');
  const from = process.hrtime.bigint();
  server.child.kill('SIGINT');
  await ended;
  expect(Number(process.hrtime.bigint() - from) / 1e9).toBeLessThan(10);
  expect(readdirSync(data)).toEqual(['ustle.sqlite']);
  const again = await start(data, 4664);
  expect((await ask(again.address, 'GET', paths.tree(id))).body.tree).toEqual(sample);
  await again.kill();
});

test('put aside, a tree leaves the bench and not the season; deleted for good, all of it goes and nothing of another', async () => {
  const data = folder();
  let server = await start(data, 4672);
  const call = (method: string, path: string, body?: unknown) => ask(server.address, method, path, body);
  const [gone, stays] = [(await call('POST', paths.importTree('gone'), sample)).body.id, (await call('POST', paths.importTree('stays'), sample)).body.id];
  const wire = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', bentDeg: 40, targetDeg: 30, over: 50 } as const;
  for (const id of [gone, stays]) await doAct(server.address, id, { kind: 'wired', on: '2026-03-01', ...wire });
  await doAct(server.address, gone, { kind: 'tie', branch: 'b2', at: 30, anchor: { kind: 'pot-rim', bearing: 90 }, wire: 1 });
  const asideOf = async () => Object.fromEntries((await call('GET', paths.trees)).body.map((t: any) => [t.id, t.asideOn]));
  expect((await call('PUT', paths.aside(gone), { aside: 'yes' })).body).toMatchObject({ field: 'aside' });
  expect((await call('PUT', paths.aside(gone), { aside: true })).body).toMatchObject({ id: gone, asideOn: '2026-05-20' });
  await server.kill();
  server = await start(data, 4672);
  expect(await asideOf()).toEqual({ gone: '2026-05-20', stays: null });
  const due = async () => (await call('GET', paths.season)).body.days.filter((d: any) => d.tree === gone);
  expect((await due()).map((d: any) => d.leadsTo).sort()).toEqual(['guy', 'watch']);
  expect((await call('PUT', paths.aside(gone), { aside: false })).body.asideOn).toBeNull();
  expect((await due()).map((d: any) => d.kind)).toContain('plan');

  // Twice is once; what was on its way to it arrives at nothing; the id is not used again.
  for (const _ of [1, 2]) expect((await call('DELETE', paths.tree(gone))).status).toBe(204);
  expect((await call('DELETE', paths.tree('never-was'))).status).toBe(404);
  expect((await doAct(server.address, gone, { kind: 'note', text: 'late' }, 1)).status).toBe(404);
  expect(await call('POST', paths.importTree('gone'), sample)).toMatchObject({ status: 410, body: { code: 'deleted' } });
  expect(await asideOf()).toEqual({ stays: null });
  expect(await due()).toEqual([]);
  const copy = await fetch(server.address + paths.backup);
  expect(copy.headers.get('content-disposition')).toMatch(/ustle-2026-05-20\.sqlite/);
  const file = join(folder(), 'copy.sqlite');
  writeFileSync(file, Buffer.from(await copy.arrayBuffer()));
  await server.kill();
  const db = new Database(file, { readonly: true });
  for (const table of ['tree', 'measures', 'line', 'act', 'before'])
    expect(
      (db.prepare(`SELECT DISTINCT ${table === 'tree' ? 'id' : '"treeId"'} AS id FROM "${table}"`).all() as { id: string }[]).map((r) => [table, r.id]),
    ).toEqual([[table, 'stays']]);
  db.close();
});

test('what was acknowledged is there after the server is killed in a stream of writes', async () => {
  const data = folder();
  let server = await start(data, 4668);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  const acknowledged: string[] = [];
  for (let round = 0; round < 3; round++) {
    let going = true;
    const writers = Array.from({ length: 4 }, async (_, w) => {
      for (let i = 0; going; i++) {
        const text = `${round}-${w}-${i}`;
        const answer = await doAct(server.address, id, { kind: 'note', text }, 1).catch(() => null);
        if (answer?.status === 200) acknowledged.push(text);
      }
    });
    for (const end = acknowledged.length + 15; acknowledged.length < end;) await new Promise((done) => setTimeout(done, 10));
    await server.kill();
    going = false;
    await Promise.all(writers);
    server = await start(data, 4668);
  }
  const { record } = (await ask(server.address, 'GET', paths.tree(id))).body.tree as Tree;
  const stored = new Set(record.map((line) => line.text));
  expect(acknowledged.filter((text) => !stored.has(text))).toEqual([]);
  await server.kill();
});

test('on a full disk nothing acknowledged is lost: what no longer fits is refused in words, what is there is still read', async () => {
  const data = folder();
  let server = await start(data, 4674);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  await server.kill();
  server = await start(data, 4674, {}, 700);
  const [acknowledged, refusals]: [string[], number[]] = [[], []];
  // Some refusals in a row, small writes among them: a transaction left open by the first would swallow what comes after it.
  for (let i = 0; refusals.length < 12 && i < 300; i++) {
    const text = `${i} ${'x'.repeat(i % 3 ? 4_500 : 10)}`;
    const { status, body } = await doAct(server.address, id, { kind: 'note', text }, 1);
    if (status === 200) acknowledged.push(text);
    else {
      refusals.push(status);
      expect(body.message).toMatch(/this was not stored. What was stored before is safe/);
    }
  }
  expect(new Set(refusals)).toEqual(new Set([507]));
  expect([acknowledged.length > 5, refusals.length]).toEqual([true, 12]);
  const shown = (await ask(server.address, 'GET', paths.tree(id))).body.tree as Tree;
  expect(shown.record.map((l) => l.text)).toEqual(acknowledged);
  await server.kill();
  // With room again all of it is there, and it goes on.
  server = await start(data, 4674);
  const stored = async () => ((await ask(server.address, 'GET', paths.tree(id))).body.tree as Tree).record.map((l) => l.text);
  expect(await stored()).toEqual(acknowledged);
  expect((await doAct(server.address, id, { kind: 'note', text: 'room again' })).status).toBe(200);
  expect(await stored()).toEqual([...acknowledged, 'room again']);
  await server.kill();
});

test('the database itself refuses to change or delete what was done', async () => {
  const data = folder();
  const server = await start(data, 4670);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  await doAct(server.address, id, { kind: 'note', text: 'stays' });
  await server.kill();
  const db = new Database(join(data, 'ustle.sqlite'));
  for (const statement of ['UPDATE line SET kind = 1', 'DELETE FROM line', 'UPDATE act SET kind = 1', 'DELETE FROM act'])
    expect(() => db.exec(statement)).toThrow(/what was done stays/);
  db.close();
});
