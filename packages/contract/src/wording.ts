/** What the rules of the bodies say, in one voice. */
export const DATE = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
export const ID = /^[A-Za-z0-9._-]{1,40}$/;
export const dated = { message: '$property must be a date such as 2026-03-01.' };
export const named = { message: '$property must be an id: letters, digits, dot, dash, underscore.' };
export const between = (low: number, high: number, unit: string) => ({ message: `$property must be between ${low} and ${high} ${unit}; it is $value.` });
