import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { paths } from '@ustle/contract';
import type { Intent } from '@ustle/core';
import { resolve } from 'node:path';

export interface Running {
  address: string;
  child: ChildProcess;
  /** Ends it at once, as a power cut would. */
  kill: () => Promise<void>;
}

/** The day that the tests' servers believe it is. */
export const TODAY = '2026-05-20';

const alive = new Set<ChildProcess>();
// Whatever becomes of a test, its servers end with its file.
globalThis.afterAll?.(() => alive.forEach((child) => child.kill('SIGKILL')));

/** The built server on a folder, as a process of its own; where a limit is given (kB), no file of it can grow beyond that, as on a full disk. */
export function start(folder: string, port: number, own: NodeJS.ProcessEnv = {}, fileLimitKb?: number): Promise<Running> {
  const command = [process.execPath, resolve(__dirname, '../dist/main.js')];
  const [program, ...args] = fileLimitKb ? ['bash', '-c', `trap '' XFSZ; ulimit -f ${fileLimitKb}; exec "$@"`, 'limited', ...command] : command;
  const child = spawn(program!, args, {
    env: { ...process.env, USTLE_DATA: folder, USTLE_PORT: String(port), USTLE_TODAY: TODAY, ...own },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  alive.add(child);
  child.once('exit', () => alive.delete(child));
  return new Promise((done, failed) => {
    let seen = '';
    child.stderr!.on('data', (chunk) => (seen += chunk));
    child.stdout!.on('data', (chunk) => {
      seen += chunk;
      const address = /Ustle is at (\S+)/.exec(seen)?.[1];
      if (!address) return;
      const kill = (): Promise<void> =>
        new Promise((gone) => {
          if (child.exitCode !== null || child.signalCode !== null) return gone();
          child.once('exit', () => gone());
          return void child.kill('SIGKILL');
        });
      done({ address, child, kill });
    });
    child.once('exit', (code) => failed(new Error(`server ended: ${code} ${seen}`)));
  });
}

export interface Answer {
  status: number;
  body: any;
}

export async function ask(address: string, method: string, path: string, body?: unknown): Promise<Answer> {
  const init = body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: typeof body === 'string' ? body : JSON.stringify(body) };
  const response = await fetch(address + path, { method, ...init });
  const text = await response.text();
  const json = response.headers.get('content-type')?.includes('json');
  return { status: response.status, body: json ? JSON.parse(text) : text };
}

/** Does an act on a tree, on the revision that it has now where none is named. */
export async function doAct(address: string, tree: string, intent: Intent & { id?: string }, revision?: number): Promise<Answer> {
  const on = revision ?? (await ask(address, 'GET', paths.tree(tree))).body.revision;
  return ask(address, 'POST', paths.acts(tree), { act: { id: randomUUID(), on: TODAY, ...intent }, revision: on });
}

/** Takes the newest act on a tree back, or makes it again. */
export async function doStep(address: string, tree: string, kind: 'undo' | 'redo', id: string = randomUUID()): Promise<Answer> {
  const { revision } = (await ask(address, 'GET', paths.tree(tree))).body;
  return ask(address, 'POST', paths.steps(tree), { id, kind, revision });
}
