import type { TSchema } from '@sinclair/typebox';
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { isDay, sayRule, MOST_FAULTS, type FileFault } from '@ustle/core';

// Checks are compiled when they are first asked for, while somebody waits: not polished takes half as long.
const ajv = new Ajv({ allErrors: true, verbose: true, strict: false, discriminator: true, unicodeRegExp: true, code: { optimize: false } });
ajv.addFormat('calendar-date', isDay);

/** Of a description of many kinds the one that a value says it is: all of them together take long to compile. */
function ofItsKind(schema: TSchema, value: unknown): TSchema {
  const tag: string | undefined = schema.discriminator?.propertyName;
  if (!tag || typeof value !== 'object' || value === null) return schema;
  const said = (value as Record<string, unknown>)[tag];
  return (schema.oneOf as TSchema[]).find((kind) => kind.properties[tag].const === said) ?? schema;
}

const compiled = new WeakMap<TSchema, ValidateFunction>();
function checkFor(schema: TSchema): ValidateFunction {
  let check = compiled.get(schema);
  if (!check) compiled.set(schema, (check = ajv.compile(schema)));
  return check;
}

const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
};

/** Codes for programs, by the keyword of the description that is not met. */
const CODES: Record<string, string> = {
  minimum: 'range',
  maximum: 'range',
  type: 'type',
  enum: 'choice',
  format: 'date',
  pattern: 'text',
  minItems: 'count',
  maxItems: 'count',
  minLength: 'count',
  maxLength: 'count',
};

/** One error as a fault, or nothing where another one says it better. */
function faultOf(error: ErrorObject): FileFault | null {
  const path = error.instancePath || '/';
  const { params, data, parentSchema } = error as ErrorObject & { data: unknown; parentSchema: TSchema };
  switch (error.keyword) {
    case 'required':
      return { path: `${error.instancePath}/${params.missingProperty}`, code: 'required', message: `"${params.missingProperty}" is missing.` };
    case 'additionalProperties':
      return {
        path: `${error.instancePath}/${params.additionalProperty}`,
        code: 'unknown-field',
        message: `"${params.additionalProperty}" is not known here.`,
      };
    case 'propertyNames':
      return {
        path: `${error.instancePath}/${params.propertyName}`,
        code: 'foreign-field',
        message: `"${params.propertyName}" does not belong here: ${parentSchema.title} has nothing of the kind.`,
      };
    case 'discriminator':
      return params.error === 'tag'
        ? { path: `${error.instancePath}/${params.tag}`, code: 'required', message: `"${params.tag}" is missing.` }
        : {
            path: `${error.instancePath}/${params.tag}`,
            code: 'choice',
            message: `${shown(params.tagValue)} is not known. ${sayTags(parentSchema, params.tag as string)}`,
          };
    case 'const':
      return path === '/version'
        ? { path, code: 'version', message: `Version ${shown(data)} is not known; this program reads version 1.` }
        : { path, code: 'format', message: `${shown(data)} is not "${params.allowedValue}": this is not an Ustle tree file.` };
    case 'maxItems':
      return { path, code: 'count', message: `There may be at most ${params.limit} here; there are ${(data as unknown[]).length}.` };
    default: {
      const code = CODES[error.keyword];
      return code ? { path, code, message: `It must be ${sayRule(parentSchema)}; it is ${shown(data)}.` } : null;
    }
  }
}

const sayTags = (schema: TSchema, tag: string): string =>
  `Known are: ${(schema.oneOf as { properties: Record<string, { const: string }> }[]).map((s) => s.properties[tag]!.const).join(', ')}.`;

/** Faults of shape, type and range by a description, each with its path (a JSON pointer). */
export function shapeFaults(schema: TSchema, value: unknown): FileFault[] {
  const check = checkFor(ofItsKind(schema, value));
  if (check(value)) return [];
  const faults = check.errors!.map(faultOf).filter((f) => f !== null);
  // A value that may also be null complains of both; what was meant is the other one.
  const meant = new Set(faults.filter((f) => f.code !== 'type').map((f) => f.path));
  const once = new Set<string>();
  const kept = faults.filter((f) => !(f.code === 'type' && meant.has(f.path)) && !once.has(f.path + f.code) && once.add(f.path + f.code));
  return kept.length ? kept.slice(0, MOST_FAULTS) : [{ path: '/', code: 'format', message: 'It does not have the shape that is asked for.' }];
}
