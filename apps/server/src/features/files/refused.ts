import { ProblemError } from '../../platform/problems/problem-error.js';

/** A file that is not taken, with the reason and what can be done. */
export function refused(sentence: string, whatToDo: string): ProblemError {
  return new ProblemError({ code: 'file-refused', sentence, whatToDo: `${whatToDo} Your hand-in has not changed.` });
}
