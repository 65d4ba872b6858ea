import { Injectable } from '@nestjs/common';
import {
  LIMITS,
  type RatingRequest,
  type ReplyRequest,
  type ReplyView,
  type ThreadsView,
} from '@salt-circle/contracts';
import { endOf, isReleasedToAll, resolveDates, withPersonalDates } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Access, assertCan, can, ownParticipant, assertCanSee, canSee } from '../../permissions/access.js';
import { authorPersons } from '../../queries/authors.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { courseIdentities, courseNames } from '../../queries/course-identities.js';
import { writingState, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { readableRows, type WrittenRows } from '../../queries/written-rows.js';
import { Participant } from '../../model/exchange.js';
import { RatingRow, ReplyRow } from '../../model/reply.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import { say } from '../../words/replies.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

type As = ReplyRow['as'];

/** What authors, reviewers and staff answer each other, and how a review helped. */
@Injectable()
export class Replies {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  async threads(person: CurrentUser, reviewId: string): Promise<ThreadsView> {
    const manager = this.database.read;
    const access = await reviewAccess(this.access, manager, person, reviewId);
    return this.#view(manager, access);
  }

  /** Sent twice, it is there once. */
  async reply(person: CurrentUser, reviewId: string, request: ReplyRequest): Promise<ThreadsView> {
    await this.database.write(async (manager, emit) => {
      const access = await reviewAccess(this.access, manager, person, reviewId);
      const { context } = access;
      const all = await manager.findBy(ReplyRow, { reviewId });
      const taken = await manager.findOneBy(ReplyRow, { id: request.id });
      if (taken !== null) {
        if (taken.reviewId === reviewId && isOwn(taken, access)) return;
        throw refusal('unknown');
      }
      assertCan(context, replying(access, all, request));
      await this.#assertThere(manager, access, request);
      if (all.length >= LIMITS.replies) throw full();
      const as = asWhat(access);
      const row = manager.create(ReplyRow, {
        ...{ id: request.id, reviewId, noteId: request.noteId, itemId: request.itemId, as },
        participantId: as === 'staff' ? null : ownParticipant(context).id,
        personId: as === 'staff' ? person.id : null,
        ...{ words: request.words.trim(), at: context.now },
      });
      await manager.insert(ReplyRow, row);
      await this.#tell(manager, access, row);
      const where = { courseId: context.course.id, exchangeId: context.exchange.id };
      emit({ action: 'replied', actorId: person.id, ...where, details: { review: reviewId, as } });
      const personIds = await concerned(manager, access);
      emit.quietly({ topic: 'own-review', ...where, personIds: personIds.reviewer });
      emit.quietly({ topic: 'own-draft', ...where, personIds: personIds.authors });
    });
    return this.threads(person, reviewId);
  }

  async rate(person: CurrentUser, reviewId: string, { helped, words }: RatingRequest): Promise<ThreadsView> {
    await this.database.write(async (manager, emit) => {
      const access = await reviewAccess(this.access, manager, person, reviewId);
      const { context } = access;
      assertCan(context, rating(access));
      const { id: participantId } = ownParticipant(context);
      await manager.save(RatingRow, { reviewId, participantId, helped, words: words.trim(), at: context.now });
      emit.quietly({ topic: 'reviews', courseId: context.course.id, exchangeId: context.exchange.id });
    });
    return this.threads(person, reviewId);
  }

  async #view(manager: EntityManager, access: ReviewAccess): Promise<ThreadsView> {
    const { context, review, draft } = access;
    const written = { submitted: review.submittedAt !== null, withheld: review.withheldAt !== null };
    assertCanSee(context, { kind: 'thread', ...writingState(access), ...written });
    const all = await manager.find(ReplyRow, { where: { reviewId: review.id }, order: { at: 'ASC', id: 'ASC' } });
    const rows = all.filter(speaksOf(await readableRows(manager, access)));
    const staff = context.viewer.role !== 'student';
    const names = await courseNames(
      manager,
      context.course.id,
      rows.flatMap(({ personId }) => personId ?? []),
    );
    const labels = await PersonLabels.ofExchange(manager, context);
    const labelOf = ({ as, participantId, personId }: ReplyRow) => {
      if (as === 'staff') return { name: names.get(personId ?? '') ?? say('someoneWhoHasLeft') };
      if (as === 'reviewer') return labels.reviewerOf(review);
      return participantId === context.participant?.id ? labels.author(participantId) : labels.authorOf(draft);
    };
    const rated = await manager.findOneBy(RatingRow, { reviewId: review.id });
    const { byViewer, ofOwnDraft } = access;
    const shown = rated !== null && canSee(context, { kind: 'rating', byViewer, ofOwnDraft: ofOwnDraft && !byViewer });
    const dates = resolveDates(datesOf(context.exchange));
    const until = dates === null ? null : withPersonalDates(dates, context.own).repliesDue;
    const { ratings } = context.facts;
    return {
      replies: rows.map((row): ReplyView => {
        const { id, noteId, itemId, as, words } = row;
        const told = staff || as === 'staff' || isOwn(row, access);
        return { ...{ id, noteId, itemId, as, words }, by: labelOf(row), at: told ? iso(row.at) : null };
      }),
      may: can(context, replying(access, all)),
      over: !staff && until !== null && context.now >= endOf(until),
      until: staff ? null : isoOrNull(until),
      rating: shown ? { helped: rated.helped, words: rated.words } : null,
      mayRate: can(context, rating(access)),
      ratingRead: ratings === 'off' ? null : ratings,
    };
  }

  /** @throws ProblemError unless what is answered is there, for the one who answers */
  async #assertThere(manager: EntityManager, access: ReviewAccess, { noteId, itemId }: ReplyRequest) {
    if (noteId !== null && itemId !== null) throw refusal('unknown');
    const there = speaksOf(await readableRows(manager, access));
    if (!there({ noteId, itemId })) throw refusal('unknown');
  }

  /** The other side hears of it, once until it has looked; of what its author does not see, that one does not hear. */
  async #tell(manager: EntityManager, access: ReviewAccess, { as, noteId, itemId }: ReplyRow): Promise<void> {
    const { context, review } = access;
    const { course, exchange } = context;
    const persons = await concerned(manager, access);
    const asAuthor = { context: { ...context, viewer: { role: 'student' as const } }, review, byViewer: false };
    const open = speaksOf(await readableRows(manager, asAuthor))({ noteId, itemId });
    const authors = open && review.withheldAt === null && isReleasedToAll(context.facts) ? persons.authors : [];
    const to = [
      ...(as === 'reviewer' ? [] : persons.reviewer.map((id) => [id, `/reviews/${review.id}`, 'review'] as const)),
      ...(as === 'author' ? [] : authors.map((id) => [id, `/exchanges/${exchange.id}/feedback`, 'feedback'] as const)),
    ].filter(([id]) => id !== context.person.id);
    const listed = await courseIdentities(
      manager,
      course.id,
      to.map(([id]) => id),
    );
    const where = { course: course.title, exchange: exchange.title };
    const letters = to.flatMap(([personId, path, what]): Letter[] => {
      const address = listed.get(personId)?.email;
      if (address === undefined) return [];
      return [
        {
          kind: 'reply',
          address,
          subject: say(what === 'review' ? 'reviewOfYours' : 'yourFeedback', where),
          text: paragraphs([
            say(what === 'review' ? 'answeredInReview' : 'somebodyHasAnsweredInFor', where),
            `${this.database.mail.publicUrl}${path}`,
          ]),
          courseId: course.id,
          exchangeId: exchange.id,
          news: { personId, path },
        },
      ];
    });
    await queueMail(manager, this.ids, this.database.mail, context.now, letters);
  }
}

function asWhat({ context, byViewer }: ReviewAccess): As {
  if (context.viewer.role !== 'student') return 'staff';
  return byViewer ? 'reviewer' : 'author';
}

function isOwn({ participantId, personId }: ReplyRow, { context }: ReviewAccess): boolean {
  return participantId === null ? personId === context.person.id : participantId === context.participant?.id;
}

/** Whether a reply is about something that is there for the one who looks. */
function speaksOf({ notes, answers }: WrittenRows): (to: Pick<ReplyRow, 'noteId' | 'itemId'>) => boolean {
  const noteIds = new Set(notes.map(({ id }) => id));
  const itemIds = new Set(answers.map(({ itemId }) => itemId));
  return ({ noteId, itemId }) => (noteId === null || noteIds.has(noteId)) && (itemId === null || itemIds.has(itemId));
}

function replying(
  { byViewer, ofOwnDraft, review }: ReviewAccess,
  all: readonly ReplyRow[],
  to?: Pick<ReplyRow, 'noteId' | 'itemId'>,
) {
  const here = to === undefined ? all : all.filter((one) => one.noteId === to.noteId && one.itemId === to.itemId);
  const written = { submitted: review.submittedAt !== null, withheld: review.withheldAt !== null };
  return { kind: 'reply', byViewer, ofOwnDraft, ...written, begun: here.some(({ as }) => as !== 'reviewer') } as const;
}

function rating({ byViewer, ofOwnDraft, review }: ReviewAccess) {
  // How staff helped is not asked: whoever reads the answer would be whom it is about.
  const ratable = ofOwnDraft && !byViewer && review.voice === null;
  const written = { submitted: review.submittedAt !== null, withheld: review.withheldAt !== null };
  return { kind: 'rate', ofOwnDraft: ratable, ...written } as const;
}

async function concerned(
  manager: EntityManager,
  { context, review, draft }: ReviewAccess,
): Promise<{ readonly reviewer: string[]; readonly authors: string[] }> {
  const reviewer = await manager.findBy(Participant, { id: In([review.reviewerId]) });
  const persons = await authorPersons(manager, context.exchange, draft);
  const held = await manager.findBy(Participant, { exchangeId: context.exchange.id, personId: In(persons) });
  return {
    reviewer: reviewer.map(({ personId }) => personId),
    authors: held.filter(({ feedbackHeld }) => feedbackHeld === null).map(({ personId }) => personId),
  };
}

function full(): ProblemError {
  return new ProblemError({
    code: 'limit-reached',
    sentence: say('thereAreAnswersToThis', { replies: LIMITS.replies }),
    whatToDo: say('talkToEachOtherIn'),
  });
}
