import { Injectable } from '@nestjs/common';
import type { LookRequest, LookRequestView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, ownParticipant, assertCanSee } from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { courseIdentities } from '../../queries/course-identities.js';
import { writingState, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { readableRows } from '../../queries/written-rows.js';
import { LookRequestRow } from '../../model/moderation.js';
import { Enrolment } from '../../model/course.js';
import { Participant } from '../../model/exchange.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import { say } from '../../words/moderation.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

/** As many of one person on one review; whoever has more to say talks to the instructor. */
const MOST = 20;

/** “Please look”: to the instructor, and back. The other side never learns of it. */
@Injectable()
export class LookRequests {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  /** Of the one who asks; staff get everybody’s. */
  async of(person: CurrentUser, reviewId: string): Promise<LookRequestView[]> {
    const manager = this.database.read;
    const access = await reviewAccess(this.access, manager, person, reviewId);
    const { context, review } = access;
    const submitted = review.submittedAt !== null;
    assertCanSee(context, { kind: 'review', ...writingState(access), submitted, withheld: review.withheldAt !== null });
    const staff = context.viewer.role !== 'student';
    const participantId = staff ? undefined : ownParticipant(context).id;
    const rows = await manager.find(LookRequestRow, {
      where: { reviewId, ...(participantId !== undefined && { participantId }) },
      order: { at: 'ASC', id: 'ASC' },
    });
    const labels = staff ? await PersonLabels.ofExchange(manager, context) : null;
    return rows.map((row): LookRequestView => {
      const as = row.participantId === review.reviewerId ? 'reviewer' : 'author';
      const { id, noteId, words, answer } = row;
      return {
        ...{ id, noteId, words, answer, at: iso(row.at), answeredAt: isoOrNull(row.answeredAt) },
        by: labels === null ? null : { person: labels[as](row.participantId), as },
      };
    });
  }

  async ask(person: CurrentUser, reviewId: string, { noteId, words }: LookRequest): Promise<LookRequestView[]> {
    await this.database.write(async (manager, emit) => {
      const access = await reviewAccess(this.access, manager, person, reviewId);
      const { context } = access;
      assertCan(context, pleaseLook(access));
      if (noteId !== null && !(await readableRows(manager, access)).notes.some(({ id }) => id === noteId))
        throw refusal('unknown');
      const participantId = ownParticipant(context).id;
      const already = await manager.findBy(LookRequestRow, { reviewId, participantId });
      // Pressed twice, it is asked once.
      if (already.some((one) => one.noteId === noteId && one.words === words.trim())) return;
      if (already.length >= MOST) throw tooMany();
      const row = { id: this.ids.uuid(), reviewId, noteId, participantId, words: words.trim(), at: context.now };
      await manager.insert(LookRequestRow, row);
      const where = { courseId: context.course.id, exchangeId: context.exchange.id };
      emit({ action: 'look-asked', actorId: person.id, ...where, details: { review: reviewId } });
      await this.#tellStaff(manager, access);
    });
    return this.of(person, reviewId);
  }

  /** An answer can be given once more; the one who asked reads the last, and is told by mail of the first. */
  async answer(person: CurrentUser, reviewId: string, requestId: string, answer: string): Promise<LookRequestView[]> {
    await this.database.write(async (manager, emit) => {
      const access = await reviewAccess(this.access, manager, person, reviewId);
      const { context } = access;
      assertCan(context, { kind: 'check' });
      const row = await manager.findOneBy(LookRequestRow, { id: requestId, reviewId });
      if (row === null) throw refusal('unknown');
      await manager.update(LookRequestRow, { id: requestId }, { answer: answer.trim(), answeredAt: context.now });
      if (row.answeredAt === null) await this.#tell(manager, access, row);
      const where = { courseId: context.course.id, exchangeId: context.exchange.id };
      emit({ action: 'look-answered', actorId: person.id, ...where, details: { review: reviewId } });
    });
    return this.of(person, reviewId);
  }

  /** Instructors hear once, until they have read it, that somebody waits for an answer. */
  async #tellStaff(manager: EntityManager, { context, review }: ReviewAccess): Promise<void> {
    const { course, exchange } = context;
    const staff = await manager.findBy(Enrolment, { courseId: course.id, role: 'instructor', active: true });
    const where = { course: course.title, exchange: exchange.title };
    const letters = staff.map(({ email: address, personId }) => ({
      kind: 'look-asked' as const,
      address,
      subject: say('youAreAskedToLook', where),
      text: paragraphs([say('somebodyAsksYouToLook', where), `${this.database.mail.publicUrl}/reviews/${review.id}`]),
      courseId: course.id,
      exchangeId: exchange.id,
      news: { personId, path: `/reviews/${review.id}` },
    }));
    await queueMail(manager, this.ids, this.database.mail, context.now, letters);
  }

  async #tell(manager: EntityManager, { context, review }: ReviewAccess, row: LookRequestRow): Promise<void> {
    const { personId } = await manager.findOneByOrFail(Participant, { id: row.participantId });
    const { course, exchange } = context;
    const address = (await courseIdentities(manager, course.id, [personId])).get(personId)?.email;
    // Whoever has left is written to no more.
    if (address === undefined) return;
    const page = row.participantId === review.reviewerId ? `reviews/${review.id}` : `exchanges/${exchange.id}/feedback`;
    const where = { course: course.title, exchange: exchange.title };
    await queueMail(manager, this.ids, this.database.mail, context.now, [
      {
        kind: 'look-answered',
        address,
        subject: say('answerToWhatYouAsked', where),
        text: paragraphs([say('youAskedYourInstructorTo', where), `${this.database.mail.publicUrl}/${page}`]),
        courseId: course.id,
        exchangeId: exchange.id,
        news: { personId, path: `/${page}` },
      },
    ]);
  }
}

function pleaseLook(access: ReviewAccess) {
  const { byViewer, ofOwnDraft, review } = access;
  const submitted = review.submittedAt !== null;
  return { kind: 'please-look', byViewer, ofOwnDraft, submitted, withheld: review.withheldAt !== null } as const;
}

function tooMany(): ProblemError {
  return new ProblemError({
    code: 'limit-reached',
    sentence: say('youHaveAskedTimesAbout', { most: MOST }),
    whatToDo: say('talkToYourInstructor'),
  });
}
