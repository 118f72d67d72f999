import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { Command } from 'commander';
import {
  COIL_TASKS,
  LARGEST_FILE_BYTES,
  allSpecies,
  dayOf,
  namesOf,
  planTree,
  sayBranches,
  workOutSight,
  sayForce,
  type PlanDocument,
  type SeenPhoto,
  type Tree,
} from '@ustle/core';
import { backupTo, dataFolder, restoreFrom } from '@ustle/data';
import { checkActs, checkSight, readTreeFile, writeTreeFile, type FileFault } from '@ustle/files';
import { runActs } from './run-acts.js';
import { faultOfPhoto, sightDocument, sightSummary } from './say-sight.js';

/** A text from a file as a terminal may show it: nothing in it steers the terminal. */
const harmless = (text: string): string => text.replace(/\p{C}/gu, (c) => (c === '\n' ? c : '\ufffd'));
const print = (line: string): void => void process.stdout.write(`${line}\n`);
const complain = (line: string): void => void process.stderr.write(`${harmless(line)}\n`);

/** Faults of a refused file, thrown to the one place that prints them. */
class Refused extends Error {
  constructor(readonly faults: FileFault[]) {
    super('refused');
  }
}

const refuse = (code: string, message: string): never => {
  throw new Refused([{ path: '/', code, message }]);
};

function textOf(file: string): string {
  try {
    if (statSync(file).size > LARGEST_FILE_BYTES) refuse('too-large', `The file is larger than ${LARGEST_FILE_BYTES / 1048576} MB.`);
    return readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof Refused) throw error;
    return refuse('not-found', `"${file}" cannot be read.`);
  }
}

function load(file: string): Tree {
  const text = textOf(file);
  const read = readTreeFile(text);
  if ('faults' in read) throw new Refused(read.faults);
  return read.tree;
}

/** What a JSON file holds. */
function parsed(file: string): unknown {
  const text = textOf(file);
  try {
    return JSON.parse(text);
  } catch {
    return refuse('not-json', `"${file}" is not JSON.`);
  }
}

function dayFrom(text: string | undefined): number {
  const day = dayOf(text ?? new Date().toISOString().slice(0, 10));
  return Number.isFinite(day) ? day : refuse('date', `"${text}" is not a date such as 2026-03-01.`);
}

function summary(tree: Tree, plan: PlanDocument): string[] {
  const names = namesOf(tree);
  const front = plan.fronts[0];
  return [
    `${plan.tree}, ${plan.on}: ${plan.read.verdict}. ${plan.read.because.join(' ')}`,
    ...(front ? [`Best front ${front.bearing}°, score ${front.score.toFixed(2)}.`] : []),
    `Green to come off: ${(plan.green.removed * 100).toFixed(0)}% of at most ${(plan.green.cap * 100).toFixed(0)}%.`,
    ...plan.findings.map((f) => `  ${names(f.branch)}: ${f.rule}, ${f.advice}. ${f.because[0]}`),
    ...plan.runs.map(
      (r) =>
        `  ${r.id}: ${sayBranches(
          names,
          r.branches.map((b) => b.branch),
        )}, ${r.metal} ${r.size} mm × ${r.strands}, ${r.length} mm`,
    ),
    ...plan.guys.map(
      (g) =>
        `  ${g.id}: ${names(g.branch)} tied to ${g.anchor.kind}${g.anchor.branch ? ` ${names(g.anchor.branch)}` : ''}, ${sayForce(g.tension)}, ${g.windlassTurns} twists${g.checks.some((c) => !c.ok) ? `. ${g.checks.flatMap((c) => (c.ok ? [] : c.said)).join(' ')}` : ''}`,
    ),
    ...plan.lostTies,
    ...plan.coverage.said,
    ...plan.wires.map((w) => `  ${w.run || 'wire'} on ${names(w.branch)}: ${COIL_TASKS[w.task.kind]}, ${w.task.on}. ${w.because.join(' ')}`),
    ...plan.notes,
  ];
}

function program(): Command {
  const cli = new Command('ustle').description('Plans of bonsai trees from tree files').exitOverride();
  cli
    .command('check <file>')
    .description('say whether a tree file is sound')
    .action((file: string) => {
      const tree = load(file);
      print(harmless(`${tree.name}: sound, ${tree.branches.length} branches, ${tree.record.length} lines of record.`));
    });
  cli
    .command('plan <file>')
    .description('the whole plan of one tree')
    .option('--on <date>', 'the day to plan for, such as 2026-03-01')
    .option('--json', 'as one JSON document')
    .option('--paths', 'with the way of every wire on the tree, as points')
    .action((file: string, options: { on?: string; json?: boolean; paths?: boolean }) => {
      const tree = load(file);
      const plan = planTree(tree, dayFrom(options.on), { paths: options.paths ?? false });
      if (options.json) print(JSON.stringify(plan, null, 2));
      else summary(tree, plan).map(harmless).forEach(print);
    });
  cli
    .command('do <file> <acts>')
    .description('do a list of acts (JSON) on a tree file, in turn; the file is written only when all are done')
    .action((file: string, acts: string) => {
      const tree = load(file);
      const checked = checkActs(parsed(acts));
      if ('faults' in checked) throw new Refused(checked.faults);
      const done = runActs(tree, checked.acts);
      if ('faults' in done) throw new Refused(done.faults);
      writeFileSync(file, writeTreeFile(done.tree));
      done.said.forEach((said) => print(harmless(said)));
    });
  cli
    .command('convert <in> <out>')
    .description('read a tree file and write it again, checked')
    .action((from: string, to: string) => {
      writeFileSync(to, writeTreeFile(load(from)));
      print(`Written to ${to}.`);
    });
  cli
    .command('cards <photos...>')
    .description('the cards in photos (JPEG) with their corners, as "sight" reads them')
    .option('--json', 'as one JSON document')
    .action(async (files: string[], options: { json?: boolean }) => {
      const { loadVision } = await import('@ustle/vision');
      const { seePhoto } = await import('@ustle/vision/node');
      const vision = await loadVision();
      const photos: SeenPhoto[] = [];
      for (const file of files) photos.push(await seePhoto(vision, file).catch(() => refuse('not-a-photo', `"${file}" is no photo that can be read (JPEG).`)));
      if (options.json) print(JSON.stringify(photos, null, 2));
      else for (const p of photos) print(harmless(`${p.photo}: ${p.cards.length ? `cards ${p.cards.map((c) => c.card).join(', ')}` : 'no card'}`));
    });
  cli
    .command('sight <file>')
    .description('where photos were taken from and how drawn lines run in space, from cards and drawings as numbers')
    .option('--json', 'as one JSON document')
    .action((file: string, options: { json?: boolean }) => {
      const checked = checkSight(parsed(file));
      if ('faults' in checked) throw new Refused(checked.faults);
      const found = workOutSight(checked.set);
      if ('refused' in found) throw new Refused([{ path: '/photos', code: 'no-fit', message: found.refused }, ...found.left.map(faultOfPhoto)]);
      if (options.json) print(JSON.stringify(sightDocument(found), null, 2));
      else sightSummary(found).map(harmless).forEach(print);
    });
  cli
    .command('species')
    .description('list the species and their keys')
    .option('--json', 'with every figure, its unit and confidence')
    .action((options: { json?: boolean }) => {
      if (options.json) print(JSON.stringify(allSpecies(), null, 2));
      else for (const s of allSpecies()) print(`${s.key.padEnd(20)} ${s.name} (${s.group})`);
    });
  cli
    .command('backup <file>')
    .description('copy all data (of the folder that USTLE_DATA names, else your own) into one new file, also while Ustle runs')
    .action((file: string) => {
      backupTo(dataFolder(), file);
      print(harmless(`Everything in "${dataFolder()}" is in "${file}" too.`));
    });
  cli
    .command('restore <file>')
    .description('put a copy in the place of all data; Ustle is stopped first, and what was there is kept beside it')
    .action((file: string) => {
      const kept = restoreFrom(dataFolder(), file);
      print(harmless(`"${dataFolder()}" holds what "${file}" does.${kept ? ` What was there before is kept in "${kept}".` : ''}`));
    });
  return cli;
}

/** Runs the command line; returns the exit code. */
export async function main(argv: readonly string[]): Promise<number> {
  try {
    await program().parseAsync([...argv]);
    return 0;
  } catch (error) {
    if (error instanceof Refused) {
      print(JSON.stringify({ errors: error.faults }, null, 2));
      for (const fault of error.faults) complain(`${fault.path}: ${fault.message}`);
      return 1;
    }
    const { exitCode, code } = error as { exitCode?: number; code?: string };
    if (code?.startsWith('commander.')) return exitCode ?? 1;
    complain(error instanceof Error ? error.message : String(error));
    return 2;
  }
}
