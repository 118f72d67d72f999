import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { start } from '../apps/server/test/server';
import { loadStudio } from './load-studio';

/** Loads the demo studio once, into a folder that each walk begins on a copy of. */
export default async function (): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-studio-'));
  const { address, child } = await start(folder, 4690);
  loadStudio(address);
  // A clean stop leaves one file, with nothing beside it that is still to be written.
  await new Promise((gone) => {
    child.once('exit', gone);
    child.kill('SIGTERM');
  });
  process.env.USTLE_STUDIO = folder;
}
