import type { Role } from '../visibility/facts.js';
import { addressIn, fieldsOf, nameIn, textOf, textsOf } from './reading.js';
import { courseRole } from './roles.js';

/** Somebody whom a platform names as a member of a course. */
export interface LtiMember {
  /** Of the person at the platform, for good. */
  readonly user: string;
  readonly name: string | null;
  readonly email: string | null;
  readonly campusId: string | null;
  /** Null where the person has no place here. */
  readonly role: Role | null;
}

export interface MembersPage {
  readonly members: readonly LtiMember[];
  /** Entries without an id of the person, which nothing can be done with. */
  readonly unreadable: number;
}

/**
 * One page of a membership container (Names and Role Provisioning Services 2.0, section 2.4). Without a status somebody is active; whoever
 * is inactive or deleted there is left out, and so is no member here.
 *
 * @returns null for what is no such container
 */
export function readMembers(page: unknown): MembersPage | null {
  const entries = fieldsOf(page)?.['members'];
  if (!Array.isArray(entries)) return null;
  const members: LtiMember[] = [];
  let unreadable = 0;
  for (const entry of entries) {
    const fields = fieldsOf(entry);
    const user = textOf(fields?.['user_id'], 255);
    if (fields === null || user === null) {
      unreadable += 1;
      continue;
    }
    if (fields['status'] !== undefined && fields['status'] !== 'Active') continue;
    members.push({
      user,
      name: nameIn(fields, 200),
      email: addressIn(fields),
      campusId: textOf(fields['lis_person_sourcedid'], 200),
      role: courseRole(textsOf(fields['roles'])),
    });
  }
  return { members, unreadable };
}
