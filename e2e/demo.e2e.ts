import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ask, doAct } from '../apps/server/test/server';

const PORT = 4790;
const folder = mkdtempSync(join(tmpdir(), 'ustle-demo-'));
let running: ChildProcess | null = null;

/** Runs the demo command as its users do; resolves to what it said once it can be opened, and to its address. */
function demo(...args: string[]): Promise<{ said: string; address: string }> {
  running = spawn(process.execPath, [resolve(__dirname, '../scripts/demo.mjs'), ...args], {
    env: { ...process.env, USTLE_DATA: folder, USTLE_PORT: String(PORT) },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  return new Promise((done, fail) => {
    let said = '';
    const hear = (chunk: Buffer): void => {
      said += chunk;
      const address = /Ustle is at (\S+)\nStop it/.exec(said)?.[1];
      if (address) done({ said, address });
    };
    running!.stdout!.on('data', hear);
    running!.stderr!.on('data', hear);
    running!.on('exit', () => fail(new Error(said)));
  });
}

async function stop(): Promise<void> {
  running!.removeAllListeners('exit');
  const gone = once(running!, 'exit');
  running!.kill('SIGTERM');
  await gone;
}
afterAll(stop);

test('the demo loads once, goes on where a port is taken, keeps what was done, and starts over when asked', async () => {
  const holder = createServer().listen(PORT, '127.0.0.1');
  await once(holder, 'listening');
  const first = await demo();
  expect(first.said).toMatch(new RegExp(`Port ${PORT} is taken.*The demo studio was loaded: \\d+ trees`, 's'));
  expect(first.said).not.toMatch(/error/i);
  expect(first.address).toBe(`http://localhost:${PORT + 1}`);
  // Whatever the day, something is due.
  const trees = (await ask(first.address, 'GET', '/api/trees')).body as { id: string; name: string; next: { on: string } | null }[];
  expect(trees.length).toBeGreaterThanOrEqual(3);
  expect(new Set(trees.map((t) => t.name)).size).toBe(trees.length);
  const { today } = (await ask(first.address, 'GET', '/api/yard')).body;
  const soon = new Date(Date.parse(today) + 31 * 86_400_000).toISOString().slice(0, 10);
  const { days } = (await ask(first.address, 'GET', '/api/season')).body as { days: { on: string | null }[] };
  expect(days.filter((d) => d.on !== null && d.on <= soon).length).toBeGreaterThan(0);
  await doAct(first.address, trees[0]!.id, { kind: 'note', on: today, text: 'Kept over a restart.' });
  await stop();
  holder.close();

  const notes = async (address: string): Promise<string[]> =>
    (await ask(address, 'GET', `/api/trees/${trees[0]!.id}`)).body.tree?.record.flatMap((e: { kind: string; text?: string }) =>
      e.kind === 'note' ? [e.text] : [],
    );
  const second = await demo();
  expect(second.said).toMatch(new RegExp(`as you left it: ${trees.length} trees`));
  expect(second.address).toBe(`http://localhost:${PORT}`);
  expect(await notes(second.address)).toEqual(['Kept over a restart.']);
  await stop();

  const third = await demo('--fresh');
  expect(third.said).toMatch(/The demo studio was loaded/);
  expect(await notes(third.address)).toBeUndefined();
});
