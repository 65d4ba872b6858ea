import { ProblemError } from '../problems/problem-error.js';
import { Refused } from './refused.js';

/** Why a file cannot be taken, in words for the one who brought it. */
export interface Reason {
  readonly sentence: string;
  readonly whatToDo: string;
}

/** What a thread answers: what was asked for, or why the file cannot be taken. */
export type Answer<T> = { readonly done: T } | { readonly refused: Reason };

/** A refusal as a value: threads tell errors only by their words. */
export async function answered<T>(work: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { done: await work() };
  } catch (error) {
    if (error instanceof Refused) return { refused: { sentence: error.sentence, whatToDo: error.whatToDo } };
    // Of text that cannot be cleaned: the same words as for text that is typed.
    if (error instanceof ProblemError) {
      const { sentence, whatToDo, fields } = error.problem;
      return { refused: { sentence: fields[0]?.sentence ?? sentence, whatToDo } };
    }
    throw error;
  }
}
