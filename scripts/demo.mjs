// Starts Ustle with the made-up studio. `--fresh` loads it anew.
import { build, dataFolder, empty, install, serve } from './lib.mjs';

install();
build();
const folder = dataFolder('demo');
if (process.argv.includes('--fresh')) empty(folder);
const { address } = await serve({ USTLE_DATA: folder, USTLE_NAME: 'Tidewall Yard' }, { quiet: true });
const { loadStudio } = await import('../demo/load.mjs');
const trees = await (await fetch(`${address}/api/trees`)).json();
const loaded = trees.length ? 0 : await loadStudio(address);
console.log(
  loaded
    ? `\nThe demo studio was loaded: ${loaded} trees.`
    : `\nThe demo studio is as you left it: ${trees.length} trees. "npm run demo -- --fresh" starts over.`,
);
console.log(`Ustle is at ${address}\nStop it with Ctrl C.`);
