import { PART_WORDS, type GradePartName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Campus, CampusColumn, CampusCourse, CampusPerson } from '../../../model/campus.js';
import { Enrolment } from '../../../model/course.js';
import { Exchange } from '../../../model/exchange.js';

/** An exchange whose grades a campus takes. */
export interface Booked {
  readonly exchange: Exchange;
  readonly link: CampusCourse;
  readonly campus: Campus;
  readonly columns: readonly CampusColumn[];
}

export type PartOrWhole = GradePartName | '';

/** @returns null where the course is not linked */
export async function bookedOf(manager: EntityManager, exchangeId: string): Promise<Booked | null> {
  const exchange = await manager.findOneBy(Exchange, { id: exchangeId });
  const link = exchange === null ? null : await manager.findOneBy(CampusCourse, { courseId: exchange.courseId });
  if (exchange === null || link === null) return null;
  const campus = await manager.findOneByOrFail(Campus, { id: link.campusId });
  return { exchange, link, campus, columns: await manager.findBy(CampusColumn, { exchangeId }) };
}

/** What a column is called at the campus. */
export function labelOf({ title }: Pick<Exchange, 'title'>, part: PartOrWhole): string {
  return part === '' ? title : `${title}: ${PART_WORDS[part]}`;
}

/** By which a column of ours is found again at the campus. */
export function tagOf(part: PartOrWhole): string {
  return part === '' ? 'grade' : part;
}

/** Ids at the campus, by person: as the course is tied, or as the person once came. Two queries. */
export async function usersOf(
  manager: EntityManager,
  { courseId, campusId }: CampusCourse,
): Promise<Map<string, string>> {
  const came = await manager.findBy(CampusPerson, { campusId });
  const tied = await manager.find(Enrolment, { select: { personId: true, campusUser: true }, where: { courseId } });
  const users = new Map(came.map(({ personId, user }) => [personId, user]));
  for (const { personId, campusUser } of tied) if (campusUser !== null) users.set(personId, campusUser);
  return users;
}
