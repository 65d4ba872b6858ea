/** A share, 0..1, in whole percent: never 100 for what is not all, nor 0 for what is something. */
export function percent(share: number): string {
  const whole = Math.round(100 * share);
  const honest = share < 1 && whole === 100 ? 99 : share > 0 && whole === 0 ? 1 : whole;
  return `${honest}%`;
}
