import { applyAct, dayOf, dueOn, generateTree, suggestedPromises, vowsOf, type Intent, type Tree } from '../src/index.js';
import { actFrom, after } from './trees.js';

const ON = dayOf('2026-10-10');

test('promises stand in Season until they are kept, moved, or let go of with a reason', () => {
  const grown = generateTree({ seed: 1, name: 'Any', species: 'larch', height: 400, base: 40, primaries: 5, secondaries: 1 });
  const start: Tree = { ...grown, plan: { ...grown.plan, front: { bearing: 10, pitch: 6, roll: 0 } } };
  const [repot] = suggestedPromises(start, ON).filter((p) => p.what === 'repot');
  expect(repot!.from.slice(5, 7)).toBe('03');
  const owed = after(start, { kind: 'promised', ...repot! });
  expect(suggestedPromises(owed, ON).map((p) => p.what)).not.toContain('repot');
  const { line } = vowsOf(owed)[0]!;
  const due = (t: Tree) =>
    dueOn(t, ON)
      .due.filter((d) => d.kind === 'vow')
      .map((d) => d.on);
  expect(due(owed)).toEqual([repot!.from]);
  const moved = after(owed, { kind: 'promised', what: 'repot', from: '2028-03-01', corrects: line.id! });
  expect(due(moved)).toEqual(['2028-03-01']);
  expect(applyAct(moved, actFrom({ kind: 'fulfilled', promise: vowsOf(moved)[0]!.line.id!, how: 'let-go' } as Intent), ON)).toMatchObject({
    refused: [{ field: 'text' }],
  });
  expect(due(after(moved, { kind: 'fulfilled', promise: vowsOf(moved)[0]!.line.id!, how: 'done' }))).toEqual([]);
});
