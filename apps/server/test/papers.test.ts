import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import exifr from 'exifr';
import sharp from 'sharp';
import { paths } from '@ustle/contract';
import { generateTree, PAPERS } from '@ustle/core';
import { formatOf } from '../src/photos/format';
import { entryOf } from '../src/studio/studio-file';
import { ask, doAct, doStep, start, TODAY, type Running } from './server.js';

const folder = mkdtempSync(join(tmpdir(), 'ustle-papers-'));
let server: Running;
let tree: string;
beforeAll(async () => {
  server = await start(folder, 4676);
  const made = {
    ...generateTree({ seed: 5, name: 'Sea Holly', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 1, faults: [] }),
    record: [],
  };
  tree = (await ask(server.address, 'POST', paths.importTree(), made)).body.id;
});
afterAll(async () => {
  await server.kill();
  rmSync(folder, { recursive: true, force: true });
});

test('every paper is a PDF with the tree’s name, photos of the record in the report; there are no others', async () => {
  const picture = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#664' } })
    .jpeg()
    .toBuffer();
  const get = async (kind: string): Promise<{ status: number; name: string; body: Buffer }> => {
    const response = await fetch(server.address + paths.paper(tree, kind));
    return { status: response.status, name: response.headers.get('content-disposition') ?? '', body: Buffer.from(await response.arrayBuffer()) };
  };
  for (const kind of PAPERS) {
    const { status, name, body } = await get(kind);
    expect([status, name]).toEqual([200, `inline; filename="sea-holly-${kind}.pdf"`]);
    expect(body.subarray(0, 5).toString()).toBe('%PDF-');
    expect(body.subarray(-6).toString()).toContain('%%EOF');
  }
  await doAct(server.address, tree, { kind: 'session', session: 's1', done: 'begun' });
  const bare = (await get('report')).body.length;
  const act = { id: 'p1', on: TODAY, kind: 'photo', photo: 'p1' };
  await fetch(server.address + paths.photos(tree, act, 'a.jpg'), { method: 'POST', headers: { 'Content-Type': 'image/jpeg' }, body: new Uint8Array(picture) });
  expect((await get('report')).body.includes('/Subtype /Image')).toBe(true);
  expect((await get('report')).body.length).toBeGreaterThan(bare);
  expect((await get('invoice')).status).toBe(404);
  expect((await fetch(server.address + paths.paper('nobody', 'report'))).status).toBe(404);
});

test('what several trees cut from the rack is one PDF; no tree, too many or one that is not here are refused', async () => {
  const get = (query: string) => fetch(`${server.address}/api/rack/cuts.pdf${query}`);
  const cuts = await get(`?trees=${tree}`);
  expect([cuts.status, cuts.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  expect((await get('')).status).toBe(400);
  expect(await (await get(`?trees=${Array(21).fill(tree).join(',')}`)).json()).toMatchObject({ field: 'trees', message: expect.stringMatching(/one to 20/) });
  expect((await get('?trees=nobody')).status).toBe(404);
});

test('the cards to print are a paper of two pages, every card on it at its size', async () => {
  const answer = await fetch(`${server.address}/api/papers/cards.pdf`);
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  const pdf = Buffer.from(await answer.arrayBuffer()).toString('latin1');
  expect(pdf.match(/\/Type \/Page\b/g)).toHaveLength(2);
});

test('the camera beside the turning table takes the tree from the bearing that is asked: a picture each, the same from the same', async () => {
  const take = async (bearing: unknown) => fetch(`${server.address}/api/devices/camera/${tree}?bearing=${bearing}`);
  const picture = async (bearing: number): Promise<Buffer> => Buffer.from(await (await take(bearing)).arrayBuffer());
  const front = await picture(0);
  expect(formatOf(front)).toBe('jpeg');
  expect(await sharp(front).metadata()).toMatchObject({ width: 1000, height: 750 });
  expect(front.equals(await picture(0))).toBe(true);
  expect(front.equals(await picture(90))).toBe(false);
  for (const wrong of ['', 'north', 360, -1, '0&down=71', '0&down=steep']) expect((await take(wrong)).status).toBe(400);
  // With cards about it, from above; its lens is told as a phone tells it.
  const round = Buffer.from(await (await take('0&down=40&cards=1')).arrayBuffer());
  expect(round.equals(front)).toBe(false);
  expect(await exifr.parse(round, ['FocalLengthIn35mmFormat'])).toEqual({ FocalLengthIn35mmFormat: 26 });
  // What it takes goes the way of every photo, with its bearing.
  const act = { id: 'turned', on: TODAY, kind: 'photo', photo: 'turned', bearing: 90 };
  const init = { method: 'POST', headers: { 'Content-Type': 'image/jpeg' }, body: new Uint8Array(await picture(90)) };
  expect((await fetch(server.address + paths.photos(tree, act, 'at 90°'), init)).status).toBe(200);
  expect((await ask(server.address, 'GET', paths.tree(tree))).body.tree.record.at(-1)).toMatchObject({ kind: 'photo', photo: 'turned', bearing: 90 });
});

test('the pace of the yard comes from timed steps of all trees; what was taken back, left out or left lying does not count', async () => {
  const worked = (step: string, own: object) =>
    doAct(server.address, tree, { kind: 'worked', session: 's1', step, answer: 'done', reckoned: 10, minutes: 20, did: [], ...own } as never);
  await worked('wire:a', {});
  await worked('wire:b', { answer: 'skipped' });
  await worked('wire:c', { minutes: 300 });
  expect((await ask(server.address, 'GET', paths.pace)).body).toEqual({ wire: { cases: 1, reckoned: 10, took: 20 } });
  await worked('place:a', {});
  await doStep(server.address, tree, 'undo');
  expect((await ask(server.address, 'GET', paths.pace)).body).toEqual({ wire: { cases: 1, reckoned: 10, took: 20 } });
});

test('names of people are kept once each; what is no name is refused', async () => {
  const put = (people: unknown) => ask(server.address, 'PUT', paths.people, { people });
  expect((await put(['Ash', ' Ash ', '', 'Robin'])).body).toEqual(['Ash', 'Robin']);
  expect((await ask(server.address, 'GET', paths.people)).body).toEqual(['Ash', 'Robin']);
  expect((await put(['x'.repeat(81)])).status).toBe(400);
  expect((await put('Ash')).status).toBe(400);
  expect((await ask(server.address, 'GET', paths.people)).body).toEqual(['Ash', 'Robin']);
});

test('no name leads out of a studio’s file, and no bytes but a picture’s own are taken for one', async () => {
  const part = fc.constantFrom('..', '.', '', 'trees', 'photos', 'a', 'a.ustle.json', 'a.full.jpg', '..\\a.full.jpg', 'a/../b.full.jpg', 'studio.json', 'C:');
  fc.assert(
    fc.property(fc.array(part, { minLength: 1, maxLength: 5 }), (parts) => {
      const name = parts.join('/');
      const entry = entryOf(name);
      if (entry === null) return;
      expect(name).toMatch(/^(studio\.json|trees\/[A-Za-z0-9._-]+\.(ustle|acts)\.json|photos\/[A-Za-z0-9_-]+\.(full|small)\.jpg)$/);
      expect(name.split('/')).not.toContain('..');
    }),
    { numRuns: 2000 },
  );
  expect(entryOf('photos/../x.full.jpg')).toBeNull();
  expect(entryOf('photos/p-1.small.jpg')).toEqual({ kind: 'photo', id: 'p-1', size: 'small' });
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 40 }), (bytes) => {
      const [a, b, c] = bytes;
      if (formatOf(Buffer.from(bytes)) === 'jpeg') expect([a, b, c]).toEqual([0xff, 0xd8, 0xff]);
    }),
  );
  for (const format of ['jpeg', 'png', 'webp'] as const) {
    const picture = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#456' } })
      .toFormat(format)
      .toBuffer();
    expect(formatOf(picture)).toBe(format);
    expect(formatOf(picture.subarray(1))).toBeNull();
  }
});
