import type { TSchema } from '@sinclair/typebox';
import fc from 'fast-check';
import {
  ACT,
  ACT_NAMES,
  applyAct,
  coilsOn,
  dayOf,
  generateTree,
  isGuarded,
  isRefused,
  LINE_KINDS,
  namesOf,
  perform,
  placeTree,
  planTree,
  treeOn,
  sayAct,
  sayLine,
  senseFaults,
  standing,
  step,
  type Act,
  type Tree,
} from '../src/index.js';
import { anyAct, anyOf, numbered, run, TODAY } from './any-act.js';
import { actFrom, after, anyTree, branch, tree } from './trees.js';

/** What a tree is without its record: the measured part and the plan. */
const document = ({ record: _record, ...rest }: Tree): string => JSON.stringify(rest);
/** What the record says once corrections count, ids and days of taking back aside. */
const told = (t: Tree): string => JSON.stringify(standing(t.record).map(({ id: _id, again: _again, ...line }) => line));

test('two thousand acts of any kind are each done or refused with a field and a sentence, never a throw; undone they leave the first tree; replayed, the same', () => {
  let tried = 0;
  const kinds = new Set<string>();
  fc.assert(
    fc.property(anyTree, fc.array(anyAct, { minLength: 40, maxLength: 40 }), (start, raw) => {
      const acts = numbered(raw);
      for (const act of acts) {
        const outcome = applyAct(start, act, TODAY);
        for (const why of isRefused(outcome) ? outcome.refused : [])
          expect(why).toEqual({ field: expect.any(String), code: expect.any(String), message: expect.stringMatching(/\.$/) });
        expect(sayAct(act, namesOf(start)).length).toBeGreaterThan(0);
      }
      const { tree: end, log, done } = run(start, acts);
      expect(senseFaults(end)).toEqual([]);
      tried += acts.length;
      done.forEach((act) => kinds.add(act.kind));
      // The same acts on the same tree give the same one.
      expect(JSON.stringify(run(start, done).tree)).toBe(JSON.stringify(end));
      // Each taken back in turn.
      let back = { tree: end, log };
      for (let i = 0; back.log.done.length; i++) {
        const result = step(back.tree, back.log, { id: `u${i}`, kind: 'undo' }, TODAY);
        if ('refused' in result) throw new Error(result.refused[0]!.message);
        back = result;
      }
      expect(document(back.tree)).toBe(document(start));
      expect(told(back.tree)).toBe(told(start));
      // And made again: the plan is what it was.
      for (let i = 0; back.log.undone.length; i++) {
        const result = step(back.tree, back.log, { id: `r${i}`, kind: 'redo' }, TODAY);
        if ('refused' in result) break;
        back = result;
      }
      // Nothing was lost on the way, and no line has another one's id.
      const ids = back.tree.record.map((line) => line.id);
      expect([new Set(ids).size, back.tree.record.slice(0, end.record.length)]).toEqual([ids.length, end.record]);
      expect(() => placeTree(back.tree)).not.toThrow();
    }),
    { numRuns: 50 },
  );
  expect(tried).toBeGreaterThanOrEqual(2000);
  expect(kinds.size).toBeGreaterThan(ACT_NAMES.length / 2);
});

test('no act changes the tree that it is done on', () => {
  fc.assert(
    fc.property(anyTree, anyAct, (start, act) => {
      const before = JSON.stringify(start);
      applyAct(start, act, TODAY);
      expect(JSON.stringify(start)).toBe(before);
    }),
    { numRuns: 200 },
  );
});

test('what was taken back and said again is taken back for good by the undo of what made it', () => {
  const start = tree([branch('b1')]);
  const acts: Act[] = [actFrom({ kind: 'inspected', branch: 'b1', stage: 'touching' }), actFrom({ kind: 'withdrawn', corrects: 'placeholder' })];
  const first = run(start, [acts[0]!]);
  const second = perform(first.tree, first.log, { ...acts[1]!, corrects: first.tree.record[0]!.id! } as Act, TODAY);
  if ('refused' in second) throw new Error('refused');
  const again = step(second.tree, second.log, { id: 'u1', kind: 'undo' }, TODAY);
  if ('refused' in again) throw new Error('refused');
  expect(standing(again.tree.record)).toMatchObject([{ kind: 'inspected', stage: 'touching', again: first.tree.record[0]!.id }]);
  const gone = step(again.tree, again.log, { id: 'u2', kind: 'undo' }, TODAY);
  if ('refused' in gone) throw new Error('refused');
  expect(standing(gone.tree.record)).toEqual([]);
});

test('only lines of the record go without a revision; every line of every kind has its words', () => {
  const lines = new Set<string>(LINE_KINDS);
  for (const kind of ACT_NAMES) expect([kind, isGuarded({ kind } as Act)]).toEqual([kind, !lines.has(kind) || kind === 'wired']);
  fc.assert(
    fc.property(anyAct, (act) => {
      if (!lines.has(act.kind)) return;
      expect(sayLine(act as never, (id) => id)).toMatch(/\S/);
    }),
  );
});

test('a branch measured anew keeps its crooked shape; one listed, taken out and put back is as it was', () => {
  const path = [
    [0, 0, 0],
    [50, 0, 20],
    [100, 0, 0],
  ] as const;
  const crooked = tree([branch('a', { path: path.map((p) => [...p] as const), length: 108, elevation: 0 }), branch('b', { at: 300 })]);
  const turned = after(crooked, { kind: 'remeasure', branch: 'a', changes: { bearing: 0 } }).branches[0]!;
  expect(turned.path!.map((p) => p.map((x) => Math.round(x) + 0))).toEqual([
    [0, 0, 0],
    [0, 50, 20],
    [0, 100, 0],
  ]);
  const drawn = path.map(([x, y, z]) => [x, y, z * 2] as const);
  expect(after(crooked, { kind: 'remeasure', branch: 'a', changes: { path: drawn, elevation: 3 } }).branches[0]).toMatchObject({ path: drawn, elevation: 3 });
  const listed = after(crooked, { kind: 'list-branch', branch: branch('c', { parent: 'a', at: 30 }), after: 'a' });
  expect(listed.branches.map((b) => b.id)).toEqual(['a', 'c', 'b']);
  const out = after(listed, { kind: 'unlist', branches: ['a'] });
  expect([out.branches.map((b) => b.id), out.record]).toEqual([['b'], []]);
  const seen = after(listed, { kind: 'note', branch: 'c', text: 'thin' }, { kind: 'unlist', branches: ['a'] });
  expect(seen.record[1]).toMatchObject({ kind: 'removed', branch: 'c', unlisted: true, was: [{ id: 'c' }] });
  expect(planTree(seen, TODAY, { fronts: false }).green.pastYear).toBe(0);
  // What it grew on is not listed any more: it is not put back in the air.
  expect(treeOn(seen, dayOf('2026-01-01')).branches.map((b) => b.id)).toEqual(['b']);
});

test('wire put on takes the plan’s own run where it is the same wire, else one of its own in its place', () => {
  const wire = { kind: 'wired', branch: 'a', metal: 'copper', size: 2, strands: 1, angle: 45, hand: 'cw', start: 'over' } as const;
  const run = { id: 'w1', metal: 'copper' as const, size: 2, strands: 1, angle: 45, branches: [{ branch: 'a', hand: 'cw' as const, start: 'over' as const }] };
  const t = tree([branch('a'), branch('b')], { plan: { decisions: [], poses: [], guys: [], runs: [run] } });
  expect(after(t, wire).record).toMatchObject([{ kind: 'wired', run: 'w1', gap: 0, wrap: 'none' }]);
  const other = after(t, { ...wire, size: 3 });
  expect([other.plan.runs.map((r) => [r.id, r.size]), other.record[0]]).toMatchObject([[['w2', 3]], { run: 'w2' }]);
  expect(coilsOn(other, TODAY)).toMatchObject([{ run: 'w2', branch: 'a', size: 3 }]);
});

test('nothing that an act may say is without effect: left out, what comes of it differs on some tree', () => {
  const start = generateTree({ seed: 3, name: 'Any', species: 'larch', height: 400, base: 40, primaries: 5, secondaries: 1 });
  const trees = fc.sample(fc.array(anyAct, { minLength: 60, maxLength: 60 }), { numRuns: 40, seed: 1 }).map((acts) => run(start, numbered(acts)).tree);
  for (const schema of ACT.oneOf as unknown as TSchema[]) {
    const idle = new Set(Object.keys(schema.properties as object).filter((field) => !['id', 'on', 'kind', 'who', 'desk'].includes(field)));
    const outcomes = fc.sample(anyOf(schema) as fc.Arbitrary<Act>, { numRuns: 1200, seed: 5 }).map((act, i) => {
      const whole = { ...act, id: 'x', on: '2026-10-10' };
      const of = (a: Act): string => JSON.stringify(applyAct(trees[i % trees.length]!, a, TODAY));
      const made = of(whole);
      // What must be said is not left out: the act could not even be read without it.
      for (const field of [...idle]) {
        if ((schema.required as string[]).includes(field)) idle.delete(field);
        else if (field in whole && of({ ...whole, [field]: undefined } as Act) !== made) idle.delete(field);
      }
      return made;
    });
    // Acts on a tie that happens to be there are too rare among any acts to be judged so.
    if (outcomes.some((o) => !o.startsWith('{"refused"'))) expect([schema.title, ...idle]).toEqual([schema.title]);
  }
});
