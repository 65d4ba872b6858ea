import { say } from '../words/grading.js';
import type { Explanation } from './explain.js';

/** How an adjusted score came about, in sentences; empty where there is nothing to say. */
export function explanationWords({ reviewers, less, more, forHalf }: Explanation): string {
  const company =
    less > 0 && more > 0
      ? say('lessAndMore', { reviewers, less, more })
      : less > 0
        ? say('less', { reviewers, less })
        : more > 0
          ? say('more', { reviewers, more })
          : '';
  const half = forHalf === null ? '' : say('forHalf', { reviews: forHalf });
  return [company, half].filter((sentence) => sentence !== '').join(' ');
}
