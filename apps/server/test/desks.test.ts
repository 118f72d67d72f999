import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { DESK_HEADER, paths, type Change, type StoredTree } from '@ustle/contract';
import { generateTree, type Intent } from '@ustle/core';
import { writeTreeFile } from '@ustle/files';
import { ask, start, TODAY, type Answer, type Running } from './server';

let server: Running;
beforeAll(async () => {
  server = await start(mkdtempSync(join(tmpdir(), 'ustle-desks-')), 4741);
});
afterAll(() => server.kill());

const TREE = writeTreeFile(generateTree({ seed: 4, name: 'Sandspit', species: 'larch', height: 400, base: 30, primaries: 6, secondaries: 1 }));

const add = async (): Promise<string> => (await ask(server.address, 'POST', paths.importTree(), TREE)).body.id;
const seenBy = async (desk: string, id: string): Promise<StoredTree> =>
  (await fetch(server.address + paths.tree(id), { headers: { [DESK_HEADER]: desk } })).json() as Promise<StoredTree>;

/** A device: what it knows is as old as its last look. */
class Desk {
  constructor(
    readonly desk: string,
    private readonly id: string,
  ) {}
  known!: StoredTree;

  async look(): Promise<StoredTree> {
    return (this.known = await seenBy(this.desk, this.id));
  }

  does(intent: Intent): Promise<Answer> {
    const act = { id: randomUUID(), on: TODAY, ...intent, desk: this.desk, who: this.desk };
    return ask(server.address, 'POST', paths.acts(this.id), { act, revision: this.known.revision });
  }

  /** Takes back what it was shown, or makes it again. */
  steps(kind: 'undo' | 'redo', of = this.known[kind]?.of): Promise<Answer> {
    return ask(server.address, 'POST', paths.steps(this.id), { id: randomUUID(), kind, desk: this.desk, of, revision: this.known.revision });
  }
}

test('what one device takes back is what it did itself: never what another wrote meanwhile', async () => {
  const id = await add();
  const [desk, phone] = [new Desk('desk', id), new Desk('phone', id)];
  await desk.look();
  await phone.look();
  const coil = { branch: 'b1', metal: 'copper', size: 2.05, strands: 1, angle: 45, hand: 'cw', start: 'over', gap: 0, wrap: 'none' } as const;
  const wired: Intent = { kind: 'wired', on: '2026-03-01', ...coil };
  expect((await desk.does(wired)).status).toBe(200);
  expect((await desk.look()).undo!.said).toMatch(/^wire /);
  expect((await phone.does({ kind: 'unwired', branch: 'b1', method: 'cut' })).body.lines).toMatchObject([{ who: 'phone' }]);
  // The desk has not heard of it: what it takes back is its own, and the phone's line stands.
  const back = await desk.steps('undo');
  expect(back.status).toBe(200);
  expect(back.body.tree.record.filter((l: { kind: string }) => l.kind === 'withdrawn')).toHaveLength(1);
  expect(back.body.tree.record.at(-1)).toMatchObject({ kind: 'withdrawn', corrects: back.body.tree.record[0].id });
  expect((await phone.look()).undo!.said).toMatch(/wire cut off/);
  // What is named and is not the newest of its own is refused, and so is what another built upon.
  await desk.look();
  await desk.does({ kind: 'decide', branch: 'b2', act: 'keep' });
  const { undo } = await desk.look();
  await phone.look();
  await phone.does({ kind: 'decide', branch: 'b3', act: 'remove' });
  await desk.look();
  expect(desk.known.undo).toBeNull();
  expect(await desk.steps('undo', undo!.of)).toMatchObject({
    status: 409,
    body: { code: 'built-on', message: expect.stringMatching(/phone changed the plan since/) },
  });
  expect(await desk.steps('undo', 'another')).toMatchObject({ status: 409, body: { code: 'not-newest' } });
});

test('acts on different branches do not refuse each other; on one branch, or on the whole, the second is asked to look again', async () => {
  const id = await add();
  const [a, b] = [new Desk('a', id), new Desk('b', id)];
  await a.look();
  await b.look();
  const [first, second, third] = a.known.tree.branches.filter((x) => x.parent === 'trunk').map((x) => x.id) as [string, string, string];
  expect((await a.does({ kind: 'decide', branch: first, act: 'keep' })).status).toBe(200);
  expect((await b.does({ kind: 'decide', branch: second, act: 'keep' })).status).toBe(200);
  expect((await a.does({ kind: 'decide', branch: second, act: 'remove' })).status).toBe(409);
  expect((await b.does({ kind: 'front', front: { bearing: 10, pitch: 0, roll: 0 } })).status).toBe(409);
  const { tree } = await a.look();
  expect(tree.plan.decisions.map((d) => [d.branch, d.act])).toEqual([[first, 'keep'], [second, 'keep']]); // prettier-ignore
  // Upon the whole tree nothing older is right any more.
  await a.does({ kind: 'front', front: { bearing: 10, pitch: 0, roll: 0 } });
  expect((await b.does({ kind: 'decide', branch: third, act: 'keep' })).status).toBe(409);
  // What grows on a branch goes where it goes.
  const child = tree.branches.find((x) => x.parent === first)!;
  await a.look();
  await b.look();
  await a.does({ kind: 'decide', branch: first, act: 'remove' });
  expect((await b.does({ kind: 'decide', branch: child.id, act: 'keep' })).status).toBe(409);
});

test('whoever listens hears of each change, and whose it was', async () => {
  const id = await add();
  const stream = await fetch(server.address + paths.changes);
  const reader = stream.body!.pipeThrough(new TextDecoderStream() as never).getReader() as unknown as ReadableStreamDefaultReader<string>;
  const desk = new Desk('phone', id);
  await desk.look();
  await desk.does({ kind: 'note', text: 'seen' });
  let heard = '';
  while (!heard.includes('"tree"')) heard += (await reader.read()).value;
  await reader.cancel();
  expect(JSON.parse(/data: (\{.*\})/.exec(heard)![1]!) as Change).toEqual({ tree: id, revision: 1, recorded: 1, desk: 'phone' });
});

test('whatever three devices do and take back in whatever order, each takes back its own alone', async () => {
  const NAMES = ['desk', 'phone', 'shed'];
  const deed = fc.record({
    who: fc.nat(2),
    what: fc.constantFrom('look', 'note', 'note', 'decide', 'undo', 'undo', 'redo'),
    branch: fc.integer({ min: 1, max: 6 }),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { minLength: 6, maxLength: 14 }), async (deeds) => {
      const id = await add();
      const desks = NAMES.map((n) => new Desk(n, id));
      for (const d of desks) await d.look();
      for (const { who, what, branch } of deeds) {
        const desk = desks[who]!;
        const before = await seenBy('nobody', id);
        if (what === 'look') await desk.look();
        else if (what === 'note') await desk.does({ kind: 'note', branch: `b${branch}`, text: 'x' });
        else if (what === 'decide') await desk.does({ kind: 'decide', branch: `b${branch}`, act: 'keep', why: desk.desk });
        else await desk.steps(what as 'undo' | 'redo');
        const after = await seenBy('nobody', id);
        const mine = new Set(before.tree.record.filter((l) => l.who === desk.desk).map((l) => l.id));
        for (const line of after.tree.record.slice(before.tree.record.length)) {
          expect(line.who ?? desk.desk).toBe(desk.desk);
          if (line.kind === 'withdrawn') expect(mine.has(line.corrects)).toBe(true);
        }
        // A decision goes, or becomes another's, only by what its own branch was told.
        const others = (t: StoredTree): string[] =>
          t.tree.plan.decisions
            .filter((x) => x.why !== desk.desk)
            .map((x) => `${x.branch} ${x.why}`)
            .sort();
        if (what !== 'decide') expect(others(after)).toEqual(others(before));
      }
    }),
    { numRuns: 60 },
  );
});
