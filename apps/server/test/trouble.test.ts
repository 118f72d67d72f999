import { cpSync, existsSync, mkdtempSync, readdirSync, renameSync } from 'node:fs';
import { randomBytes, randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import Database from 'libsql';
import sharp from 'sharp';
import { generateTree, largeTree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { TooHard } from '../src/plans/too-hard';
import { TooLong, Turns, type Threads } from '../src/plans/turns';
import { ask, doAct, start, TODAY } from './server';

const folder = (): string => mkdtempSync(join(tmpdir(), 'ustle-trouble-'));
const sample = generateTree({ seed: 5, name: 'Sound', species: 'maple-trident', height: 400, base: 40, primaries: 5, secondaries: 2 });
const wire = { kind: 'wired', on: '2026-03-01', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', bentDeg: 40 } as const;

const BROKEN: [string, (db: Database.Database, id: string) => void][] = [
  ['measures that are no JSON', (db, id) => db.prepare('UPDATE measures SET document = ? WHERE treeId = ?').run('{"name": "Bro', id)],
  ['measures that are no tree', (db, id) => db.prepare('UPDATE measures SET document = ? WHERE treeId = ?').run('{"name": "Broken"}', id)],
  ['no measures', (db, id) => db.prepare('DELETE FROM measures WHERE treeId = ?').run(id)],
  ['a plan without lists', (db, id) => db.prepare('UPDATE tree SET plan = ? WHERE id = ?').run('{}', id)],
  [
    'a line that is none',
    (db, id) => db.prepare(`INSERT INTO line (treeId, ordinal, lineId, on_day, kind, document) VALUES (?, 90, 'x', '2026-01-01', 'wired', '[1]')`).run(id),
  ],
];

test('a tree of which what is kept is none takes only itself out, says so, and its file is offered', async () => {
  const data = folder();
  let server = await start(data, 4700);
  const call = (method: string, path: string, body?: unknown) => ask(server.address, method, path, body);
  const add = async (name: string): Promise<string> => {
    const { id } = (await call('POST', paths.importTree(), { ...sample, name })).body;
    await doAct(server.address, id, { ...wire, branch: 'b1' });
    return id;
  };
  const sound = await add('Sound');
  const broken: string[] = [];
  for (const [name] of BROKEN) broken.push(await add(name));
  const mended = await add('Sound again');
  await server.kill();
  const inFile = <T>(work: (db: Database.Database) => T): T => {
    const db = new Database(join(data, 'ustle.sqlite'));
    try {
      return work(db);
    } finally {
      db.close();
    }
  };
  const measuresAre = (db: Database.Database, document: string) => db.prepare('UPDATE measures SET document = ? WHERE treeId = ?').run(document, mended);
  const measures = inFile((db) => {
    BROKEN.forEach(([, breaks], i) => breaks(db, broken[i]!));
    const { document } = db.prepare('SELECT document FROM measures WHERE treeId = ?').get(mended) as { document: string };
    measuresAre(db, '');
    return document;
  });
  server = await start(data, 4700);
  type Told = { id: string; trouble: string | null; next: unknown };
  const all = async (): Promise<Told[]> => (await call('GET', paths.trees)).body;
  expect((await all()).find((t) => t.id === mended)?.trouble).toMatch(/cannot be read/);
  // What was not told once is not left untold: it is asked again, though nothing was written here meanwhile.
  inFile((db) => measuresAre(db, measures));
  const bench = (await all()).filter((t) => t.id !== mended || t.trouble);
  // What is in trouble stands first.
  expect(bench.map((t) => [t.trouble !== null, t.next !== null])).toEqual([...broken.map(() => [true, false]), [false, true]]);
  for (const path of [paths.season, paths.walk, paths.rack, paths.learned, paths.pace, paths.mail, paths.calendar, paths.known(sound), paths.plan(sound)])
    expect([path, (await call('GET', path)).status]).toEqual([path, 200]);
  expect((await call('GET', paths.season)).body.days.map((d: { tree: string }) => d.tree)).toContain(sound);
  const whole = await fetch(server.address + paths.studio);
  expect([whole.status, (await whole.arrayBuffer()).byteLength > 1000]).toEqual([200, true]);
  for (const [i, id] of broken.entries()) {
    for (const path of [paths.tree(id), paths.treeFile(id), paths.plan(id)])
      expect(await call('GET', path)).toMatchObject({
        status: 422,
        body: { code: 'unreadable', message: expect.stringMatching(/^What is kept of .* cannot be read: .* put it aside/) },
      });
    expect(await doAct(server.address, id, { kind: 'note', text: 'x' }, 1)).toMatchObject({ status: 422 });
    expect((await call('GET', paths.treeKept(id))).body).toMatchObject({
      name: BROKEN[i]![0],
      record: expect.arrayContaining([expect.stringContaining('"wired"')]),
    });
    expect((await call('PUT', paths.aside(id), { aside: true })).body).toEqual({ id, asideOn: TODAY });
    expect((await call('DELETE', paths.tree(id))).status).toBe(204);
  }
  expect((await all()).map((t) => t.id)).toEqual([sound, mended]);
  await server.kill();
});

test('what took too long is tried again after a while, however often it was asked for meanwhile', () => {
  let now = 5;
  const hard = new TooHard(() => now);
  const [tree, other] = [{}, {}];
  hard.add(tree);
  now += 599_000;
  expect([hard.has(tree), hard.has(other)]).toEqual([true, false]);
  hard.add(tree);
  now += 1000;
  expect(hard.has(tree)).toBe(false);
  hard.add(tree);
  expect(hard.has(tree)).toBe(true);
});

test('a plan that takes too long is answered with what does not depend on it', async () => {
  // No plan is made within a thousandth of a second.
  const server = await start(folder(), 4702, { USTLE_PLAN_SECONDS: '0.001' });
  const { id } = (await ask(server.address, 'POST', paths.importTree(), largeTree(60, 1))).body;
  const [first, second] = await Promise.all([ask(server.address, 'GET', paths.plan(id)), ask(server.address, 'GET', paths.plan(id, '2026-05-21'))]);
  for (const { status, body } of [first, second]) {
    expect([status, body.runs, body.poses, body.fronts]).toEqual([200, [], [], []]);
    expect(body.notes[0]).toMatch(/could not be worked out within 0.001 seconds/);
    expect(body.read.verdict).toMatch(/go|light|leave/);
    expect(body.findings.length).toBeGreaterThan(0);
  }
  expect((await ask(server.address, 'GET', paths.paper(id, 'sheet'))).status).toBe(200);
  await server.kill();
});

test('work that does not end holds one thread until its time is over; others have theirs meanwhile, and what comes again does not wait', async () => {
  const running = new Set<string>();
  /** Threads on which a stuck task runs until it is ended. */
  const threads: Threads = {
    run: (task, { signal }) => {
      const { name, stuck } = task as { name: string; stuck: boolean };
      if (!stuck) return Promise.resolve(name);
      running.add(name);
      return new Promise((_, fail) => {
        signal.addEventListener('abort', () => {
          running.delete(name);
          fail(signal.reason as Error);
        });
      });
    },
  };
  const turns = new Turns(threads, 2);
  const [hard, easy] = [{}, {}];
  const leaves = new AbortController();
  let given = 0;
  const taken = [1, 2, 3].map((n) =>
    turns.take('plan', { tree: hard, name: `hard ${n}`, stuck: true }, n === 1 ? 0.05 : 60, { asked: leaves.signal, before: () => void given++ }),
  );
  // One thing has one thread, however often it is asked for.
  expect(await turns.take('plan', { tree: easy, name: 'easy', stuck: false }, 60)).toBe('easy');
  await expect(taken[0]).rejects.toThrow(TooLong);
  expect([given, [...running]]).toEqual([2, ['hard 2']]);
  leaves.abort();
  for (const late of taken.slice(1)) await expect(late).rejects.toMatchObject({ name: 'AbortError' });
  // Its time begins with its turn: what waited is not over when it begins.
  expect(await turns.take('plan', { tree: hard, name: 'later', stuck: false }, 60)).toBe('later');
  expect(running.size).toBe(0);
});

test('a folder that is moved away is noticed before anything is acknowledged; put back, it goes on with all that was', async () => {
  const data = join(folder(), 'own');
  const server = await start(data, 4704);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  renameSync(data, `${data}-elsewhere`);
  for (const text of ['one', 'two'])
    expect(await doAct(server.address, id, { kind: 'note', text }, 1)).toMatchObject({
      status: 507,
      body: { code: 'moved', message: expect.stringMatching(/not stored/) },
    });
  renameSync(`${data}-elsewhere`, data);
  expect((await doAct(server.address, id, { kind: 'note', text: 'three' })).status).toBe(200);
  await server.kill();
  const again = await start(data, 4704);
  expect((await ask(again.address, 'GET', paths.tree(id))).body.tree.record.map((l: { text: string }) => l.text)).toEqual(['three']);
  await again.kill();
});

test('a photo that does not fit on the disk is refused in words, and nothing half lies about', async () => {
  const data = folder();
  let server = await start(data, 4706);
  const { id } = (await ask(server.address, 'POST', paths.importTree(), sample)).body;
  await server.kill();
  server = await start(data, 4706, {}, 600);
  const photo = await sharp(randomBytes(1200 * 900 * 3), { raw: { width: 1200, height: 900, channels: 3 } })
    .jpeg({ quality: 90 })
    .toBuffer();
  const send = async (name: string) => {
    const act = { id: randomUUID(), on: TODAY, kind: 'photo', photo: name, when: 'before' };
    const response = await fetch(server.address + paths.photos(id, act, 'a.jpg'), {
      method: 'POST',
      headers: { 'Content-Type': 'image/jpeg' },
      body: new Uint8Array(photo),
    });
    return { status: response.status, body: await response.json() };
  };
  expect(await send('big')).toMatchObject({ status: 507, body: { code: 'disk-full' } });
  expect(readdirSync(join(data, 'photos'))).toEqual([]);
  expect((await ask(server.address, 'GET', paths.tree(id))).body.tree.record).toEqual([]);
  await server.kill();
  server = await start(data, 4706);
  expect((await send('big')).status).toBe(200);
  await server.kill();
});

test('before its shape is changed the database is copied, once', async () => {
  const data = folder();
  cpSync(resolve(__dirname, 'fixtures/first-shape.sqlite'), join(data, 'ustle.sqlite'));
  await (await start(data, 4708)).kill();
  const copies = (): string[] => readdirSync(data).filter((f) => f.includes('.before-'));
  const [copy] = copies();
  const rows = (file: string, sql: string): unknown[] => {
    const db = new Database(file, { readonly: true });
    try {
      return db.prepare(sql).all();
    } finally {
      db.close();
    }
  };
  const sql = 'SELECT * FROM tree ORDER BY id';
  expect(rows(join(data, copy!), sql)).toEqual(rows(resolve(__dirname, 'fixtures/first-shape.sqlite'), sql));
  await (await start(data, 4708)).kill();
  expect([copies(), existsSync(join(data, `${copy}.new`))]).toEqual([[copy], false]);
});
