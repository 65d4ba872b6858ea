import { say } from '../../words/grades.js';

/** How long a page waits for what takes long in very large courses, in milliseconds. */
export const PATIENCE = 8_000;

/** Of a page that has waited enough, what it says instead. */
export const stillWorking = () => say('severityOfReviewersIsStill');

/** What is worked out, or null once a page has waited long enough; it goes on being worked out. */
export async function withinReason<Result>(worked: Promise<Result>, patience = PATIENCE): Promise<Result | null> {
  let timer: NodeJS.Timeout | undefined;
  const enough = new Promise<null>((done) => {
    timer = setTimeout(done, patience, null);
  });
  // Should it fail after nobody waits any more, whoever asks next is told.
  worked.catch(() => undefined);
  try {
    return await Promise.race([worked, enough]);
  } finally {
    clearTimeout(timer);
  }
}
