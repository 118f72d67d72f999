import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { ProblemException } from './problem.js';

interface Fault {
  path: string;
  code: string;
  message: string;
}

const CODES: Record<string, string> = { whitelistValidation: 'unknown-field', isIn: 'choice', matches: 'format', isDay: 'format', min: 'range', max: 'range' };

function faultsOf(errors: readonly ValidationError[], prefix = ''): Fault[] {
  return errors.flatMap((error) => {
    const path = `${prefix}${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([rule, text]) => {
      const message = rule === 'whitelistValidation' ? `"${path}" is not known here.` : text.endsWith('.') ? text : `${text}.`;
      return { path, code: CODES[rule] ?? 'value', message: `${message[0]!.toUpperCase()}${message.slice(1)}` };
    });
    return [...own, ...faultsOf(error.children ?? [], `${path}.`)];
  });
}

/** Every body is checked by its class's rules; unknown fields are refused. */
export const validation = new ValidationPipe({
  whitelist: true,
  forbidNonWhitelisted: true,
  transform: true,
  exceptionFactory: (errors) => {
    const faults = faultsOf(errors);
    const first = faults[0] ?? { path: '/', code: 'value', message: 'The request does not fit.' };
    return new ProblemException(400, { code: first.code, field: first.path, message: first.message, faults });
  },
});
