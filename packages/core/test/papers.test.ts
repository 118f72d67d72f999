import { aftercareOf, aloneUntil, dayOf, generateTree, paperOf, planTree, type Intent, type Paper, type PlanDocument, type Tree } from '../src/index.js';
import { after } from './trees.js';

const ON = dayOf('2026-10-10');
const made = generateTree({ seed: 702, name: 'Curlew', species: 'hornbeam-korean', height: 500, base: 46, primaries: 5, secondaries: 2, faults: [] });
const [first, second, third] = made.branches.filter((b) => b.parent === 'trunk').map((b) => b.id) as [string, string, string];
const planOf = (t: Tree): PlanDocument => planTree(t, ON, { fronts: false });
const section = (paper: Paper, head: RegExp): Paper['sections'][number] => paper.sections.find((s) => head.test(s.head))!;
const worked = (of: object): Intent => ({ kind: 'worked', session: 's1', answer: 'done', ...of }) as never;

const owned: Tree = after(
  { ...made, client: 'The harbour office', plan: { ...made.plan, front: { bearing: 20, pitch: 5, roll: 0 } } },
  { kind: 'decide', branch: first, act: 'remove', why: 'It points at the viewer.' },
);

test('a proposal tells its owner what goes and why, what it costs the tree and us, and what is still to be agreed', () => {
  const paper = paperOf('proposal', owned, planOf(owned), ON);
  expect(paper.under).toMatch(/^Korean hornbeam, belongs to The harbour office\. 10 October 2026\.$/);
  const [before, afterwards] = section(paper, /Before/).pictures!;
  expect(before!.picture.wood).not.toBe(afterwards!.picture.wood);
  expect(section(paper, /front/).text![0]).toBe('It is seen from 20° of its pot, tilted by 5°.');
  expect(section(paper, /cut/).list).toEqual([expect.stringMatching(/Cut off at the trunk\. It points at the viewer\.$/)]);
  const facts = Object.fromEntries([...section(paper, /of the tree/).facts!, ...section(paper, /of us/).facts!]);
  expect(facts['Green that goes']).toMatch(/^\d+% of it; at most \d+% a year/);
  expect(facts['To grow again']).toMatch(/growing season/);
  expect(facts.Hours).toMatch(/ in all, .* in the first session$/);
  expect(facts.Wire).toMatch(/\d+ g of (aluminium|copper)/);
  expect(section(paper, /Agreement/).text!.join(' ')).toMatch(/^Nothing that cannot be undone is done before it is agreed\. Open: /);

  const agreed = after(owned, { kind: 'agreed', by: 'The harbour master', branches: [first] });
  expect(section(paperOf('proposal', agreed, planOf(agreed), ON), /Agreement/).text).toEqual([
    expect.stringMatching(/^10 October 2026: The harbour master agreed to cut /),
  ]);
  // Who owns no client's tree asks nobody.
  expect(section(paperOf('proposal', { ...owned, client: null }, planOf(owned), ON), /Agreement/)).toBeUndefined();
});

test('a report tells each session by what was done, what cracked or was otherwise, for how long, and what comes next', () => {
  const none = paperOf('report', made, planOf(made), ON);
  expect(section(none, /No session/).text).toEqual(['Nothing was worked on this tree in a session so far.']);
  const done = after(
    owned,
    { kind: 'agreed', by: 'The harbour master', branches: [first] },
    { kind: 'session', session: 's1', done: 'begun', by: 'Robin' },
    worked({ step: `cut:${first}`, title: 'Cut 1', minutes: 50, did: [{ kind: 'take-off', on: '2026-10-10', branches: [first] }] }),
    worked({
      step: 'wire',
      title: 'Wire one',
      answer: 'otherwise',
      text: 'Thicker wire.',
      minutes: 25,
      did: [{ kind: 'wired', on: '2026-10-10', metal: 'copper', size: 3, strands: 1, angle: 45, branch: second, hand: 'cw', start: 'over', length: 900 }],
    }),
    worked({ step: 'bend', title: 'Bend another', answer: 'cracked', did: [{ kind: 'bent', on: '2026-10-10', branch: third, crack: 'across' }] }),
    worked({ step: 'place', title: 'Place it', answer: 'skipped' }),
    { kind: 'photo', photo: 'p1', when: 'after' },
    { kind: 'promised', what: 'repot', from: '2027-03-01', text: 'A wider pot.' },
    { kind: 'session', session: 's1', done: 'closed' },
  );
  const paper = paperOf('report', done, planOf(done), ON);
  const session = section(paper, /^10 October 2026$/);
  expect(session.facts).toEqual([
    ['By', 'Robin'],
    ['Time', '1 h 15 min'],
    ['Cuts', '1'],
    ['Bent', 'one branch, in one stage'],
    ['Wired', 'one branch, 0.9 m of wire'],
  ]);
  expect(session.text).toEqual(['It cracked. Bend another', 'Otherwise than planned. Wire one: Thicker wire.', 'Left out. Place it']);
  expect(session.list).toEqual([expect.stringMatching(/: taken off, \d+% of the green$/), expect.stringMatching(/cracked across the fibre$/)]);
  expect(session.photos).toEqual([{ photo: 'p1', caption: 'photo after the work' }]);
  expect(section(paper, /^Agreed$/).list).toHaveLength(1);
  expect(section(paper, /next/).list!.join(' ')).toMatch(/Wire on first right: to be looked at by .*repot it, from 1 March 2027\. A wider pot\./);
  // A crack asks for the longest rest; the tree is let alone until then, and not after.
  expect(section(paper, /keep it/).list![0]).toMatch(/for 6 weeks/);
  expect(aloneUntil(done, ON)).toBe(ON + 42);
  expect(aloneUntil(done, ON + 42)).toBeNull();
  expect(aftercareOf(done, ON, ON).join(' ')).toMatch(/look each week/);
});

test('the work on paper has a box for every step, the wire to cut first, each caution once, and follows the open session', () => {
  const own = { ...owned, client: null };
  const plan = planOf(own);
  const paper = paperOf('sheet', own, plan, ON);
  const ticks = paper.sections.flatMap((s) => s.ticks ?? []);
  expect(ticks[0]!.head).toMatch(/^Shelter and tools/);
  expect(ticks.filter((t) => /^Cut 1/.test(t.head))).toHaveLength(1);
  const cautions = section(paper, /Mind/).caution!;
  expect(new Set(cautions).size).toBe(cautions.length);
  expect(cautions.join(' ')).toMatch(/Cutters and saws.*Wire ends spring/s);
  const toCut = section(paper, /Wire to cut/).facts!.flatMap(([, pieces]) => pieces.split(', '));
  expect(toCut).toHaveLength(ticks.filter((t) => /^Wire /.test(t.head)).length);
  const begun = after(own, { kind: 'session', session: 's1', done: 'begun', parts: ['cuts'] }, worked({ step: 'shelter' }));
  const rest = paperOf('sheet', begun, planOf(begun), ON).sections.flatMap((s) => s.ticks ?? []);
  expect(rest.map((t) => t.head).join()).not.toMatch(/Shelter|Wire |Bend /);
  expect(rest.map((t) => t.head).join()).toMatch(/Cut 1/);
});
