/** A signed number, or a text that a table program would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/;

/** CSV (RFC 4180) with a byte order mark; text that looks like a formula gets an apostrophe in front. */
export function csvOf(rows: ReadonlyArray<ReadonlyArray<string | number>>): string {
  const cell = (value: string | number) => {
    if (typeof value === 'number') return String(value);
    return `"${(FORMULA.test(value) ? `'${value}` : value).replaceAll('"', '""')}"`;
  };
  return `\uFEFF${rows.map((row) => row.map(cell).join(',')).join('\r\n')}\r\n`;
}
