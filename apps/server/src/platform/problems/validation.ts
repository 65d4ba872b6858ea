import { ValidationPipe, type ValidationError } from '@nestjs/common';
import type { FieldProblem } from '@salt-circle/contracts';
import { invalid } from './sentences.js';

/** The one gate for request bodies: unknown fields are refused, bounds of the contracts hold. */
export function validationPipe(): ValidationPipe {
  return new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    transform: true,
    stopAtFirstError: true,
    exceptionFactory: (errors) => invalid(errors.flatMap((error) => flatten(error, ''))),
  });
}

function flatten(error: ValidationError, above: string): FieldProblem[] {
  const path = above === '' ? error.property : `${above}.${error.property}`;
  const own = Object.entries(error.constraints ?? {}).map(([code, message]) => ({
    path,
    code,
    sentence: code === 'whitelistValidation' ? `There is no field “${error.property}” here.` : message,
  }));
  return [...own, ...(error.children ?? []).flatMap((child) => flatten(child, path))];
}
