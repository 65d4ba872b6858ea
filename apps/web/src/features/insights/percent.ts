/** A share in percent, to a tenth, as a number. */
export function percent(share: number): number {
  return Number((share * 100).toFixed(1));
}

/** The same for a table; empty for nothing. */
export function percentCell(share: number | null): number | string {
  return share === null ? '' : percent(share);
}
