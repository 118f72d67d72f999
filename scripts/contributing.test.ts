import { execFileSync } from 'node:child_process';
import { cpSync, lstatSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, realpathSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';

const ROOT = resolve(__dirname, '..');

interface Edit {
  file: string;
  make: (before: string | null) => string;
}

const once = (text: string, part: string, file: string): void => {
  if (text.split(part).length !== 2) throw new Error(`"${part}" stands ${text.split(part).length - 1} times in ${file}.`);
};

/** What the recipes say is to be done, in their order. */
function editsOf(doc: string): Edit[] {
  const after = /[Ii]n `([^`]+)`, after the line that begins with `([^`]+)`:\n\n```\w+\n([\s\S]*?)```/g;
  const becomes = /[Ii]n `([^`]+)`, `([^`]+)` becomes `([^`]+)`\./g;
  const fresh = /A new file `([^`]+)`:\n\n```\w+\n([\s\S]*?)```/g;
  const found: (Edit & { at: number })[] = [];
  for (const [, file, begins, code] of doc.matchAll(after))
    found.push({
      at: doc.indexOf(`\`${begins}\`:`),
      file: file!,
      make: (before) => {
        const lines = before!.split('\n');
        const at = lines.flatMap((l, i) => (l.startsWith(begins!) ? [i] : []));
        if (at.length !== 1) throw new Error(`${at.length} lines of ${file} begin with "${begins}".`);
        return [...lines.slice(0, at[0]! + 1), code!.trimEnd(), ...lines.slice(at[0]! + 1)].join('\n');
      },
    });
  for (const [whole, file, from, to] of doc.matchAll(becomes))
    found.push({ at: doc.indexOf(whole!), file: file!, make: (before) => (once(before!, from!, file!), before!.replace(from!, to!)) });
  for (const [whole, file, code] of doc.matchAll(fresh)) found.push({ at: doc.indexOf(whole!), file: file!, make: () => code! });
  return found.sort((a, b) => a.at - b.at);
}

/** A copy of the project that compiles by itself: its own packages, everybody else's as they are. */
function copyTo(folder: string): void {
  const ours = ['packages', 'apps', 'tsconfig.base.json', 'tsconfig.json', 'package.json'];
  for (const name of ours)
    cpSync(join(ROOT, name), join(folder, name), {
      recursive: true,
      filter: (path) => !/\/(node_modules|dist|test)(\/|$)|\.tsbuildinfo$/.test(path.slice(ROOT.length)),
    });
  const modules = (from: string, to: string): void => {
    mkdirSync(to, { recursive: true });
    for (const name of readdirSync(from)) {
      const [source, target] = [join(from, name), join(to, name)];
      if (name === '@ustle' || name.startsWith('.')) continue;
      symlinkSync(realpathSync(source), target);
    }
  };
  modules(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
  mkdirSync(join(folder, 'node_modules/@ustle'));
  for (const name of readdirSync(join(ROOT, 'node_modules/@ustle'))) {
    const real = realpathSync(join(ROOT, 'node_modules/@ustle', name));
    symlinkSync(join(folder, real.slice(ROOT.length)), join(folder, 'node_modules/@ustle', name));
  }
  for (const at of ['packages', 'apps'].flatMap((p) => readdirSync(join(ROOT, p)).map((n) => join(p, n)))) {
    const own = join(ROOT, at, 'node_modules');
    if (lstatSync(own, { throwIfNoEntry: false })) modules(own, join(folder, at, 'node_modules'));
  }
}

test('the recipes of CONTRIBUTING.md, followed word by word in a copy, compile and do what they say', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ustle-recipes-'));
  try {
    copyTo(folder);
    const edits = editsOf(readFileSync(join(ROOT, 'CONTRIBUTING.md'), 'utf8'));
    expect(edits.length).toBeGreaterThanOrEqual(14);
    for (const { file, make } of edits) {
      const path = join(folder, file);
      mkdirSync(dirname(path), { recursive: true });
      writeFileSync(path, make(lstatSync(path, { throwIfNoEntry: false }) ? readFileSync(path, 'utf8') : null));
    }
    const run = (...args: string[]): string => execFileSync(process.execPath, args, { cwd: folder, encoding: 'utf8' });
    const tsc = join(ROOT, 'node_modules/typescript/bin/tsc');
    try {
      run(tsc, '-b');
      run(tsc, '-p', 'apps/web', '--noEmit');
    } catch (error) {
      throw new Error((error as { stdout: string }).stdout, { cause: error });
    }
    const tried = `
      import { applyAct, dayOf, findingsOf, findSpecies, generateTree, placeTree, sayLine } from '@ustle/core';
      const made = generateTree({ seed: 3, name: 'Any', species: 'sea-buckthorn', height: 400, base: 35, primaries: 3, secondaries: 1 });
      const tree = { ...made, branches: made.branches.map((b, i) => (i ? b : { ...b, path: undefined, length: 5, d: 8, tipD: 4 })) };
      const today = dayOf('2026-05-02');
      const soil = applyAct(tree, { id: 's', on: '2026-05-01', kind: 'soil', soil: 'grit' }, today);
      const water = applyAct(tree, { id: 'w', on: '2026-05-01', kind: 'watered', what: 'iron' }, today);
      const rules = findingsOf(placeTree(tree), null).filter((f) => f.rule === 'stubby').map((f) => f.branch);
      console.log(JSON.stringify([soil.tree.plan.soil, water.lines[0].kind, sayLine(water.lines[0], (b) => b), rules, findSpecies('sea-buckthorn').name, tree.branches[0].id]));
    `;
    writeFileSync(join(folder, 'tried.mjs'), tried);
    const [soil, kind, said, stubby, species, first] = JSON.parse(run('tried.mjs')) as [string, string, string, string[], string, string];
    expect([soil, kind, said, stubby, species]).toEqual(['grit', 'watered', 'watered with iron', [first], 'Sea buckthorn']);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
