import { afterArriving, type ArrivalFacts, type ArrivalStep, type ArrivalStop, type Launch } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { LtiCourse, LtiPerson, type LtiArrival } from '../../../model/lti.js';
import { Enrolment } from '../../../model/course.js';
import { Person } from '../../../model/person.js';

/** Where somebody whom a platform has sent stands. */
export interface ArrivalState {
  readonly person: Person | null;
  readonly link: LtiCourse | null;
  readonly place: Enrolment | null;
  /** The place that waits for the person, and the person behind it. */
  readonly waiting: { readonly place: Enrolment; readonly behind: Person; readonly taken: boolean } | null;
  readonly next: ArrivalStep | { readonly stop: ArrivalStop };
}

export type Arriving = Pick<LtiArrival, 'platformId' | 'launch' | 'roleRead'>;

/** Loads what is known of the person and the course, and asks the core what comes next. */
export async function arrivalState(
  manager: EntityManager,
  { platformId, launch, roleRead }: Arriving,
): Promise<ArrivalState> {
  const tie = await manager.findOneBy(LtiPerson, { platformId, user: launch.user });
  const person = tie === null ? null : await manager.findOneBy(Person, { id: tie.personId });
  const { deploymentId, course } = launch;
  const link = await manager.findOneBy(LtiCourse, { platformId, deploymentId, contextId: course.id });
  const courseId = link?.courseId;
  const place =
    courseId === undefined || person === null
      ? null
      : await manager.findOneBy(Enrolment, { courseId, personId: person.id });
  const waiting = courseId === undefined || place !== null ? null : await waitingFor(manager, courseId, launch);
  const facts: ArrivalFacts = {
    role: launch.role,
    known: person !== null,
    linked: link !== null,
    place: place === null ? null : { role: place.role, active: place.active },
    waiting:
      waiting === null
        ? null
        : { taken: waiting.taken, active: waiting.place.active, by: byOf(waiting, person, launch) },
    choosing: launch.choosing !== null,
    roleRead,
  };
  return { person, link, place, waiting, next: afterArriving(facts) };
}

async function waitingFor(manager: EntityManager, courseId: string, launch: Launch): Promise<ArrivalState['waiting']> {
  const tied = await manager.findOneBy(Enrolment, { courseId, ltiUser: launch.user });
  const place =
    tied ?? (launch.email === null ? null : await manager.findOneBy(Enrolment, { courseId, email: launch.email }));
  if (place === null) return null;
  const behind = await manager.findOneByOrFail(Person, { id: place.personId });
  const taken = behind.email !== null || (await manager.existsBy(LtiPerson, { personId: behind.id }));
  return { place, behind, taken };
}

/** An account whose address is confirmed has shown that mail to the place's address reaches the person. */
function byOf({ place }: { readonly place: Enrolment }, person: Person | null, { user }: Launch): 'tie' | 'email' {
  if (place.ltiUser === user) return 'tie';
  return person?.email === place.email && person.addressConfirmedAt !== null ? 'tie' : 'email';
}
