import { createServer, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import { isIP, type Socket } from 'node:net';
import { networkInterfaces } from 'node:os';

/** Where Ustle listens, as the environment says. */
export interface Listening {
  /** The first port that is tried; the next free one is taken. */
  port: number;
  host: string;
  /** Where a proxy on this machine hands requests on, and the names that it answers to; null where there is none. */
  proxy: { port: number; names: string[] } | null;
}

const LOOPBACK_HOST = '127.0.0.1';
const ANY = new Set(['0.0.0.0', '::']);
const TRIES = 20;
const NAME = /^[a-z0-9]([a-z0-9.-]{0,251}[a-z0-9])?$/i;

export const isLoopback = (address: string | undefined): boolean => /^(localhost|127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/i.test(address ?? '');

function portIn(name: string, text: string): number {
  const port = /^\d{1,5}$/.test(text) ? Number(text) : 0;
  if (port < 1 || port > 65535) throw new Error(`${name} must be a whole number from 1 to 65535; it is "${text}".`);
  return port;
}

/** Reads and checks the settings; what is wrong is said with its name. */
export function listeningFrom(env: NodeJS.ProcessEnv): Listening {
  const port = portIn('USTLE_PORT', env.USTLE_PORT ?? '4517');
  const host = (env.USTLE_HOST ?? LOOPBACK_HOST).trim().replace(/^\[(.*)\]$/, '$1');
  if (!isIP(host) && !NAME.test(host)) throw new Error(`USTLE_HOST must be an address of this machine, such as 0.0.0.0; it is "${host}".`);
  const names = (env.USTLE_PROXY_NAME ?? '').split(',').flatMap((n) => n.trim().toLowerCase() || []);
  const wrong = names.find((n) => !NAME.test(n));
  if (wrong) throw new Error(`USTLE_PROXY_NAME must be the name that people reach the proxy by, such as ustle.example.org; it is "${wrong}".`);
  if (!env.USTLE_PROXY_PORT && !names.length) return { port, host, proxy: null };
  if (!env.USTLE_PROXY_PORT || !names.length) throw new Error('A proxy needs both: USTLE_PROXY_PORT, where it hands requests on, and USTLE_PROXY_NAME.');
  return { port, host, proxy: { port: portIn('USTLE_PROXY_PORT', env.USTLE_PROXY_PORT), names } };
}

/** This machine's own addresses in its network; IPv6 ones only where it listens on them. */
export const ownAddresses = ({ host }: Listening): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter((a) => !a.internal && (ANY.has(host) ? a.family === 'IPv4' || (host === '::' && !a.scopeid) : a.address === host))
    .map((a) => a.address);

/** An address as it stands in a link. */
export const inLink = (address: string): string => (isIP(address) === 6 ? `[${address}]` : address);

/** Connections that a proxy made: whoever is behind it is somewhere else. */
const handedOn = new WeakSet<Socket>();
export const isHandedOn = ({ socket }: Pick<IncomingMessage, 'socket'>): boolean => handedOn.has(socket);

/** What only a proxy writes. Where a proxy speaks at the wrong door, nobody is taken to be on this machine for it. */
const WRITTEN_BY_PROXIES = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip', 'via'];

/** Whether a request was made on this machine itself: over its loopback, not handed on by a proxy. */
export const isHere = ({ socket, headers }: Pick<IncomingMessage, 'socket' | 'headers'>): boolean =>
  !handedOn.has(socket) && isLoopback(socket.localAddress) && isLoopback(socket.remoteAddress) && !WRITTEN_BY_PROXIES.some((name) => name in headers);

/** Whom tries are counted for: the address that a request comes from, as the proxy tells it where there is one. */
export function comesFrom(request: Pick<IncomingMessage, 'socket' | 'headers'>): string {
  const told = isHandedOn(request)
    ? String(request.headers['x-forwarded-for'] ?? '')
        .split(',')
        .pop()!
        .trim()
    : '';
  return told || (request.socket.remoteAddress ?? '');
}

/** Only this machine's own names, and those that were chosen, are answered: another name that leads here is somebody else's page. */
export function answersTo(listening: Listening, request: Pick<IncomingMessage, 'socket' | 'headers'>): boolean {
  const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
  if (isHandedOn(request)) return listening.proxy!.names.includes(host);
  const bare = host.replace(/^\[(.*)\]$/, '$1');
  return isLoopback(bare) || bare === listening.host.toLowerCase() || ownAddresses(listening).includes(bare);
}

/** Listens on a port; fails where it is taken. */
const bind = (server: Server, port: number, host: string): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, host, () => {
      server.off('error', fail);
      done();
    });
  });

const closed = (server: Server): Promise<void> => new Promise((done) => server.close(() => done()));

/** Binds a server to a host, and a second one to the loopback where the first is not reached over it: the machine itself is never locked out. */
async function bindAll(main: Server, here: Server | null, port: number, host: string): Promise<void> {
  await bind(main, port, host);
  if (!here) return;
  try {
    await bind(here, port, LOOPBACK_HOST);
  } catch (error) {
    await closed(main);
    throw error;
  }
}

/** Listens as the settings say; resolves to the port that was free and to all servers. Fails with a sentence. */
export async function listen(main: Server, answer: RequestListener, { port: first, host, proxy }: Listening): Promise<{ port: number; servers: Server[] }> {
  const here = isLoopback(host) || ANY.has(host) ? null : createServer(answer);
  for (let port = first; port < Math.min(first + TRIES, 65536); port++) {
    try {
      await bindAll(main, here, port, host);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND') throw new Error(`USTLE_HOST: "${host}" is no address of this machine.`, { cause: error });
      if (code === 'EACCES') throw new Error(`USTLE_PORT: ${port} may not be used here; take one from 1024 on.`, { cause: error });
      if (code !== 'EADDRINUSE') throw error;
      process.stdout.write(`Port ${port} is taken; trying ${port + 1}.\n`);
      continue;
    }
    const servers = [main, ...(here ? [here] : [])];
    if (proxy) {
      const behind = createServer(answer);
      behind.on('connection', (socket) => handedOn.add(socket));
      await bind(behind, proxy.port, LOOPBACK_HOST).catch((error: unknown) => {
        throw new Error(`USTLE_PROXY_PORT: ${proxy.port} cannot be used: ${error instanceof Error ? error.message : String(error)}.`, { cause: error });
      });
      servers.push(behind);
    }
    return { port, servers };
  }
  throw new Error(`No free port from ${first} to ${Math.min(first + TRIES, 65536) - 1}. Set USTLE_PORT to another.`);
}
