// Starts Ustle on the user's own data.
import { build, dataFolder, install, serve } from './lib.mjs';

install();
build();
const folder = dataFolder('own');
await serve({ USTLE_DATA: folder });
console.log(`Your data is in ${folder}. Stop with Ctrl C.`);
