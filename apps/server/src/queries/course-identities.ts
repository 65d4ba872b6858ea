import { In, type EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { portions } from '../platform/database/portions.js';

/** What a course says of somebody. It is the course's own: other courses, and the account behind it, may say otherwise. */
export type CourseIdentity = Pick<Enrolment, 'name' | 'email' | 'campusId'>;

/** How a course lists these people, by person's id; whoever has never had a place in it is missing. One query for every 500. */
export async function courseIdentities(
  manager: EntityManager,
  courseId: string,
  personIds: readonly string[],
): Promise<Map<string, CourseIdentity>> {
  const listed = new Map<string, CourseIdentity>();
  for (const some of portions(personIds)) {
    const rows = await manager.find(Enrolment, {
      select: { personId: true, name: true, email: true, campusId: true },
      where: { courseId, personId: In(some) },
    });
    for (const { personId, ...one } of rows) listed.set(personId, one);
  }
  return listed;
}

/** Names by which a course shows these people, by person's id. */
export async function courseNames(
  manager: EntityManager,
  courseId: string,
  personIds: readonly string[],
): Promise<Map<string, string>> {
  const listed = await courseIdentities(manager, courseId, personIds);
  return new Map([...listed].map(([id, { name }]) => [id, name]));
}
