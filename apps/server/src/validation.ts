import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { descriptionOf, fieldFaults } from '@ustle/contract/bodies';
import type { Fault } from '@ustle/contract';
import { ProblemException } from './problem.js';

/** The faults of one field. Those of an act or a line are told as its own fields are called. */
function faultsOf(error: ValidationError): Fault[] {
  const schema = descriptionOf((error.target as object).constructor)?.properties[error.property];
  if (!schema) return [{ path: error.property, code: 'unknown-field', message: `"${error.property}" is not known here.` }];
  if (error.value === undefined) return [{ path: error.property, code: 'required', message: `"${error.property}" is missing.` }];
  return fieldFaults(schema, error.property, error.value).map((f) => {
    const path = f.path.replace(/^(act|line)\./, '');
    return { ...f, path, message: f.message.replace(/^It must be/, `${path} must be`) };
  });
}

/** Every body is checked by its class's rules; unknown fields are refused. */
export const validation = new ValidationPipe({
  whitelist: true,
  forbidNonWhitelisted: true,
  transform: true,
  validationError: { target: true, value: true },
  exceptionFactory: (errors) => {
    const faults = errors.flatMap(faultsOf);
    const first = faults[0] ?? { path: '/', code: 'value', message: 'The request does not fit.' };
    return new ProblemException(400, { code: first.code, field: first.path, message: first.message, faults });
  },
});
