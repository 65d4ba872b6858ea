import { Injectable } from '@nestjs/common';
import type { FormItemRequest, FormRequest, FormView, SavedView } from '@salt-circle/contracts';
import { checkForm, type FormItem } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Database } from '../database/database.js';
import { Draft, DraftVersion } from '../drafts/entities.js';
import { Access, act, see, type Place } from '../exchanges/access.js';
import { ReviewFormRow } from '../exchanges/entities.js';
import { iso } from '../exchanges/mapper.js';
import { ProblemError } from '../problems/problem-error.js';
import { conflict, formProblem } from '../problems/sentences.js';

@Injectable()
export class FormsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
  ) {}

  /** Everybody in the exchange may see the form: authors should know what reviewers will be asked. */
  async one(person: Person, exchangeId: string): Promise<FormView> {
    return this.#view(this.database.read, await this.access.exchange(person, exchangeId));
  }

  save(person: Person, exchangeId: string, request: FormRequest): Promise<SavedView> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'plan' });
      const view = await this.#view(manager, place);
      if (view.frozen) {
        throw new ProblemError({
          code: 'form-frozen',
          sentence: 'The first draft has been handed in, so the review form can no longer change.',
          whatToDo: 'Use the changed form in the next exchange.',
        });
      }
      const items = request.items.map(asItem);
      if (view.revision !== request.revision && JSON.stringify(items) !== JSON.stringify(view.items)) {
        throw conflict('The form', view);
      }
      const revision = view.revision + 1;
      await manager.update(ReviewFormRow, { id: place.exchange.formId }, { items, revision });
      happened({
        action: 'form-changed',
        actorId: person.id,
        courseId: place.course.id,
        exchangeId,
        details: { items: items.length },
      });
      return { revision, savedAt: iso(this.clock.now()) };
    });
  }

  async #view(manager: EntityManager, place: Place): Promise<FormView> {
    see(place, { kind: 'exchange' });
    const row = await manager.findOneByOrFail(ReviewFormRow, { id: place.exchange.formId });
    const staff = place.viewer.role !== 'student';
    const frozen = await manager
      .createQueryBuilder(DraftVersion, 'version')
      .innerJoin(Draft, 'draft', 'draft.id = version.draftId')
      .where('draft.exchangeId = :id', { id: place.exchange.id })
      .getExists();
    return {
      revision: row.revision,
      items: row.items,
      // Whether a classmate has handed in already is nothing a student should learn from the form.
      frozen: staff ? frozen : true,
      problems: staff ? checkForm(row).map(formProblem) : [],
    };
  }
}

/** Only the fields of the kind are kept, in one order, so that equal forms are equal texts. */
function asItem(request: FormItemRequest): FormItem {
  const { id, title, guidance, required } = request;
  if (request.kind === 'prompt') {
    return { kind: 'prompt', id, title, guidance, required, minimumWords: request.minimumWords ?? 0 };
  }
  const levels = (request.levels ?? []).map((level) => ({
    id: level.id,
    title: level.title,
    description: level.description,
    points: level.points,
  }));
  return { kind: 'criterion', id, title, guidance, required, levels, comment: request.comment ?? 'optional' };
}
