import { Ajv, type ErrorObject } from 'ajv';
import { dayOf } from '@ustle/core';
import schema from '../tree.schema.json' with { type: 'json' };
import { MOST_FAULTS, type FileFault } from './faults.js';

const ajv = new Ajv({ allErrors: true, verbose: true, strict: false });
ajv.addFormat('calendar-date', (text: string) => Number.isFinite(dayOf(text)));
const check = ajv.compile(schema);

const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
};

/** One schema error as a fault, or nothing where another one says it better. */
function faultOf(error: ErrorObject): FileFault | null {
  const path = error.instancePath || '/';
  const { params, data } = error as ErrorObject & { data: unknown };
  switch (error.keyword) {
    case 'required':
      return { path: `${error.instancePath}/${params.missingProperty}`, code: 'required', message: `"${params.missingProperty}" is missing.` };
    case 'minimum':
    case 'maximum':
      return {
        path,
        code: 'range',
        message: `${shown(data)} is outside what is possible here: it must be ${params.comparison === '>=' ? 'at least' : 'at most'} ${params.limit}.`,
      };
    case 'type':
      return {
        path,
        code: 'type',
        message: `${shown(data)} is not ${/^[aeiou]/.test(String(params.type)) ? 'an' : 'a'} ${String(params.type).replace(',', ' or ')}.`,
      };
    case 'const':
      return path === '/version'
        ? { path, code: 'version', message: `Version ${shown(data)} is not known; this program reads version 1.` }
        : { path, code: 'format', message: `${shown(data)} is not "${params.allowedValue}": this is not an Ustle tree file.` };
    case 'enum':
      return { path, code: 'choice', message: `${shown(data)} is none of: ${(params.allowedValues as string[]).join(', ')}.` };
    case 'format':
      return { path, code: 'date', message: `${shown(data)} is not a date such as 2026-03-01.` };
    case 'pattern':
      return { path, code: 'id', message: `${shown(data)} cannot be an id: letters, digits, dot, dash and underscore, at most 40.` };
    case 'minItems':
    case 'maxItems':
    case 'minLength':
    case 'maxLength':
      return { path, code: 'count', message: `It ${error.message}.` };
    default:
      return null;
  }
}

/** Faults of shape, type and range, each with its path. */
export function schemaFaults(value: unknown): FileFault[] {
  if (check(value)) return [];
  const faults = check.errors!.map(faultOf).filter((f) => f !== null);
  // A date that may also be null complains of both; the date is what was meant.
  const dated = new Set(faults.filter((f) => f.code === 'date').map((f) => f.path));
  const kept = faults.filter((f) => !(f.code === 'type' && dated.has(f.path)));
  return kept.length ? kept.slice(0, MOST_FAULTS) : [{ path: '/', code: 'format', message: 'The file does not have the shape of a tree file.' }];
}
