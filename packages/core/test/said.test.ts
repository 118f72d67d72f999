import {
  coilHistory,
  consequencesOf,
  dayOf,
  dueOn,
  findingsOf,
  isoOf,
  namesOf,
  placeTree,
  promisesOf,
  proposeSessions,
  readTree,
  sayAct,
  sayLine,
  type Intent,
  type Tree,
} from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';

/** A maple of three branches and their twigs, seen from its mark, to be worked and said things of. */
const maple = (own: Partial<Tree> = {}): Tree =>
  after(
    tree(
      [
        branch('low', { at: 120, bearing: 80, d: 12, green: 0.2 }),
        branch('twig', { parent: 'low', at: 90, bearing: 40, d: 4, length: 90, green: 0.1 }),
        branch('right', { at: 260, bearing: 280, d: 10, green: 0.2 }),
        branch('back', { at: 380, bearing: 180, d: 8, green: 0.15 }),
      ],
      { species: 'maple-trident', ...own },
    ),
    { kind: 'front', front: { bearing: 0, pitch: 0, roll: 0 } },
  );
const wire = (branchId: string, on: string, own: object = {}): Intent =>
  ({
    kind: 'wired',
    on,
    branch: branchId,
    metal: 'aluminium',
    size: 3,
    strands: 1,
    angle: 50,
    hand: 'cw',
    start: 'over',
    gap: 0.5,
    wrap: 'none',
    bentDeg: 40,
    targetDeg: 32,
    over: 60,
    ...own,
  }) as Intent;

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
  expect({
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
  }).toMatchInlineSnapshot(`
   {
     "a front": [
       "2026-05-20 plan (remove) decide what to remove — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "all kept": [
       "2026-05-20 plan (wire) wire the branches that stay — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "forgotten": [
       "2026-08-21 remove (watch) first left and first right: take the wire off — Due since 23 May 2026. By now it almost surely marks. Look today, and cut it off where it does. [touching]",
       "2026-08-21 look (watch) back: look at the wire — Due since 13 April 2026. It may mark from 25 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
       "first of 3: back ·  · 2026-06-24 · 2026-06-25 · 2027-05-12",
     ],
     "looked at": [
       "2026-05-21 look (watch) back and first left: look at the wire — Due since 13 April 2026. It may mark from 25 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
       "2026-05-25 look (watch) first right: look at the wire — It may mark from 30 May 2026 but holds only by 19 May 2031: once the shape is in, let a guy hold it. [clear]",
       "first of 3: back ·  · 2026-06-24 · 2026-06-25 · 2027-05-12",
     ],
     "nothing decided": [
       "2026-05-20 plan (front) choose the front — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "one cut": [
       "2026-05-20 plan (remove) 1 branch to cut, as decided — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "put off": [
       "2026-09-01 promise (remove) first left, in reserve: keep or take off? — Kept in reserve until then.",
       "2026-09-01 promise (remove) first left, first from the trunk on its left side: cut, as left for now — Left for session 2.",
       "2026-12-01 promise (remove) first right, sacrifice: thick enough below? — Runs free until then.",
       "2026-05-20 plan (wire) wire the branches that stay — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "put off, on the day": [
       "2026-09-01 promise (remove) first left, in reserve: keep or take off? — Kept in reserve until now: decide.",
       "2026-09-01 promise (remove) first left, first from the trunk on its left side: cut, as left for now — Left for now: its time has come.",
       "2026-12-01 promise (remove) first right, sacrifice: thick enough below? — Runs free until then.",
       "2026-09-01 plan (wire) wire the branches that stay — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "two cuts": [
       "2026-05-20 plan (remove) 2 branches to cut, as decided — When you like: nothing is lost by waiting.",
       "0 coils",
     ],
     "wired": [
       "2026-05-06 look (watch) back: look at the wire — Due since 7 April 2026. It may mark from 12 June 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
       "2026-05-10 look (watch) first left and first right: look at the wire — It may mark from 19 May 2026 but would not hold within fifteen years: once the shape is in, let a guy hold it.",
       "first of 3: back ·  · 2026-06-17 · 2026-06-12 · 2027-05-21",
     ],
   }
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
  expect({
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
  }).toMatchInlineSnapshot(`
   {
     "a later cut": [
       "no day: back, later cut. Left for session 3.",
     ],
     "a reserve of no day": [
       "no day: twig, reserve. Kept in reserve, no day set.",
     ],
     "never so thick": [
       "no day: back, sacrifice. 476.6 mm more on the trunk will take over fifteen years.",
     ],
     "of no thickness": [
       "no day: back, sacrifice. Runs free, no thickness set.",
     ],
     "slower when weak": [
       "2030-09-02: back, sacrifice. 10.6 mm more on the trunk by about 2 September 2030, between 31 May 2029 and 30 April 2033. An estimate: measure.",
     ],
     "thick enough": [
       "2026-10-01, now: back, sacrifice. the trunk is 23.4 mm thick there: it has done its work.",
     ],
     "under wire that does not hold it": [
       "no day: twig, reserve. first right does not set where it was wanted under this wire, as far as can be foreseen: wire it again, or tie it.",
     ],
     "until a bend of what died": [
       "2026-10-01, now: twig, reserve. first right is dead: this one may have to take its place.",
     ],
     "until a bend that has set": [
       "2031-05-30: twig, reserve. first right will have set by 30 May 2031, four chances in five. See that it is alive.",
     ],
     "until a bend that is not made": [
       "no day: twig, reserve. Waits for first right to be bent.",
     ],
     "until a bend under wire": [
       "2031-05-30: twig, reserve. first right will have set by 30 May 2031, four chances in five. See that it is alive.",
     ],
     "until a bend whose wire came off": [
       "2026-09-20, now: twig, reserve. The wire came off first right on 20 September 2026. See that it holds and is alive.",
     ],
     "until the wood is thick enough": [
       "2028-09-09: back, sacrifice. 10.6 mm more on the trunk by about 9 September 2028, between 7 May 2028 and 23 April 2030. An estimate: measure.",
     ],
   }
  `);
});

test('every kind of line and of act is said in a few words', () => {
  const start = after(maple(), { kind: 'decide', branch: 'back', act: 'remove' }, { kind: 'decide', branch: 'twig', act: 'stub', length: 30, stub: 'anchor' });
  const intents: Intent[] = [
    { kind: 'front', front: { bearing: 20, pitch: 5, roll: 0 } },
    { kind: 'keep-open', view: { bearing: 200, pitch: 0, roll: 0 } } as Intent,
    { kind: 'manner', firmness: 'firm' },
    { kind: 'manner', tolerance: 'fading' },
    { kind: 'manner', tolerance: 'none' },
    { kind: 'rules', profile: 'refinement', limits: {}, rules: {} },
    { kind: 'either', a: 'low', b: 'right' },
    { kind: 'put-off', branches: ['back', 'twig'], session: 2, until: '2027-02-01' },
    { kind: 'put-off', branches: ['back'], session: 1, until: null },
    ...(['keep', 'remove', 'shorten', 'stub', 'reserve', 'sacrifice', 'undecided'] as const).map((act): Intent => ({ kind: 'decide', branch: 'right', act })),
    { kind: 'remeasure', branch: 'right', changes: { d: 11 } },
    { kind: 'remeasure', branch: 'right', changes: { name: 'the long one' } },
    { kind: 'measure', measured: { name: 'Redshank' } },
    { kind: 'measure', measured: { vigour: 'strong', pot: maple().pot } },
    { kind: 'list-branch', branch: branch('new', { at: 300 }), after: null },
    { kind: 'unlist', branches: ['twig'] },
    wire('low', '2026-05-01', { strands: 2 }),
    { kind: 'bent', branch: 'low', bentDeg: 35 },
    { kind: 'bent', branch: 'low' },
    { kind: 'guyed', branch: 'low', text: 'to the rim' },
    { kind: 'pushed', branch: 'low', metal: 'copper', size: 2, gave: 'branch' },
    { kind: 'measured', branch: 'low', d: 12.4, heldDeg: 20 },
    { kind: 'inspected', branch: 'low', stage: 'marking' },
    { kind: 'cut', branch: 'low', pieces: 3 },
    { kind: 'unwired', branch: 'low', method: 'unwound', heldDeg: 22 },
    { kind: 'unwired', branch: 'low' },
    { kind: 'agreed', by: 'The pier master', branches: ['back', 'twig'] },
    { kind: 'take-off', branches: ['back'] },
    { kind: 'take-off', branches: ['twig'] },
    { kind: 'repotted' },
    { kind: 'fed', text: 'rape cake' },
    { kind: 'styled' },
    { kind: 'note', text: '  Full buds. ' },
    { kind: 'note' },
    { kind: 'photo', text: 'front' },
    { kind: 'hours', hours: 2.5, text: 'wire' },
    { kind: 'hours' },
  ] as Intent[];
  const names = namesOf(start);
  const said = intents.map((intent) => {
    const made = after(start, intent);
    const lines = made.record.slice(start.record.length).map((l) => sayLine(l, names));
    return `${sayAct(actFrom(intent), names)}${lines.length ? ` → ${lines.join(' / ')}` : ''}`;
  });
  expect(said).toMatchInlineSnapshot(`
   [
     "choose the front at 20°, tilted 5/0°",
     "keep 200° open",
     "wire it firm",
     "bear marks that fade",
     "bear no marks",
     "look at it by the rules "refinement"",
     "either first left or first right",
     "leave back and first left, first from the trunk on its left side for session 2",
     "cut back in this session",
     "keep first right",
     "take off first right",
     "shorten first right",
     "leave a stub of first right",
     "hold in reserve: first right",
     "let run free: first right",
     "leave open: first right",
     "measure first right",
     "name first right",
     "name it anew",
     "measure",
     "add a branch",
     "take first left, first from the trunk on its left side out of the list",
     "wire first left → wired, 3.0 mm aluminium × 2, bent to 40°",
     "first left: bent to 35° → bent to 35°",
     "first left: bent → bent",
     "first left: tied: to the rim → tied: to the rim",
     "first left: press test with 2.0 mm copper: the branch gave way → press test with 2.0 mm copper: the branch gave way",
     "first left: measured, 12.4 mm thick, holds 20° → measured, 12.4 mm thick, holds 20°",
     "first left: seen marking → seen marking",
     "first left: wire cut where it marked, 3 pieces → wire cut where it marked, 3 pieces",
     "first left: wire unwound, holds 22° → wire unwound, holds 22°",
     "first left: wire cut off → wire cut off",
     "The pier master agreed to cut back and first left, first from the trunk on its left side → The pier master agreed to cut back and first left, first from the trunk on its left side",
     "cut back → taken off, 15% of the green",
     "cut first left, first from the trunk on its left side → cut to a stub of 30 mm",
     "repotted → repotted",
     "fed: rape cake → fed: rape cake",
     "styled → styled",
     "Full buds. → Full buds.",
     "a note → a note",
     "photo: front → photo: front",
     "2.5 hours: wire → 2.5 hours: wire",
     "? hours → ? hours",
   ]
  `);
});

test('what a session costs and when it is better is said part by part', () => {
  const read = (t: Tree, day: string): string[] => {
    const r = readTree(t, dayOf(day), { heavyBends: 2, wiredShare: 0.5 }, { heavyBends: 3, wiredShare: 1 });
    return [
      `${r.verdict} ${r.capacity.toFixed(2)}, used ${r.used.toFixed(2)}, if all ${r.ifAll.toFixed(2)}`,
      ...r.because,
      ...r.uses.map((u) => `${u.work} ${u.points.toFixed(2)}: ${JSON.stringify(u)}`),
    ];
  };
  const cut = after(maple({ styledOn: '2025-03-01', repottedOn: '2026-03-01' }), { kind: 'decide', branch: 'low', act: 'remove' });
  expect({
    'in spring, repotted lately': read(cut, '2026-05-20'),
    'in late winter': read(maple(), '2027-02-10'),
    'collected last year': read(maple({ collectedOn: '2025-10-01', vigour: 'weak' }), '2026-10-10'),
    'worked last week': read(after(maple(), { kind: 'styled', on: '2026-10-03' } as Intent), '2026-10-10'),
    'very strong, in the south': read(maple({ vigour: 'strong', site: { hemisphere: 'south' } }), '2026-10-10'),
  }).toMatchInlineSnapshot(`
   {
     "collected last year": [
       "leave 0.04, used 0.65, if all 1.05",
       "Weak growth.",
       "Collected on 1 October 2025: leave it to root.",
       "October is not the best month for structural work on trident maple.",
       "The plan asks for more than this: leave part of it for the next session.",
       "heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
       "wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     ],
     "in late winter": [
       "go 0.63, used 0.65, if all 1.05",
       "Normal growth.",
       "Trident maple bleeds when cut before it is in leaf: cut after leafing, or late in summer.",
       "The plan asks for more than this: leave part of it for the next session.",
       "heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
       "wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     ],
     "in spring, repotted lately": [
       "leave 0.22, used 1.25, if all 1.65",
       "Normal growth.",
       "Repotted on 1 March 2026: its roots are still taking hold.",
       "May is not the best month for structural work on trident maple.",
       "The plan asks for more than this: leave part of it for the next session.",
       "green 0.60: {"work":"green","points":0.6,"text":"30% of the green now, of 50%"}",
       "heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
       "wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     ],
     "very strong, in the south": [
       "go 0.77, used 0.65, if all 1.05",
       "Strong growth.",
       "Trident maple bleeds when cut before it is in leaf: cut after leafing, or late in summer.",
       "heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
       "wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     ],
     "worked last week": [
       "go 0.72, used 0.65, if all 1.05",
       "Normal growth.",
       "October is not the best month for structural work on trident maple.",
       "heavy bends 0.50: {"work":"heavy bends","points":0.5,"text":"2 heavy bends"}",
       "wiring 0.15: {"work":"wiring","points":0.15,"text":"50% of the branches wired"}",
     ],
   }
  `);
});

test('cuts that are too many for one session are spread over days that the tree bears', () => {
  const greens = [0, 0.1, 0.12, 0.18, 0.2, 0.34];
  const many = after(
    tree(
      greens.map((green, i) => branch(`c${i}`, { at: 100 + i * 80, bearing: i * 70, green, ...(green ? {} : { state: 'dead' }) })),
      { species: 'spruce' },
    ),
    ...greens.map((_, i): Intent => ({ kind: 'decide', branch: `c${i}`, act: 'remove' })),
  );
  const spread = (t: Tree, on: string, room = 1, bears: (t: Tree, day: number) => boolean = () => true): string[] =>
    proposeSessions(t, dayOf(on), room, (id) => (id === 'c4' ? 3 : 0), bears)?.map(
      (x) => `${x.session} on ${x.on}: ${x.branches.join()}, ${x.green.toFixed(3)}. ${x.because}`,
    ) ?? ['at once'];
  expect({
    'a strong one': spread(many, '2026-03-10'),
    'little room today': spread(many, '2026-03-10', 0.3),
    'nothing today': spread(many, '2026-03-10', 0),
    'cut before': spread(after(many, { kind: 'take-off', on: '2026-01-10', branches: ['c3'] }), '2026-03-10'),
    'strong from a day on': spread(many, '2026-03-10', 1, (_, day) => day >= dayOf('2027-09-15')),
    'never strong': spread(many, '2026-03-10', 1, () => false),
    'in the south': spread({ ...many, site: { hemisphere: 'south' } }, '2026-03-10'),
    'few enough': spread(after(many, ...['c3', 'c4', 'c5'].map((b): Intent => ({ kind: 'decide', branch: b, act: 'keep' }))), '2026-03-10'),
  }).toMatchInlineSnapshot(`
   {
     "a strong one": [
       "1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2027-03-13: c2,c3, 0.300. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
       "3 on 2028-03-15: c5, 0.340. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     ],
     "cut before": [
       "1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2027-01-16: c4, 0.244. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
       "3 on 2028-01-19: c1,c2, 0.268. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
       "4 on 2029-01-21: c5, 0.415. Rested by then, the twelve months have room for it, and January does not speak against cutting spruce.",
     ],
     "few enough": [
       "at once",
     ],
     "in the south": [
       "1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2027-03-13: c2,c3, 0.300. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
       "3 on 2028-03-15: c5, 0.340. Rested by then, the twelve months have room for it, and March does not speak against cutting spruce.",
     ],
     "little room today": [
       "1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2026-06-06: c4,c1, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
       "3 on 2027-06-09: c2,c3, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
       "4 on 2028-06-11: c5, 0.340. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     ],
     "never strong": [
       "1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on null: c2,c3,c5, 0.300. No day within three years on which this tree would bear it: think again about some of it.",
     ],
     "nothing today": [
       "1 on 2026-03-10: c0, 0.000. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2026-06-06: c4,c1, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
       "3 on 2027-06-09: c2,c3, 0.300. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
       "4 on 2028-06-11: c5, 0.340. Rested by then, the twelve months have room for it, and June does not speak against cutting spruce.",
     ],
     "strong from a day on": [
       "1 on 2026-03-10: c0,c4,c1, 0.300. What the tree bears now: dead wood, what matters most, what costs least green.",
       "2 on 2027-09-18: c2,c3, 0.300. Rested by then, the twelve months have room for it, and September does not speak against cutting spruce.",
       "3 on 2028-09-20: c5, 0.340. Rested by then, the twelve months have room for it, and September does not speak against cutting spruce.",
     ],
   }
  `);
});

test('what follows from the cuts is said: before and after, losses, sessions, care', () => {
  const t = after(
    maple({ features: [{ kind: 'live vein', bearing: 80, z: [20, 100], good: true, weight: 1 }] }),
    { kind: 'decide', branch: 'low', act: 'remove' },
    { kind: 'decide', branch: 'right', act: 'shorten', length: 90 },
    { kind: 'decide', branch: 'back', act: 'stub', length: 25, stub: 'jin' },
  );
  const { losses, care, cuts, before, after: then, green } = consequencesOf(t, dayOf('2026-03-10'));
  expect({
    losses: losses.map((l) => `${l.branch} ${l.kind}: ${l.text}`),
    care,
    cuts: cuts.map(
      ({ tag, branch: b, where, what, along, widthMm, green: g }) => `${tag} ${b}: ${where}; ${what} ${along.join()} ${widthMm.toFixed(1)} mm, ${g.toFixed(3)}`,
    ),
    before: Object.entries(before).map(([k, v]) => `${k} ${typeof v === 'number' ? v.toFixed(3) : JSON.stringify(v)}`),
    after: Object.entries(then).map(([k, v]) => `${k} ${typeof v === 'number' ? v.toFixed(3) : JSON.stringify(v)}`),
    green: green.sessions.map((s) => `${s.session}: ${s.removed.toFixed(3)} of ${green.cap}`),
    found: findingsOf(placeTree(t), null).map((f) => `${f.branch} ${f.rule}: ${f.against.join(' | ')}`),
    worn: coilHistory(t, dayOf('2026-03-10')).length,
    on: isoOf(dayOf('2026-03-10')),
  }).toMatchInlineSnapshot(`
   {
     "after": [
       "score 0.702",
       "trunkInSight 1.000",
       "backBranch false",
     ],
     "before": [
       "score 0.739",
       "trunkInSight 0.998",
       "backBranch true",
     ],
     "care": {
       "people": [
         "Cutters and saws: keep the other hand behind the blade, and wear eye protection. Hold the branch that comes off.",
       ],
       "wounds": [
         "Trident maple bleeds when cut before it is in leaf. Wait until after leafing, or late summer: June, July, August, September.",
         "Cut flush and a little hollow with a sharp blade, so that the bark rolls over without a swelling.",
         "Close cuts over 8 mm with wound paste; look at its label.",
       ],
     },
     "cuts": [
       "1 low: 120 mm up the trunk, towards 9 o'clock (80°); Cut off at the trunk. twig 12.0 mm, 0.300",
       "2 right: 260 mm up the trunk, towards 3 o'clock (280°); Shorten to 90 mm.  6.8 mm, 0.183",
       "3 back: 380 mm up the trunk, towards 12 o'clock (180°); Cut to 25 mm and leave the stub for a jin.  7.4 mm, 0.150",
     ],
     "found": [],
     "green": [
       "1: 0.633 of 0.5",
     ],
     "losses": [
       "low green: it carries 30% of the green.",
       "low gap: nothing else stands to this side at its height.",
       "low vein: it is the last living branch on the live vein at 80°.",
       "back back: it is the only back branch.",
       "back gap: nothing else stands to this side at its height.",
     ],
     "on": "2026-03-10",
     "worn": 0,
   }
  `);
});
