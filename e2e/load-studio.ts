import { execFileSync } from 'node:child_process';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

/** Loads the demo studio through its own loader. */
export function loadStudio(address: string): void {
  const loader = pathToFileURL(resolve(__dirname, '../demo/load.mjs')).href;
  execFileSync(process.execPath, [
    '--input-type=module',
    '-e',
    `const { loadStudio } = await import(${JSON.stringify(loader)}); await loadStudio(${JSON.stringify(address)})`,
  ]);
}
