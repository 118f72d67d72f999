import type { TSchema } from '@sinclair/typebox';
import { LINE } from './lines.js';
import { MEASURES } from './measures.js';
import { PLAN_FIELDS } from './plan-parts.js';
import { senseFaults, type FileFault } from './sense.js';
import { fits, sayRule } from './sentences.js';
import { MOST_LINES, type Tree } from './types.js';

type Fields = Record<string, TSchema>;
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The shape of a union that a value says it has, by its tag. */
function shapeOf(schema: TSchema, value: Record<string, unknown>): TSchema | undefined {
  const tag = (schema.discriminator as { propertyName: string }).propertyName;
  return (schema.oneOf as TSchema[]).find((s) => (s.properties as Fields)[tag]!.const === value[tag]);
}

/** Where a value is not as its description asks; what is the very same as in `before` was held against it then. */
function outside(schema: TSchema, value: unknown, path: string, before?: unknown): FileFault[] {
  if (value === before && typeof value === 'object') return [];
  const fault = (): FileFault[] => [{ path, code: 'limit', message: `${schema.description ?? path}: must be ${sayRule(schema)}.` }];
  if (schema.anyOf) return value === null ? [] : outside((schema.anyOf as TSchema[])[0]!, value, path, before);
  if (schema.oneOf) {
    const shape = isObject(value) ? shapeOf(schema, value) : undefined;
    return shape ? outside(shape, value, path, before) : fault();
  }
  if (schema.type === 'array') {
    if (!Array.isArray(value) || value.length > (schema.maxItems as number) || value.length < (schema.minItems as number)) return fault();
    const was = Array.isArray(before) ? before : [];
    return value.flatMap((v, i) => outside(schema.items as TSchema, v, `${path}/${i}`, was[i]));
  }
  if (schema.type === 'object') return isObject(value) ? outsideOf((schema.properties ?? {}) as Fields, value, path, isObject(before) ? before : {}) : fault();
  return schema.const !== undefined || fits(schema, value) ? [] : fault();
}

function outsideOf(fields: Fields, value: Record<string, unknown>, path: string, before: Record<string, unknown>): FileFault[] {
  return Object.entries(fields).flatMap(([key, schema]) => (value[key] === undefined ? [] : outside(schema, value[key], `${path}/${key}`, before[key])));
}

/** Why a tree made of another one could not be written and read again; nothing where it can. Only what is new is looked at. docs: Acts. */
export function unreadable(before: Tree, after: Tree): FileFault[] {
  const faults = [
    ...outsideOf(MEASURES, after, '', before),
    ...outsideOf(PLAN_FIELDS, after.plan, '/plan', before.plan),
    ...after.record.slice(before.record.length).flatMap((line, i) => outside(LINE, line, `/record/${before.record.length + i}`)),
  ];
  if (after.record.length > MOST_LINES) faults.push({ path: '/record', code: 'limit', message: `The record of one tree holds ${MOST_LINES} lines at most.` });
  return faults.length ? faults : senseFaults(after);
}
