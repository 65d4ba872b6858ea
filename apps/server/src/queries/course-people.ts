import type { Enrolled, PlaceSource } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Person } from '../model/person.js';

export interface CoursePerson extends Enrolled {
  readonly personId: string;
  /** By somebody's account; which one is nobody's business in the course. */
  readonly taken: boolean;
  readonly source: PlaceSource;
  readonly ltiUser: string | null;
}

type Raw = Omit<CoursePerson, 'active' | 'taken'> & { readonly active: number; readonly taken: number };

/** Everybody with a place in the course, dropped ones included, by name. One query. */
export async function enrolledOf(manager: EntityManager, courseId: string): Promise<CoursePerson[]> {
  const rows = await manager
    .createQueryBuilder(Enrolment, 'enrolment')
    .innerJoin(Person, 'person', 'person.id = enrolment.personId')
    .select([
      'enrolment.id AS id',
      'enrolment.personId AS personId',
      'enrolment.name AS name',
      'enrolment.email AS email',
      'enrolment.campusId AS campusId',
      'enrolment.section AS section',
      'enrolment.trait AS trait',
      'enrolment.role AS role',
      'enrolment.active AS active',
      'enrolment.source AS source',
      'enrolment.ltiUser AS ltiUser',
      '(person.email IS NOT NULL OR EXISTS (SELECT 1 FROM lti_person WHERE lti_person.personId = person.id)) AS taken',
    ])
    .where('enrolment.courseId = :courseId', { courseId })
    .getRawMany<Raw>();
  return rows
    .map((row) => ({ ...row, active: row.active === 1, taken: row.taken === 1 }))
    .sort((a, b) => a.name.localeCompare(b.name));
}
