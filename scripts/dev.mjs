// For developing: compiles on change, restarts the server, serves the interface with hot reload.
import { spawn } from 'node:child_process';
import { dataFolder, install, root, run } from './lib.mjs';

install();
run('Compiling', 'npx', ['tsc', '-b']);
const start = (command, args, env = {}) => spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
const all = [
  start('npx', ['tsc', '-b', '--watch', '--preserveWatchOutput']),
  start(process.execPath, ['--watch', 'apps/server/dist/main.js'], { USTLE_DATA: dataFolder('dev') }),
  start('npm', ['run', 'dev', '-w', '@ustle/web', '--silent']),
];
process.on('SIGINT', () => all.forEach((child) => child.kill()));
