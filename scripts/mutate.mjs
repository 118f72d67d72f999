// npm run mutate -- [--sample LINES] [--tests NAME,NAME] FOLDER …: changes the code of folders, one small place at a time, and counts which changes their tests notice.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, relative } from 'node:path';
import { parseArgs } from 'node:util';
import { Stryker } from '@stryker-mutator/core';

const { values, positionals } = parseArgs({ options: { sample: { type: 'string' }, tests: { type: 'string' } }, allowPositionals: true });
const folders = positionals.map((f) => f.replace(/\/+$/, ''));
if (!folders.length || folders.some((f) => !/^(packages\/(core|files|contract)|apps\/(server|web))\/src/.test(f) || !existsSync(f))) {
  console.error(
    'Name folders or files of packages/*/src, apps/server/src or apps/web/src whose code tests import, such as: npm run mutate -- packages/core/src/wood',
  );
  process.exit(2);
}

const files = folders
  .flatMap((f) => (f.endsWith('.ts') ? [f] : readdirSync(f, { recursive: true }).map((name) => `${f}/${name}`)))
  .filter((f) => f.endsWith('.ts') && !f.endsWith('index.ts'));

/** So many lines of code out of all, the same each time; each is a range of its own. */
function sampled(lines) {
  const all = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((text, i) => (/^\s*(\/\*|\*|\/\/|import|export \*|\}|$)/.test(text) ? [] : `${file}:${i + 1}-${i + 2}`)),
  );
  const every = Math.max(1, all.length / lines);
  return Array.from({ length: Math.min(lines, all.length) }, (_, i) => all[Math.floor(i * every)]);
}

const packages = [...new Set(folders.map((f) => f.split('/').slice(0, 2).join('/')))];
const results = await new Stryker({
  mutate: values.sample ? sampled(Number(values.sample)) : files,
  testRunner: 'jest',
  jest: {
    configFile: 'jest.config.mjs',
    config: {
      testSequencer: '<rootDir>/scripts/fastest-first.mjs',
      roots: packages.map((p) => `<rootDir>/${p}`),
      ...(values.tests ? { testMatch: [`**/(${values.tests.replaceAll(',', '|')}).test.ts`] } : {}),
    },
  },
  coverageAnalysis: 'perTest',
  // What runs once at loading (tables, schemas) is not changed: each such change would need every test.
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 20_000,
  tempDirName: '.mutate',
  reporters: ['progress-append-only'],
  logLevel: 'warn',
  allowConsoleColors: false,
}).runMutationTest();

const rooms = new Map();
for (const { fileName, status, replacement, location } of results) {
  const room = dirname(relative('.', fileName));
  const row = rooms.get(room) ?? { killed: 0, survived: 0, untested: 0, left: [] };
  rooms.set(room, row);
  if (status === 'Killed' || status === 'Timeout') row.killed++;
  else if (status === 'Survived') row.survived++;
  else if (status === 'NoCoverage') row.untested++;
  if (status === 'Survived' || status === 'NoCoverage')
    row.left.push(`${relative('.', fileName)}:${location.start.line}  ${replacement.replace(/\s+/g, ' ').slice(0, 90)}`);
}
for (const { left } of rooms.values()) for (const line of left) console.log(line);
console.log('\nroom                                  killed  survived  untested   share killed');
for (const [room, { killed, survived, untested }] of [...rooms].sort())
  console.log(
    `${room.padEnd(36)}${String(killed).padStart(8)}${String(survived).padStart(10)}${String(untested).padStart(10)}${`${Math.round((100 * killed) / Math.max(1, killed + survived + untested))} %`.padStart(14)}`,
  );
