import type { TSchema } from '@sinclair/typebox';
import { dayOf } from '../units/index.js';
import { ID_PATTERN } from './describe.js';

/** What a description asks of a value, as the end of a sentence: "between 0.3 and 400 mm", "one of: cw, ccw". */
export function sayRule(schema: TSchema): string {
  const { anyOf, minimum, maximum, unit, maxLength, minLength, maxItems, minItems } = schema as TSchema & {
    anyOf?: TSchema[];
    enum?: string[];
    unit?: string;
  } & Record<'minimum' | 'maximum' | 'maxLength' | 'minLength' | 'maxItems' | 'minItems', number | undefined>;
  if (anyOf) return `${sayRule(anyOf[0]!)}, or nothing`;
  if (schema.enum) return `one of: ${(schema.enum as string[]).join(', ')}`;
  if (schema.const !== undefined) return JSON.stringify(schema.const);
  switch (schema.type) {
    case 'number':
    case 'integer':
      return `${schema.type === 'integer' ? 'a whole number ' : ''}between ${minimum} and ${maximum}${unit && unit !== 'share' ? ` ${unit}` : ''}`;
    case 'boolean':
      return 'true or false';
    case 'string':
      if (schema.format === 'calendar-date') return 'a date from 1900 to 2200, such as 2026-03-01';
      if (schema.pattern === ID_PATTERN) return 'made of letters, digits, dot, dash and underscore, at most 64';
      return `plain text of ${minLength ? `${minLength} to` : 'at most'} ${maxLength} letters`;
    case 'array':
      return minItems === maxItems ? `a list of ${minItems}` : `a list of ${minItems ?? 0} to ${maxItems}`;
    default:
      return 'an object';
  }
}

/** Whether a text is a day that a tree may have seen: a calendar date from 1900 to 2200. */
export const isDay = (text: string): boolean => Number.isFinite(dayOf(text)) && text >= '1900-01-01' && text <= '2200-12-31';

/** Whether a single value (no list, no object) is as its description asks. */
export function fits(schema: TSchema, value: unknown): boolean {
  if (schema.anyOf) return value === null || fits((schema.anyOf as TSchema[])[0]!, value);
  if (schema.enum) return (schema.enum as unknown[]).includes(value);
  switch (schema.type) {
    case 'number':
    case 'integer':
      return (
        typeof value === 'number' &&
        value >= (schema.minimum as number) &&
        value <= (schema.maximum as number) &&
        (schema.type === 'number' || Number.isInteger(value))
      );
    case 'boolean':
      return typeof value === 'boolean';
    default:
      return (
        typeof value === 'string' &&
        (schema.format !== 'calendar-date' || isDay(value)) &&
        (!schema.pattern || new RegExp(schema.pattern as string, 'u').test(value)) &&
        value.length <= ((schema.maxLength as number | undefined) ?? Infinity) &&
        value.length >= ((schema.minLength as number | undefined) ?? 0)
      );
  }
}
