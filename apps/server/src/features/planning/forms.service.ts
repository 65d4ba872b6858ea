import { Injectable } from '@nestjs/common';
import type { FormRequest, FormView, SavedView, UseFormRequest } from '@salt-circle/contracts';
import { checkForm, type ReviewForm } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Draft } from '../../model/draft.js';
import { Access, assertCan, canSee, type ExchangeContext } from '../../permissions/access.js';
import { PracticeTry } from '../../model/practice.js';
import { Exchange, ReviewFormRow } from '../../model/exchange.js';
import { asForm } from '../../queries/review-form.js';
import { isHandedIn } from '../../queries/versions.js';
import { iso } from '../../platform/wire/instants.js';
import { LibraryItem } from '../../model/library.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { conflict, formProblem, refusal } from '../../platform/problems/sentences.js';
import { AnswerRow, Review } from '../../model/review.js';
import { formFrom } from '../../platform/wire/form-from.js';
import { say } from '../../words/planning.js';

@Injectable()
export class FormsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
  ) {}

  /** Everybody in the exchange may see the form: authors should know what reviewers will be asked. */
  async one(person: CurrentUser, exchangeId: string): Promise<FormView> {
    return this.#view(this.database.read, await this.access.exchange(person, exchangeId));
  }

  save(person: CurrentUser, exchangeId: string, request: FormRequest): Promise<SavedView> {
    return this.#change(person, exchangeId, request.revision, () => Promise.resolve(formFrom(request)));
  }

  /** Puts a copy of a form of the library in the place of the present one. */
  useFromLibrary(person: CurrentUser, exchangeId: string, { revision, libraryId }: UseFormRequest): Promise<SavedView> {
    return this.#change(person, exchangeId, revision, async (manager, context) => {
      const where = { id: libraryId, courseId: context.course.id, kind: 'form' as const };
      const item = (await manager.findOneBy(LibraryItem, where)) as LibraryItem<'form'> | null;
      if (item === null) throw refusal('unknown');
      return item.content;
    });
  }

  #change(
    person: CurrentUser,
    exchangeId: string,
    revision: number,
    make: (manager: EntityManager, context: ExchangeContext) => Promise<ReviewForm>,
  ): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const row = await manager.findOneByOrFail(ReviewFormRow, { id: context.exchange.formId });
      const form = await make(manager, context);
      const same = JSON.stringify(form) === JSON.stringify(asForm(row));
      const frozen = await frozenBecause(manager, context);
      if (frozen !== null && !same) {
        throw new ProblemError({
          code: 'form-frozen',
          sentence: frozen,
          whatToDo: say('keepCopyInLibraryChange'),
        });
      }
      if (row.revision !== revision && !same) throw conflict(say('form'), await this.#view(manager, context));
      const next = row.revision + 1;
      await manager.update(ReviewFormRow, { id: row.id }, { ...form, items: [...form.items], revision: next });
      if (!same) {
        emit({
          action: 'form-changed',
          actorId: person.id,
          courseId: context.course.id,
          exchangeId,
          details: { items: form.items.length },
        });
      }
      return { revision: next, savedAt: iso(this.clock.now()) };
    });
  }

  async #view(manager: EntityManager, context: ExchangeContext): Promise<FormView> {
    const row = await manager.findOneByOrFail(ReviewFormRow, { id: context.exchange.formId });
    const form = asForm(row);
    // Whether a classmate has handed in already is nothing a student should learn from the form.
    const workings = canSee(context, { kind: 'form-workings' });
    return {
      ...form,
      revision: row.revision,
      frozen: workings ? await frozenBecause(manager, context) : say('formIsYourInstructorsTo'),
      problems: workings ? checkForm(form).map(formProblem) : [],
    };
  }
}

/** A form is frozen at the first hand-in: everybody is reviewed by the same one. */
async function frozenBecause(manager: EntityManager, { exchange }: ExchangeContext): Promise<string | null> {
  const drafts = await manager
    .createQueryBuilder(Draft, 'draft')
    .where('draft.exchangeId = :id', { id: exchange.id })
    .andWhere(isHandedIn(manager))
    .getCount();
  if (drafts === 0) return (await triedOn(manager, exchange.id)) ? alreadyTried() : null;
  const reviews = await manager
    .createQueryBuilder(Review, 'review')
    .where('review.exchangeId = :id', { id: exchange.id })
    .andWhere(
      `EXISTS (${manager.createQueryBuilder(AnswerRow, 'answer').select('1').where('answer.reviewId = review.id').getQuery()})`,
    )
    .getCount();
  return say('soReviewFormCanNo', { drafts, reviews });
}

const alreadyTried = () => say('studentsHavePractisedWithThis');

function triedOn(manager: EntityManager, exchangeId: string): Promise<boolean> {
  return manager
    .createQueryBuilder(PracticeTry, 'try')
    .innerJoin(Review, 'review', 'review.id = try.reviewId')
    .innerJoin(Exchange, 'exchange', 'exchange.id = review.exchangeId AND exchange.practiceOf = :exchangeId', {
      exchangeId,
    })
    .getExists();
}
