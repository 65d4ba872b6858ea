import { Injectable } from '@nestjs/common';
import type { ExchangeView, StaffFigures, StudentMarks } from '@salt-circle/contracts';
import { feedbackIsOpen, hasPractised, isReleasedToAll, maySee } from '@salt-circle/core';
import { IsNull, Not } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Database } from '../../platform/database/database.js';
import { Authors } from '../../queries/authors.js';
import { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import { changedSinceHandIn, isHandedIn } from '../../queries/versions.js';
import { Review } from '../../model/review.js';
import { ReflectionRow } from '../../model/revision.js';
import { Access, can, ownParticipant, type ExchangeContext } from '../../permissions/access.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Participant } from '../../model/exchange.js';
import { attachmentsOf } from '../../queries/attachments.js';
import { courseCard, exchangeCard, personalDatesPart } from '../../queries/exchange-views.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { activeParticipants } from '../../queries/participants.js';
import { practiceStates } from '../../permissions/practice.js';

@Injectable()
export class ExchangesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  async one(person: CurrentUser, exchangeId: string): Promise<ExchangeView> {
    const context = await this.access.exchange(person, exchangeId);
    const { exchange, course, viewer, facts, now, own } = context;
    // What a practice draft stands in is no exchange to be looked at.
    if (facts.practice) throw refusal('unknown');
    const student = viewer.role === 'student';
    return {
      ...exchangeCard(exchange, now, own),
      course: courseCard(course, viewer.role ?? 'student'),
      names: exchange.names,
      reviewsPerStudent: exchange.reviewsPerStudent,
      selfReview: exchange.selfReview,
      deliverables: exchange.deliverables,
      late: exchange.late,
      gradeParts: exchange.gradeParts,
      briefHtml: exchange.briefHtml,
      guideHtml: exchange.guideHtml,
      attachments: await attachmentsOf(this.database.read, exchange.id),
      alias: student && exchange.names !== 'open' ? ownParticipant(context).alias : null,
      mayHandIn: facts.may.handIn,
      handInIsLate: facts.may.late,
      mayReview: facts.may.review,
      maySelfReview: facts.may.selfReview,
      mayRevise: can(context, { kind: 'hand-in-revision' }),
      mayReflect: can(context, { kind: 'reflect' }),
      revisionShown: facts.revisionShown,
      othersReviews: facts.othersReviews,
      reflection: facts.reflection,
      secondRound: exchange.followsId !== null,
      gradeOpen: student && exchange.gradeParts.length > 0 ? facts.gradesReleased : null,
      gradesRelease: isoOrNull(exchange.gradesRelease),
      released: facts.may.released,
      feedbackOpen: feedbackIsOpen(facts),
      feedbackHeld: facts.ownFeedback === 'held' && isReleasedToAll(facts),
      own: own === null ? null : personalDatesPart(own),
      practice: student ? await this.#practice(context) : null,
      figures: student ? null : await this.#figures(context),
      marks: student ? await this.#marks(context) : null,
    };
  }

  async #practice({ exchange, person }: ExchangeContext): Promise<ExchangeView['practice']> {
    const states = (await practiceStates(this.database.read, exchange, person.id))?.(person.id) ?? [];
    const done = states.filter((state) => hasPractised([state])).length;
    return states.length === 0 ? null : { done, of: states.length, first: exchange.practice.when === 'first' };
  }

  async #figures({ exchange }: ExchangeContext): Promise<StaffFigures> {
    const exchangeId = exchange.id;
    const manager = this.database.read;
    const active = await activeParticipants(manager, exchangeId);
    const own = await allPersonalDates(manager, exchange);
    const students = active.filter(({ personId }) => own.get(personId)?.excused !== true).length;
    const drafts = await manager
      .createQueryBuilder(Draft, 'draft')
      .where('draft.exchangeId = :exchangeId', { exchangeId })
      .andWhere(isHandedIn(manager))
      .getMany();
    const authors = await Authors.load(manager, exchange);
    const authorIds = new Set(drafts.flatMap((draft) => authors.of(draft)));
    const handedIn = active.filter(({ id }) => authorIds.has(id)).length;
    const reviews = await manager
      .createQueryBuilder(Review, 'review')
      .select('COUNT(*)', 'allocated')
      .addSelect('COUNT(review.submittedAt)', 'submitted')
      .addSelect('COUNT(review.begunAt)', 'begun')
      .where('review.exchangeId = :exchangeId AND review.voice IS NULL', { exchangeId })
      .getRawOne<{ allocated: number; submitted: number; begun: number }>();
    const { allocated = 0, submitted = 0, begun = 0 } = reviews ?? {};
    const extras = await manager.findBy(Participant, { exchangeId, extraReviews: Not(IsNull()) });
    const asked = extras.reduce((sum, one) => sum + (one.extraReviews ?? 0), handedIn * exchange.reviewsPerStudent);
    return { students, handedIn, allocated, submitted, begun, asked };
  }

  async #marks(context: ExchangeContext): Promise<StudentMarks> {
    const manager = this.database.read;
    const { id: participantId } = ownParticipant(context);
    const draft = await this.access.ownDraft(context);
    const versions =
      draft === null
        ? []
        : await manager.find(DraftVersion, {
            where: { draftId: draft.id, withdrawnAt: IsNull() },
            order: { number: 'ASC' },
          });
    const begun = draft !== null && (draft.revision > 0 || (await manager.existsBy(DraftPart, { draftId: draft.id })));
    const mine = await manager.findBy(Review, { reviewerId: participantId });
    const received = draft === null ? [] : await manager.findBy(Review, { draftId: draft.id });
    const opened = maySee(context.viewer, context.facts, {
      kind: 'own-reviews',
      viewerHandedIn: versions.length > 0,
    }).allowed;
    return {
      draft: versions.length > 0 ? 'handed-in' : begun ? 'saved' : 'none',
      savedSinceHandIn:
        draft !== null &&
        (await changedSinceHandIn(manager, draft, versions.at(-1) ?? null, context.exchange.deliverables)),
      versions: versions.filter(({ purpose }) => purpose === 'draft').length,
      // Reviewers learn of their allocation when they may open the drafts, not before.
      reviewsAllocated: opened ? mine.length : 0,
      reviewsDone: mine.filter(({ submittedAt }) => submittedAt !== null).length,
      reviewsReceived: feedbackIsOpen(context.facts)
        ? received.filter(({ submittedAt, withheldAt }) => submittedAt !== null && withheldAt === null).length
        : null,
      revised: versions.some(({ purpose }) => purpose === 'revision'),
      reflected: await manager.existsBy(ReflectionRow, { participantId, handedInAt: Not(IsNull()) }),
    };
  }
}
