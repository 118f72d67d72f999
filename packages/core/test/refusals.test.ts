import { applyAct, dayOf, isRefused, namesOf, sayAct, type Intent, type Tree } from '../src/index.js';
import { actFrom, after, branch, tree } from './trees.js';

const TODAY = dayOf('2026-10-10');
const start = tree([
  branch('b1', { at: 120, bearing: 90 }),
  branch('b2', {
    at: 200,
    bearing: 270,
    path: [
      [0, 0, 0],
      [-80, 0, 20],
      [-180, 20, 30],
    ],
  }),
  branch('b3', { parent: 'b1', at: 90, bearing: 60, length: 90, d: 5, tipD: 2 }),
]);
const wiredOnce = after(start, {
  kind: 'wired',
  branch: 'b1',
  metal: 'copper',
  size: 2,
  strands: 1,
  angle: 45,
  hand: 'cw',
  start: 'over',
  on: '2026-09-01',
} as Intent);
const wiredTwice: Tree = {
  ...start,
  record: ['w1', 'w2'].map((run) => ({ id: run, on: '2026-09-01', kind: 'wired' as const, branch: 'b1', run, metal: 'copper' as const, size: 2 })),
};
const clients = after({ ...start, client: 'The net loft' }, { kind: 'decide', branch: 'b2', act: 'remove' });

/** What each act refuses: the field that is named, the kind of fault, and words that the artist can act on. */
const REFUSED: [name: string, on: Tree, intent: Intent, field: string, code: string, words: RegExp][] = [
  ['a decision on what is not there', start, { kind: 'decide', branch: 'b9', act: 'keep' }, 'branch', 'not-found', /b9/],
  ['shortening to more than there is', start, { kind: 'decide', branch: 'b1', act: 'shorten', length: 200 }, 'length', 'value', /200 mm long.*shorter/],
  [
    'shortening to a shoot of another branch',
    start,
    { kind: 'decide', branch: 'b2', act: 'shorten', toShoot: 'b3' },
    'toShoot',
    'value',
    /does not grow on that branch/,
  ],
  ['waiting for itself', start, { kind: 'decide', branch: 'b1', act: 'reserve', untilSet: 'b1' }, 'untilSet', 'value', /its own bend/],
  ['waiting for what is not there', start, { kind: 'decide', branch: 'b1', act: 'reserve', untilSet: 'b9' }, 'untilSet', 'not-found', /b9/],
  ['putting off what is not there', start, { kind: 'put-off', branches: ['b1', 'b9'], session: 2, until: null }, 'branches', 'not-found', /b9/],
  ['a look put off where no wire is', start, { kind: 'snoozed', branch: 'b1', until: '2026-11-01', text: 'away' }, 'branch', 'not-found', /No wire/],
  ['a look put off to the past', wiredOnce, { kind: 'snoozed', branch: 'b1', until: '2026-10-01', text: 'away' }, 'until', 'value', /later day/],
  ['a look put off for a year', wiredOnce, { kind: 'snoozed', branch: 'b1', until: '2027-10-01', text: 'away' }, 'until', 'value', /12 weeks at most/],
  ['a look put off for nothing', wiredOnce, { kind: 'snoozed', branch: 'b1', until: '2026-11-01', text: '  ' }, 'text', 'missing', /Say why/],
  ['wire off where two pieces are on', wiredTwice, { kind: 'unwired', on: '2026-10-01', branch: 'b1' }, 'run', 'choice', /\(w1, w2\): say which/],
  ['a look at one of two pieces', wiredTwice, { kind: 'inspected', on: '2026-10-01', branch: 'b1', stage: 'deep' }, 'run', 'choice', /say which/],
  ['either of one', start, { kind: 'either', a: 'b1', b: 'b1' }, 'b', 'choice', /two branches/],
  ['either with nobody', start, { kind: 'either', a: 'b1', b: 'b9' }, 'b', 'not-found', /b9/],
  ['a tip thicker than its base', start, { kind: 'remeasure', branch: 'b1', changes: { tipD: 12 } }, 'tipD', 'range', /12 mm.*9 mm/],
  ['green beyond the whole', start, { kind: 'remeasure', branch: 'b1', changes: { green: 0.99 } }, 'green', 'green-sum', /green|foliage/i],
  [
    'a path that begins elsewhere',
    start,
    {
      kind: 'remeasure',
      branch: 'b2',
      changes: {
        path: [
          [1, 0, 0],
          [50, 0, 0],
        ],
      },
    },
    'path',
    'range',
    /shoulder/,
  ],
  ['growing on itself', start, { kind: 'remeasure', branch: 'b1', changes: { parent: 'b3' } }, 'parent', 'cycle', /cannot grow on itself/],
  ['growing on nothing', start, { kind: 'remeasure', branch: 'b1', changes: { parent: 'b9' } }, 'parent', 'not-found', /b9/],
  ['an id used already', start, { kind: 'list-branch', branch: branch('b2'), after: null }, 'branch', 'duplicate', /"b2" is used already/],
  ['an id that means something else', start, { kind: 'list-branch', branch: branch('trunk'), after: null }, 'branch', 'duplicate', /"trunk"/],
  ['a place behind nobody', start, { kind: 'list-branch', branch: branch('b4'), after: 'b9' }, 'after', 'not-found', /b9/],
  ['taking out what is not listed', start, { kind: 'unlist', branches: ['b9'] }, 'branches', 'not-found', /b9/],
  ['rules of no name', start, { kind: 'rules', profile: 'wild', limits: {}, rules: {} }, 'profile', 'choice', /one of: .*clump/],
  ['a limit of no name', start, { kind: 'rules', profile: 'clump', limits: { wild: 1 }, rules: {} }, 'limits', 'unknown-field', /limits\.wild/],
  ['a limit out of bounds', start, { kind: 'rules', profile: 'clump', limits: { crossingMm: 1e6 }, rules: {} }, 'limits', 'range', /between .* and /],
  ['a rule of no name', start, { kind: 'rules', profile: 'clump', limits: {}, rules: { wild: true } }, 'rules', 'unknown-field', /rules\.wild/],
  ['cutting what was not decided', start, { kind: 'take-off', branches: ['b1'] }, 'branches', 'not-decided', /Decide that first/],
  ["cutting a client's tree unasked", clients, { kind: 'take-off', branches: ['b2'] }, 'branches', 'not-agreed', /The net loft.*agreed/],
  ['a line on a branch that is not there', start, { kind: 'inspected', branch: 'b9', stage: 'clear' }, 'branch', 'not-found', /b9/],
  ['correcting a line that is not there', start, { kind: 'withdrawn', corrects: 'a99' }, 'corrects', 'not-found', /a99/],
  ['a day to come', start, { kind: 'repotted', on: '2026-10-11' } as Intent, 'on', 'not-yet', /has not come yet/],
];

test.each(REFUSED)('%s is refused in words, and nothing is changed', (_, on, intent, field, code, words) => {
  const before = JSON.stringify(on);
  const outcome = applyAct(on, actFrom(intent), TODAY);
  if (!isRefused(outcome)) throw new Error('was done');
  expect(outcome.refused[0]).toMatchObject({ field, code, message: expect.stringMatching(words) });
  expect(JSON.stringify(on)).toBe(before);
});

/** What each act of the plan changes, and nothing else; and how History says it. */
const DONE: [intent: Intent, plan: object, said: RegExp][] = [
  [{ kind: 'decide', branch: 'b1', act: 'shorten', length: 120 }, { decisions: [{ branch: 'b1', act: 'shorten', length: 120 }] }, /^shorten first left$/],
  [
    { kind: 'decide', branch: 'b2', act: 'reserve', until: '2027-03-01' },
    { decisions: [{ branch: 'b2', act: 'reserve', until: '2027-03-01' }] },
    /hold in reserve: first right/,
  ],
  [{ kind: 'either', a: 'b1', b: 'b2' }, { either: [['b1', 'b2']] }, /^either first left or first right$/],
  [{ kind: 'front', front: { bearing: 30, pitch: 0, roll: 0 } }, { front: { bearing: 30, pitch: 0, roll: 0 } }, /30/],
  [{ kind: 'manner', firmness: 'firm' }, { firmness: 'firm' }, /firm/],
  [{ kind: 'manner', tolerance: 'fading' }, { tolerance: 'fading' }, /marks that fade/],
  [{ kind: 'rules', profile: 'clump', limits: {}, rules: {} }, { removal: { profile: 'clump', limits: {}, rules: {} } }, /clump/],
];

test.each(DONE)('%j changes the plan as it says', (intent, changes, said) => {
  const act = actFrom(intent);
  const outcome = applyAct(start, act, TODAY);
  if (isRefused(outcome)) throw new Error(outcome.refused[0]!.message);
  expect(outcome.tree).toEqual({ ...start, plan: { ...start.plan, ...changes } });
  expect(outcome.lines).toEqual([]);
  expect(sayAct(act, namesOf(start))).toMatch(said);
});

test('either said again is taken back; a decision of another fate lets the details of the first one go', () => {
  const once = after(start, { kind: 'either', a: 'b1', b: 'b2' });
  expect(after(once, { kind: 'either', a: 'b2', b: 'b1' }).plan.either).toEqual([]);
  const shortened = after(start, { kind: 'decide', branch: 'b1', act: 'shorten', length: 120, why: 'leggy' });
  expect(after(shortened, { kind: 'decide', branch: 'b1', act: 'keep' }).plan.decisions).toEqual([{ branch: 'b1', act: 'keep', why: 'leggy' }]);
  expect(after(shortened, { kind: 'decide', branch: 'b1', act: 'undecided' }).plan.decisions).toEqual([]);
});

test('a branch listed stands behind the one named; taken out it takes its own along', () => {
  const order = (t: Tree): string[] => t.branches.map((b) => b.id);
  expect(order(after(start, { kind: 'list-branch', branch: branch('b4'), after: 'b1' }))).toEqual(['b1', 'b4', 'b2', 'b3']);
  expect(order(after(start, { kind: 'list-branch', branch: branch('b4'), after: null }))).toEqual(['b4', 'b1', 'b2', 'b3']);
  expect(order(after(start, { kind: 'unlist', branches: ['b1'] }))).toEqual(['b2']);
});

test('wire put on another branch of its own run leaves the other one in it; the line has what the coil is', () => {
  const wire = { metal: 'copper' as const, size: 2.05, strands: 1, angle: 45, hand: 'cw' as const, start: 'over' as const };
  const planned: Tree = {
    ...start,
    plan: {
      ...start.plan,
      runs: [
        {
          id: 'w1',
          ...wire,
          branches: [
            { branch: 'b1', hand: 'cw', start: 'over' },
            { branch: 'b2', hand: 'ccw', start: 'over' },
          ],
        },
      ],
    },
  };
  const same = after(planned, { kind: 'wired', branch: 'b1', ...wire, bentDeg: 40 });
  expect(same.plan).toEqual(planned.plan);
  expect(same.record[0]).toMatchObject({ kind: 'wired', branch: 'b1', run: 'w1', size: 2.05, gap: 0, wrap: 'none', bentDeg: 40 });
  const thicker = after(planned, { kind: 'wired', branch: 'b1', ...wire, size: 2.59 });
  expect(thicker.plan.runs.map((r) => [r.id, r.size, r.branches.map((b) => b.branch)])).toEqual([
    ['w1', 2.05, ['b2']],
    ['w2', 2.59, ['b1']],
  ]);
});
