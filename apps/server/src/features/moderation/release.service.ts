import { Injectable } from '@nestjs/common';
import type { ReleasePeopleRequest, ReleaseRow, ReleaseView } from '@salt-circle/contracts';
import { In } from 'typeorm';
import { Access, assertCan, assertCanSee } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { ownFeedbackOf } from '../../permissions/exchange-facts.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { activeParticipants } from '../../queries/participants.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { isHandedIn } from '../../queries/versions.js';
import { Withheld } from '../../model/moderation.js';
import { Draft } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { ReleaseNews } from '../feedback/release-news.service.js';

/** Who of the authors gets what, and when: with all others, before them, or not yet. */
@Injectable()
export class ReleaseService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly news: ReleaseNews,
  ) {}

  async view(person: CurrentUser, exchangeId: string): Promise<ReleaseView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const labels = await PersonLabels.ofExchange(manager, context);
    const ofDraft = groupedBy(await manager.findBy(Review, { exchangeId }), ({ draftId }) => draftId);
    const withheld = await rowsOfReviews(manager, Withheld, exchangeId).getMany();
    const kept = groupedBy(withheld, ({ reviewId }) => reviewId);
    const drafts = await manager
      .createQueryBuilder(Draft, 'draft')
      .where('draft.exchangeId = :exchangeId', { exchangeId })
      .andWhere(isHandedIn(manager))
      .getMany();
    const authors = await Authors.load(manager, context.exchange);
    const received = new Map<string, Omit<ReleaseRow, 'participantId' | 'person' | 'how' | 'reason' | 'readAt'>>();
    for (const draft of drafts) {
      const own = authors.of(draft);
      const byOthers = (ofDraft.get(draft.id) ?? []).filter(({ reviewerId }) => !own.includes(reviewerId));
      const submitted = byOthers.filter(({ submittedAt }) => submittedAt !== null);
      const allocated = byOthers.filter(({ voice }) => voice === null);
      const got = submitted.filter(({ withheldAt }) => withheldAt === null);
      const row = {
        reviews: got.length,
        waiting: allocated.filter(({ submittedAt }) => submittedAt === null).length,
        withheld: submitted.reduce((sum, { id }) => sum + (kept.get(id)?.length ?? 0), 0),
      };
      for (const id of own) received.set(id, row);
    }
    const active = await activeParticipants(manager, exchangeId);
    const rows = active.flatMap((one): ReleaseRow[] => {
      const got = received.get(one.id);
      if (got === undefined) return [];
      return [
        {
          participantId: one.id,
          person: labels.author(one.id),
          ...got,
          how: ownFeedbackOf(one, context.now),
          reason: one.feedbackHeld,
          readAt: isoOrNull(one.feedbackReadAt),
        },
      ];
    });
    rows.sort((a, b) => (a.person.name ?? '').localeCompare(b.person.name ?? ''));
    return { rows, read: active.filter(({ feedbackReadAt }) => feedbackReadAt !== null).length };
  }

  /** What somebody has read stays read: feedback is not held back from them any more. */
  async setPeople(
    person: CurrentUser,
    exchangeId: string,
    { participantIds, how, reason = '' }: ReleasePeopleRequest,
  ): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'release' });
      const ids = [...new Set(participantIds)];
      const people = await manager.findBy(Participant, { exchangeId, id: In(ids) });
      if (people.length < ids.length) throw refusal('unknown');
      const changed = people.filter((one) => how !== 'held' || one.feedbackReadAt === null);
      const set = {
        'as-planned': { feedbackFrom: null, feedbackHeld: null },
        held: { feedbackFrom: null, feedbackHeld: reason.trim() },
        early: { feedbackFrom: context.now, feedbackHeld: null },
      }[how];
      await manager.update(Participant, { id: In(changed.map(({ id }) => id)) }, set);
      const untold = changed.filter(({ feedbackToldAt }) => feedbackToldAt === null).map(({ id }) => id);
      if (how === 'early') await this.news.tellNow(manager, context.exchange, untold, context.now);
      const where = { courseId: context.course.id, exchangeId };
      emit({
        ...where,
        action: 'release-changed',
        actorId: person.id,
        details: { how, people: changed.length },
      });
      // Each hears of the own feedback alone.
      emit.quietly({ topic: 'own-draft', ...where, personIds: changed.map(({ personId }) => personId) });
    });
  }
}
