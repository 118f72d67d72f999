import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { sendWaiting, WalkStore, type Sent, type Waiting } from '../src/walk/queue';

/** A server that keeps what it took, across restarts, and does each id once; `refuses` says which acts cannot be. */
class Yard {
  readonly done = new Map<string, string>();
  readonly order: string[] = [];

  constructor(private readonly refuses: ReadonlySet<string>) {}

  take({ id, tree }: Waiting): Sent {
    if (this.refuses.has(id)) return { refused: `Branch of ${id} is not on this tree.` };
    if (!this.done.has(id)) {
      this.done.set(id, tree);
      this.order.push(id);
    }
    return { taken: true };
  }
}

type Line = 'through' | 'request lost' | 'answer lost' | 'stumbles';
/** What happens next on the phone: an answer is given, sent twice by an impatient page, or what waits is sent over such a line, in one page or in two at once. */
type Step = { do: 'give'; tree: number; again: boolean } | { do: 'send'; line: Line[]; pages: 1 | 2 } | { do: 'reopen' };

const line = fc.array(fc.constantFrom<Line>('through', 'through', 'request lost', 'answer lost', 'stumbles'), { minLength: 1, maxLength: 4 });
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('give' as const), tree: fc.nat(2), again: fc.boolean() }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('send' as const), line, pages: fc.constantFrom(1 as const, 2 as const) }) },
  { weight: 1, arbitrary: fc.constant({ do: 'reopen' as const }) },
);

const sendOver = (yard: Yard, states: readonly Line[]): ((w: Waiting) => Promise<Sent>) => {
  let at = 0;
  return async (waiting) => {
    const now = states[at++ % states.length]!;
    if (now === 'request lost') return 'away';
    if (now === 'stumbles') return 'later';
    const sent = yard.take(waiting);
    return now === 'answer lost' ? 'away' : sent;
  };
};

test('1,000 walks with lost requests, lost answers, two pages and reloads: every answer is done once, in its turn, and what is refused is kept and said', async () => {
  let runs = 0;
  let store = new WalkStore('walks');
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 14 }), fc.array(fc.nat(12), { maxLength: 2 }), async (steps, refused) => {
      runs++;
      await Promise.all([store.waiting.clear(), store.answered.clear()]);
      const yard = new Yard(new Set(refused.map((n) => `${runs}-${n}`)));
      const given: string[] = [];
      for (const s of steps) {
        if (s.do === 'give') {
          const id = `${runs}-${given.length}`;
          const tree = `t${s.tree}`;
          const waiting: Waiting = { id, tree, about: 'Lantern, first left', act: { id, on: '2026-05-20', kind: 'note', text: 'seen' }, refused: null };
          given.push(id);
          const answers = [{ key: `${tree} ${id}`, on: '2026-05-20', said: 'clear', act: id }];
          await store.answer([waiting], answers);
          if (s.again) await store.answer([waiting], answers);
        } else if (s.do === 'send') {
          await Promise.all(Array.from({ length: s.pages }, () => sendWaiting(store, sendOver(yard, s.line))));
        } else {
          store.close();
          store = new WalkStore('walks');
        }
      }
      expect(await sendWaiting(store, sendOver(yard, ['through']))).toBe(true);
      const refusals = given.filter((id) => refused.some((n) => id === `${runs}-${n}`));
      expect([...yard.done.keys()].sort()).toEqual(given.filter((id) => !refusals.includes(id)).sort());
      // In their turn, but for those that the server stumbled over.
      if (!steps.some((s) => s.do === 'send' && s.line.includes('stumbles')))
        expect(yard.order).toEqual([...yard.order].sort((a, b) => given.indexOf(a) - given.indexOf(b)));
      const left = await store.waiting.toArray();
      expect(left.map((w) => w.id)).toEqual(refusals);
      for (const w of left) expect(w.refused).toContain(w.id);
      expect(await store.answered.count()).toBe(given.length);
    }),
    { numRuns: 1000 },
  );
  store.close();
  expect(runs).toBeGreaterThanOrEqual(1000);
});
