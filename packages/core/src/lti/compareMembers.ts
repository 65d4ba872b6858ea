import type { Role } from '../visibility/facts.js';
import type { LtiMember } from './members.js';

/** By whom a place was last written: what one source wrote, another one does not write over by itself. */
export type PlaceSource = 'hand' | 'roster' | 'platform' | 'archive';

/** Somebody's present place in the course. */
export interface PlacedPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly campusId: string | null;
  readonly role: Role;
  readonly active: boolean;
  /** By somebody's account. */
  readonly taken: boolean;
  readonly source: PlaceSource;
  /** Of the person at the platform, once the place is tied to one. */
  readonly ltiUser: string | null;
}

export type MemberField = 'name' | 'email' | 'campusId';

export interface MemberUpdate {
  readonly member: LtiMember;
  readonly place: PlacedPerson;
  readonly fields: ReadonlyArray<{ readonly field: MemberField; readonly from: string | null; readonly to: string }>;
  /** The place becomes that of this member: by what they have in common. Null: it is already. */
  readonly tiedBy: 'campusId' | 'email' | null;
  readonly rejoins: boolean;
}

export interface MemberClash {
  readonly member: LtiMember;
  readonly place: PlacedPerson;
  /**
   * `own-account`: the place has been taken by an account, and only its owner can say that both are the same person. `other-member`: it is
   * tied to another member. `two-people`: what is known of the member belongs to two people. `other-role`: has another role here.
   */
  readonly code: 'own-account' | 'other-member' | 'two-people' | 'other-role';
}

export interface MemberChanges {
  readonly add: ReadonlyArray<LtiMember & { readonly role: Role }>;
  readonly update: readonly MemberUpdate[];
  /** Active students who came by the platform, and whom it does not name any more. */
  readonly missing: readonly PlacedPerson[];
  readonly unchanged: number;
  readonly clashes: readonly MemberClash[];
  /** Named more than once: the first time counts. */
  readonly twice: number;
  /** Members without a role that has a place here. */
  readonly roleless: number;
  /** Active students who came by hand or by a file, and whom the platform does not name: they stay. */
  readonly others: number;
}

/**
 * What a platform would change in a course. People are recognised by the platform's own id of them; a place that is not tied to one yet, by the
 * id of the registry or the address, as a proposal that somebody looks at. Linear in both lists. The same members a second time
 * change nothing.
 */
export function compareMembers(places: readonly PlacedPerson[], members: readonly LtiMember[]): MemberChanges {
  const byUser = mapBy(places, ({ ltiUser }) => ltiUser);
  const byCampusId = mapBy(places, ({ campusId }) => campusId);
  const byEmail = mapBy(places, ({ email }) => email);
  const add: Array<LtiMember & { role: Role }> = [];
  const update: MemberUpdate[] = [];
  const clashes: MemberClash[] = [];
  const named = new Set<string>();
  /** Addresses that are somebody's, or will be. */
  const claimed = new Set(byEmail.keys());
  const seen = new Set<string>();
  let [unchanged, twice, roleless] = [0, 0, 0];
  for (const member of members) {
    if (seen.has(member.user)) {
      twice += 1;
      continue;
    }
    seen.add(member.user);
    if (member.role === null) {
      roleless += 1;
      continue;
    }
    const found = placeOf(member, { byUser, byCampusId, byEmail });
    if (found === null) {
      // Of two who share an address, one can have it here.
      const email = member.email === null || claimed.has(member.email) ? null : member.email;
      if (email !== null) claimed.add(email);
      add.push({ ...member, email, role: member.role });
      continue;
    }
    if ('code' in found) {
      named.add(found.place.id);
      clashes.push({ member, ...found });
      continue;
    }
    const { place, tiedBy } = found;
    if (named.has(place.id)) {
      clashes.push({ member, place, code: 'other-member' });
      continue;
    }
    named.add(place.id);
    if (place.role !== member.role) {
      clashes.push({ member, place, code: 'other-role' });
      continue;
    }
    const fields = place.source === 'platform' ? fieldsFor(member, place, claimed) : [];
    if (fields === null) clashes.push({ member, place, code: 'two-people' });
    else if (fields.length === 0 && tiedBy === null && place.active) unchanged += 1;
    else {
      for (const { field, to } of fields) if (field === 'email') claimed.add(to);
      update.push({ member, place, fields, tiedBy, rejoins: !place.active });
    }
  }
  const gone = places.filter(({ id, active, role }) => active && role === 'student' && !named.has(id));
  return {
    ...{ add, update, unchanged, clashes, twice, roleless },
    missing: gone.filter(({ source }) => source === 'platform'),
    others: gone.filter(({ source }) => source !== 'platform').length,
  };
}

type Found = { readonly place: PlacedPerson; readonly tiedBy: MemberUpdate['tiedBy'] };
type Places = ReadonlyMap<string, PlacedPerson>;

function placeOf(
  member: LtiMember,
  { byUser, byCampusId, byEmail }: Readonly<Record<'byUser' | 'byCampusId' | 'byEmail', Places>>,
): Found | Pick<MemberClash, 'place' | 'code'> | null {
  const tied = byUser.get(member.user);
  if (tied !== undefined) return { place: tied, tiedBy: null };
  const byId = member.campusId === null ? undefined : byCampusId.get(member.campusId);
  const byAddress = member.email === null ? undefined : byEmail.get(member.email);
  const place = byId ?? byAddress;
  if (place === undefined) return null;
  if (byId !== undefined && byAddress !== undefined && byId.id !== byAddress.id) return { place, code: 'two-people' };
  // An id is a person's for good: with another one, the address has perhaps been given to somebody else.
  if (byId === undefined && member.campusId !== null && place.campusId !== null) return { place, code: 'two-people' };
  if (place.ltiUser !== null) return { place, code: 'other-member' };
  if (place.taken) return { place, code: 'own-account' };
  return { place, tiedBy: byId === undefined ? 'email' : 'campusId' };
}

/** @returns null where the address is somebody else's here */
function fieldsFor(
  member: LtiMember,
  place: PlacedPerson,
  claimed: ReadonlySet<string>,
): MemberUpdate['fields'] | null {
  const wanted: ReadonlyArray<readonly [MemberField, string | null]> = [
    ['name', member.name],
    ['email', member.email],
    ['campusId', member.campusId],
  ];
  const fields = wanted.flatMap(([field, to]) =>
    // What the platform does not pass on is not taken away.
    to === null || place[field] === to ? [] : [{ field, from: place[field], to }],
  );
  const address = fields.find(({ field }) => field === 'email');
  return address !== undefined && claimed.has(address.to) ? null : fields;
}

function mapBy(places: readonly PlacedPerson[], key: (place: PlacedPerson) => string | null): Places {
  return new Map(places.flatMap((one) => (key(one) === null ? [] : [[key(one) as string, one] as const])));
}
