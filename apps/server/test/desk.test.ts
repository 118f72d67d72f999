import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { allSpecies, FAULTS, formOf, FORMS, generateTree, largeTree, type Tree } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, start, type Running } from './server';

const sample = (own: Partial<Tree> = {}): Tree => ({
  ...generateTree({ seed: 9, name: 'Desk', species: 'larch', height: 500, base: 44, primaries: 5, secondaries: 2 }),
  ...own,
});

describe('a tree at the desk', () => {
  let server: Running;
  const call = (method: string, path: string, body?: unknown) => ask(server.address, method, path, body);
  const add = async (tree: unknown = sample()): Promise<string> => (await call('POST', paths.importTree, tree)).body.id;
  const now = async (id: string) => (await call('GET', paths.tree(id))).body;
  const put = async (id: string, path: string, body: object) => call('PUT', path, { revision: (await now(id)).revision, ...body });

  beforeAll(async () => {
    server = await start(mkdtempSync(join(tmpdir(), 'ustle-desk-')), 4680);
  });
  afterAll(() => server.kill());

  test('begins blank, is measured part by part, and a part that is not sound leaves everything as it was', async () => {
    const { body } = await call('POST', paths.trees, { name: 'Plover', species: 'olive' });
    expect(body.tree).toMatchObject({ name: 'Plover', species: 'olive', branches: [], plan: { front: null } });
    const { id } = body;
    const branches = sample().branches.slice(0, 3);
    expect((await put(id, paths.measured(id), { measured: { branches, vigour: 'strong', client: 'The net loft' } })).body).toMatchObject({
      undo: 'measure',
      tree: { vigour: 'strong', client: 'The net loft', branches },
    });
    const before = await now(id);
    const refused: [measured: object, field: string][] = [
      [{ branches: [{ ...branches[0], d: -1 }] }, '/branches/0/d'],
      [{ branches: [{ ...branches[0], parent: 'nobody' }] }, '/branches/0/parent'],
      [{ trunk: [] }, '/trunk'],
      [{ pot: { shape: 'star', width: 300, depth: 200, height: 60 } }, '/pot/shape'],
      [{ site: { hemisphere: 'west' } }, '/site/hemisphere'],
      [{ record: [] }, 'measured.record'],
      [{ plan: {} }, 'measured.plan'],
    ];
    for (const [measured, field] of refused) expect(await put(id, paths.measured(id), { measured })).toMatchObject({ status: 400, body: { field } });
    expect(await now(id)).toEqual(before);
    expect(await call('POST', paths.trees, { name: 'X', species: 'money-tree' })).toMatchObject({
      status: 400,
      body: { field: 'species', code: 'unknown-species' },
    });
  });

  test('tables go in and out: branches for a spreadsheet, cylinders of a scan; faults name their line', async () => {
    const id = await add();
    const text = (await call('GET', paths.branchCsv(id))).body as string;
    const send = async (kind: 'branches' | 'cylinders', body: string) => {
      const response = await fetch(server.address + paths.measuredCsv(id, (await now(id)).revision, kind), {
        method: 'PUT',
        headers: { 'Content-Type': 'text/csv' },
        body,
      });
      return { status: response.status, body: await response.json() };
    };
    const { branches } = (await now(id)).tree as Tree;
    const back = await send('branches', text);
    expect(back.body.tree.branches.map((b: { id: string; d: number; green: number }) => [b.id, b.d, b.green])).toEqual(
      branches.map((b) => [b.id, b.d, b.green]),
    );
    expect(await send('branches', text.replace('elevation', 'slope'))).toMatchObject({ status: 400, body: { field: '/line/1/slope', code: 'unknown-column' } });
    const lines = text.split('\n');
    lines[3] = lines[3]!.replace(/,[^,]*,/, ',nowhere,');
    expect((await send('branches', lines.join('\r\n'))).body.message).toMatch(/nowhere|Line 4/);
    expect(await send('cylinders', 'nothing of the kind')).toMatchObject({ status: 400 });
    expect((await fetch(`${server.address}/api/trees/${id}/measured/leaves?revision=1`, { method: 'PUT', body: '{}' })).status).toBe(404);
    // A stale revision changes nothing.
    const old = await fetch(server.address + paths.measuredCsv(id, 1, 'branches'), { method: 'PUT', headers: { 'Content-Type': 'text/csv' }, body: text });
    expect([old.status, (await old.json()).code]).toEqual([409, 'stale']);
  });

  test('fronts are kept open and let go, the reading is noted; each can be undone in turn', async () => {
    const id = await add();
    const view = { bearing: 120, pitch: 5, roll: -2 };
    await put(id, paths.pinned(id), { view });
    await put(id, paths.pinned(id), { view: { ...view, bearing: 40 } });
    expect((await now(id)).tree.plan.pinned.map((v: { bearing: number }) => v.bearing)).toEqual([40, 120]);
    await put(id, paths.pinned(id), { view });
    await put(id, paths.reading(id), { on: '2026-05-20', signs: ['pest'], season: 'soft' });
    const noted = (await now(id)).tree.plan;
    expect([noted.pinned.length, noted.reading]).toEqual([1, { on: '2026-05-20', signs: ['pest'], season: 'soft' }]);
    expect((await call('GET', paths.plan(id))).body.read).toMatchObject({
      verdict: 'leave',
      because: expect.arrayContaining([expect.stringMatching(/Pests/)]),
    });
    const labels: (string | null)[] = [];
    for (let undo = (await now(id)).undo; undo; undo = (await now(id)).undo) {
      labels.push(undo);
      await call('POST', paths.undo(id), { revision: (await now(id)).revision });
    }
    expect(labels).toEqual(['note the signs', 'keep 120° open', 'keep 40° open', 'keep 120° open']);
    expect((await now(id)).tree).toEqual(sample());
  });

  test('undo of a coil put on takes its line of the record back by a further one; redo says it again', async () => {
    const id = await add();
    const body = { on: '2026-05-01', branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', gap: 0, wrap: 'none' };
    await call('POST', paths.wired(id), { revision: 1, ...body });
    const coils = async (): Promise<number> => (await call('GET', paths.plan(id))).body.wires.length;
    expect(await coils()).toBe(1);
    await call('POST', paths.undo(id), { revision: 2 });
    expect([await coils(), (await now(id)).tree.record.map((e: { kind: string }) => e.kind)]).toEqual([0, ['wired', 'withdrawn']]);
    await call('POST', paths.redo(id), { revision: 3 });
    expect([await coils(), (await now(id)).tree.record.map((e: { kind: string }) => e.kind)]).toEqual([1, ['wired', 'withdrawn', 'wired']]);
    expect(await call('POST', paths.wired(id), { revision: 4, ...body, branch: 'b99' })).toMatchObject({ status: 404, body: { field: 'branch' } });
  });

  test('a day that has not come is refused in every line of the record, with the field, and nothing is changed', async () => {
    const id = await add();
    await put(id, paths.decision(id, 'b2'), { act: 'remove' });
    const before = await now(id);
    const wire = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', gap: 0, wrap: 'none' };
    const lines: [path: string, body: object][] = [
      [paths.record(id), { kind: 'note', text: 'Looked at it.' }],
      [paths.record(id), { kind: 'repotted' }],
      [paths.wired(id), { revision: before.revision, ...wire }],
      [paths.cut(id), { revision: before.revision, branches: ['b2'] }],
    ];
    for (const [path, body] of lines) {
      expect(await call('POST', path, { ...body, on: '2026-05-21' })).toMatchObject({ status: 400, body: { field: 'on', code: 'not-yet' } });
      expect(await now(id)).toEqual(before);
    }
    for (const [path, body] of lines.slice(0, 3)) expect((await call('POST', path, { ...body, on: '2026-05-20' })).status).toBeLessThan(300);
  });

  test('the plan of a large tree is computed beside the server: a decision made meanwhile is stored first', async () => {
    const id = await add(largeTree(600, 3));
    let planned = false;
    const plan = call('GET', paths.plan(id)).then((answer) => {
      planned = true;
      return answer;
    });
    expect((await put(id, paths.decision(id, 'b7'), { act: 'remove' })).body.tree.plan.decisions).toHaveLength(1);
    expect(planned).toBe(false);
    expect((await plan).body).toMatchObject({ format: 'ustle-plan', tree: 'Test 600', green: { removed: 0 } });
  });

  test('trees are made up of any species, age and fault, and stand on the bench with their picture', async () => {
    const kinds = allSpecies().filter((_, i) => i % 9 === 0);
    for (const [i, s] of kinds.entries()) {
      const made = await call('POST', paths.generateTree, {
        name: `Made ${i}`,
        species: s.key,
        seed: i,
        age: 5 + i * 20,
        form: FORMS[i % FORMS.length],
        faults: [FAULTS[i % FAULTS.length]],
      });
      expect(made).toMatchObject({ status: 201, body: { tree: { species: s.key } } });
      expect(formOf((made.body as { tree: Tree }).tree)).toBe(FORMS[i % FORMS.length]);
    }
    const bench = (await call('GET', paths.trees)).body as {
      name: string;
      species: string;
      silhouette: { wood: string; foliage: string; pot: string };
      next: { kind: string };
    }[];
    for (const t of bench.filter((b) => b.name.startsWith('Made'))) {
      expect(t.next).toMatchObject({ kind: 'plan', title: 'choose the front' });
      for (const path of Object.values(t.silhouette)) {
        expect(path).toMatch(/^M/);
        const numbers = path.match(/-?\d+(\.\d+)?/g)!.map(Number);
        expect(Math.min(...numbers)).toBeGreaterThanOrEqual(-0.1);
        expect(Math.max(...numbers)).toBeLessThanOrEqual(100.1);
      }
    }
    expect(await call('POST', paths.generateTree, { name: 'Old', species: 'larch', seed: 1, age: 4000 })).toMatchObject({
      status: 400,
      body: { field: 'age' },
    });
  });

  test('dated work stands before open plans on the bench, the soonest first', async () => {
    const later = await add(sample({ name: 'Later one' }));
    await put(later, paths.decision(later, 'b1'), { act: 'reserve', until: '2026-08-01' });
    const sooner = await add(sample({ name: 'Sooner one' }));
    await put(sooner, paths.decision(sooner, 'b1'), { act: 'reserve', until: '2026-06-01' });
    const names = (await call('GET', paths.trees)).body.map((t: { name: string }) => t.name) as string[];
    expect(names.indexOf('Sooner one')).toBeLessThan(names.indexOf('Later one'));
    expect(names.indexOf('Later one')).toBeLessThan(names.indexOf('Made 0'));
  });

  test('the caliper closes on what lies between its jaws: readings stream in, the last one settled', async () => {
    const response = await fetch(server.address + paths.caliper);
    const reader = response.body!.getReader();
    const decoder = new TextDecoder();
    const readings: { mm: number; settled: boolean }[] = [];
    const stream = (async () => {
      let text = '';
      while (!readings.some((r) => r.settled)) {
        const { value, done } = await reader.read();
        if (done) break;
        text += decoder.decode(value);
        for (const match of text.matchAll(/data: (\{.*\})\n/g)) if (!readings.some((r) => JSON.stringify(r) === match[1])) readings.push(JSON.parse(match[1]!));
      }
      await reader.cancel();
    })();
    await new Promise((done) => setTimeout(done, 200));
    expect((await call('POST', paths.caliperPress, { near: 12 })).status).toBe(201);
    await stream;
    const last = readings[readings.length - 1]!;
    expect([last.settled, Math.abs(last.mm - 12) < 0.3]).toEqual([true, true]);
    expect(readings.slice(0, -1).every((r) => !r.settled && r.mm > last.mm)).toBe(true);
    expect((await call('POST', paths.caliperPress, { near: -3 })).body).toMatchObject({ field: 'near', code: 'range' });
  });

  test('the yard says its day; every species has its figures; what is not there is 404', async () => {
    expect((await call('GET', paths.yard)).body).toMatchObject({ today: '2026-05-20' });
    expect((await call('GET', paths.species)).body).toHaveLength(allSpecies().length);
    for (const path of ['/api/nothing', paths.tree('x'), paths.plan('x'), paths.treeFile('x'), paths.branchCsv('x')])
      expect((await call('GET', path)).status).toBe(404);
    // Any other address is the application itself.
    expect((await call('GET', '/tree/x/front')).body).toContain('<div id="root">');
  });
});
