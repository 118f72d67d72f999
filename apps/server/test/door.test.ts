import { mkdtempSync } from 'node:fs';
import { createServer, request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { paths } from '@ustle/contract';
import { ownAddresses } from '../src/access/listening';
import { start, type Running } from './server';

/** What stands before Ustle on the same machine with a certificate: hands each request on as the README's recipe has it. */
function proxyTo(port: number): Promise<{ port: number; close: () => void }> {
  const proxy = createServer((request, response) => {
    const headers = { ...request.headers, 'x-forwarded-for': String(request.headers['x-test-from'] ?? '192.0.2.9'), 'x-forwarded-proto': 'https' };
    const on = httpRequest({ host: '127.0.0.1', port, method: request.method!, path: request.url!, headers }, (answer) => {
      response.writeHead(answer.statusCode!, answer.headers);
      answer.pipe(response);
    });
    request.pipe(on);
  });
  return new Promise((done) => proxy.listen(0, '127.0.0.1', () => done({ port: (proxy.address() as AddressInfo).port, close: () => proxy.close() })));
}

/** A port that nobody has just now. */
const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });
const portOf = ({ address }: Running): number => Number(new URL(address).port);

/** A request with any host name, on an address. */
const asked = (port: number, method: string, path: string, headers: Record<string, string> = {}, body?: unknown, host = '127.0.0.1') =>
  new Promise<{ status: number; text: string; cookie: string }>((done, fail) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const own = text === undefined ? headers : { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(text)), ...headers };
    const sent = httpRequest({ host, port, method, path, headers: own }, (answer) => {
      let said = '';
      answer
        .on('data', (part) => (said += part))
        .on('end', () => done({ status: answer.statusCode!, text: said, cookie: answer.headers['set-cookie']?.[0] ?? '' }));
    });
    sent.on('error', fail).end(text);
  });

test('who comes through a proxy is somewhere else, by whatever spelling; the passphrase lets in, guessing does not, and a new one shuts out, with the calendar', async () => {
  const data = mkdtempSync(join(tmpdir(), 'ustle-door-'));
  const behind = await freePort();
  const own = await start(data, 4580, { USTLE_PROXY_PORT: String(behind), USTLE_PROXY_NAME: 'yard.example' });
  const port = portOf(own);
  const proxy = await proxyTo(behind);
  const far = (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) =>
    asked(proxy.port, method, path, { host: 'yard.example', ...headers }, body);
  const here = (method: string, path: string, body?: unknown) => asked(port, method, path, { host: `localhost:${port}` }, body);
  const { id } = JSON.parse((await here('POST', paths.generateTree, { name: 'Alder', species: 'larch', seed: 2 })).text);
  const spelt = (path: string): string[] => [
    path,
    path.replace('/api/', '/API/'),
    path.replace('/api/', '/Api/'),
    path.replace('/api/', '//api/'),
    `${path}/`,
    path.replace('/api', '/%61pi'),
  ];
  for (const [method, path, body] of [
    ['GET', paths.trees],
    ['GET', paths.walk],
    ['GET', paths.backup],
    ['GET', paths.calendar],
    ['GET', paths.photo('none')],
    ['POST', paths.generateTree, { name: 'Elm', species: 'elm', seed: 3 }],
    ['PUT', paths.benches, { benches: [] }],
    ['DELETE', paths.tree(id)],
    ['POST', paths.passphrase, { passphrase: 'mine now, all of it' }],
    ['POST', paths.studio, {}],
  ] as [string, string, unknown?][])
    for (const way of spelt(path)) {
      const { status, text } = await far(method, way, body);
      // What is no route of the interface is the application's own page, which holds no data.
      if (status === 200) expect([method, text.slice(0, 15).toLowerCase()]).toEqual(['GET', '<!doctype html>']);
      else expect([401, 404, 415]).toContain(status);
    }
  expect(JSON.parse((await here('GET', paths.trees)).text).map((t: { name: string }) => t.name)).toEqual(['Alder']);
  // A large body of somebody who is not in is not read at all.
  expect((await far('POST', paths.importTree(), { text: 'x'.repeat(9000) })).status).toBe(401);
  // At the wrong door a proxy is not taken for this machine; another name than was said is not answered.
  expect((await asked(port, 'GET', paths.trees, { host: 'localhost', 'x-forwarded-for': '192.0.2.9' })).status).toBe(401);
  expect((await asked(port, 'GET', paths.trees, { host: 'localhost', via: '1.1 box' })).status).toBe(401);
  expect((await far('GET', paths.trees, undefined, { host: 'localhost' })).status).toBe(403);

  expect((await far('POST', paths.enter, { passphrase: 'anything' })).status).toBe(403);
  expect((await here('POST', paths.passphrase, { passphrase: 'short' })).text).toMatch(/"field":"passphrase"/);
  expect((await here('POST', paths.passphrase, { passphrase: 'the tide comes in' })).status).toBe(204);
  const inside = await far('POST', paths.enter, { passphrase: 'the tide comes in' });
  expect([inside.status, inside.cookie]).toEqual([204, expect.stringMatching(/HttpOnly; Secure; SameSite=Strict/)]);
  const cookie = { cookie: inside.cookie.split(';')[0]! };
  expect((await far('GET', paths.trees, undefined, cookie)).status).toBe(200);
  expect(JSON.parse((await far('GET', paths.access, undefined, cookie)).text)).toMatchObject({
    inside: true,
    here: false,
    open: true,
    addresses: ['https://yard.example'],
  });
  expect((await far('POST', paths.passphrase, { passphrase: 'mine now, all of it' }, cookie)).status).toBe(403);
  expect((await far('GET', paths.trees, undefined, { cookie: 'ustle=made-up' })).status).toBe(401);
  // Tries are counted for each that tries, not for the proxy.
  const tries = await Promise.all(
    Array.from({ length: 8 }, () => far('POST', paths.enter, { passphrase: 'the tide goes out' }, { 'x-test-from': '192.0.2.77' })),
  );
  expect(tries.filter((t) => t.status === 429).length).toBeGreaterThanOrEqual(3);
  expect((await far('POST', paths.enter, { passphrase: 'the tide goes out' })).status).toBe(401);

  const feed = async (): Promise<string> => JSON.parse((await here('GET', paths.feed)).text).path;
  const first = await feed();
  const reads = async (path: string): Promise<number> => (await far('GET', path)).status;
  expect([await reads(first), await reads(`${paths.calendar}?key=guessed`)]).toEqual([200, 401]);
  const renewed = JSON.parse((await here('POST', paths.feed, {})).text).path;
  expect([await reads(first), await reads(renewed), await feed()]).toEqual([401, 200, renewed]);
  expect((await here('POST', paths.passphrase, { passphrase: 'the wind has turned' })).status).toBe(204);
  expect([await reads(renewed), (await far('GET', paths.trees, undefined, cookie)).status]).toEqual([401, 401]);
  proxy.close();
  await own.kill();
});

test.each(['0.0.0.0', '::', ...ownAddresses({ port: 1, host: '0.0.0.0', proxy: null }).slice(0, 1)])(
  'listening on %s, the machine itself is here and its other addresses are not',
  async (host) => {
    const own = await start(mkdtempSync(join(tmpdir(), 'ustle-host-')), 4584, { USTLE_HOST: host });
    const port = portOf(own);
    const access = async (address: string) => JSON.parse((await asked(port, 'GET', paths.access, { host: `${address}:${port}` }, undefined, address)).text);
    expect(await access('127.0.0.1')).toMatchObject({ open: true, here: true, inside: true });
    for (const address of ownAddresses({ port, host, proxy: null }).filter((a) => !a.includes(':'))) {
      expect(await access(address)).toMatchObject({ here: false, inside: false });
      expect((await asked(port, 'GET', paths.trees, { host: `${address}:${port}` }, undefined, address)).status).toBe(401);
    }
    await own.kill();
  },
);

test.each([
  [{ USTLE_PORT: 'soup' }, 'USTLE_PORT must be a whole number from 1 to 65535; it is "soup".'],
  [{ USTLE_PORT: '70000' }, 'USTLE_PORT must be a whole number from 1 to 65535; it is "70000".'],
  [{ USTLE_HOST: 'a b' }, 'USTLE_HOST must be an address of this machine, such as 0.0.0.0; it is "a b".'],
  [{ USTLE_HOST: '192.0.2.1' }, 'USTLE_HOST: "192.0.2.1" is no address of this machine.'],
  [{ USTLE_PROXY_PORT: '4699' }, 'A proxy needs both: USTLE_PROXY_PORT, where it hands requests on, and USTLE_PROXY_NAME.'],
  [
    { USTLE_PROXY_PORT: '4699', USTLE_PROXY_NAME: 'http://x/' },
    'USTLE_PROXY_NAME must be the name that people reach the proxy by, such as ustle.example.org; it is "http://x/".',
  ],
])('a wrong setting %j is said, by its name', async (env, said) => {
  await expect(start(mkdtempSync(join(tmpdir(), 'ustle-env-')), 4588, env)).rejects.toThrow(said);
});
