import { Injectable } from '@nestjs/common';
import type { CopyExchangeRequest, CopyPreview, PlanSettings } from '@salt-circle/contracts';
import {
  daysToFirst,
  EMPTY_FORM,
  holidayClashes,
  NO_DATES,
  shiftDates,
  usualItems,
  type ExchangeDates,
  type ReviewForm,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import type { Course } from '../../model/course.js';
import { Exchange } from '../../model/exchange.js';
import { Database } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Ids } from '../../platform/ids/ids.js';
import { itemOf } from '../library/library.service.js';
import { DATE_WORDS, dateInWords, invalid } from '../../platform/problems/sentences.js';
import { Access, assertCan, assertCanSee } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import { copyPractice } from './copy-practice.js';
import { insertExchange } from '../../queries/insert-exchange.js';
import { datesFrom, datesView } from '../../queries/exchange-views.js';
import { rowFrom, settingsOf } from '../../queries/plan-settings.js';
import { say } from '../../words/planning.js';

interface Source {
  readonly settings: PlanSettings;
  readonly form: ReviewForm;
  readonly courseId: string;
  /** How parts become a grade, and by what staff mark; of an exchange, not of a template. */
  readonly grading: Partial<
    Pick<Exchange, 'gradeRule' | 'reviewingForm' | 'reviewingWeighting' | 'reviewingEach' | 'draftForm'>
  >;
  /** Of an exchange, not of a template. */
  readonly attachments: readonly ExchangeAttachment[];
}

/** A new exchange from an earlier one or from a template, within a course or across. */
@Injectable()
export class NewExchangesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  create(person: CurrentUser, courseId: string, title: string, begin: 'usual' | 'none'): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      assertCan(await this.access.course(person, courseId), { kind: 'create-exchange' });
      const id = this.ids.uuid();
      const items = begin === 'usual' ? usualItems(() => this.ids.uuid()) : [];
      const row = { id, courseId, title: title.trim(), createdAt: this.clock.now() };
      await insertExchange(manager, this.ids, row, { ...EMPTY_FORM, items });
      emit({ action: 'exchange-created', actorId: person.id, courseId, exchangeId: id });
      return { id };
    });
  }

  async preview(person: CurrentUser, courseId: string, request: CopyExchangeRequest): Promise<CopyPreview> {
    const course = await this.#target(person, courseId);
    const { settings } = await this.#source(this.database.read, person, courseId, request);
    const { dates, days } = shifted(datesFrom(settings.dates), request, course);
    const clashes = holidayClashes(dates, course.holidays, course.timeZone);
    return {
      dates: datesView(dates),
      days,
      clashes: clashes.map(({ date, at, holiday }) =>
        say('fallsOn', {
          dateWords: DATE_WORDS[date],
          dateInWords: dateInWords(at, course.timeZone),
          title: holiday.title,
        }),
      ),
    };
  }

  copy(person: CurrentUser, courseId: string, request: CopyExchangeRequest): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      const course = await this.#target(person, courseId);
      const source = await this.#source(manager, person, courseId, request);
      const { dates } = shifted(datesFrom(source.settings.dates), request, course);
      const kept = source.courseId === courseId ? source.settings : withoutCourse(source.settings);
      const id = this.ids.uuid();
      const row = { ...rowFrom({ ...kept, title: request.title, dates: datesView(dates) }), ...source.grading };
      await insertExchange(manager, this.ids, { ...row, id, courseId, createdAt: this.clock.now() }, source.form);
      const attached = source.attachments.map((one) => ({
        ...one,
        id: this.ids.uuid(),
        exchangeId: id,
        uploadId: null,
      }));
      await insertAll(manager, ExchangeAttachment, attached);
      if (request.from === 'exchange') {
        const { formId } = await manager.findOneByOrFail(Exchange, { id });
        const into = { id, courseId, formId, personId: person.id, now: this.clock.now() };
        await copyPractice(manager, this.ids, request.sourceId, into);
      }
      emit({
        action: 'exchange-copied',
        actorId: person.id,
        courseId,
        exchangeId: id,
        details: { from: request.sourceId },
      });
      return { id };
    });
  }

  async #target(person: CurrentUser, courseId: string): Promise<Course> {
    const context = await this.access.course(person, courseId);
    assertCan(context, { kind: 'create-exchange' });
    const { course } = context;
    return course;
  }

  /** Templates are of the target's own library; exchanges of any course that the person is an instructor of. */
  async #source(
    manager: EntityManager,
    person: CurrentUser,
    courseId: string,
    { from, sourceId }: CopyExchangeRequest,
  ): Promise<Source> {
    if (from === 'template') {
      const { content } = await itemOf(manager, courseId, sourceId, 'template');
      // Sections and groups may have gone since; what is not there any more counts as not chosen.
      return { ...content, courseId, attachments: [], grading: {} };
    }
    const context = await this.access.exchange(person, sourceId, manager);
    assertCanSee(context, { kind: 'workspace' });
    assertCan(context, { kind: 'plan' });
    const { gradeRule, reviewingForm, reviewingWeighting, reviewingEach, draftForm } = context.exchange;
    return {
      settings: settingsOf(context.exchange),
      form: await formOf(manager, context),
      courseId: context.course.id,
      grading: { gradeRule, reviewingForm, reviewingWeighting, reviewingEach, draftForm },
      attachments: await manager.findBy(ExchangeAttachment, { exchangeId: sourceId }),
    };
  }
}

/** What speaks of people, groups and library of one course means nothing in another. */
function withoutCourse(settings: PlanSettings): PlanSettings {
  return {
    ...settings,
    takesPart: { kind: 'everyone', sections: [], groupIds: [], studentIds: [] },
    groupSetId: null,
    shorthandId: null,
  };
}

function shifted(
  dates: ExchangeDates,
  { shift, days, firstAt, keepWeekdays }: CopyExchangeRequest,
  { timeZone }: Course,
): { dates: ExchangeDates; days: number } {
  if (shift === 'none') return { dates: NO_DATES, days: 0 };
  if (shift === 'first' && firstAt === null) {
    throw invalid([{ path: 'firstAt', code: 'date-missing', sentence: say('giveDayOnWhichFirst') }]);
  }
  const by = shift === 'days' ? days : daysToFirst(dates, Date.parse(firstAt as string), timeZone, keepWeekdays);
  return { dates: shiftDates(dates, by, timeZone), days: by };
}
