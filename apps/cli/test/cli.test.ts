import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import Database from 'libsql';

const bin = resolve(__dirname, '../bin/ustle.mjs');
const larch = resolve(__dirname, '../../../demo/trees/lantern.ustle.json');
const folder = mkdtempSync(join(tmpdir(), 'ustle-cli-'));
const ustle = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8', maxBuffer: 1 << 26 });
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

test('backup and restore: a copy of all data and back, or why not', () => {
  const data = join(folder, 'data');
  const withData = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8', env: { ...process.env, USTLE_DATA: data } });
  const copy = join(folder, 'copy.sqlite');
  expect(withData('backup', copy)).toMatchObject({ status: 2, stderr: expect.stringMatching(/There is no data in/) });
  mkdirSync(data);
  const db = new Database(join(data, 'ustle.sqlite'));
  db.exec(`CREATE TABLE migrations (name text); CREATE TABLE tree (name text); INSERT INTO tree VALUES ('Squall')`);
  expect(withData('backup', copy)).toMatchObject({ status: 0, stdout: expect.stringContaining(copy) });
  db.exec('DELETE FROM tree');
  db.close();
  expect(withData('restore', copy)).toMatchObject({ status: 0, stdout: expect.stringMatching(/kept in ".*before-1"/) });
  const back = new Database(join(data, 'ustle.sqlite'), { readonly: true });
  expect(back.prepare('SELECT name FROM tree').all()).toEqual([{ name: 'Squall' }]);
  back.close();
  expect(withData('restore', larch)).toMatchObject({ status: 2, stderr: expect.stringMatching(/not a sound copy/) });
});

test('do changes a file as the pages would, or names what is refused and leaves it as it was', () => {
  const act = (i: number, own: object) => ({ id: `5b1c0a4e-0000-4000-8000-00000000000${i}`, on: '2026-03-01', ...own });
  const tree = file('do.ustle.json', readFileSync(larch, 'utf8'));
  const good = file('good.json', JSON.stringify([act(1, { kind: 'decide', branch: 'b5', act: 'remove' }), act(2, { kind: 'manner', firmness: 'firm' })]));
  expect(ustle('do', tree, good)).toMatchObject({ status: 0, stderr: '' });
  const after = readFileSync(tree, 'utf8');
  expect(JSON.parse(after).plan).toMatchObject({
    firmness: 'firm',
    decisions: expect.arrayContaining([expect.objectContaining({ branch: 'b5', act: 'remove' })]),
  });
  const bad = file('bad.json', JSON.stringify([act(3, { kind: 'manner', firmness: 'light' }), act(4, { kind: 'decide', branch: 'b999', act: 'remove' })]));
  const refused = ustle('do', tree, bad);
  expect(refused.status).toBe(1);
  expect(refused.stderr).toMatch(/\/1\/branch/);
  expect(readFileSync(tree, 'utf8')).toBe(after);
});

test('check, plan and convert a sound file; the plan is the same byte for byte', () => {
  expect(ustle('check', larch)).toMatchObject({ status: 0, stderr: '' });
  const first = ustle('plan', larch, '--on', '2026-03-01', '--json');
  expect(first).toMatchObject({ status: 0, stderr: '', stdout: ustle('plan', larch, '--on', '2026-03-01', '--json').stdout });
  const plan = JSON.parse(first.stdout);
  expect(Object.keys(plan)).toEqual([
    'format',
    'version',
    'tree',
    'on',
    'read',
    'fronts',
    'findings',
    'green',
    'poses',
    'trunk',
    'asGrown',
    'runs',
    'unwired',
    'order',
    'cutList',
    'coverage',
    'guys',
    'devices',
    'lostTies',
    'wires',
    'notes',
  ]);
  expect(plan).toMatchObject({ format: 'ustle-plan', version: 1, on: '2026-03-01', guys: [], wires: [] });
  const cut: string[] = plan.cutList.flatMap((c: { pieces: { run: string }[] }) => c.pieces.map((p) => p.run));
  expect([...new Set(cut)].sort()).toEqual(plan.order.toSorted());
  const [run] = JSON.parse(ustle('plan', larch, '--on', '2026-03-01', '--json', '--paths').stdout).runs;
  expect(run.path.length).toBeGreaterThan(run.length / 5);
  expect(plan.runs.length).toBeGreaterThan(5);
  const copy = join(folder, 'copy.json');
  expect(ustle('convert', larch, copy).status).toBe(0);
  expect(JSON.parse(readFileSync(copy, 'utf8'))).toEqual(JSON.parse(readFileSync(larch, 'utf8')));
});

test('a refused file: exit 1, the errors as JSON on one side and as lines on the other, no stack', () => {
  const tree = JSON.parse(readFileSync(larch, 'utf8'));
  tree.branches[3].d = -2;
  for (const [path, text] of [
    ['/branches/3/d', JSON.stringify(tree)],
    ['/', '{"a": NaN}'],
    ['/', 'x'.repeat(50 << 20)],
  ]) {
    const done = ustle('plan', file('bad.json', text!), '--json');
    expect(done.status).toBe(1);
    expect(JSON.parse(done.stdout).errors[0]).toMatchObject({ path, code: expect.any(String), message: expect.stringMatching(/\.$/) });
    expect(done.stderr).toMatch(new RegExp(`^${path}: `));
    expect(done.stderr).not.toMatch(/at .*\.js/);
  }
  expect(ustle('check', join(folder, 'none.json'))).toMatchObject({ status: 1, stderr: expect.stringContaining('cannot be read') });
  expect(ustle('plan', larch, '--on', 'tomorrow')).toMatchObject({ status: 1, stderr: expect.stringContaining('not a date') });
});

test('species lists keys, and plain Node reads the core from the root', () => {
  expect(ustle('species').stdout).toMatch(/^maple-trident +Trident maple/m);
  const root = resolve(__dirname, '../../..');
  const said = execFileSync(process.execPath, ['--input-type=module', '-e', "import { awgToMm } from '@ustle/core'; console.log(awgToMm(10).toFixed(4))"], {
    cwd: root,
    encoding: 'utf8',
  });
  expect(said.trim()).toBe('2.5882');
});

test('sight reads photos as numbers and prints cameras and lines, or names what is wrong with them', () => {
  const [{ truth: _truth, ...set }] = JSON.parse(readFileSync(resolve(__dirname, '../../../packages/core/test/reference-sight.json'), 'utf8')).sets;
  const found = ustle('sight', file('sight.json', JSON.stringify(set)), '--json');
  expect(found).toMatchObject({ status: 0, stderr: '' });
  expect(JSON.parse(found.stdout)).toMatchObject({ cameras: { length: 14 }, lines: { length: 13 }, notes: [] });
  const said = ustle('sight', file('bare.json', JSON.stringify({ ...set, photos: set.photos.map((p: object) => ({ ...p, cards: [] })) })));
  expect(said).toMatchObject({ status: 1, stderr: expect.stringMatching(/Two photos or more.*\n\/photos\/p1: No card was found/) });
  const faulty = ustle('sight', file('faulty.json', JSON.stringify({ ...set, photos: [{ ...set.photos[0], width: -4 }] })));
  expect(faulty).toMatchObject({ status: 1, stderr: expect.stringContaining('/photos/0/width') });
});
