import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generateTree, isoOf, dayOf, seeded, type Act } from '@ustle/core';
import { paths } from '@ustle/contract';
import { ask, doAct, start, TODAY, type Running } from './server';

const folder = mkdtempSync(join(tmpdir(), 'ustle-sync-'));
const PORT = 4680;
let server: Running;
beforeAll(async () => {
  server = await start(folder, PORT);
});
afterAll(() => server.kill());

test('two phones send the same walk over and over while the server is cut off again and again: each answer stands once, none is lost', async () => {
  const made = generateTree({ seed: 8, name: 'Sample', species: 'olive', height: 400, base: 40, primaries: 6, secondaries: 0 });
  const tree = (await ask(server.address, 'POST', paths.importTree(), made)).body.id as string;
  for (const b of made.branches.slice(0, 6))
    await doAct(server.address, tree, { kind: 'wired', on: isoOf(dayOf(TODAY) - 40), branch: b.id, metal: 'copper', size: 2, strands: 1, angle: 45, hand: 'cw', start: 'over' }); // prettier-ignore
  const before = (await ask(server.address, 'GET', paths.tree(tree))).body.tree.record.length as number;
  const answers: Act[] = made.branches.slice(0, 6).flatMap((b) =>
    (['touching', 'clear'] as const).map((stage): Act => ({ id: randomUUID(), on: TODAY, kind: 'inspected', branch: b.id, stage })),
  ); // prettier-ignore
  const random = seeded(11);
  let restarts = 0;
  /** A phone's queue: goes on where it was answered, and begins a piece back where it was not, as after a lost answer. */
  const phone = async (): Promise<void> => {
    for (let at = 0; at < answers.length;) {
      const sent = await ask(server.address, 'POST', paths.acts(tree), { act: answers[at] }).catch(() => null);
      if (sent?.status === 200) at = random() < 0.3 && at > 0 ? at - 1 : at + 1;
      else await new Promise((done) => setTimeout(done, 30));
    }
  };
  let done = false;
  const cuts = (async () => {
    while (!done && restarts < 4) {
      await new Promise((wait) => setTimeout(wait, 60 + 120 * random()));
      await server.kill();
      server = await start(folder, PORT);
      restarts++;
    }
  })();
  await Promise.all([phone(), phone()]);
  done = true;
  await cuts;
  const record = (await ask(server.address, 'GET', paths.tree(tree))).body.tree.record as { id: string }[];
  expect(record).toHaveLength(before + answers.length);
  expect(new Set(record.slice(before).map((l) => l.id))).toEqual(new Set(answers.map((a) => a.id)));
  expect(restarts).toBeGreaterThan(0);
});
