import { Type, type Static, type TObject, type TProperties, type TSchema, type TUnsafe } from '@sinclair/typebox';

/**
 * Words for describing what a tree file says, each field once: its type, unit, range and meaning. The TypeScript types, the JSON
 * Schema, the rules of the API, the inputs' bounds and the table in docs/tree-file.md all come from these descriptions.
 */

/** What a description of a number also tells: its unit, and the step that a hand measures in. */
export interface NumberNote {
  minimum: number;
  maximum: number;
  unit?: string;
  step?: number;
  description?: string;
}

const number = (note: NumberNote): TUnsafe<number> => Type.Unsafe<number>({ type: 'number', ...note });

export const mm = (minimum: number, maximum: number, description: string, step = 1): TUnsafe<number> =>
  number({ minimum, maximum, unit: 'mm', step, description });
export const degrees = (minimum: number, maximum: number, description: string): TUnsafe<number> =>
  number({ minimum, maximum, unit: 'degrees', step: 1, description });
export const bearing = (description: string): TUnsafe<number> => degrees(0, 360, description);
export const elevation = (description: string): TUnsafe<number> => degrees(-90, 90, description);
export const share = (description: string): TUnsafe<number> => number({ minimum: 0, maximum: 1, unit: 'share', step: 0.01, description });
export const figure = (minimum: number, maximum: number, unit: string, description: string, step = 1): TUnsafe<number> =>
  number({ minimum, maximum, unit, step, description });
export const whole = (minimum: number, maximum: number, unit: string, description: string): TUnsafe<number> =>
  Type.Unsafe<number>({ type: 'integer', minimum, maximum, unit, step: 1, description });

export const yesNo = (description: string) => Type.Boolean({ description });
/** No control characters but tab and new line, and no halves of characters: such text could not be shown, stored or sent whole. */
const PLAIN_TEXT = '^[^\\u0000-\\u0008\\u000b\\u000c\\u000e-\\u001f\\u007f\\p{Cs}]*$';
export const words = (maxLength: number, description: string, minLength = 0) => Type.String({ maxLength, minLength, pattern: PLAIN_TEXT, description });
export const oneOf = <const T extends readonly string[]>(values: T, description: string): TUnsafe<T[number]> =>
  Type.Unsafe<T[number]>({ type: 'string', enum: [...values], description });

/** Ids of branches, runs, guys and lines: what can stand in a file name, an address and a spreadsheet. */
export const ID_PATTERN = '^[A-Za-z0-9._-]{1,64}$';
export const id = (description: string) => Type.String({ pattern: ID_PATTERN, description });
export const day = (description: string) => Type.String({ format: 'calendar-date', description });

export const optional = Type.Optional;
export const orNull = <T extends TSchema>(schema: T): TUnsafe<Static<T> | null> =>
  Type.Unsafe<Static<T> | null>({ anyOf: [schema, { type: 'null' }], description: schema.description });
export const list = <T extends TSchema>(of: T, maxItems: number, description: string, minItems = 0) => Type.Array(of, { maxItems, minItems, description });
/** A list of fixed length, such as a point or a pair; typed by its user. */
export const tuple = <T extends readonly unknown[]>(count: number, of: TSchema, description: string): TUnsafe<T> =>
  Type.Unsafe<T>({ type: 'array', items: of, minItems: count, maxItems: count, description });

export const part = <P extends TProperties>(fields: P, description: string): TObject<P> => Type.Object(fields, { description });

type Flat<T> = { [K in keyof T]: T[K] };
/** One of several shapes, told apart by the value of one field. */
export type Tagged<Tag extends string, Common extends TProperties, Variants extends Record<string, TProperties>> = {
  [K in keyof Variants & string]: Flat<{ [T in Tag]: K } & Static<TObject<Common>> & Static<TObject<Variants[K]>>>;
}[keyof Variants & string];

/** Names of the fields that belong to some shape of a union, but not to this one: such a line would say something it cannot mean. */
const foreignTo = (own: TProperties, all: Record<string, TProperties>): string[] => {
  const known = new Set(Object.values(all).flatMap((fields) => Object.keys(fields)));
  return [...known].filter((field) => !(field in own));
};

/** A union of shapes by the value of `tag`. Fields of other shapes are refused; keys that no shape knows are kept. */
export function byTag<Tag extends string, Common extends TProperties, Variants extends Record<string, TProperties>>(
  tag: Tag,
  common: Common,
  variants: Variants,
  description: string,
): TUnsafe<Tagged<Tag, Common, Variants>> {
  const shapes = Object.entries(variants).map(([value, fields]) => {
    const foreign = foreignTo({ ...common, ...fields }, variants);
    return Type.Object(
      { [tag]: Type.Literal(value), ...common, ...fields },
      { title: value, ...(foreign.length ? { propertyNames: { not: { enum: foreign } } } : {}) },
    );
  });
  return Type.Unsafe<Tagged<Tag, Common, Variants>>({ type: 'object', required: [tag], discriminator: { propertyName: tag }, oneOf: shapes, description });
}
