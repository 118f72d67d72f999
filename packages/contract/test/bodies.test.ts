import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { ActBody, CaliperPressBody, descriptionOf, fieldFaults, MadeUpBody, NewTreeBody, StepBody } from '../src/bodies/index.js';
import { paths } from '../src/index.js';

type Body = new () => object;

/** A sound body of each kind, and what each of its fields refuses. */
const CASES: [body: Body, sound: Record<string, unknown>, refuses: Record<string, unknown[]>][] = [
  [
    ActBody,
    { revision: 1, act: { id: 'a1', on: '2026-05-20', kind: 'decide', branch: 'b1', act: 'stub', stub: 'jin', length: 30 } },
    {
      revision: [0, 1.5, '1'],
      act: [
        undefined,
        null,
        {},
        { id: 'a1', on: '2026-05-20', kind: 'fly' },
        { id: 'a 1', on: '2026-05-20', kind: 'note' },
        { id: 'a1', on: '2026-02-30', kind: 'note' },
        { id: 'a1', on: '2026-05-20', kind: 'inspected', branch: 'b1' },
        { id: 'a1', on: '2026-05-20', kind: 'note', stage: 'clear' },
        { id: 'a1', on: '2026-05-20', kind: 'front', front: { bearing: 361, pitch: 0, roll: 0 } },
      ],
    },
  ],
  [ActBody, { act: { id: 'a1', on: '2026-05-20', kind: 'note', text: 'Full buds.' } }, {}],
  [StepBody, { id: 's1', kind: 'undo', revision: 4 }, { kind: ['back', undefined], revision: [0, undefined], id: ['', 'x'.repeat(65)] }],
  [NewTreeBody, { name: 'Plover', species: 'olive' }, { name: ['', 'x'.repeat(121), undefined, 'a\u0000b', 'half \ud800'], species: ['', undefined] }],
  [
    MadeUpBody,
    { name: 'Plover', species: 'olive', seed: 0, age: 30, form: 'clump', faults: ['bar'] },
    { seed: [-1, 2147483648, 1.5, undefined], age: [2, 301], form: ['bush'], faults: [['luck'], Array(21).fill('bar'), 'bar'] },
  ],
  [CaliperPressBody, {}, { near: [0.2, 401, '3'] }],
];

const faultsIn = (body: Body, value: object): string[] =>
  validateSync(plainToInstance(body, value), { whitelist: true, forbidNonWhitelisted: true }).map((e) => e.property);

test.each(CASES)('%p takes a sound body, and of each field refuses what its description does', (body, sound, refuses) => {
  expect(faultsIn(body, sound)).toEqual([]);
  for (const [field, values] of Object.entries(refuses))
    for (const value of values) expect([field, value, faultsIn(body, { ...sound, [field]: value })]).toEqual([field, value, [field]]);
  expect(faultsIn(body, { ...sound, sneaky: 1 })).toEqual(['sneaky']);
});

test('a fault says where in the field it is, and what was asked for', () => {
  const { act } = descriptionOf(ActBody)!.properties;
  const wire = { id: 'a', on: '2026-05-20', kind: 'wired', branch: 'b1', metal: 'copper', size: 40, strands: 1, angle: 45, hand: 'cw', start: 'over' };
  expect(fieldFaults(act!, 'act', wire)).toEqual([{ path: 'act.size', code: 'range', message: 'It must be between 0.3 and 12 mm; it is 40.' }]);
  expect(fieldFaults(act!, 'act', { ...wire, size: 2, hand: 'left' })).toMatchObject([{ path: 'act.hand', message: expect.stringMatching(/one of: cw, ccw/) }]);
});

test('ids in addresses are escaped', () => {
  expect(paths.tree('a/b')).toBe('/api/trees/a%2Fb');
  expect(paths.importTree('a&b')).toBe('/api/trees/import?id=a%26b');
});
