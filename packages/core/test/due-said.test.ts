import { blankTree, dayOf, dueOn, placeTree, promisesOf, type Tree } from '../src/index.js';
import { maple, wire } from './maple.js';
import { after, branch, tree } from './trees.js';

test('what is due is said with its day, its reason, and where it is done', () => {
  const all = (t: Tree, day: string) => dueOn(t, dayOf(day));
  const on = (t: Tree, day: string): string[] => all(t, day).due.map((d) => `${d.on} ${d.kind} (${d.leadsTo}) ${d.title}`);
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
  expect(on(blankTree('New', 'larch'), '2026-05-20')).toEqual(['2026-05-20 plan (measure) measure it']);
  expect(on({ ...bare, trunk: blankTree('New', 'larch').trunk }, '2026-05-20')).toEqual(['2026-05-20 plan (measure) measure it']);
  expect(on(bare, '2026-05-20')).toEqual(['2026-05-20 plan (read) read it: is it strong enough?']);
  expect(on(after(bare, { kind: 'reading', signs: [], season: null }), '2026-05-20')).toEqual(['2026-05-20 plan (front) choose the front']);
  expect(on(maple(), '2026-05-20')).toEqual(['2026-05-20 plan (remove) decide what to remove']);
  expect(on(one, '2026-05-20')).toEqual(['2026-05-20 plan (remove) 1 branch to cut, as decided']);
  expect(on(two, '2026-05-20')).toEqual(['2026-05-20 plan (remove) 2 branches to cut, as decided']);
  expect(on(after(one, { kind: 'decide', branch: 'back', act: 'keep' }), '2026-05-20')).toEqual(['2026-05-20 plan (pose) pose the branches that stay']);

  // Coils of one tree that are due within days of each other are one look; one long due is named by itself, with since when.
  const looks = all(wired, '2026-05-06').due;
  expect(looks.map((d) => [d.kind, d.leadsTo, d.title])).toEqual([
    ['look', 'watch', 'back and first left: look at the wire'],
    ['look', 'watch', 'first right: look at the wire'],
  ]);
  expect(looks[0]!.on).toBe('2026-05-06');
  expect(looks[0]!.text).toMatch(/^Due since \d+ (March|April) 2026\. /);
  expect(looks[1]!.on > '2026-05-06' && looks[1]!.on < '2026-05-19').toBe(true);
  const { race, coils } = all(wired, '2026-05-06');
  expect([coils, race!.branch]).toEqual([3, 'back']);
  // Looked at and touching, then forgotten for a quarter of a year: it comes off, with the mark of what was seen.
  const forgotten = all(seen, '2026-08-21').due.filter((d) => d.kind === 'remove');
  expect(forgotten.map((d) => [d.on, d.leadsTo, d.mark])).toEqual([['2026-08-21', 'watch', 'touching']]);
  expect(forgotten[0]!.title).toMatch(/first left.*: take the wire off/);
  expect(all(seen, '2026-05-21').due.every((d) => d.kind === 'look' || d.kind === 'remove')).toBe(true);

  const promised = [
    '2026-09-01 promise (remove) first left, in reserve: keep or take off?',
    '2026-09-01 promise (remove) first left, first from the trunk on its left side: cut, as left for now',
    '2026-12-01 promise (remove) first right, sacrifice: thick enough below?',
  ];
  expect(on(put, '2026-05-20')).toEqual([...promised, '2026-05-20 plan (pose) pose the branches that stay']);
  expect(on(put, '2026-09-01')).toEqual([...promised, '2026-09-01 plan (pose) pose the branches that stay']);
  const texts = (day: string): string[] =>
    all(put, day)
      .due.slice(0, 2)
      .map((d) => d.text);
  expect(texts('2026-05-20')).toEqual([expect.stringMatching(/until then/), expect.stringMatching(/session 2/)]);
  expect(texts('2026-09-01')).toEqual([expect.stringMatching(/decide/), expect.stringMatching(/its time has come/)]);
});

test('what was put off comes back, and says why then', () => {
  const say = (t: Tree, day = '2026-10-01') => {
    const [first, ...more] = promisesOf(placeTree(t), dayOf(day));
    expect(more).toEqual([]);
    return first!;
  };
  const waits = (untilSet: string): Tree => after(maple(), { kind: 'decide', branch: 'twig', act: 'reserve', untilSet });
  const grows = (untilD: number | null, own: Partial<Tree> = {}): Tree =>
    after(maple(own), { kind: 'decide', branch: 'back', act: 'sacrifice', ...(untilD ? { untilD } : {}) });
  const wired = after(waits('right'), wire('right', '2026-05-01'));
  const firm = after(waits('right'), wire('right', '2026-05-01', { metal: 'copper', size: 4.6 }));
  /** [branch, kind], its day if any, whether it is ready, and what is told of it. */
  const expectPromise = (t: Tree, what: [branch: string, kind: string], is: { on?: string | null; ready?: boolean; text: RegExp }, day?: string): void =>
    expect(say(t, day)).toMatchObject({ branch: what[0], kind: what[1], ready: false, on: null, ...is, text: expect.stringMatching(is.text) });
  const [reserve, sacrifice]: [string, string][] = [['twig', 'reserve'], ['back', 'sacrifice']]; // prettier-ignore
  expectPromise(after(maple(), { kind: 'decide', branch: 'twig', act: 'reserve' }), reserve!, { text: /no day set/ });
  expectPromise(waits('right'), reserve!, { text: /first right to be bent/ });
  expectPromise(wired, reserve!, { text: /does not set where it was wanted under this wire/ });
  const off = after(wired, { kind: 'unwired', on: '2026-09-20', branch: 'right', method: 'cut', heldDeg: 25 });
  expectPromise(off, reserve!, { on: '2026-09-20', ready: true, text: /came off first right on 20 September 2026/ });
  const died = after(waits('right'), { kind: 'remeasure', branch: 'right', changes: { state: 'dead' } });
  expectPromise(died, reserve!, { on: '2026-10-01', ready: true, text: /first right is dead/ });
  expectPromise(after(maple(), { kind: 'decide', branch: 'back', act: 'remove', session: 3 }), ['back', 'later cut'], { text: /session 3/ });
  expectPromise(grows(20), sacrifice!, { on: '2026-10-01', ready: true, text: /23\.4 mm thick there: it has done its work/ });
  expectPromise(grows(500), sacrifice!, { text: /over fifteen years/ });
  expectPromise(grows(null), sacrifice!, { text: /no thickness set/ });
  // Under wire that holds, the day does not move with the day on which it is asked; a weak tree takes longer for its millimetres.
  const bend = say(firm, '2026-05-20');
  expectPromise(firm, reserve!, { on: bend.on, text: /will have set by/ }, '2026-07-20');
  expect(bend.on! > '2026-08-01').toBe(true);
  const [usual, weak] = [say(grows(34)), say(grows(34, { vigour: 'weak' }))];
  expect([usual.text, weak.text]).toEqual([expect.stringMatching(/^10\.6 mm more/), expect.stringMatching(/^10\.6 mm more/)]);
  expect(weak.on! > usual.on! && usual.on! > '2027-06-01').toBe(true);
});
