import type { EntityManager } from 'typeorm';
import { courseIdentities } from './course-identities.js';

/** Whoever is written to: by what address, and whose inbox it stands in. */
export interface MailRecipient {
  readonly address: string;
  readonly personId: string;
}

/**
 * In the order given: that of random ids tells nothing of who somebody is, and what follows it neither. Whoever has never had a place in
 * the course is left out.
 */
export async function mailRecipients(
  manager: EntityManager,
  courseId: string,
  personIds: readonly string[],
): Promise<MailRecipient[]> {
  const listed = await courseIdentities(manager, courseId, personIds);
  return personIds.flatMap((personId) => {
    const address = listed.get(personId)?.email;
    return address === undefined ? [] : [{ address, personId }];
  });
}
