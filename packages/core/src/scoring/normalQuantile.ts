import { MisuseError } from '../problem.js';

/**
 * The quantile of the standard normal distribution: Newton's steps on its distribution function, by the series of Abramowitz and Stegun
 * (1964), 26.2.10. Right to twelve places for shares from 1e-6 to 1 − 1e-6.
 *
 * @param share 0 to 1, without either
 * @throws MisuseError `share-out-of-range`
 */
export function normalQuantile(share: number): number {
  if (!(share > 0 && share < 1)) throw new MisuseError('share-out-of-range', 'a share lies between 0 and 1', { share });
  let at = 0;
  for (let step = 0; step < 60; step += 1) {
    // Far out a whole step can overshoot.
    const by = Math.max(-1, Math.min(1, (distribution(at) - share) / density(at)));
    at -= by;
    if (Math.abs(by) < 1e-13) break;
  }
  return at;
}

function density(x: number): number {
  return Math.exp(-(x * x) / 2) / Math.sqrt(2 * Math.PI);
}

function distribution(x: number): number {
  let term = x;
  let sum = x;
  for (let odd = 3; Math.abs(term) > 1e-17 * Math.abs(sum); odd += 2) {
    term *= (x * x) / odd;
    sum += term;
  }
  return 0.5 + density(x) * sum;
}
