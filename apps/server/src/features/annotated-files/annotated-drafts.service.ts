import { Injectable } from '@nestjs/common';
import type { DraftReading, FeedbackView, PersonLabel, ReplyView } from '@salt-circle/contracts';
import {
  answerLines,
  formScore,
  OVERALL_ID,
  scoreWords,
  type AnnotatedDraft,
  type AnnotatedReply,
  type AnnotatedReview,
  type ReviewForm,
} from '@salt-circle/core';
import { Access, type ExchangeContext } from '../../permissions/access.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { handedInDrafts } from '../../queries/versions.js';
import { ReplyRow } from '../../model/reply.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { FeedbackService } from '../feedback/feedback.service.js';
import { Replies } from '../replies/replies.service.js';
import { ReviewsService } from '../reviews/reviews.service.js';
import type { MarkedHtml } from './worker/task.js';
import { say } from '../../words/annotated-files.js';

/** A version of a draft with all that somebody may take along of it. */
export interface AnnotatedSource {
  readonly exchangeId: string;
  readonly draft: AnnotatedDraft;
  readonly reading: DraftReading;
  readonly texts: readonly MarkedHtml[];
}

/**
 * What was written about drafts, for whoever may read it, as that person reads it: all of it goes through the services by which it is
 * read on the page, so that a file says nothing that the page does not.
 */
@Injectable()
export class AnnotatedDrafts {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly feedback: FeedbackService,
    private readonly reviews: ReviewsService,
    private readonly replies: Replies,
  ) {}

  /** For its author: each version that was reviewed, the newest first. */
  async own(person: CurrentUser, exchangeId: string): Promise<AnnotatedSource[]> {
    return this.#from(person, exchangeId, await this.feedback.mine(person, exchangeId));
  }

  /** For staff. */
  async ofDraft(person: CurrentUser, exchangeId: string, draftId: string): Promise<AnnotatedSource[]> {
    return this.#from(person, exchangeId, await this.feedback.ofDraft(person, exchangeId, draftId));
  }

  /** One review, for whoever may read it: its reviewer, or staff. */
  async ofReview(person: CurrentUser, reviewId: string): Promise<AnnotatedSource[]> {
    const desk = await this.reviews.desk(person, reviewId);
    const { id, reviewer, self, answers, files, notes, draft, form } = desk;
    const review = { id, reviewer, self, version: draft.version, answers, files, notes };
    return this.#from(person, desk.exchange.id, { drafts: [draft], form, reviews: [review], missing: 0 });
  }

  /** All drafts of an exchange one after the other, for staff. */
  async *ofExchange(person: CurrentUser, exchangeId: string): AsyncGenerator<AnnotatedDraft> {
    const around = await this.feedback.around(person, exchangeId);
    const manager = this.database.read;
    const replied = await rowsOfReviews(manager, ReplyRow, exchangeId)
      .select('row.reviewId', 'id')
      .getRawMany<{ id: string }>();
    const threads = new Set(replied.map(({ id }) => id));
    for (const { id } of await handedInDrafts(manager, exchangeId)) {
      const view = await this.feedback.ofDraftIn(around, id);
      for (const { draft } of await this.#from(person, exchangeId, view, { context: around.context, threads }))
        yield draft;
    }
  }

  async #from(
    person: CurrentUser,
    exchangeId: string,
    { drafts, form, reviews }: FeedbackView,
    { context, threads }: Known = {},
  ): Promise<AnnotatedSource[]> {
    const { exchange, course } = context ?? (await this.access.exchange(person, exchangeId));
    if (drafts.length === 0) throw refusal('unknown');
    const all: AnnotatedSource[] = [];
    for (const reading of drafts) {
      const written: AnnotatedReview[] = [];
      for (const review of reviews)
        if (review.version === reading.version) written.push(await this.#review(person, review, form, threads));
      const { draftId, version, title } = reading;
      const parts = reading.parts.map(({ show, ...part }) => ({
        ...{ id: part.id, name: nameOf(part) },
        format: ({ html: 'text/html', pdf: 'application/pdf' } as Readonly<Record<string, string>>)[show ?? ''] ?? null,
      }));
      all.push({
        ...{ exchangeId, reading },
        draft: { draftId, version, title, exchange: exchange.title, course: course.title, parts, reviews: written },
        texts: reading.parts.flatMap(({ show, html, ...part }) =>
          show === 'html' && html !== null ? [{ id: part.id, name: nameOf(part), html }] : [],
        ),
      });
    }
    return all;
  }

  async #review(
    person: CurrentUser,
    { id, reviewer, answers, notes, form: own }: FeedbackView['reviews'][number],
    usual: ReviewForm,
    threads?: ReadonlySet<string>,
  ): Promise<AnnotatedReview> {
    const { replies } = threads?.has(id) === false ? NO_REPLIES : await this.replies.threads(person, id);
    const to = (holds: (reply: ReplyView) => boolean): AnnotatedReply[] =>
      replies.filter(holds).map((reply) => ({ id: reply.id, by: wordsOf(reply.by), words: reply.words }));
    const form = own ?? usual;
    const score = formScore(form, answers);
    const items = [
      ...form.items.map((item) => ({ id: item.id, title: item.title, item })),
      ...(form.overall === 'none' ? [] : [{ id: OVERALL_ID, title: say('overallComment'), item: undefined }]),
    ];
    const by = wordsOf(reviewer);
    return {
      ...{ id, by },
      score: score === null ? '' : scoreWords(form, score),
      answers: items.map(({ id: itemId, title, item }) => ({
        ...{ itemId, title, lines: answerLines(item, answers[itemId]) },
        replies: to((reply) => reply.itemId === itemId),
      })),
      notes: notes.map(({ id: noteId, kind, body, place, edit }) => ({
        ...{ id: noteId, by, kind, body, partId: place.partId, selector: place.selector, edit },
        replies: to((reply) => reply.noteId === noteId),
      })),
      replies: to((reply) => reply.noteId === null && reply.itemId === null),
    };
  }
}

/** What is known of a whole exchange: most reviews have no replies. */
interface Known {
  readonly context?: ExchangeContext;
  /** Reviews that were replied to. */
  readonly threads?: ReadonlySet<string>;
}

const NO_REPLIES: { readonly replies: readonly ReplyView[] } = { replies: [] };

/** A part that is no file is called by what it was asked for as. */
function nameOf({ name, deliverable }: Pick<DraftReading['parts'][number], 'name' | 'deliverable'>): string {
  return name === '' ? deliverable : name;
}

/** As the one who takes it along knows this person; whoever gets the file from there would not know who “you” is. */
function wordsOf({ name, alias, you, role }: PersonLabel): string {
  const known = you === true ? (alias ?? name ?? say('you')) : (name ?? alias ?? '');
  return role === undefined ? known : `${known} (${role})`;
}
