import { Injectable } from '@nestjs/common';
import type {
  AnswerRequest,
  AnswerView,
  DeskView,
  NoteRequest,
  NoteView,
  ReviewCard,
  SubmitView,
} from '@salt-circle/contracts';
import { completeness, mayDo, maySee, OVERALL_ID, type Act, type Reviewing } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Database, type Report } from '../database/database.js';
import { Draft } from '../drafts/entities.js';
import { Authors } from '../drafts/authors.js';
import { Readings, readerOf } from '../drafts/readings.js';
import { lastVersion } from '../drafts/versions.js';
import { Access, act, isOwnDraft, ownParticipant, see, type Place } from '../exchanges/access.js';
import { Participant } from '../exchanges/entities.js';
import { formOf } from '../exchanges/form-of.js';
import { Labels } from '../exchanges/labels.js';
import { iso, isoOrNull } from '../exchanges/instants.js';
import { ProblemError } from '../problems/problem-error.js';
import { conflict, invalid, missingProblem, refusal } from '../problems/sentences.js';
import { answerFrom, sameAnswer } from './answers.js';
import { answerView, loadContent, noteView, recount } from './content.js';
import { AnswerRow, NoteRow, Review } from './entities.js';
import { shorthandOf } from './shorthand.js';
import { reviewState } from './state.js';

/** A review with where the one who asks stands to it. */
interface Standing extends Reviewing {
  readonly place: Place;
  readonly review: Review;
  readonly draft: Draft;
  readonly byViewer: boolean;
}

@Injectable()
export class ReviewsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
  ) {}

  /** The reviews that a student is to write. */
  async mine(person: Person, exchangeId: string): Promise<ReviewCard[]> {
    const place = await this.access.exchange(person, exchangeId);
    const participant = ownParticipant(place);
    const viewerHandedIn = await this.access.hasHandedIn(place);
    see(place, { kind: 'own-reviews', viewerHandedIn });
    const manager = this.database.read;
    const selfReviewed = await this.access.selfReviewed(place);
    const reviews = await manager.find(Review, { where: { reviewerId: participant.id }, order: { position: 'ASC' } });
    const labels = await Labels.ofExchange(manager, place);
    const form = await formOf(manager, place);
    const cards: ReviewCard[] = [];
    for (const review of reviews) {
      const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
      const version = await lastVersion(manager, draft.id);
      const self = isOwnDraft(place, draft);
      const reviewing = { viewerHandedIn, ofOwnDraft: self, selfReviewed };
      const subject = { kind: 'review', byViewer: true, submitted: false, ...reviewing } as const;
      cards.push({
        id: review.id,
        author: labels.authorOf(draft),
        draftTitle: version?.title ?? '',
        self,
        waits: !maySee(place.viewer, place.facts, subject).allowed,
        state: reviewState(review),
        answered: review.answered,
        required: review.begunAt === null ? completeness(form, {}, 0).required : review.required,
        notes: review.noteCount,
      });
    }
    return cards;
  }

  async desk(person: Person, reviewId: string): Promise<DeskView> {
    const manager = this.database.read;
    const standing = await this.#standing(person, reviewId, manager);
    const { place, review, draft } = standing;
    see(place, { kind: 'review', ...relation(standing) });
    const version = await lastVersion(manager, draft.id);
    if (version === null) throw refusal('unknown');
    const involved = await manager.findBy(Participant, [{ id: review.reviewerId }, { id: draft.participantId }]);
    const labels = await Labels.load(manager, place, involved);
    return {
      id: review.id,
      ...(await loadContent(manager, review.id)),
      exchange: exchangeOnDesk(place),
      author: labels.authorOf(draft),
      reviewer: labels.reviewer(review.reviewerId),
      self: (await Authors.load(manager, place.exchange)).of(draft).includes(review.reviewerId),
      shorthand: await shorthandOf(manager, place),
      draft: await this.readings.of(manager, place, draft, version, readerOf(place)),
      form: await formOf(manager, place),
      submittedAt: isoOrNull(standing.byViewer || place.viewer.role !== 'student' ? review.submittedAt : null),
      editable: mayDo(place.viewer, place.facts, { kind: 'write-review', ...relation(standing) }).allowed,
      submittable: mayDo(place.viewer, place.facts, { kind: 'submit-review', ...relation(standing) }).allowed,
      reopenable: review.submittedAt !== null && mayDo(place.viewer, place.facts, reopening(standing)).allowed,
      ...(await this.#neighbours(manager, standing)),
    };
  }

  saveAnswer(person: Person, reviewId: string, itemId: string, request: AnswerRequest): Promise<AnswerView> {
    return this.#writing(person, reviewId, async (manager, { place, review }) => {
      const form = await formOf(manager, place);
      const item = form.items.find(({ id }) => id === itemId);
      const overall = itemId === OVERALL_ID && form.overall !== 'none';
      if (item === undefined && !overall) throw refusal('unknown');
      const next = answerFrom(request, item);
      const current = await manager.findOneBy(AnswerRow, { reviewId, itemId });
      if (current !== null && sameAnswer(current, next)) return answerView(current);
      const revision = current?.revision ?? 0;
      if (revision !== request.revision) {
        throw conflict(
          `The answer to “${item?.title ?? 'Overall comment'}”`,
          current === null ? null : answerView(current),
        );
      }
      const row = { reviewId, itemId, ...next, revision: revision + 1 };
      await manager.save(AnswerRow, row);
      await recount(manager, review, form, place.now);
      return answerView(row);
    });
  }

  saveNote(person: Person, reviewId: string, noteId: string, request: NoteRequest): Promise<NoteView> {
    return this.#writing(person, reviewId, async (manager, { place, review }) => {
      const { start, end } = request.anchor.position;
      if (end <= start) {
        throw invalid([
          {
            path: 'anchor.position.end',
            code: 'empty-passage',
            sentence: 'A note needs a passage. Select some text first.',
          },
        ]);
      }
      const current = await manager.findOneBy(NoteRow, { id: noteId });
      if (current !== null && current.reviewId !== reviewId) throw refusal('unknown');
      const { kind, body } = request;
      const anchor = { quote: { ...request.anchor.quote }, position: { ...request.anchor.position } };
      const same = current !== null && current.kind === kind && current.body === body;
      if (same && JSON.stringify(current.anchor) === JSON.stringify(anchor)) return noteView(current);
      if ((current?.revision ?? 0) !== request.revision) {
        throw conflict('This note', current === null ? null : noteView(current));
      }
      const row = {
        id: noteId,
        reviewId,
        kind,
        body,
        anchor,
        revision: request.revision + 1,
        createdAt: current?.createdAt ?? place.now,
      };
      await manager.save(NoteRow, row);
      await recount(manager, review, await formOf(manager, place), place.now);
      return noteView(row);
    });
  }

  /** Deleting a note that is gone already is no problem. */
  async deleteNote(person: Person, reviewId: string, noteId: string): Promise<void> {
    await this.#writing(person, reviewId, async (manager, { place, review }) => {
      await manager.delete(NoteRow, { id: noteId, reviewId });
      await recount(manager, review, await formOf(manager, place), place.now);
    });
  }

  /** Submitting twice answers with the first time. */
  submit(person: Person, reviewId: string): Promise<SubmitView> {
    return this.database.write(async (manager, happened) => {
      const standing = await this.#standing(person, reviewId, manager);
      const { place, review } = standing;
      if (standing.byViewer && review.submittedAt !== null) return { submittedAt: iso(review.submittedAt) };
      act(place, { kind: 'submit-review', ...relation(standing) });
      const form = await formOf(manager, place);
      const content = await loadContent(manager, reviewId);
      const state = completeness(form, content.answers, content.notes.length);
      if (!state.complete || (!state.begun && content.notes.length === 0)) {
        throw new ProblemError({
          code: 'review-incomplete',
          sentence: state.complete
            ? 'The review is empty, so there is nothing to submit.'
            : `${state.missing.length === 1 ? 'One thing is' : `${state.missing.length} things are`} missing before this review can be submitted.`,
          whatToDo: 'Fill in what is listed. All you have written so far is saved.',
          fields: state.missing.map((one) => missingProblem(one, form)),
        });
      }
      const submittedAt = place.now;
      await recount(manager, review, form, submittedAt);
      await manager.update(Review, { id: reviewId }, { submittedAt });
      happened(reported(standing, 'review-submitted'));
      return { submittedAt: iso(submittedAt) };
    });
  }

  async reopen(person: Person, reviewId: string): Promise<void> {
    await this.database.write(async (manager, happened) => {
      const standing = await this.#standing(person, reviewId, manager);
      act(standing.place, reopening(standing));
      if (standing.review.submittedAt === null) return;
      await manager.update(Review, { id: reviewId }, { submittedAt: null });
      happened(reported(standing, 'review-reopened'));
    });
  }

  #writing<T>(
    person: Person,
    reviewId: string,
    work: (manager: EntityManager, standing: Standing) => Promise<T>,
  ): Promise<T> {
    return this.database.write(async (manager, happened: Report) => {
      const standing = await this.#standing(person, reviewId, manager);
      act(standing.place, { kind: 'write-review', ...relation(standing) });
      const result = await work(manager, standing);
      if (standing.review.begunAt === null) happened(reported(standing, 'review-begun'));
      return result;
    });
  }

  async #standing(person: Person, reviewId: string, manager: EntityManager): Promise<Standing> {
    const review = await manager.findOneBy(Review, { id: reviewId });
    if (review === null) throw refusal('unknown');
    const place = await this.access.exchange(person, review.exchangeId, manager);
    const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
    const own = place.participant?.id ?? null;
    return {
      place,
      review,
      draft,
      byViewer: own === review.reviewerId,
      ofOwnDraft: isOwnDraft(place, draft),
      viewerHandedIn: await this.access.hasHandedIn(place, manager),
      selfReviewed: await this.access.selfReviewed(place, manager),
    };
  }

  async #neighbours(
    manager: EntityManager,
    { review, byViewer, place }: Standing,
  ): Promise<Pick<DeskView, 'position' | 'total' | 'nextId'>> {
    // How many reviews somebody else writes is nothing an author needs to know.
    if (!byViewer && place.viewer.role === 'student') return { position: 1, total: 1, nextId: null };
    const all = await manager.find(Review, { where: { reviewerId: review.reviewerId }, order: { position: 'ASC' } });
    const index = all.findIndex(({ id }) => id === review.id);
    const around = [...all.slice(index + 1), ...all.slice(0, index)];
    const next = byViewer ? around.find(({ submittedAt }) => submittedAt === null) : around[0];
    return { position: index + 1, total: all.length, nextId: next?.id ?? null };
  }
}

function relation({ byViewer, ofOwnDraft, viewerHandedIn, selfReviewed, review }: Standing) {
  return { byViewer, ofOwnDraft, viewerHandedIn, selfReviewed, submitted: review.submittedAt !== null };
}

function reopening({ byViewer, review }: Standing): Act {
  return { kind: 'reopen-review', byViewer, submitted: review.submittedAt !== null };
}

function reported({ place, review }: Standing, action: 'review-begun' | 'review-submitted' | 'review-reopened') {
  return {
    action,
    actorId: place.person.id,
    courseId: place.course.id,
    exchangeId: place.exchange.id,
    details: { review: review.id },
  };
}

function exchangeOnDesk({ exchange, course, facts, own }: Place): DeskView['exchange'] {
  return {
    id: exchange.id,
    title: exchange.title,
    courseId: course.id,
    courseTitle: course.title,
    timeZone: course.timeZone,
    guideHtml: exchange.guideHtml,
    briefHtml: exchange.briefHtml,
    reviewsDue: iso(own?.reviewsDue ?? (exchange.reviewsDue as number)),
    stage: facts.stage,
  };
}
