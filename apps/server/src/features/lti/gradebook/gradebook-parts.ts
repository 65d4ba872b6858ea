import { PART_WORDS, type GradePartName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { LtiPlatform, LtiLineItem, LtiCourse, LtiPerson } from '../../../model/lti.js';
import { Enrolment } from '../../../model/course.js';
import { Exchange } from '../../../model/exchange.js';

/** An exchange whose grades a platform takes. */
export interface Booked {
  readonly exchange: Exchange;
  readonly link: LtiCourse;
  readonly platform: LtiPlatform;
  readonly columns: readonly LtiLineItem[];
}

export type PartOrWhole = GradePartName | '';

/** @returns null where the course is not linked */
export async function bookedOf(manager: EntityManager, exchangeId: string): Promise<Booked | null> {
  const exchange = await manager.findOneBy(Exchange, { id: exchangeId });
  const link = exchange === null ? null : await manager.findOneBy(LtiCourse, { courseId: exchange.courseId });
  if (exchange === null || link === null) return null;
  const platform = await manager.findOneByOrFail(LtiPlatform, { id: link.platformId });
  return { exchange, link, platform, columns: await manager.findBy(LtiLineItem, { exchangeId }) };
}

/** What a column is called at the platform. */
export function labelOf({ title }: Pick<Exchange, 'title'>, part: PartOrWhole): string {
  return part === '' ? title : `${title}: ${PART_WORDS[part]}`;
}

/** By which a column of ours is found again at the platform. */
export function tagOf(part: PartOrWhole): string {
  return part === '' ? 'grade' : part;
}

/** Ids at the platform, by person: as the course is tied, or as the person once came. Two queries. */
export async function usersOf(
  manager: EntityManager,
  { courseId, platformId }: LtiCourse,
): Promise<Map<string, string>> {
  const came = await manager.findBy(LtiPerson, { platformId });
  const tied = await manager.find(Enrolment, { select: { personId: true, ltiUser: true }, where: { courseId } });
  const users = new Map(came.map(({ personId, user }) => [personId, user]));
  for (const { personId, ltiUser } of tied) if (ltiUser !== null) users.set(personId, ltiUser);
  return users;
}
