import { closeness } from '@salt-circle/core';
import { asForm } from '../../queries/review-form.js';
import { Exchange, Participant, ReviewFormRow } from '../../model/exchange.js';
import { PracticeTry } from '../../model/practice.js';
import { Review } from '../../model/review.js';
import type { EventHandler } from '../../platform/events/event-handler.js';
import { keyOf, writtenIn } from './written.js';

/** Keeps each submitted try of a practice draft, with how near it comes to the key. */
export const practiceHandler: EventHandler = async (events, manager, { now, ids }) => {
  for (const event of events) {
    if (event.action !== 'review-submitted') continue;
    const { exchangeId, details } = event;
    const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId ?? '' });
    if (exchange.practiceOf === null) continue;
    const review = await manager.findOneByOrFail(Review, { id: details.review });
    const { extraReviews } = await manager.findOneByOrFail(Participant, { id: review.reviewerId });
    // The key itself is no try.
    if (extraReviews !== null) continue;
    const main = await manager.findOneByOrFail(Exchange, { id: exchange.practiceOf });
    const form = asForm(await manager.findOneByOrFail(ReviewFormRow, { id: main.formId }));
    const own = await writtenIn(manager, review);
    const key = await writtenIn(manager, await keyOf(manager, exchange.id));
    const { share, kappa } = closeness(form, own.answers, key.answers);
    const number = 1 + (await manager.countBy(PracticeTry, { reviewId: review.id }));
    const row = { id: ids.uuid(), reviewId: review.id, number, submittedAt: now, share, kappa };
    await manager.save(PracticeTry, { ...row, answers: { ...own.answers }, notes: [...own.notes] });
  }
};
