import { Type, type TSchema } from '@sinclair/typebox';
import { LINE } from './lines.js';
import { MEASURES } from './measures.js';
import { PLAN_FIELDS } from './plan-parts.js';
import { senseFaults, type FileFault } from './sense.js';
import { fits, sayRule } from './sentences.js';
import { MOST_LINES, type Tree } from './types.js';

const OWN = Type.Object(MEASURES, { description: 'its measures' });
const PLAN = Type.Object(PLAN_FIELDS, { description: 'what is planned' });

type Fields = Record<string, TSchema>;
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The shape of a union that a value says it has, by its tag. */
function shapeOf(schema: TSchema, value: Record<string, unknown>): TSchema | undefined {
  const tag = (schema.discriminator as { propertyName: string }).propertyName;
  return (schema.oneOf as TSchema[]).find((s) => (s.properties as Fields)[tag]!.const === value[tag]);
}

/** Where a value is not as its description asks; what is the very same as in `before` was held against it then. Needs nothing compiled. */
function outside(schema: TSchema, value: unknown, path: string, before?: unknown): FileFault[] {
  if (value === before && typeof value === 'object') return [];
  const fault = (code = 'limit'): FileFault[] => [{ path: path || '/', code, message: `${schema.description ?? path}: must be ${sayRule(schema)}.` }];
  if (schema.anyOf) return value === null ? [] : outside((schema.anyOf as TSchema[])[0]!, value, path, before);
  if (schema.oneOf) {
    const shape = isObject(value) ? shapeOf(schema, value) : undefined;
    return shape ? outside(shape, value, path, before) : fault();
  }
  if (schema.type === 'array') {
    if (!Array.isArray(value)) return fault();
    const was = Array.isArray(before) ? before : [];
    const count = value.length > (schema.maxItems as number) || value.length < (schema.minItems as number) ? fault('count') : [];
    return [...count, ...value.flatMap((v, i) => outside(schema.items as TSchema, v, `${path}/${i}`, was[i]))];
  }
  if (schema.type === 'object') {
    if (!isObject(value)) return fault();
    const was = isObject(before) ? before : {};
    return [
      ...((schema.required ?? []) as string[])
        .filter((key) => value[key] === undefined)
        .map((key) => ({ path: `${path}/${key}`, code: 'required', message: `"${key}" is missing.` })),
      ...Object.entries((schema.properties ?? {}) as Fields).flatMap(([key, own]) =>
        value[key] === undefined ? [] : outside(own, value[key], `${path}/${key}`, was[key]),
      ),
    ];
  }
  return schema.const !== undefined || fits(schema, value) ? [] : fault();
}

/** Why a tree made of another one could not be written and read again; nothing where it can. Only what is new is looked at. docs: Acts. */
export function unreadable(before: Tree, after: Tree): FileFault[] {
  const faults = [
    ...outside(OWN, after, '', before),
    ...outside(PLAN, after.plan, '/plan', before.plan),
    ...after.record.slice(before.record.length).flatMap((line, i) => outside(LINE, line, `/record/${before.record.length + i}`)),
  ];
  if (after.record.length > MOST_LINES) faults.push({ path: '/record', code: 'limit', message: `The record of one tree holds ${MOST_LINES} lines at most.` });
  if (faults.length) return faults;
  const senseless = senseFaults(after);
  // What was wrong before is not this change's fault, and must not stand in its way.
  const known = new Set(senseless.length ? senseFaults(before).map((f) => f.path + f.code) : []);
  return senseless.filter((f) => !known.has(f.path + f.code));
}

/** What makes a tree unlikely, or too large, and no less a tree that can be worked with. */
const BEARABLE = new Set(['count', 'shape', 'green-sum']);

/** Why what is kept of a tree is none that can be worked with; null where it is. */
export function brokenTree(kept: unknown): FileFault | null {
  if (!isObject(kept) || !isObject(kept.plan) || !Array.isArray(kept.record)) return { path: '/', code: 'type', message: 'It lacks its plan or its record.' };
  const faults = [...outside(OWN, kept, ''), ...outside(PLAN, kept.plan, '/plan'), ...kept.record.flatMap((line, i) => outside(LINE, line, `/record/${i}`))];
  const isGrave = (f: FileFault): boolean => !BEARABLE.has(f.code);
  return faults.find(isGrave) ?? senseFaults(kept as unknown as Tree).find(isGrave) ?? null;
}
