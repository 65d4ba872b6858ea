import { LIMITS } from '@salt-circle/contracts';
import { ProblemError } from './problem-error.js';

/**
 * Checks what was read as JSON before it is compared with a request class, which takes much longer for each key and object.
 * Linear in the size of the body, and not recursive.
 *
 * @throws ProblemError for what is no object, or is deeper, wider or longer than any request
 */
export function assertShape(body: unknown): void {
  if (body === undefined) return;
  if (typeof body !== 'object' || body === null || Array.isArray(body)) throw strange('no object');
  let values = 0;
  let objects = 0;
  let level: object[] = [body];
  for (let depth = 1; level.length > 0; depth += 1) {
    if (depth > LIMITS.depth) throw strange(`more than ${LIMITS.depth} levels deep`);
    const next: object[] = [];
    for (const one of level) {
      const inner: readonly unknown[] = Array.isArray(one) ? one : Object.values(one);
      values += inner.length;
      if (!Array.isArray(one)) objects += 1;
      if (!Array.isArray(one) && inner.length > LIMITS.keys) throw strange(`an object with ${inner.length} fields`);
      if (values > LIMITS.values || objects > LIMITS.objects) throw strange('more than any page sends at once');
      for (const value of inner) if (typeof value === 'object' && value !== null) next.push(value);
    }
    level = next;
  }
}

function strange(what: string): ProblemError {
  return new ProblemError({
    code: 'not-json',
    sentence: `The request could not be taken: it is ${what}.`,
    whatToDo: 'Load the page again. What you typed is kept in this browser.',
  });
}
