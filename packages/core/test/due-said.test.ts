import { dayOf, dueOn, placeTree, promisesOf, type Tree } from '../src/index.js';
import { maple, wire } from './maple.js';
import { after, branch, listed, tree } from './trees.js';

test('what is due is said with its day, its reason, and where it is done', () => {
  const on = (t: Tree, day: string): string[] => {
    const { due, race, coils } = dueOn(t, dayOf(day));
    const bar = race ? `first of ${coils}: ${Object.values(race).join(' · ')}` : `${coils} coils`;
    return [...due.map((d) => `${d.on} ${d.kind} (${d.leadsTo}) ${d.title} — ${d.text}${d.mark ? ` [${d.mark}]` : ''}`), bar];
  };
  const bare = tree([branch('a')]);
  const one = after(maple(), { kind: 'decide', branch: 'back', act: 'remove' });
  const two = after(one, { kind: 'decide', branch: 'twig', act: 'shorten', length: 40 });
  const wired = after(
    maple(),
    { kind: 'decide', branch: 'low', act: 'keep' },
    wire('low', '2026-05-01', { metal: 'copper', size: 4.5 }),
    wire('right', '2026-05-03', { metal: 'copper', size: 4 }),
    wire('back', '2026-02-01', { gap: 1.5 }),
  );
  const seen = after(
    wired,
    { kind: 'inspected', on: '2026-05-20', branch: 'low', stage: 'touching' },
    { kind: 'inspected', on: '2026-05-20', branch: 'right', stage: 'clear' },
  );
  const put = after(
    maple(),
    { kind: 'decide', branch: 'low', act: 'reserve', until: '2026-09-01' },
    { kind: 'decide', branch: 'twig', act: 'remove', session: 2, until: '2026-09-01' },
    { kind: 'decide', branch: 'right', act: 'sacrifice', until: '2026-12-01' },
    { kind: 'decide', branch: 'back', act: 'keep' },
  );
  expect(
    listed({
      'nothing decided': on(bare, '2026-05-20'),
      'a front': on(maple(), '2026-05-20'),
      'one cut': on(one, '2026-05-20'),
      'two cuts': on(two, '2026-05-20'),
      'all kept': on(after(one, { kind: 'decide', branch: 'back', act: 'keep' }), '2026-05-20'),
      wired: on(wired, '2026-05-06'),
      'looked at': on(seen, '2026-05-21'),
      forgotten: on(seen, '2026-08-21'),
      'put off': on(put, '2026-05-20'),
      'put off, on the day': on(put, '2026-09-01'),
    }),
  ).toMatchInlineSnapshot(`
   [
     "nothing decided: 2026-05-20 plan (front) choose the front — When you like: nothing is lost by waiting.",
     "nothing decided: 0 coils",
     "a front: 2026-05-20 plan (remove) decide what to remove — When you like: nothing is lost by waiting.",
     "a front: 0 coils",
     "one cut: 2026-05-20 plan (remove) 1 branch to cut, as decided — When you like: nothing is lost by waiting.",
     "one cut: 0 coils",
     "two cuts: 2026-05-20 plan (remove) 2 branches to cut, as decided — When you like: nothing is lost by waiting.",
     "two cuts: 0 coils",
     "all kept: 2026-05-20 plan (pose) pose the branches that stay — When you like: nothing is lost by waiting.",
     "all kept: 0 coils",
     "wired: 2026-05-06 look (watch) back: look at the wire — Due since 7 April 2026. It may mark from 12 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
     "wired: 2026-05-10 look (watch) first left and first right: look at the wire — It may mark from 19 May 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
     "wired: first of 3: back ·  · 2026-06-17 · 2026-06-12 · 2027-05-21",
     "looked at: 2026-05-21 look (watch) back, first left and first right: look at the wire — Due since 4 April 2026. It may mark from 6 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
     "looked at: first of 3: back ·  · 2026-06-13 · 2026-06-06 · 2027-06-18",
     "forgotten: 2026-08-21 remove (watch) first left and first right: take the wire off — Due since 23 May 2026. By now it almost surely marks. Look today, and cut it off where it does. [touching]",
     "forgotten: 2026-08-21 look (watch) back: look at the wire — Due since 4 April 2026. It may mark from 6 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
     "forgotten: first of 3: back ·  · 2026-06-13 · 2026-06-06 · 2027-06-18",
     "put off: 2026-09-01 promise (remove) first left, in reserve: keep or take off? — Kept in reserve until then.",
     "put off: 2026-09-01 promise (remove) first left, first from the trunk on its left side: cut, as left for now — Left for session 2.",
     "put off: 2026-12-01 promise (remove) first right, sacrifice: thick enough below? — Runs free until then.",
     "put off: 2026-05-20 plan (pose) pose the branches that stay — When you like: nothing is lost by waiting.",
     "put off: 0 coils",
     "put off, on the day: 2026-09-01 promise (remove) first left, in reserve: keep or take off? — Kept in reserve until now: decide.",
     "put off, on the day: 2026-09-01 promise (remove) first left, first from the trunk on its left side: cut, as left for now — Left for now: its time has come.",
     "put off, on the day: 2026-12-01 promise (remove) first right, sacrifice: thick enough below? — Runs free until then.",
     "put off, on the day: 2026-09-01 plan (pose) pose the branches that stay — When you like: nothing is lost by waiting.",
     "put off, on the day: 0 coils",
   ]
  `);
});

test('what was put off comes back, and says why then', () => {
  const say = (t: Tree, day = '2026-10-01'): string[] =>
    promisesOf(placeTree(t), dayOf(day)).map((p) => `${p.on ?? 'no day'}${p.ready ? ', now' : ''}: ${p.branch}, ${p.kind}. ${p.text}`);
  const waits = (untilSet: string): Tree => after(maple(), { kind: 'decide', branch: 'twig', act: 'reserve', untilSet });
  const grows = (untilD: number | null, own: Partial<Tree> = {}): Tree =>
    after(maple(own), { kind: 'decide', branch: 'back', act: 'sacrifice', ...(untilD ? { untilD } : {}) });
  const wired = after(waits('right'), wire('right', '2026-05-01'));
  const firm = after(waits('right'), wire('right', '2026-05-01', { metal: 'copper', size: 4 }));
  expect(
    listed({
      'a reserve of no day': say(after(maple(), { kind: 'decide', branch: 'twig', act: 'reserve' })),
      'until a bend that is not made': say(waits('right')),
      'until a bend under wire': say(firm),
      'under wire that does not hold it': say(wired),
      'until a bend that has set': say(firm, '2028-10-01'),
      'until a bend whose wire came off': say(after(wired, { kind: 'unwired', on: '2026-09-20', branch: 'right', method: 'cut', heldDeg: 25 })),
      'until a bend of what died': say(after(waits('right'), { kind: 'remeasure', branch: 'right', changes: { state: 'dead' } })),
      'until the wood is thick enough': say(grows(34)),
      'thick enough': say(grows(20)),
      'never so thick': say(grows(500)),
      'slower when weak': say(grows(34, { vigour: 'weak' })),
      'of no thickness': say(grows(null)),
      'a later cut': say(after(maple(), { kind: 'decide', branch: 'back', act: 'remove', session: 3 })),
    }),
  ).toMatchInlineSnapshot(`
   [
     "a reserve of no day: no day: twig, reserve. Kept in reserve, no day set.",
     "until a bend that is not made: no day: twig, reserve. Waits for first right to be bent.",
     "until a bend under wire: 2031-06-04: twig, reserve. first right will have set by 4 June 2031, four chances in five. See that it is alive.",
     "under wire that does not hold it: no day: twig, reserve. first right does not set where it was wanted under this wire, as far as can be foreseen: wire it again, or tie it.",
     "until a bend that has set: 2031-06-04: twig, reserve. first right will have set by 4 June 2031, four chances in five. See that it is alive.",
     "until a bend whose wire came off: 2026-09-20, now: twig, reserve. The wire came off first right on 20 September 2026. See that it holds and is alive.",
     "until a bend of what died: 2026-10-01, now: twig, reserve. first right is dead: this one may have to take its place.",
     "until the wood is thick enough: 2028-09-09: back, sacrifice. 10.6 mm more on the trunk by about 9 September 2028, between 7 May 2028 and 23 April 2030. An estimate: measure.",
     "thick enough: 2026-10-01, now: back, sacrifice. the trunk is 23.4 mm thick there: it has done its work.",
     "never so thick: no day: back, sacrifice. 476.6 mm more on the trunk will take over fifteen years.",
     "slower when weak: 2030-09-02: back, sacrifice. 10.6 mm more on the trunk by about 2 September 2030, between 31 May 2029 and 30 April 2033. An estimate: measure.",
     "of no thickness: no day: back, sacrifice. Runs free, no thickness set.",
     "a later cut: no day: back, later cut. Left for session 3.",
   ]
  `);
});
