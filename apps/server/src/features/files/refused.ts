import type { ProblemError } from '../../platform/problems/problem-error.js';
import { fileRefused } from '../../platform/problems/file-refused.js';
import { say } from '../../words/uploads.js';

/** A file that is not taken, of a hand-in, a review or a plan, with the reason and what can be done. */
export function refused(sentence: string, whatToDo: string): ProblemError {
  return fileRefused(sentence, whatToDo, say('restIsAsItWas'));
}
