import { counted } from '../words/counted.js';
import type { Explanation } from './explain.js';

/** How an adjusted score came about, in sentences; empty where there is nothing to say. */
export function explanationWords({ reviewers, less, more, forHalf }: Explanation): string {
  const company = [
    ...(less > 0
      ? [
          `${less} of ${counted(reviewers, '1 reviewer', '# reviewers')} ${counted(less, 'gives', 'give')} less than others on average`,
        ]
      : []),
    ...(more > 0
      ? [
          `${less > 0 ? more : `${more} of ${counted(reviewers, '1 reviewer', '# reviewers')}`} ${counted(more, 'gives', 'give')} more${less > 0 ? '' : ' than others on average'}`,
        ]
      : []),
  ];
  return [
    ...(company.length === 0 ? [] : [`${company.join(', ')}.`]),
    ...(forHalf === null ? [] : [`An interval half as wide would take about ${forHalf} reviews.`]),
  ].join(' ');
}
