import type { EntityMetadata } from 'typeorm';
import { cleanHtml } from '../../platform/html/clean-html.js';
import type { Ids } from '../../platform/ids/ids.js';
import type { Line } from './kept/lines.js';
import { columnsOf, idColumnsOf, type TableOf } from './kept/tables.js';

const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
/** All that rich text of any kind may contain here. */
const RICH = { pictures: true, equations: true, numberedAnchors: true } as const;

/** Rows as they are in another installation: with new ids throughout, in the order of the old ones, so that what goes by them stays so. */
export class IdRemap {
  readonly #to = new Map<string, string>();

  /** @param fixed old ids that are somebody or something here already */
  constructor(old: ReadonlySet<string>, ids: Ids, fixed: ReadonlyArray<readonly [from: string, to: string]>) {
    const from = [...old].sort();
    const fresh = from.map(() => ids.uuid()).sort();
    from.forEach((id, index) => this.#to.set(id, fresh[index] as string));
    for (const [id, to] of fixed) this.#to.set(id, to);
  }

  id(old: string): string {
    return this.#to.get(old) ?? old;
  }

  row(table: TableOf, metadata: EntityMetadata, line: Line): Line {
    const row: Line = {};
    const idColumns = new Set(idColumnsOf(table, metadata));
    for (const { propertyName, type, isNullable } of columnsOf(table, metadata)) {
      const value = line[propertyName];
      if (idColumns.has(propertyName)) {
        const known = typeof value === 'string' ? this.#to.get(value) : undefined;
        row[propertyName] = known ?? (isNullable ? null : value);
      } else if (type === 'simple-json' || KEYS.has(propertyName)) row[propertyName] = this.#within(value);
      else if (table.html?.includes(propertyName) === true) row[propertyName] = cleanHtml(value as string, RICH);
      else row[propertyName] = propertyName === 'url' ? webAddress(value) : value;
    }
    return row;
  }

  #within(value: unknown): unknown {
    if (typeof value === 'string') return this.#to.get(value) ?? value.replace(UUID, (id) => this.id(id));
    if (Array.isArray(value)) return value.map((one) => this.#within(one));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [this.#within(key) as string, this.#within(one)]),
    );
  }
}

/** Text columns that are made of ids. */
const KEYS: ReadonlySet<string> = new Set(['key', 'targetId']);

/** Links lead into the web, and nowhere else. */
function webAddress(value: unknown): unknown {
  return typeof value === 'string' && /^https?:\/\//i.test(value) ? value : '';
}
