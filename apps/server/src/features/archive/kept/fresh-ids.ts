import { randomUUID } from 'node:crypto';
import type { Line } from './lines.js';
import type { PlainTable } from './tables.js';

const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/**
 * Ids that are made for one archive alone: what is in it cannot be joined with anything else of the installation, nor with another archive
 * of the same exchange. As long as the old ones, so that places in texts stay where they are.
 */
export class FreshIds {
  readonly #to = new Map<string, string>();

  /** @param known ids that do not look like ids as this application makes them */
  constructor(known: Iterable<string>) {
    for (const id of known) this.id(id);
  }

  id(old: string): string {
    const fresh = this.#to.get(old) ?? randomUUID();
    this.#to.set(old, fresh);
    return fresh;
  }

  /** A row with all ids changed: in columns, in JSON, and in addresses within texts. */
  row({ idColumns }: PlainTable, line: Line): Line {
    return Object.fromEntries(
      Object.entries(line).map(([column, value]) => [
        column,
        typeof value === 'string' && idColumns.includes(column) ? this.id(value) : this.#within(value),
      ]),
    );
  }

  #within(value: unknown): unknown {
    if (typeof value === 'string') return value.replace(UUID, (id) => this.id(id));
    if (Array.isArray(value)) return value.map((one) => this.#within(one));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [this.#within(key) as string, this.#within(one)]),
    );
  }
}
