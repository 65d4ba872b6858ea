/** Of five scores and more, the highest and the lowest are left out; of fewer, none can be spared. */
const TRIMMED_FROM = 5;

/**
 * One score from several, each counting as much as its reviewer is worth.
 *
 * @param given each a share of the maximum, 0 to 1, with a weight of 0 or more; null where nothing is known of its reviewer, who then
 *   counts as much as the others do on average
 * @returns null without any; the mean where all weights are 0 or unknown
 */
export function weightedScore(
  given: ReadonlyArray<{ readonly score: number; readonly weight: number | null }>,
): number | null {
  const known = given.flatMap(({ weight }) => weight ?? []);
  const usual = known.length === 0 ? 1 : known.reduce((sum, weight) => sum + weight, 0) / known.length;
  const all = given.reduce((sum, { weight }) => sum + (weight ?? usual), 0);
  if (!(all > 0)) {
    return peerScore(
      given.map(({ score }) => score),
      'mean',
    );
  }
  return given.reduce((sum, { score, weight }) => sum + score * (weight ?? usual), 0) / all;
}

/**
 * One score from several.
 *
 * @param scores of one draft, each a share of the maximum, 0 to 1
 * @param method `trimmed`: the mean without the highest and the lowest, from five scores on
 * @returns null without any
 */
export function peerScore(scores: readonly number[], method: 'mean' | 'median' | 'trimmed'): number | null {
  if (scores.length === 0) return null;
  const sorted = [...scores].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  if (method === 'median') {
    return sorted.length % 2 === 1
      ? (sorted[middle] as number)
      : ((sorted[middle - 1] as number) + (sorted[middle] as number)) / 2;
  }
  const kept = method === 'trimmed' && sorted.length >= TRIMMED_FROM ? sorted.slice(1, -1) : sorted;
  return kept.reduce((sum, score) => sum + score, 0) / kept.length;
}
