import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { LIMITS, type FieldProblem } from '@salt-circle/contracts';
import { invalid } from './sentences.js';
import { say } from '../../words/problems.js';

/** The one gate for request bodies: unknown fields are refused, bounds of the contracts hold. */
export function validationPipe(): ValidationPipe {
  return new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    transform: true,
    stopAtFirstError: true,
    exceptionFactory: (errors) => invalid(told(errors)),
  });
}

/** Not more than can be read: an answer is never much larger than what it answers. */
function told(errors: readonly ValidationError[]): FieldProblem[] {
  const all = errors.flatMap((error) => flatten(error, ''));
  const left = all.length - LIMITS.problems;
  if (left <= 0) return all;
  const rest = { path: '', code: 'more', sentence: say('moreThingsAreWrong', { left }) };
  return [...all.slice(0, LIMITS.problems), rest];
}

function flatten(error: ValidationError, above: string): FieldProblem[] {
  const name = error.property.slice(0, LIMITS.title);
  const path = above === '' ? name : `${above}.${name}`;
  const own = Object.entries(error.constraints ?? {}).map(([code, message]) => ({
    path,
    code,
    sentence:
      code === 'whitelistValidation' ? say('thereIsNoFieldHere', { property: error.property.slice(0, 60) }) : message,
  }));
  return [...own, ...(error.children ?? []).flatMap((child) => flatten(child, path))];
}
