import { ProblemError } from '../../platform/problems/problem-error.js';
import { say } from '../../words/people.js';

/** For an address that somebody else of the course has. */
export function addressTaken(email: string): ProblemError {
  return new ProblemError({
    code: 'invalid',
    sentence: say('addressBelongsToSomebodyElse', { email }),
    whatToDo: say('checkItNothingWasChanged'),
    fields: [{ path: 'email', code: 'email-taken', sentence: say('addressBelongsToSomebodyElse', { email }) }],
  });
}
