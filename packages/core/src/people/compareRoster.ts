import type { PlaceSource } from '../lti/compareMembers.js';
import type { Role } from '../visibility/facts.js';
import type { RosterEntry } from './roster.js';

/** Somebody's present place in the course. */
export interface Enrolled {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly campusId: string | null;
  readonly section: string | null;
  readonly trait: string | null;
  readonly role: Role;
  readonly active: boolean;
  /** By whom the place was last written; left out where that does not matter. */
  readonly source?: PlaceSource;
}

export type RosterField = 'name' | 'email' | 'campusId' | 'section' | 'trait';

export interface RosterUpdate {
  readonly entry: RosterEntry;
  readonly enrolled: Enrolled;
  readonly fields: ReadonlyArray<{
    readonly field: RosterField;
    readonly from: string | null;
    readonly to: string | null;
  }>;
  /** Comes back after having been dropped, with all earlier work. */
  readonly rejoins: boolean;
}

export interface RosterClash {
  readonly entry: RosterEntry;
  /**
   * `two-people`: campus id and address belong to two people. `other-id`: the address belongs to somebody who has another platform
   * id. `met-twice`: an earlier row means the same person. `other-role`: has another role here.
   */
  readonly code: 'two-people' | 'other-id' | 'met-twice' | 'other-role';
  /** For `met-twice`: the row that means the same person. */
  readonly firstRow?: number;
  readonly enrolled: Enrolled;
  /** A warning: the row is taken all the same, without what clashes. */
  readonly warning: boolean;
}

export interface RosterChanges {
  readonly add: readonly RosterEntry[];
  readonly update: readonly RosterUpdate[];
  /** Active students whom the roster does not name. Only dropped when asked for. */
  readonly missing: readonly Enrolled[];
  /** The same, but that they came by a platform: they stay. */
  readonly ofPlatform: number;
  readonly unchanged: number;
  readonly clashes: readonly RosterClash[];
}

/** What a file says nothing about is kept: `columns` are those it has. */
export type RosterColumns = Readonly<Record<'campusId' | 'section' | 'trait', boolean>>;

/**
 * What a roster would change in a course. People are recognised by campus id, and without one by address.
 * Linear in both lists. The same roster a second time changes nothing.
 */
export function compareRoster(
  enrolled: readonly Enrolled[],
  entries: readonly RosterEntry[],
  columns: RosterColumns,
): RosterChanges {
  const byCampusId = new Map(enrolled.flatMap((one) => (one.campusId === null ? [] : [[one.campusId, one] as const])));
  const byEmail = new Map(enrolled.map((one) => [one.email, one] as const));
  const add: RosterEntry[] = [];
  const update: RosterUpdate[] = [];
  const clashes: RosterClash[] = [];
  /** Rows by the person that they mean. */
  const named = new Map<string, number>();
  let unchanged = 0;
  for (const entry of entries) {
    const byId = entry.campusId === null ? undefined : byCampusId.get(entry.campusId);
    const byAddress = byEmail.get(entry.email);
    const known = byId ?? byAddress;
    if (known === undefined) {
      add.push(entry);
      continue;
    }
    if (byId !== undefined && byAddress !== undefined && byId.id !== byAddress.id) {
      named.set(byId.id, entry.row).set(byAddress.id, entry.row);
      clashes.push({ entry, code: 'two-people', enrolled: byAddress, warning: false });
      continue;
    }
    const firstRow = named.get(known.id);
    if (firstRow !== undefined) {
      clashes.push({ entry, code: 'met-twice', enrolled: known, firstRow, warning: false });
      continue;
    }
    named.set(known.id, entry.row);
    // An id is a person's for good: with another one, the address has perhaps been given to somebody else.
    if (byId === undefined && entry.campusId !== null && known.campusId !== null) {
      clashes.push({ entry, code: 'other-id', enrolled: known, warning: false });
      continue;
    }
    if (known.role !== entry.role) {
      clashes.push({ entry, code: 'other-role', enrolled: known, warning: true });
      continue;
    }
    const wanted: Array<[RosterField, string | null]> = [
      ['name', entry.name],
      ['email', entry.email],
    ];
    if (columns.campusId && entry.campusId !== null) wanted.push(['campusId', entry.campusId]);
    if (columns.section) wanted.push(['section', entry.section]);
    if (columns.trait) wanted.push(['trait', entry.trait]);
    const fields = wanted
      .filter(([field, to]) => known[field] !== to)
      .map(([field, to]) => ({ field, from: known[field], to }));
    if (fields.length === 0 && known.active) unchanged += 1;
    else update.push({ entry, enrolled: known, fields, rejoins: !known.active });
  }
  const gone = enrolled.filter(({ id, active, role }) => active && role === 'student' && !named.has(id));
  const missing = gone.filter(({ source }) => source !== 'platform');
  return { add, update, missing, unchanged, clashes, ofPlatform: gone.length - missing.length };
}
