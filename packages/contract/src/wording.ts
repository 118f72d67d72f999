import { ValidateBy } from 'class-validator';
import { dayOf } from '@ustle/core';

/** What the rules of the bodies say, in one voice. */
export const ID = /^[A-Za-z0-9._-]{1,40}$/;
export const named = { message: '$property must be an id: letters, digits, dot, dash, underscore.' };
export const between = (low: number, high: number, unit: string) => ({ message: `$property must be between ${low} and ${high} ${unit}; it is $value.` });

/** A day that the calendar has: no 30 February, which the record could never be read with again. */
export const IsDay = (): PropertyDecorator =>
  ValidateBy({
    name: 'isDay',
    validator: {
      validate: (value) => typeof value === 'string' && Number.isFinite(dayOf(value)),
      defaultMessage: () => '$property must be a day such as 2026-03-01.',
    },
  });
