/**
 * Agreement of two raters beyond chance, near misses counted less than far ones: weighted kappa, after Cohen (1968), Psychological
 * Bulletin 70(4), 213-220, in the form with weights of disagreement.
 *
 * @param pairs one per rated thing: the category of the first and of the second rater, whole numbers 0..categories - 1
 * @param categories how many categories there are, 2 or more
 * @param disagreement how bad it is when one says `a` and the other `b`: 0 or more, 0 where they say the same. Usual are the
 * distance (linear) and its square (quadratic)
 * @returns 1 for the same throughout, 0 for what chance gives, below 0 for less; null where nothing is rated, or where chance
 * alone would make no disagreement (both always say the same one thing), so that there is nothing to compare with
 * @throws RangeError for a category outside of 0..categories - 1
 */
export function weightedKappa(
  pairs: ReadonlyArray<readonly [number, number]>,
  categories: number,
  disagreement: (a: number, b: number) => number = (a, b) => Math.abs(a - b),
): number | null {
  const first = new Array<number>(categories).fill(0);
  const second = new Array<number>(categories).fill(0);
  let observed = 0;
  for (const pair of pairs) {
    const [a, b] = pair;
    for (const one of pair) {
      if (Number.isInteger(one) && one >= 0 && one < categories) continue;
      throw new RangeError(`weightedKappa: ${one} is not one of ${categories} categories, counted from 0`);
    }
    first[a] = (first[a] ?? 0) + 1;
    second[b] = (second[b] ?? 0) + 1;
    observed += disagreement(a, b);
  }
  let chance = 0;
  first.forEach((ofFirst, a) => {
    second.forEach((ofSecond, b) => {
      chance += ofFirst * ofSecond * disagreement(a, b);
    });
  });
  return chance === 0 ? null : 1 - (observed * pairs.length) / chance;
}
