import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { checkTree } from '../src/index.js';
import { fullTree } from './full-tree.js';

/** The limits a person relies on, written here apart from the schema: place in the file, least and most. */
const LIMITS: [path: string, low: number, high: number][] = [
  ['/pot/width', 20, 3000],
  ['/pot/depth', 20, 3000],
  ['/pot/height', 5, 1500],
  ['/pot/holes/0/bearing', 0, 360],
  ['/pot/holes/0/radius', 0, 1500],
  ['/trunk/0/x', -5000, 5000],
  ['/trunk/0/y', -5000, 5000],
  ['/trunk/0/z', -3000, 5000],
  ['/trunk/0/d', 0.5, 1000],
  ['/roots/0/bearing', 0, 360],
  ['/roots/0/length', 1, 2000],
  ['/roots/0/d', 0.5, 500],
  ['/branches/0/at', 0, 6000],
  ['/branches/0/bearing', 0, 360],
  ['/branches/0/elevation', -90, 90],
  ['/branches/0/length', 1, 4000],
  ['/branches/0/d', 0.3, 400],
  ['/branches/0/tipD', 0.1, 400],
  ['/branches/0/bareTo', 0, 1],
  ['/branches/0/green', 0, 1],
  ['/branches/1/path/1/2', -5000, 5000],
  ['/features/0/bearing', 0, 360],
  ['/features/0/z/0', -3000, 5000],
  ['/features/0/weight', 0, 10],
  ['/plan/front/bearing', 0, 360],
  ['/plan/front/pitch', -45, 45],
  ['/plan/front/roll', -45, 45],
  ['/plan/pinned/0/bearing', 0, 360],
  ['/plan/pinned/0/pitch', -45, 45],
  ['/plan/decisions/0/length', 1, 4000],
  ['/plan/decisions/0/session', 1, 20],
  ['/plan/decisions/1/untilD', 1, 600],
  ['/plan/poses/0/bearing', 0, 360],
  ['/plan/poses/0/elevation', -90, 90],
  ['/plan/poses/0/bends/0/at', 0, 4000],
  ['/plan/poses/0/bends/0/angle', 0.1, 270],
  ['/plan/poses/0/bends/0/over', 1, 4000],
  ['/plan/poses/0/bends/0/toward/elevation', -90, 90],
  ['/plan/runs/0/size', 0.3, 12],
  ['/plan/runs/0/strands', 1, 6],
  ['/plan/runs/0/angle', 20, 80],
  ['/plan/guys/0/at', 0, 4000],
  ['/plan/guys/0/wire', 0.3, 12],
  ['/record/0/size', 0.3, 12],
  ['/record/0/strands', 1, 6],
  ['/record/0/angle', 20, 80],
  ['/record/0/gap', 0, 20],
  ['/record/0/bentDeg', 0, 270],
  ['/record/0/targetDeg', 0, 270],
  ['/record/0/over', 1, 4000],
  ['/record/1/heldDeg', -180, 270],
  ['/record/2/length', 0, 4000],
  ['/record/2/green', 0, 1],
  ['/record/2/was/0/d', 0.3, 400],
];

const CHOICES: [path: string, words: string[]][] = [
  ['/vigour', ['weak', 'normal', 'strong', 'free', 'refined']],
  ['/site/hemisphere', ['north', 'south']],
  ['/pot/shape', ['oval', 'round', 'rectangle']],
  ['/branches/0/state', ['dead', 'blind', 'weak', 'normal', 'strong']],
  ['/branches/0/stage', ['shoot', 'wood']],
  ['/plan/decisions/0/act', ['keep', 'remove', 'shorten', 'stub', 'reserve', 'sacrifice', 'undecided']],
  ['/plan/runs/0/metal', ['aluminium', 'copper']],
  ['/plan/runs/0/branches/0/hand', ['cw', 'ccw']],
  ['/plan/runs/0/branches/0/start', ['over', 'under']],
  ['/record/0/wrap', ['none', 'raffia', 'tape']],
];

const NEEDED = [
  '/format',
  '/version',
  '/name',
  '/species',
  '/vigour',
  '/site',
  '/site/hemisphere',
  '/pot',
  '/pot/width',
  '/trunk',
  '/trunk/0/d',
  '/roots/0/bearing',
  '/branches',
  '/branches/0/id',
  '/branches/0/parent',
  '/branches/0/at',
  '/branches/0/bearing',
  '/branches/0/length',
  '/branches/0/d',
  '/branches/0/green',
  '/branches/0/state',
  '/features/0/kind',
  '/plan',
  '/plan/decisions/0/branch',
  '/plan/decisions/0/act',
  '/plan/runs/0/branches',
  '/plan/guys/0/anchor',
  '/record/0/on',
  '/record/0/kind',
];

const DATES = ['/repottedOn', '/styledOn', '/collectedOn', '/plan/decisions/0/until', '/record/0/on'];

/** The full tree with one place changed (or taken out). */
function changed(path: string, value: unknown): unknown {
  const tree = structuredClone(fullTree) as unknown as Record<string, unknown>;
  const keys = path.slice(1).split('/');
  const last = keys.pop()!;
  const at = keys.reduce<Record<string, unknown>>((here, key) => here[key] as Record<string, unknown>, tree);
  if (value === undefined) Reflect.deleteProperty(at, last);
  else at[last] = value;
  return tree;
}

const faults = (path: string, value: unknown): string[] => {
  const read = checkTree(changed(path, value));
  return 'faults' in read ? read.faults.map((f) => `${f.path} ${f.code}`) : [];
};

test('the full tree is sound', () => {
  expect(checkTree(fullTree)).toHaveProperty('tree');
});

test.each(LIMITS)('%s lies between %d and %d', (path, low, high) => {
  const step = Math.max(1e-3, Math.abs(high) * 1e-6);
  expect(faults(path, low - step)).toContain(`${path} range`);
  expect(faults(path, high + step)).toContain(`${path} range`);
  // What fits by itself may still not fit its neighbours; it is not out of range.
  expect(faults(path, low).filter((f) => f === `${path} range` && !path.endsWith('/d'))).toEqual([]);
  expect(faults(path, high).filter((f) => f === `${path} range` && !path.endsWith('tipD'))).toEqual([]);
  for (const wrong of ['wide', null, [], true]) expect(faults(path, wrong).length).toBeGreaterThanOrEqual(wrong === null && /decisions/.test(path) ? 0 : 1);
});

test.each(CHOICES)('%s is one of %j', (path, words) => {
  // Another fate may have other details, which is another fault.
  for (const word of words) expect(faults(path, word).filter((f) => !f.endsWith('foreign-field'))).toEqual([]);
  expect(faults(path, 'otherwise')).toContain(`${path} choice`);
});

test.each(NEEDED)('%s is needed', (path) => {
  expect(faults(path, undefined)).toContain(`${path} required`);
});

test.each(DATES)('%s is a day of the calendar', (path) => {
  expect(faults(path, '2024-02-29')).toEqual([]);
  for (const wrong of ['2025-02-29', '2025-13-01', '1 March', '2025-3-1']) expect(faults(path, wrong)).toContain(`${path} date`);
});

test('the schema that ships and the field table are as described', async () => {
  const { docText, schemaText } = await import('../../../scripts/describe.mjs');
  const squeezed = (text: string): string => text.replace(/ {2,}|-{3,}/g, ' ').replace(/\n{2,}/g, '\n');
  expect(readFileSync(resolve(__dirname, '../tree.schema.json'), 'utf8')).toBe(schemaText());
  const doc = readFileSync(resolve(__dirname, '../../../docs/tree-file.md'), 'utf8');
  expect(squeezed(doc)).toBe(squeezed(docText(doc)));
});

test('the schema that ships says the same limits', () => {
  const schema = JSON.parse(readFileSync(resolve(__dirname, '../tree.schema.json'), 'utf8'));
  for (const [path, low, high] of LIMITS) {
    let at = schema;
    for (const key of path.slice(1).split('/')) {
      at = /^\d+$/.test(key) ? at.items : at.properties[key];
      if (at.anyOf) [at] = at.anyOf;
      // Of a union every shape that has the field says the same of it.
      if (at.oneOf) at = { items: at.items, properties: Object.assign({}, ...at.oneOf.map((shape: { properties: object }) => shape.properties)) };
    }
    expect([path, at.minimum, at.maximum]).toEqual([path, low, high]);
  }
});
