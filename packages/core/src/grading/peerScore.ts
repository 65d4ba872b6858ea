/** Of five scores and more, the highest and the lowest are left out; of fewer, none can be spared. */
const TRIMMED_FROM = 5;

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
