import { needsGroups } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { draftOf, groupIdOf } from '../../permissions/own-draft.js';
import { Participant } from '../../model/exchange.js';
import { setupOf } from '../../queries/exchange-setup.js';
import type { CoursePerson } from '../../queries/course-people.js';
import { runningExchanges } from '../../queries/running-exchanges.js';
import { Review } from '../../model/review.js';
import { say } from '../../words/groups.js';

/** What a move between groups means for each exchange under way that goes by them, a sentence each. */
export async function consequencesOfMove(
  manager: EntityManager,
  courseId: string,
  setId: string,
  student: CoursePerson,
  now: number,
): Promise<string[]> {
  const sentences: string[] = [];
  for (const exchange of await runningExchanges(manager, courseId, now)) {
    if (exchange.groupSetId !== setId || !needsGroups(setupOf(exchange))) continue;
    const participant = await manager.findOneBy(Participant, { exchangeId: exchange.id, personId: student.personId });
    if (participant === null) continue;
    const reviews = await manager.findBy(Review, { reviewerId: participant.id });
    const draft = await draftOf(manager, participant, await groupIdOf(manager, exchange, participant.personId));
    const received = draft === null ? 0 : await manager.countBy(Review, { draftId: draft.id });
    const begun = reviews.filter(({ begunAt }) => begunAt !== null).length;
    const about = { exchange: exchange.title, together: exchange.handInAs === 'group' ? 'yes' : 'no' };
    sentences.push(
      reviews.length + received === 0
        ? say('nothingHasBeenAllocatedYet', about)
        : say('toWriteBegunAndTo', { ...about, given: reviews.length, begun, received }),
    );
  }
  return sentences;
}
