/** What somebody did as a reviewer in earlier exchanges. */
export interface ReviewingRecord {
  readonly id: string;
  readonly allocated: number;
  readonly submitted: number;
  /** In the submitted reviews, in answers and notes together. */
  readonly words: number;
}

/**
 * How strong reviewers have been, 0 to 1: half of it is the share of their reviews that they submitted, half how much
 * they wrote in them, where twice the median of all is as much as counts. A plain reckoning that a person can do again,
 * made to keep drafts from getting only reviewers who write little or nothing; it says nothing of how good a remark is,
 * and grades nobody.
 *
 * @returns by id; nobody who was never given a review
 */
export function reviewerStrengths(records: readonly ReviewingRecord[]): Map<string, number> {
  const perReview = ({ submitted, words }: ReviewingRecord) => (submitted === 0 ? 0 : words / submitted);
  const active = records
    .filter(({ submitted }) => submitted > 0)
    .map(perReview)
    .sort((a, b) => a - b);
  const middle = active.length / 2;
  const median = ((active[Math.ceil(middle) - 1] ?? 0) + (active[Math.floor(middle)] ?? 0)) / 2;
  const strengths = new Map<string, number>();
  for (const record of records) {
    if (record.allocated === 0) continue;
    const done = Math.min(1, record.submitted / record.allocated);
    const wrote = median === 0 ? 0 : Math.min(1, perReview(record) / (2 * median));
    strengths.set(record.id, (done + wrote) / 2);
  }
  return strengths;
}
