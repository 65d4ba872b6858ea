/** What was understood of a header row. */
export interface Header<Column extends string> {
  /** Place of each recognised column, from 0. */
  readonly columns: Readonly<Partial<Record<Column, number>>>;
  /** Their titles, as they stand in the file. */
  readonly titles: Readonly<Partial<Record<Column, string>>>;
  /** Titles of columns that mean nothing here. */
  readonly unknown: readonly string[];
  /** Titles of columns that say the same as an earlier one. */
  readonly twice: readonly string[];
}

/** Without case, accents, spaces and punctuation. */
export function plainTitle(title: string): string {
  return title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');
}

/** Finds the columns of a table by their titles, in any order. */
export function readHeader<Column extends string>(
  titles: readonly string[],
  names: Readonly<Record<Column, readonly string[]>>,
): Header<Column> {
  const columns: Partial<Record<Column, number>> = {};
  const found: Partial<Record<Column, string>> = {};
  const unknown: string[] = [];
  const twice: string[] = [];
  const known = Object.entries(names) as Array<[Column, readonly string[]]>;
  titles.forEach((title, index) => {
    const plain = plainTitle(title);
    if (plain === '') return;
    const column = known.find(([, list]) => list.some((one) => plainTitle(one) === plain))?.[0];
    if (column === undefined) unknown.push(title.trim());
    else if (columns[column] !== undefined) twice.push(title.trim());
    else {
      columns[column] = index;
      found[column] = title.trim();
    }
  });
  return { columns, titles: found, unknown, twice };
}
