#!/usr/bin/env node
import { main } from '../dist/main.js';

// A reader that has seen enough, such as "head", is no error.
process.stdout.on('error', (error) => {
  if (error.code !== 'EPIPE') throw error;
  process.exit(0);
});
process.exitCode = await main(process.argv);
