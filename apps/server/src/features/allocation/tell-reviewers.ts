import { maySee } from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import { Course, Enrolment } from '../../model/course.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { factsOf } from '../../permissions/exchange-facts.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import type { Ids } from '../../platform/ids/ids.js';
import type { MailSettings } from '../../platform/config/settings.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { dateInWords } from '../../platform/problems/sentences.js';
import { Review } from '../../model/review.js';
import { handedInDrafts } from './handed-in.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import { say } from '../../words/allocation.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

/**
 * Mails reviewers that they have drafts to review, once they may open them and not before: when reviewing has opened and,
 * where that is asked for, when they have handed in their own. One mail for all that is new.
 *
 * @returns how many were told
 */
export async function tellReviewers(
  manager: EntityManager,
  exchange: Exchange,
  now: number,
  mail: MailSettings,
  ids: Ids,
): Promise<number> {
  const reviews = await manager.findBy(Review, {
    exchangeId: exchange.id,
    ...ALLOCATED,
    toldAt: IsNull(),
    submittedAt: IsNull(),
  });
  if (reviews.length === 0) return 0;
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const participants = new Map(
    (await manager.findBy(Participant, { exchangeId: exchange.id })).map((one) => [one.id, one]),
  );
  const handedIn = new Set((await handedInDrafts(manager, exchange)).flatMap(({ authorIds }) => authorIds));
  const personalDates = await allPersonalDates(manager, exchange);
  const byReviewer = new Map<string, Review[]>();
  for (const review of reviews) {
    byReviewer.set(review.reviewerId, [...(byReviewer.get(review.reviewerId) ?? []), review]);
  }
  const letters: Letter[] = [];
  for (const [reviewerId, mine] of byReviewer) {
    const { personId, extraReviews } = participants.get(reviewerId) as Participant;
    const own = personalDates.get(personId) ?? null;
    const facts = factsOf(exchange, own, now);
    const viewerHandedIn = extraReviews !== null || handedIn.has(reviewerId);
    const open = maySee({ role: 'student' }, facts, { kind: 'own-reviews', viewerHandedIn });
    if (!open.allowed || !facts.may.review) continue;
    const { email } = await manager.findOneByOrFail(Enrolment, { courseId: course.id, personId });
    const due = dateInWords(own?.reviewsDue ?? (exchange.reviewsDue as number), course.timeZone);
    letters.push({
      kind: 'reviews-to-write',
      address: email,
      ...letter(exchange, course, mine.length, due, mail.publicUrl),
      courseId: course.id,
      news: { personId, path: `/exchanges/${exchange.id}/review` },
    });
    for (const { id } of mine) await manager.update(Review, { id }, { toldAt: now });
  }
  const rows = letters.map((one) => ({ ...one, exchangeId: exchange.id }));
  if (rows.length > 0) await queueMail(manager, ids, mail, now, rows);
  return rows.length;
}

function letter(
  exchange: Exchange,
  course: Course,
  count: number,
  due: string,
  publicUrl: string,
): Pick<Letter, 'subject' | 'text'> {
  const what = { count, course: course.title, exchange: exchange.title };
  return {
    subject: say('forYouToReviewIn', what),
    text: paragraphs([
      say('youHaveBeenGivenTo', what),
      say('reviewsDue', { due }),
      `${publicUrl}/exchanges/${exchange.id}/review`,
    ]),
  };
}
