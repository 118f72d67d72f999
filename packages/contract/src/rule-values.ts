import { ValidateBy, type ValidationArguments } from 'class-validator';
import { LIMIT_NOTES, RULES, type LimitNote } from '@ustle/core';

const entries = (value: unknown): [string, unknown][] => (typeof value === 'object' && value !== null ? Object.entries(value) : []);

function limitFault([name, value]: [string, unknown]): string | null {
  const note = (LIMIT_NOTES as Record<string, LimitNote>)[name];
  if (!note) return `limits.${name} is not known. Known are: ${Object.keys(LIMIT_NOTES).join(', ')}.`;
  const fits = typeof value === 'number' && value >= note.low && value <= note.high;
  return fits ? null : `limits.${name} must be between ${note.low} and ${note.high}${note.unit ? ` ${note.unit}` : ''}; it is ${String(value)}.`;
}

function ruleFault([name, value]: [string, unknown]): string | null {
  if (!(RULES as readonly string[]).includes(name)) return `rules.${name} is not known. Known are: ${RULES.join(', ')}.`;
  return typeof value === 'boolean' ? null : `rules.${name} must be true or false; it is ${String(value)}.`;
}

const each = (name: string, fault: (entry: [string, unknown]) => string | null) => (): PropertyDecorator => {
  const first = (value: unknown): string | null => entries(value).reduce<string | null>((found, entry) => found ?? fault(entry), null);
  return ValidateBy({
    name,
    validator: {
      validate: (value) => first(value) === null,
      defaultMessage: (args?: ValidationArguments) => first(args?.value) ?? '',
    },
  });
};

/** Every limit is a known one, within its bounds. */
export const WithinLimits = each('withinLimits', limitFault);

/** Every rule is a known one, on or off. */
export const OnOrOff = each('onOrOff', ruleFault);
