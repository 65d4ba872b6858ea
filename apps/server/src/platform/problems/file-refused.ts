import { ProblemError } from './problem-error.js';

/** A file that is not taken: the reason, what can be done, and `unchanged`, a sentence on what is as it was. */
export function fileRefused(sentence: string, whatToDo: string, unchanged: string): ProblemError {
  return new ProblemError({ code: 'file-refused', sentence, whatToDo: `${whatToDo} ${unchanged}` });
}

export function isFileRefused(error: unknown): error is ProblemError {
  return error instanceof ProblemError && error.problem.code === 'file-refused';
}
