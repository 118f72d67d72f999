import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import sharp from 'sharp';
import { ZipFile } from 'yazl';
import { paths } from '@ustle/contract';
import { generateTree } from '@ustle/core';
import { actsFrom, studioFaults } from '../src/studio/studio-file.js';
import { ask, doAct, doStep, start, TODAY, type Answer, type Running } from './server.js';

const PORT = 4671;
const folder = mkdtempSync(join(tmpdir(), 'ustle-studio-'));
const empty = mkdtempSync(join(tmpdir(), 'ustle-empty-'));
let server: Running;
let other: Running;
let tree: string;

const LARCH = { ...generateTree({ seed: 5, name: 'Larch', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 2, faults: [] }), record: [] };

beforeAll(async () => {
  [server, other] = await Promise.all([start(folder, PORT), start(empty, PORT + 20)]);
  tree = (await ask(server.address, 'POST', paths.importTree(), LARCH)).body.id;
  await addPhoto();
});
afterAll(async () => {
  await Promise.all([server.kill(), other.kill()]);
  [folder, empty].forEach((f) => rmSync(f, { recursive: true, force: true }));
});

async function send(to: Running, path: string, body: Buffer, type: string): Promise<Answer> {
  const response = await fetch(to.address + path, { method: 'POST', headers: { 'Content-Type': type }, body: new Uint8Array(body) });
  return { status: response.status, body: await response.json() };
}
/** A studio without a photo would tell little. */
async function addPhoto(): Promise<void> {
  const act = { id: randomUUID(), on: TODAY, kind: 'photo', photo: randomUUID(), when: 'before' };
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#567' } })
    .jpeg()
    .toBuffer();
  expect((await send(server, paths.photos(tree, act, 'a.jpg'), picture, 'image/jpeg')).status).toBe(200);
}
const bytes = async (of: Running, path: string): Promise<Buffer> => Buffer.from(await (await fetch(of.address + path)).arrayBuffer());
const recordOf = async (): Promise<Record<string, unknown>[]> => (await ask(server.address, 'GET', paths.tree(tree))).body.tree.record;

/** A ZIP of some names and texts; a name that ought not to be made is written over one of the same length. */
async function zipOf(entries: [name: string, text: string][], over?: [from: string, to: string]): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, text] of entries) zip.addBuffer(Buffer.from(text), name);
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  const whole = Buffer.concat(parts);
  return over ? Buffer.from(whole.toString('latin1').replaceAll(over[0], over[1]), 'latin1') : whole;
}
const restore = (to: Running, zip: Buffer): Promise<Answer> => send(to, paths.studio, zip, 'application/zip');
const STUDIO = { format: 'ustle-studio', version: 1, trees: [], benches: [], settings: {}, rack: [], mail: [], forgotten: [] };

test('a file made to do harm is refused, and nothing is written anywhere', async () => {
  const studio = JSON.stringify(STUDIO);
  const withTree = JSON.stringify({ ...STUDIO, trees: [{ id: 't1', revision: 1, asideOn: null, bench: null }] });
  const cases: [string, Buffer][] = [
    ['not-a-studio', Buffer.from('not a zip at all, not a zip at all, not a zip')],
    [
      'not-a-studio',
      await zipOf(
        [
          ['studio.json', studio],
          ['aa/../../outside.txt'.replace('../..', 'bb/bb'), 'x'],
        ],
        ['aa/bb/bb/outside.txt', '../../../outside.txt'],
      ),
    ],
    [
      'not-a-studio',
      await zipOf(
        [
          ['studio.json', studio],
          ['xoutside.txt', 'x'],
        ],
        ['xoutside.txt', '/outside.txt'],
      ),
    ],
    [
      'name',
      await zipOf([
        ['studio.json', studio],
        ['server.js', 'x'],
      ]),
    ],
    [
      'twice',
      await zipOf(
        [
          ['studio.json', studio],
          ['trees/a.acts.json', '[]'],
          ['trees/b.acts.json', '[]'],
        ],
        ['trees/b.acts', 'trees/a.acts'],
      ),
    ],
    [
      'tree',
      await zipOf([
        ['studio.json', studio],
        ['trees/a.acts.json', ' '.repeat(20_000_000)],
      ]),
    ],
    [
      'photo',
      await zipOf([
        ['studio.json', studio],
        ['photos/p.full.jpg', '<html>'],
        ['photos/p.small.jpg', '<html>'],
      ]),
    ],
    ['format', await zipOf([['trees/a.acts.json', '[]']])],
    ['version', await zipOf([['studio.json', JSON.stringify({ ...STUDIO, version: 9 })]])],
    ['tree', await zipOf([['studio.json', withTree]])],
    [
      'tree',
      await zipOf([
        ['studio.json', withTree],
        ['trees/t1.ustle.json', '{}'],
      ]),
    ],
    ['rack', await zipOf([['studio.json', JSON.stringify({ ...STUDIO, rack: [{ line: { kind: 'in' }, recorded: {} }] })]])],
  ];
  for (const [code, zip] of cases) {
    const { status, body } = await restore(other, zip);
    expect([status, body.code]).toEqual([400, code]);
    expect(body.message).toMatch(/Nothing was changed\.$/);
  }
  expect((await ask(other.address, 'GET', paths.trees)).body).toEqual([]);
  expect(existsSync(join(empty, 'photos')) ? readdirSync(join(empty, 'photos')) : []).toEqual([]);
  expect(readdirSync(join(empty, 'incoming'))).toEqual([]);
  expect(['outside.txt', '../outside.txt', '../../outside.txt'].filter((f) => existsSync(join(empty, f)))).toEqual([]);
});

test('a whole studio goes into one file and comes back from it on an empty installation, byte by byte', async () => {
  const { address } = server;
  await ask(address, 'PUT', paths.benches, { benches: [{ id: 'slip', name: 'By the slip' }] });
  await ask(address, 'PUT', paths.stands(tree), { bench: 'slip' });
  await ask(address, 'PUT', paths.people, { people: ['Robin', ' Robin', 'Ash'] });
  await ask(address, 'POST', paths.rackLines, {
    line: { id: 'in1', on: TODAY, kind: 'in', roll: 'r1', form: 'roll', origin: 'bought', metal: 'copper', size: 2.59, grams: 500, soft: true },
  });
  const [branch] = LARCH.branches.filter((b) => b.parent === 'trunk');
  await doAct(address, tree, {
    kind: 'wired',
    metal: 'copper',
    size: 2.59,
    strands: 1,
    angle: 45,
    branch: branch!.id,
    hand: 'cw',
    start: 'over',
    length: 400,
    roll: 'r1',
  });
  await doAct(address, tree, { kind: 'decide', branch: branch!.id, act: 'keep' });
  await doAct(address, tree, { kind: 'note', text: 'Full “buds”, é.' });
  await doStep(address, tree, 'undo');
  const gone = (await ask(address, 'POST', paths.importTree(), { ...LARCH, name: 'Gone' })).body.id;
  await ask(address, 'DELETE', paths.tree(gone));

  const zip = await bytes(server, paths.studio);
  expect((await restore(server, zip)).body.code).toBe('not-empty');
  const restored = await restore(other, zip);
  expect(restored).toEqual({ status: 200, body: { trees: 1, photos: 1 } });
  const digest = (file: Buffer): string => createHash('sha256').update(file).digest('hex');
  expect(digest(await bytes(other, paths.studio))).toBe(digest(zip));
  for (const path of [paths.tree(tree), paths.rack, paths.benches, paths.people, paths.trees]) {
    expect((await ask(other.address, 'GET', path)).body).toEqual((await ask(address, 'GET', path)).body);
  }
  // What could be taken back still can, and what was done once is not done again.
  expect((await doStep(other.address, tree, 'redo')).body.tree.record).toContainEqual(expect.objectContaining({ kind: 'note', text: 'Full “buds”, é.' }));
  expect((await ask(other.address, 'POST', paths.importTree(gone), LARCH)).status).toBe(410);
});

/** Every value of a document changed to what it should not be, one at a time. */
function* variants(value: unknown, path: (string | number)[] = []): Generator<[path: string, changed: (root: any) => void]> {
  const set = (to: unknown) => (root: any) => {
    const parent = path.slice(0, -1).reduce((at, key) => at[key], root);
    parent[path[path.length - 1]!] = to;
  };
  if (path.length)
    for (const to of [null, {}, [{}], -1.5, 'x'.repeat(70), '__proto__', 1e300]) yield [`${path.join('/')} = ${JSON.stringify(to).slice(0, 12)}`, set(to)];
  if (typeof value === 'object' && value !== null)
    for (const [key, inner] of Object.entries(value)) yield* variants(inner, [...path, Array.isArray(value) ? Number(key) : key]);
}

test('whatever is wrong in the file of a studio, it is refused in words or taken in sound; the server goes on', async () => {
  const t = { ...LARCH, record: [{ id: 'n1', on: TODAY, kind: 'note', text: 'x' }] };
  const studio = {
    ...STUDIO,
    trees: [{ id: 't1', revision: 3, asideOn: TODAY, bench: 'b1' }],
    benches: [{ id: 'b1', name: 'Slip' }],
    settings: { people: ['Ash'], weather: true, station: 'south' },
    rack: [
      {
        line: { id: 'in1', on: TODAY, kind: 'in', roll: 'r1', form: 'roll', origin: 'bought', metal: 'copper', size: 2, length: 5000, soft: true },
        recorded: { t1: 1 },
      },
    ],
    mail: [{ id: 'm1', on: TODAY, subject: 'S', text: 'T' }],
    forgotten: ['gone'],
  };
  const acts = [
    {
      id: 'n1',
      kind: 'note',
      document: { id: 'n1', on: TODAY, kind: 'note', text: 'x' },
      lines: ['n1'],
      of: null,
      before: { own: {}, plan: { decisions: { was: [] } } },
    },
    { id: 'u1', kind: 'undo', document: { id: 'u1', on: TODAY, kind: 'undo' }, lines: [], of: 'n1', before: null },
    { id: 'r1', kind: 'redo', document: { id: 'r1', on: TODAY, kind: 'redo' }, lines: [], of: 'n1', before: { own: {}, plan: {} } },
  ];
  const zip = (s: unknown, a: unknown) =>
    zipOf([
      ['studio.json', JSON.stringify(s)],
      ['trees/t1.ustle.json', JSON.stringify(t)],
      ['trees/t1.acts.json', JSON.stringify(a)],
    ]);
  const files: [string, Buffer][] = [];
  // All that are refused by their description, and of those that are sound some.
  let nth = 0;
  for (const [name, change] of variants({ studio, acts })) {
    const changed = structuredClone({ studio, acts });
    change(changed);
    const read = actsFrom(changed.acts, new Set(['n1']));
    if (studioFaults(changed.studio).length || 'fault' in read || nth++ % 30 === 0) files.push([name, await zip(changed.studio, changed.acts)]);
  }
  // Histories that go round.
  for (const again of ['r1', 'u9', 'nobody']) files.push([`redo of ${again}`, await zip(studio, [acts[0], acts[1], { ...acts[2], of: again }])]);
  const data = mkdtempSync(join(tmpdir(), 'ustle-variants-'));
  let to = await start(data, PORT + 21);
  let sound = 0;
  for (const [name, file] of files) {
    const { status, body } = await restore(to, file);
    expect([name, status === 200 || (status === 400 && /Nothing was changed\.$/.test(body.message))]).toEqual([name, true]);
    if (status !== 200) continue;
    // What was taken in can be looked at, taken back, made again, and taken out again.
    const { revision } = (await ask(to.address, 'GET', paths.tree('t1'))).body;
    const step = (kind: string) => ask(to.address, 'POST', paths.steps('t1'), { id: `${kind}-${sound}`, kind, revision });
    const answers = [];
    for (const path of [paths.rack, paths.season, paths.mail, paths.walk]) answers.push(await ask(to.address, 'GET', path));
    answers.push(await step('undo'), await step('redo'));
    expect([name, answers.filter((a) => a.status >= 500).map((a) => a.status)]).toEqual([name, []]);
    if (++sound % 2 === 0) await bytes(to, paths.studio);
    await to.kill();
    ['ustle.sqlite', 'ustle.sqlite-wal', 'ustle.sqlite-shm'].forEach((f) => rmSync(join(data, f), { force: true }));
    to = await start(data, PORT + 21);
  }
  expect(files.length).toBeGreaterThan(250);
  expect(sound).toBeLessThan(20);
  await to.kill();
});

test('a photo that vanishes while the studio is packed breaks that file off, and no more; an import that was killed halfway leaves nothing in the way', async () => {
  const [photo] = (await recordOf()).flatMap((l) => (l.photo ? [String(l.photo)] : []));
  const file = join(folder, 'photos', `${photo}.full.jpg`);
  renameSync(file, `${file}.hidden`);
  mkdirSync(file);
  await expect(bytes(server, paths.studio)).rejects.toThrow();
  expect((await ask(server.address, 'GET', paths.trees)).status).toBe(200);
  rmSync(file, { recursive: true });
  renameSync(`${file}.hidden`, file);

  const zip = await bytes(server, paths.studio);
  const fresh = mkdtempSync(join(tmpdir(), 'ustle-halfway-'));
  let to = await start(fresh, PORT + 22);
  // Killed as its photos are read: nothing was stored.
  const going = restore(to, zip).catch(() => null);
  while (!existsSync(join(fresh, 'incoming'))) await new Promise((done) => setTimeout(done, 2));
  await to.kill();
  await going;
  // Photos of nobody lie about, as an earlier version left them.
  mkdirSync(join(fresh, 'photos'), { recursive: true });
  writeFileSync(join(fresh, 'photos', 'old.full.jpg'), 'x');
  to = await start(fresh, PORT + 22);
  expect(existsSync(join(fresh, 'incoming'))).toBe(false);
  const trees = (await ask(to.address, 'GET', paths.trees)).body.length;
  if (!trees) expect((await restore(to, zip)).status).toBe(200);
  expect(await bytes(to, paths.studio)).toEqual(zip);
  // Stored, and killed before its photos were taken over: the next start does it.
  await to.kill();
  mkdirSync(join(fresh, 'incoming', 'half'), { recursive: true });
  renameSync(join(fresh, 'photos'), join(fresh, 'incoming', 'half', 'photos'));
  const db = new Database(join(fresh, 'ustle.sqlite'));
  db.exec(`INSERT INTO setting (name, document) VALUES ('incoming', '"half"')`);
  db.close();
  to = await start(fresh, PORT + 22);
  expect(await bytes(to, paths.studio)).toEqual(zip);
  expect(existsSync(join(fresh, 'incoming'))).toBe(false);
  await to.kill();
});

test('the record as a table tells every line, also what was taken back; a deleted tree takes its photos along', async () => {
  const csv = (await ask(server.address, 'GET', paths.recordCsv(tree))).body as string;
  expect(csv.split('\n')[0]).toBe('tree,on,kind,branch,place,said,stands,by,minutes,text,id,corrects');
  expect(csv).toMatch(/,note,.*,no,/);
  const [photo] = (await recordOf()).flatMap((l) => (l.photo ? [String(l.photo)] : []));
  await ask(server.address, 'DELETE', paths.tree(tree));
  expect((await ask(server.address, 'GET', paths.photo(photo!))).status).toBe(404);
  expect(readdirSync(join(folder, 'photos'))).toEqual([]);
});
