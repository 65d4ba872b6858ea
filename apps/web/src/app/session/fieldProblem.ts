import { problemOf } from '../api.js';

/** What is wrong with one field, from what a mutation failed with; undefined for none. */
export function fieldProblem(error: unknown, path: string): string | undefined {
  return error === undefined ? undefined : problemOf(error).fields.find((one) => one.path === path)?.sentence;
}

/** Whether a failure belongs to no field, so that it must be shown by itself. */
export function belongsNowhere(error: unknown): boolean {
  return error !== undefined && problemOf(error).fields.length === 0;
}
