// Everything that must hold: lint, types, unit, and the real interface in Chromium.
import { readFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { build, chromium, install, root, runBeside } from './lib.mjs';

const browser = chromium();
install();
process.env.CHROMIUM = await browser;
// Linting needs nothing built; types are checked while the interface tests wait for pages.
const lint = runBeside('Lint', 'npm', ['run', 'lint', '--silent']);
build();

/** Runs Jest and adds its counts up; a failure is told at the end, after all was run. */
async function jest(title, args) {
  console.log(`\n${title}`);
  const file = join(root, 'node_modules', `.results-${title.split(' ')[0].toLowerCase()}.json`);
  const child = spawn('npx', ['jest', '--json', `--outputFile=${file}`, ...args], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
  const status = await new Promise((done) => child.once('exit', done));
  const { numPassedTests: passed, numFailedTests: failed, numFailedTestSuites: broken } = JSON.parse(readFileSync(file, 'utf8'));
  console.log(`${title}: ${passed} passed, ${failed} failed`);
  return { passed, failed, ok: status === 0 && broken === 0 };
}

const units = await jest('Unit tests', []);
const types = runBeside('Types', 'npm', ['run', 'types', '--silent']);
const results = [units, await jest('Interface tests', ['--config', 'e2e/jest.config.mjs'])];
const read = await Promise.all([lint, types]);
const sum = (key) => results.reduce((total, r) => total + r[key], 0);
console.log(`\n${sum('passed')} passed, ${sum('failed')} failed`);
process.exit([...results.map((r) => r.ok), ...read].every(Boolean) ? 0 : 1);
