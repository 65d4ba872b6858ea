import { Injectable } from '@nestjs/common';
import type { StoryEvent, StoryView } from '@salt-circle/contracts';
import { In } from 'typeorm';
import { Access, participantOf, assertCanSee } from '../../permissions/access.js';
import { draftOf, groupIdOf } from '../../permissions/own-draft.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { courseIdentities } from '../../queries/course-identities.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { LookRequestRow } from '../../model/moderation.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { Mail } from '../../model/mail.js';
import { RatingRow, ReplyRow } from '../../model/reply.js';
import { Review } from '../../model/review.js';
import { ReflectionRow } from '../../model/revision.js';
import { Database } from '../../platform/database/database.js';
import { iso } from '../../platform/wire/instants.js';

/** One person’s whole story in an exchange, in order of time, each line leading to its evidence; for staff. */
@Injectable()
export class Stories {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  async of(person: CurrentUser, exchangeId: string, participantId: string): Promise<StoryView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const participant = await participantOf(manager, exchangeId, participantId);
    const labels = await PersonLabels.ofExchange(manager, context);
    const groupId = await groupIdOf(manager, context.exchange, participant.personId);
    const draft = await draftOf(manager, participant, groupId);
    const exchange = `/exchanges/${exchangeId}`;
    const found: Array<Omit<StoryEvent, 'at'> & { readonly at: number | null }> = [];
    const add = (kind: StoryEvent['kind'], at: number | null, to: string | null, more: Partial<StoryEvent> = {}) =>
      found.push({ number: null, about: null, words: null, ...more, kind, at, to });
    const versions = draft === null ? [] : await manager.findBy(DraftVersion, { draftId: draft.id });
    for (const { number, purpose, handedInAt, withdrawnAt } of versions) {
      const revision = purpose === 'revision';
      const to = `${exchange}/${revision ? 'after' : 'drafts'}/${draft?.id}`;
      add(revision ? 'revision' : 'handed-in', handedInAt, to, { number });
      add('withdrawn', withdrawnAt, null, { number });
    }
    const reviews = await manager.findBy(Review, { exchangeId, reviewerId: participantId });
    const drafts = new Map(
      (await manager.findBy(Draft, { id: In(reviews.map(({ draftId }) => draftId)) })).map((one) => [one.id, one]),
    );
    for (const { id, draftId, toldAt, begunAt, submittedAt, reopenedAt } of reviews) {
      const of = drafts.get(draftId);
      const to = `/reviews/${id}`;
      const more = { about: of === undefined ? null : labels.authorOf(of) };
      add('allocated', toldAt, to, more);
      add('begun', begunAt, to, more);
      add('submitted', submittedAt, to, more);
      add('reopened', reopenedAt, to, more);
    }
    const received = draft === null ? [] : await manager.findBy(Review, { draftId: draft.id });
    for (const review of received)
      add('received', review.submittedAt, `/reviews/${review.id}`, { about: labels.reviewerOf(review) });
    add('told', participant.feedbackToldAt, null);
    add('read', participant.feedbackReadAt, null);
    const own = { participantId };
    for (const { at, reviewId } of await manager.findBy(ReplyRow, own)) add('answered', at, `/reviews/${reviewId}`);
    for (const { at, reviewId } of await manager.findBy(RatingRow, own)) add('rated', at, `/reviews/${reviewId}`);
    for (const { at, reviewId } of await manager.findBy(LookRequestRow, own)) add('asked', at, `/reviews/${reviewId}`);
    const reflection = await manager.findOneBy(ReflectionRow, own);
    add('reflected', reflection?.handedInAt ?? null, `${exchange}/after`);
    const address = (await courseIdentities(manager, context.course.id, [participant.personId])).get(
      participant.personId,
    )?.email;
    const mails = address === undefined ? [] : await manager.findBy(Mail, { exchangeId, address });
    for (const { at, subject } of mails) add('mailed', at, `/courses/${context.course.id}/outbox`, { words: subject });
    return {
      person: labels.author(participantId),
      events: found
        .filter((one): one is typeof one & { readonly at: number } => one.at !== null)
        .sort((a, b) => a.at - b.at)
        .map((one) => ({ ...one, at: iso(one.at) })),
    };
  }
}
