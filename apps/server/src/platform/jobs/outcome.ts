import type { Answer, Reason } from '../bytes/answered.js';
import { WorkStopped } from './threads.js';

/**
 * What a thread found out about a file.
 *
 * @param stopped said where it took too long or too much memory
 * @param problem what is thrown for a file that cannot be taken
 */
export async function outcome<T>(
  work: Promise<Answer<T>>,
  stopped: Reason,
  problem: (reason: Reason) => Error | Promise<Error>,
): Promise<T> {
  const answer = await work.catch((error: unknown): Answer<T> => {
    if (!(error instanceof WorkStopped)) throw error;
    return { refused: stopped };
  });
  if ('done' in answer) return answer.done;
  throw await problem(answer.refused);
}
