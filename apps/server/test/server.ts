import { spawn, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';

export interface Running {
  address: string;
  child: ChildProcess;
  /** Ends it at once, as a power cut would. */
  kill: () => Promise<void>;
}

/** The built server on a folder, as a process of its own. */
export function start(folder: string, port: number): Promise<Running> {
  const child = spawn(process.execPath, [resolve(__dirname, '../dist/main.js')], {
    env: { ...process.env, USTLE_DATA: folder, USTLE_PORT: String(port), USTLE_TODAY: '2026-05-20' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((done, failed) => {
    let seen = '';
    child.stdout!.on('data', (chunk) => {
      seen += chunk;
      const address = /Ustle is at (\S+)/.exec(seen)?.[1];
      if (!address) return;
      const kill = (): Promise<void> =>
        new Promise((gone) => {
          child.once('exit', () => gone());
          child.kill('SIGKILL');
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
