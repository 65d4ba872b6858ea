import { Readable } from 'node:stream';
import { Injectable } from '@nestjs/common';
import {
  answerLines,
  formMaximum,
  gradeOf,
  itemMaximum,
  itemPoints,
  levelShares,
  OVERALL_ID,
  type FormItem,
  type ReviewForm,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { ZipFile } from 'yazl';
import { Access, assertCan } from '../../permissions/access.js';
import { courseExchanges } from '../../queries/course-exchanges.js';
import { gradeIsReleased } from '../../permissions/exchange-facts.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { countingFigures } from '../../queries/versions.js';
import { ruleOf } from '../../queries/grade-rule.js';
import { Course, Enrolment } from '../../model/course.js';
import { Participant, type Exchange } from '../../model/exchange.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { csvOf } from '../../platform/tables/cells.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { Adjusting } from './adjusting.js';
import { Evidence } from './evidence.service.js';
import { cellsOf, dictionary, headOf, TABLES, type RowOf, type TableName } from './results-tables.js';
import { ratingsOf, reviewsInGrades, type GradedReviews, type ReviewInGrade } from './reviews-in-grades.js';
import { say } from '../../words/grades.js';

/** All of a course as tables that programs for statistics read, with what their columns mean. */
@Injectable()
export class Results {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly evidence: Evidence,
    private readonly adjusting: Adjusting,
  ) {}

  /** For whoever runs the course. Put together while it is sent: a table at a time, of one exchange after the other. */
  async stream(person: CurrentUser, courseId: string): Promise<{ readonly name: string; readonly zip: Readable }> {
    const context = await this.access.course(person, courseId);
    assertCan(context, { kind: 'manage-course' });
    const zip = new ZipFile();
    for (const [name, lines] of this.tables(courseId)) {
      zip.addReadStreamLazy(`${name}.csv`, (done) => done(null, Readable.from(lines())));
    }
    zip.end();
    return {
      name: say('resultsZip', { name: safeFileName(context.course.title) }),
      zip: zip.outputStream as Readable,
    };
  }

  /** Each table by its name, as CSV in pieces. */
  *tables(courseId: string): Generator<readonly [name: string, lines: () => AsyncIterable<string> | Iterable<string>]> {
    for (const table of Object.keys(TABLES) as TableName[]) yield [table, () => this.#lines(table, courseId)];
    yield ['dictionary', () => [csvOf([['file', 'column', 'meaning'], ...dictionary()])]];
  }

  async *#lines(table: TableName, courseId: string): AsyncGenerator<string> {
    // One mark at the beginning of the file, by which its letters are known.
    yield csvOf([headOf(table)]);
    const manager = this.database.read;
    if (table === 'people') {
      yield rows(table, await this.#people(manager, courseId));
      return;
    }
    for (const exchange of await courseExchanges(manager, courseId)) {
      if (exchange.publishedAt === null) continue;
      const made = await this.#rows(table, manager, exchange);
      if (made !== '') yield made;
    }
  }

  async #people(manager: EntityManager, courseId: string): Promise<Array<RowOf<'people'>>> {
    const enrolled = await manager.find(Enrolment, { where: { courseId }, order: { personId: 'ASC' } });
    return enrolled.map(({ personId, name, campusId, section, role, active }) => ({
      ...{ person: personId, name, lti_id: campusId, section, role, active: active ? 1 : 0 },
    }));
  }

  async #rows(table: Exclude<TableName, 'people'>, manager: EntityManager, exchange: Exchange): Promise<string> {
    if (table === 'grades') return rows(table, await this.#grades(manager, exchange));
    const read = await reviewsInGrades(manager, { exchange });
    switch (table) {
      case 'exchanges':
        return rows(table, [exchangeRow(exchange, read.form)]);
      case 'drafts':
        return rows(table, await this.#drafts(manager, exchange, read));
      case 'reviews':
        return rows(table, await this.#reviews(manager, exchange, read));
      case 'answers':
        return rows(
          table,
          read.reviews.flatMap((one) => answerRows(one, read.form)),
        );
      case 'notes':
        return rows(table, read.reviews.flatMap(noteRows));
      case 'scores':
        return rows(table, await this.#scores(exchange, read));
    }
  }

  async #drafts(manager: EntityManager, exchange: Exchange, { drafts, authors }: GradedReviews) {
    const people = await peopleOf(manager, exchange);
    const counting = await countingFigures(manager, exchange.id);
    return drafts.flatMap((draft) => {
      const { handedInAt = null, words = null } = counting.get(draft.id) ?? {};
      return authors.of(draft).map((author): RowOf<'drafts'> => ({
        ...{ exchange: exchange.id, draft: draft.id, author: people.get(author) ?? null },
        ...{ handed_in_at: isoOrNull(handedInAt), words },
      }));
    });
  }

  async #reviews(manager: EntityManager, exchange: Exchange, { reviews }: GradedReviews) {
    const people = await peopleOf(manager, exchange);
    const { measuresTime } = await manager.findOneByOrFail(Course, { id: exchange.courseId });
    return reviews.map(({ review, self, score, words, notes, directed, helped }): RowOf<'reviews'> => ({
      ...{ exchange: exchange.id, review: review.id, draft: review.draftId },
      ...{
        reviewer: people.get(review.reviewerId) ?? null,
        kind: review.voice !== null ? 'staff' : self ? 'self' : 'peer',
      },
      ...{ submitted_at: isoOrNull(review.submittedAt), words, notes, directed, score, helped },
      minutes: measuresTime ? Math.round(review.spentSeconds / 6) / 10 : null,
      withheld: review.withheldAt === null ? 0 : 1,
    }));
  }

  async #scores({ id: exchange }: Exchange, { reviews }: GradedReviews): Promise<Array<RowOf<'scores'>>> {
    const { drafts } = await this.adjusting.of(exchange, ratingsOf(reviews));
    return drafts.map(({ id, ratings, mean, adjusted, se, low, high }) => ({
      ...{ exchange, draft: id, reviews: ratings, mean, adjusted, se, low, high },
    }));
  }

  async #grades(manager: EntityManager, exchange: Exchange): Promise<Array<RowOf<'grades'>>> {
    const now = this.clock.now();
    const rule = ruleOf(exchange);
    const { people } = await this.evidence.of(manager, { exchange, now }, rule);
    const none = { weight: null, got: null, of: null };
    return people.flatMap(({ participant, evidence }) => {
      const grade = gradeOf(exchange.gradeParts, rule, evidence);
      const who = { exchange: exchange.id, person: participant.personId };
      return [
        ...grade.lines.map(({ part, weight, state, got, of, computed, share, override }): RowOf<'grades'> => ({
          ...{ ...who, part, weight, state, got, of, computed, given: share, late: null, words: null },
          reason: override?.reason ?? null,
        })),
        {
          ...{ ...who, ...none, part: 'grade', computed: grade.computed, given: grade.percent },
          ...{ late: grade.lateLoses, words: grade.words },
          state: gradeIsReleased(exchange, participant, now) ? 'released' : 'not released',
          reason: grade.override?.reason ?? null,
        },
      ];
    });
  }
}

/** Of a table that has its head already. */
function rows<Name extends TableName>(table: Name, all: ReadonlyArray<RowOf<Name>>): string {
  return all.length === 0 ? '' : csvOf(all.map((row) => cellsOf(table, row))).replace(/^\uFEFF/, '');
}

async function peopleOf(manager: EntityManager, { id: exchangeId }: Exchange): Promise<Map<string, string>> {
  return new Map((await manager.findBy(Participant, { exchangeId })).map((one) => [one.id, one.personId]));
}

function exchangeRow(exchange: Exchange, form: ReviewForm): RowOf<'exchanges'> {
  const { id, title, draftsDue, reviewsDue, release, names, reviewsPerStudent } = exchange;
  return {
    ...{ exchange: id, title, names, reviews_each: reviewsPerStudent, maximum: formMaximum(form) },
    ...{ drafts_due: isoOrNull(draftsDue), reviews_due: isoOrNull(reviewsDue), release: isoOrNull(release) },
  };
}

function answerRows({ review, answers }: ReviewInGrade, usual: ReviewForm): Array<RowOf<'answers'>> {
  const form = review.ownForm ?? usual;
  const shares = levelShares(form, answers);
  const row = (id: string, title: string, item: FormItem | undefined): Array<RowOf<'answers'>> => {
    const lines = answerLines(item, answers[id]);
    if (lines.length === 0) return [];
    const points = item === undefined ? null : itemPoints(item, answers[id]);
    return [
      {
        ...{ review: review.id, item: id, title, kind: item?.kind ?? 'overall', points },
        ...{ of: item === undefined ? null : itemMaximum(item), scale: shares[id] ?? null, answer: lines.join('\n') },
      },
    ];
  };
  return [
    ...form.items.flatMap((item) => row(item.id, item.title, item)),
    ...row(OVERALL_ID, say('overallComment'), undefined),
  ];
}

function noteRows({ review, places }: ReviewInGrade): Array<RowOf<'notes'>> {
  return places.map(({ id, kind, partId, selector }) => ({
    ...{ note: id, review: review.id, kind, part: partId, place: selector.type },
  }));
}
