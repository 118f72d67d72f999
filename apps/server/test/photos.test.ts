import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { paths } from '@ustle/contract';
import { generateTree } from '@ustle/core';
import { isPlainJpeg } from '../src/photos/plain-jpeg.js';
import { ask, start, TODAY, type Answer, type Running } from './server.js';

const PORT = 4720;
const folder = mkdtempSync(join(tmpdir(), 'ustle-photos-'));
let server: Running;
let tree: string;

const LARCH = { ...generateTree({ seed: 5, name: 'Larch', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 2, faults: [] }), record: [] };

beforeAll(async () => {
  server = await start(folder, PORT);
  tree = (await ask(server.address, 'POST', paths.importTree(), LARCH)).body.id;
});
afterAll(async () => {
  await server.kill();
  rmSync(folder, { recursive: true, force: true });
});

async function send(to: Running, path: string, body: Buffer, type: string): Promise<Answer> {
  const response = await fetch(to.address + path, { method: 'POST', headers: { 'Content-Type': type }, body: new Uint8Array(body) });
  return { status: response.status, body: await response.json() };
}
const addPhoto = (file: Buffer, name: string, own: Record<string, unknown> = {}, id: string = randomUUID()): Promise<Answer> =>
  send(server, paths.photos(tree, { id, on: TODAY, kind: 'photo', photo: id, when: 'before', ...own }, name), file, 'image/jpeg');
const bytes = async (of: Running, path: string): Promise<Buffer> => Buffer.from(await (await fetch(of.address + path)).arrayBuffer());
const recordOf = async (): Promise<Record<string, unknown>[]> => (await ask(server.address, 'GET', paths.tree(tree))).body.tree.record;

/** A picture 60 wide and 40 high, red on its left half, as a camera held upright would write it: to be turned by a quarter, with the place it was taken at. */
const taken = async (): Promise<Buffer> => {
  const red = await sharp({ create: { width: 30, height: 40, channels: 3, background: '#d01010' } })
    .png()
    .toBuffer();
  return sharp({ create: { width: 60, height: 40, channels: 3, background: '#1010d0' } })
    .composite([{ input: red, left: 0, top: 0 }])
    .withExif({ IFD0: { Make: 'Somebody' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '57/1 12/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 95 })
    .toBuffer();
};

test('a photo is turned upright, told in the record once, and keeps nothing of where it was taken', async () => {
  const id = randomUUID();
  const first = await addPhoto(await taken(), 'IMG_0001.JPG', { bearing: 20, by: 'Robin' }, id);
  const again = await addPhoto(await taken(), 'IMG_0001.JPG', { bearing: 20, by: 'Robin' }, id);
  expect([first.status, again.status]).toEqual([200, 200]);
  expect(again.body).toEqual(first.body);
  expect((await recordOf()).filter((l) => l.photo === id)).toEqual([
    expect.objectContaining({ kind: 'photo', width: 40, height: 60, bearing: 20, by: 'Robin' }),
  ]);
  const kept = await bytes(server, paths.photo(id));
  const { width, height, exif, orientation } = await sharp(kept).metadata();
  expect({ width, height, exif, orientation }).toEqual({ width: 40, height: 60, exif: undefined, orientation: undefined });
  // What was on its left is above now.
  const { data } = await sharp(kept).extract({ left: 20, top: 8, width: 1, height: 1 }).raw().toBuffer({ resolveWithObject: true });
  expect(data[0]!).toBeGreaterThan(150);
  expect((await sharp(await bytes(server, paths.photo(id, 'small'))).metadata()).format).toBe('jpeg');
});

test('what is no photo, or too large, is refused with a sentence, and nothing is stored', async () => {
  const before = [(await recordOf()).length, readdirSync(join(folder, 'photos')).length];
  const plain = await sharp({ create: { width: 40, height: 40, channels: 3, background: '#888' } })
    .jpeg()
    .toBuffer();
  const huge = await sharp({ create: { width: 10_000, height: 10_000, channels: 3, background: '#fff' }, limitInputPixels: false })
    .png({ compressionLevel: 9 })
    .toBuffer();
  const long = await sharp({ create: { width: 40_000, height: 2, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  const cases: [string, Buffer, string][] = [
    ['not-a-photo', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'), 'tree.svg'],
    ['not-a-photo', Buffer.from('GIF89a only'), 'tree.gif'],
    ['not-a-photo', Buffer.from('a text'), 'tree.jpg'],
    ['wrong-ending', plain, 'tree.exe'],
    ['wrong-ending', plain, 'tree.png'],
    ['too-many-pixels', huge, 'tree.png'],
    ['too-many-pixels', long, 'tree.png'],
    ['damaged', plain.subarray(0, 200), 'tree.jpg'],
    ['empty', Buffer.alloc(0), 'tree.jpg'],
  ];
  for (const [code, file, name] of cases) {
    const { status, body } = await addPhoto(file, name);
    expect([name, status, body.code]).toEqual([name, 400, code]);
    expect(body.message).toMatch(/Nothing was stored\.$/);
  }
  expect((await addPhoto(plain, 'a.jpg', { photo: '../../out' })).body).toMatchObject({ code: expect.any(String), field: expect.stringContaining('photo') });
  expect((await addPhoto(Buffer.alloc(26 * 1024 * 1024, 0xff), 'a.jpg')).status).toBe(413);
  expect((await addPhoto(plain, 'a.jpg', { on: '2999-01-01' })).status).toBe(400);
  expect((await ask(server.address, 'GET', '/api/photos/..%2Fustle.sqlite')).status).toBe(404);
  expect([(await recordOf()).length, readdirSync(join(folder, 'photos')).length]).toEqual(before);
});

/** A picture whose coded bytes look like anything: noise. */
const noise = async (seed: number): Promise<Buffer> => {
  const raw = Buffer.from(
    Array.from(
      { length: 3 * 120 * 90 },
      (_, i) =>
        createHash('sha1')
          .update(`${seed}/${i >> 5}`)
          .digest()[i % 20]!,
    ),
  );
  return sharp(raw, { raw: { width: 120, height: 90, channels: 3 } })
    .jpeg({ quality: 95 })
    .toBuffer();
};
/** A picture with marks of other files in its own coded part: each is a good photo. */
const marked = async (mark: string): Promise<Buffer> => {
  const picture = await noise(1);
  const at = picture.indexOf(Buffer.from([0xff, 0xda])) + 40;
  return Buffer.concat([picture.subarray(0, at), Buffer.from(mark, 'latin1'), picture.subarray(at + mark.length)]);
};

test('a photo is taken for what it shows, whatever its bytes look like; what stands behind its end or beside the picture is gone', async () => {
  const photos = [
    await marked('#!/'),
    await marked('MZ\x90\x00'),
    await marked('PK\x03\x04'),
    Buffer.concat([await noise(2), Buffer.from('<script>alert(1)</script>')]),
  ];
  for (const photo of photos) {
    const id = randomUUID();
    expect((await addPhoto(photo, 'a.jpg', {}, id)).status).toBe(200);
    for (const size of ['full', 'small'] as const) {
      const kept = await bytes(server, paths.photo(id, size));
      expect([isPlainJpeg(kept), kept.includes('<script>')]).toEqual([true, false]);
    }
  }
  const plain = await sharp(await noise(3))
    .jpeg({ quality: 86 })
    .toBuffer();
  expect(isPlainJpeg(plain)).toBe(true);
  for (const [name, other] of [
    ['its exif', await taken()],
    ['a tail', Buffer.concat([plain, Buffer.from('x')])],
    ['a comment', Buffer.concat([plain.subarray(0, 2), Buffer.from([0xff, 0xfe, 0, 5, 65, 66, 67]), plain.subarray(2)])],
    ['half', plain.subarray(0, plain.length / 2)],
    ['nothing', Buffer.alloc(0)],
  ] as const)
    expect([name, isPlainJpeg(other)]).toEqual([name, false]);
});
