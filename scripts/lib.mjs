// What the scripts share: plain Node, no dependencies, so that they run before anything is installed.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
const LEAST_NODE = [20, 19];

/** Runs a command in the project's folder with its output shown; ends the script when it fails. */
export function run(title, command, args, options = {}) {
  console.log(`\n${title}`);
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', shell: process.platform === 'win32', ...options });
  if (done.status !== 0) {
    console.error(`${title} failed.`);
    process.exit(done.status ?? 1);
  }
}

/** Runs a command beside others, its output told when it is done; resolves to whether it went well. */
export function runBeside(title, command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, shell: process.platform === 'win32' });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
    child.on('close', (code) => {
      console.log(`\n${title}${code === 0 ? '' : ' failed'}\n${said}`.trimEnd());
      resolve(code === 0);
    });
  });
}

/** Installs the packages of the lock file, unless that was done already. */
export function install() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < LEAST_NODE[0] || (major === LEAST_NODE[0] && minor < LEAST_NODE[1])) {
    console.error(`Ustle needs Node ${LEAST_NODE.join('.')} or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const lock = join(root, 'package-lock.json');
  const mark = join(root, 'node_modules', '.ustle-installed');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === String(statSync(lock).mtimeMs)) return;
  run('Installing packages', npm, ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(mark, String(statSync(lock).mtimeMs));
}

/** Files of a folder and the folders in it, what is made or installed there left out. */
const filesIn = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name === 'test') return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : [path];
  });

/** Compiles everything, unless it was compiled from just these sources already. */
export function build() {
  const sources = ['apps', 'packages'].flatMap((folder) => filesIn(join(root, folder)));
  const state = createHash('sha256');
  for (const path of [...sources, join(root, 'package-lock.json'), join(root, 'tsconfig.base.json')].sort())
    state.update(`${path} ${statSync(path).mtimeMs}\n`);
  const now = state.digest('hex');
  const mark = join(root, 'node_modules', '.ustle-built');
  const made = ['apps/web/dist/index.html', 'apps/server/dist/main.js'].every((path) => existsSync(join(root, path)));
  if (made && existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
  run('Building', npm, ['run', 'build', '--silent']);
  writeFileSync(mark, now);
}

/** The folder of the user's data, or of the demo's. */
export const dataFolder = (name) => process.env.USTLE_DATA ?? join(root, '.data', name);

export const empty = (folder) => rmSync(folder, { recursive: true, force: true });

/** Starts the built server; resolves to its address once it listens. */
export function serve(env, { quiet = false } = {}) {
  const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const stop = () => server.kill('SIGTERM');
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  return new Promise((resolve, reject) => {
    let seen = '';
    server.stdout.on('data', (chunk) => {
      seen += chunk;
      const address = /Ustle is at (\S+)/.exec(seen)?.[1];
      // What was in its way is told in any case; who is quiet tells the address later.
      process.stdout.write(quiet ? String(chunk).replace(/Ustle is at.*\n/, '') : chunk);
      if (address) resolve({ address, server });
    });
    server.on('exit', (code) => reject(new Error(`The server ended (${code}).`)));
  });
}

/** Debian's Chromium for the tests; where it is missing and that is possible, it is installed through apt, beside whatever else is done meanwhile. */
export async function chromium() {
  const found = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => path && existsSync(path));
  if (found) return found;
  if (process.platform === 'linux' && existsSync('/usr/bin/apt-get') && process.getuid?.() === 0) {
    console.log('\nInstalling Chromium');
    const install = 'apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium fonts-liberation > /dev/null';
    const child = spawn('sh', ['-c', install], { stdio: 'inherit' });
    if ((await new Promise((done) => child.once('exit', done))) === 0) return '/usr/bin/chromium';
    console.error('Installing Chromium failed.');
  } else console.error('Chromium is missing: install it, or name it in the variable CHROMIUM.');
  process.exit(1);
}
