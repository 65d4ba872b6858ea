import type { Role } from '../visibility/facts.js';

/** What is known when a platform has sent somebody. */
export interface ArrivalFacts {
  /** What the platform says the person is in the course; null for what has no place here. */
  readonly role: Role | null;
  /** Whether it is known whose account stands behind the person. */
  readonly known: boolean;
  /** Whether the platform's course is one of ours. */
  readonly linked: boolean;
  /** The place that the person has in it. */
  readonly place: { readonly role: Role; readonly active: boolean } | null;
  /**
   * A place of the course that seems to be meant for the person: tied to the person's id at the platform, or with the address that the
   * platform names. `taken`: by an account.
   */
  readonly waiting: { readonly by: 'tie' | 'email'; readonly taken: boolean; readonly active: boolean } | null;
  /** That something is to be chosen for a page of the platform. */
  readonly choosing: boolean;
  /** That the person has been told that the platform gives another role. */
  readonly roleRead: boolean;
}

/**
 * `who`: the first time; go on, or say which account is the own one. `prove`: a place waits that only its owner can take. `course`: the
 * instructor says which course it is. `take`, `add`: the place that waits is taken, or a new one made, without a question. `role`: told that
 * the platform gives another role. `choose`: something for a page of the platform.
 */
export type ArrivalStep = 'who' | 'prove' | 'course' | 'take' | 'add' | 'role' | 'choose' | 'go';
export type ArrivalStop = 'no-role' | 'not-linked' | 'dropped' | 'taken' | 'not-staff';

/**
 * What comes next for somebody whom a platform has sent. Nobody is taken for somebody else by an address alone; a place that somebody was
 * dropped from is not given back by a platform; and a role that the course gives is not changed by one.
 */
export function afterArriving(facts: ArrivalFacts): ArrivalStep | { readonly stop: ArrivalStop } {
  const { role, known, linked, place, waiting, choosing, roleRead } = facts;
  if (role === null && place === null) return { stop: 'no-role' };
  if (!linked && role !== 'instructor') return { stop: 'not-linked' };
  const due = place === null ? waiting : null;
  if (due?.active === false) return { stop: 'dropped' };
  // Two accounts, each of which is somebody's already: that is for people to sort out.
  if (due?.taken === true && known) return { stop: 'taken' };
  if (due !== null && (due.taken || due.by === 'email')) return 'prove';
  if (!known) return 'who';
  if (!linked) return 'course';
  if (place === null) return due === null ? 'add' : 'take';
  if (!place.active) return { stop: 'dropped' };
  if (place.role !== role && !roleRead) return 'role';
  if (!choosing) return 'go';
  return place.role === 'instructor' ? 'choose' : { stop: 'not-staff' };
}
