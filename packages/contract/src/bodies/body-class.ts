import 'reflect-metadata';
import type { Static, TObject, TProperties, TSchema } from '@sinclair/typebox';
import { IsOptional, ValidateBy, type ValidationArguments } from 'class-validator';
import { shapeFaults, type FileFault } from '@ustle/files';

type BodyClass<T> = new () => T;
const described = new WeakMap<object, TObject>();

/** The description that a body's class, or the one it extends, was made from. */
export const descriptionOf = (body: object): TObject | undefined => described.get(body) ?? described.get(Object.getPrototypeOf(body) as object);

/** Faults of one field of a body, each with its place under the field: "size", "branches.0". */
export function fieldFaults(schema: TSchema, field: string, value: unknown): FileFault[] {
  return shapeFaults(schema, value).map((f) => ({ ...f, path: f.path === '/' ? field : `${field}${f.path.replaceAll('/', '.')}` }));
}

/** The rule that a value is as described. */
const Fits = (schema: TSchema): PropertyDecorator =>
  ValidateBy({
    name: 'fits',
    validator: {
      validate: (value) => shapeFaults(schema, value).length === 0,
      defaultMessage: (args?: ValidationArguments) => fieldFaults(schema, args?.property ?? '', args?.value)[0]?.message ?? '',
    },
  });

/** A class for the body of a request, its rules put on from a description: one a field, and none for what is not described. */
export function bodyClass<P extends TProperties>(name: string, schema: TObject<P>): BodyClass<Static<TObject<P>>> {
  const made = { [name]: class {} }[name]! as BodyClass<Static<TObject<P>>>;
  const required = new Set(schema.required as string[] | undefined);
  for (const [field, of] of Object.entries(schema.properties)) {
    Fits(of)(made.prototype as object, field);
    if (!required.has(field)) IsOptional()(made.prototype as object, field);
  }
  described.set(made, schema as unknown as TObject);
  return made;
}
