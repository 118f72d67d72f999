import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import {
  CaliperPressBody,
  CutBody,
  DecisionBody,
  EitherBody,
  EntryBody,
  FrontBody,
  MadeUpBody,
  MeasuredBody,
  NewTreeBody,
  paths,
  ReadingBody,
  RulesBody,
  SessionBody,
  WiredBody,
} from '../src/index.js';

type Body = new () => object;

/** A sound body of each kind, and what each of its fields refuses. */
const CASES: [body: Body, sound: Record<string, unknown>, refuses: Record<string, unknown[]>][] = [
  [
    FrontBody,
    { revision: 1, front: { bearing: 0, pitch: 0, roll: 0 } },
    {
      revision: [0, 1.5, '1', null],
      front: [
        { bearing: 361, pitch: 0, roll: 0 },
        { bearing: 0, pitch: 46, roll: 0 },
        { bearing: 0, pitch: 0 },
      ],
    },
  ],
  [FrontBody, { revision: 1, front: null }, {}],
  [
    DecisionBody,
    { revision: 3, act: 'stub', stub: 'jin', length: 30, session: 2, until: '2026-10-01', why: 'too low' },
    {
      act: ['burn', '', null],
      stub: ['twig', 3],
      length: [0, 4001, '30'],
      session: [0, 21, 1.5],
      until: ['soon', '2026-13-01', '2027-02-29'],
      untilSet: ['no such id!', 7],
      untilD: [0, 601],
      toShoot: ['', 'b 1'],
      why: ['x'.repeat(1001), 5],
    },
  ],
  [DecisionBody, { revision: 3, act: 'reserve', until: null, untilSet: null, length: null, stub: null }, {}],
  [SessionBody, { revision: 1, branches: ['b1'], session: 2, until: null }, { branches: [[], 'b1', ['b 1']], session: [0, 21], until: ['later', undefined] }],
  [EitherBody, { revision: 1, a: 'b1', b: 'b2' }, { a: [undefined, '', 3], b: [undefined, 'b 2'] }],
  [
    RulesBody,
    { revision: 1, profile: 'refinement', limits: { barDeg: 25, shadesGap: 0.2 }, rules: { low: false } },
    { profile: ['mine', undefined], limits: [{ barDeg: 1000 }, { barDeg: '25' }, { luck: 1 }, 5], rules: [{ low: 'no' }, { luck: true }, null] },
  ],
  [CutBody, { revision: 1, on: '2026-05-20', branches: ['b1', 'b2'] }, { on: ['today', '2026-02-30', undefined], branches: [[], [''], undefined] }],
  [
    WiredBody,
    {
      revision: 1,
      on: '2026-05-20',
      branch: 'b1',
      metal: 'copper',
      size: 2,
      strands: 1,
      angle: 45,
      hand: 'cw',
      start: 'over',
      gap: 0,
      wrap: 'none',
      bentDeg: 40,
      targetDeg: 35,
      over: 60,
    },
    {
      on: ['2026-5-20', '2026-02-30', undefined],
      branch: ['', undefined],
      metal: ['gold', undefined],
      size: [0.2, 13, NaN, undefined],
      strands: [0, 7, 1.5],
      angle: [19, 81],
      hand: ['left'],
      start: ['top'],
      gap: [-1, 21],
      wrap: ['cloth'],
      bentDeg: [0, 181],
      targetDeg: [0, 181],
      over: [0, 4001],
    },
  ],
  [
    EntryBody,
    { on: '2026-05-20', kind: 'inspected', branch: 'b1', stage: 'touching' },
    { kind: ['burnt', 'wired', undefined], stage: ['fine', undefined], gap: [-1, 21] },
  ],
  [EntryBody, { on: '2026-05-20', kind: 'unwired', branch: 'b1', method: 'cut', heldDeg: 30 }, { method: ['torn'], heldDeg: [-181, 271] }],
  [
    EntryBody,
    { on: '2026-05-20', kind: 'agreed', by: 'their steward', branches: ['b1'] },
    { by: [undefined, '', 'x'.repeat(121)], branches: [undefined, [], ['']] },
  ],
  [EntryBody, { on: '2026-05-20', kind: 'withdrawn', corrects: 'r1' }, { corrects: [undefined, 'r 1'] }],
  [EntryBody, { on: '2026-05-20', kind: 'note', text: 'Full buds.' }, { on: ['2026-02-30'], text: ['x'.repeat(5001), 4] }],
  [
    ReadingBody,
    { revision: 1, on: '2026-05-20', signs: ['dense'], season: null },
    { signs: ['dense', [4], Array(31).fill('a')], season: ['monsoon', undefined], on: [''] },
  ],
  [ReadingBody, { revision: 1, on: '2026-05-20', signs: [], season: 'hardened' }, {}],
  [NewTreeBody, { name: 'Gull', species: 'larch' }, { name: ['', 'x'.repeat(121), undefined], species: ['', undefined] }],
  [
    MadeUpBody,
    { name: 'Gull', species: 'larch', seed: 4, age: 40, faults: ['bar'] },
    { seed: [-1, 1.5, 2 ** 31], age: [2, 301, 'old'], faults: [['thorns'], 'bar'] },
  ],
  [MeasuredBody, { revision: 2, measured: { branches: [] } }, { measured: [undefined, 'branches', 4] }],
  [CaliperPressBody, { near: 12 }, { near: [0.2, 401, 'thin'] }],
  [CaliperPressBody, {}, {}],
];

/** The fields found at fault, with their sentences. */
function faults(body: Body, value: Record<string, unknown>): { field: string; sentences: string[] }[] {
  const found = validateSync(plainToInstance(body, value), { whitelist: true, forbidNonWhitelisted: true });
  return found.map((e) => ({
    field: e.property,
    sentences: Object.values({ ...e.constraints, ...(e.children ?? []).reduce((all, c) => ({ ...all, ...c.constraints }), {}) }),
  }));
}

test.each(CASES)('%p takes %j', (body, sound) => {
  expect(faults(body, sound)).toEqual([]);
});

test.each(
  CASES.flatMap(([body, sound, refuses]) =>
    Object.entries(refuses).flatMap(([field, values]) => values.map((value) => [body.name, field, value, body, sound] as const)),
  ),
)('%s refuses %s: %j, naming the field', (_name, field, value, body, sound) => {
  const found = faults(body, { ...sound, [field]: value });
  expect(found.map((f) => f.field)).toEqual([field]);
  expect(found[0]!.sentences.length).toBeGreaterThan(0);
  for (const sentence of found[0]!.sentences) expect(sentence.length).toBeGreaterThan(10);
});

test('what no body knows is refused, and addresses carry ids safely', () => {
  for (const [body, sound] of CASES) expect(faults(body, { ...sound, sneaky: 1 }).map((f) => f.field)).toEqual(['sneaky']);
  expect(paths.decision('a/b', 'x?y')).toBe('/api/trees/a%2Fb/plan/decisions/x%3Fy');
  expect(paths.plan('t', '2026-01-01')).toBe('/api/trees/t/plan?on=2026-01-01');
});
