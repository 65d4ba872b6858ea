import { Injectable } from '@nestjs/common';
import type { AllocationImportRequest, AllocationImportView, ImportedPair } from '@salt-circle/contracts';
import { ALLOCATION_CSV_HEADER, pairKey, readAllocationRows, type Named, type Pair } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Authors } from '../../queries/authors.js';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { Ids } from '../../platform/ids/ids.js';
import { csvOf, unreadable } from '../../platform/tables/cells.js';
import { Tables } from '../../platform/tables/tables.js';
import { allocationRowProblem } from '../../platform/problems/allocation-sentences.js';
import { Review } from '../../model/review.js';
import { makeChange } from './change.js';
import { loadQuestion, planOf, wishesOf, type Question } from './question.js';
import { tellReviewers } from './tell-reviewers.js';
import { say } from '../../words/allocation.js';

/** Allocations as CSV: a row per review, people by their addresses. */
@Injectable()
export class AllocationFiles {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
    private readonly tables: Tables,
  ) {}

  async write(person: CurrentUser, exchangeId: string): Promise<{ name: string; csv: string }> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const question = await this.#question(manager, context);
    const { reviewers, drafts } = await namesIn(manager, context, question);
    const nameOf = new Map([...reviewers, ...drafts].map(({ id, names }) => [id, names[0] ?? '']));
    const rows = question.current
      .filter(({ draftId }) => nameOf.has(draftId))
      .map(({ reviewerId, draftId, locked }) => [
        nameOf.get(reviewerId) ?? '',
        nameOf.get(draftId) ?? '',
        locked ? 'yes' : 'no',
      ])
      .sort((a, b) => a.join().localeCompare(b.join()));
    return {
      name: say('allocationCsv', { title: context.exchange.title }),
      csv: csvOf([[...ALLOCATION_CSV_HEADER], ...rows]),
    };
  }

  /** Looks at what a file would do, or does it: what is not in the file goes, but for what has begun. */
  async read(person: CurrentUser, exchangeId: string, request: AllocationImportRequest): Promise<AllocationImportView> {
    assertCan(await this.access.exchange(person, exchangeId), { kind: 'allocate' });
    const source = await this.tables.table(request);
    if (source.kind !== 'table') {
      throw unreadable(say('allocationsAreReadFromCsv'), say('chooseFileThatEndsIn'));
    }
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'allocate' });
      const question = await this.#question(manager, context);
      const { reviewers, drafts } = await namesIn(manager, context, question);
      const { pairs, problems } = readAllocationRows(source.cells, reviewers, drafts, question.problem.forbidden);
      const wanted = new Map(pairs.map((pair) => [pairKey(pair), pair]));
      const there = new Map(question.current.map((one) => [pairKey(one), one]));
      const missing = problems.length > 0 ? [] : question.current.filter((one) => !wanted.has(pairKey(one)));
      const remove = missing.filter(({ begunAt }) => begunAt === null);
      const add = pairs.filter((pair) => !there.has(pairKey(pair)));
      const applied = request.apply && problems.length === 0;
      if (applied) {
        await makeChange(manager, this.ids, context.exchange, context.now, {
          act: 'imported',
          add: add.map(({ fixed, ...pair }) => ({ ...pair, locked: fixed })),
          remove,
        });
        for (const { fixed, reviewerId, draftId } of pairs) {
          if (there.get(pairKey({ reviewerId, draftId }))?.locked === !fixed) {
            await manager.update(Review, { reviewerId, draftId }, { locked: fixed });
          }
        }
        await tellReviewers(manager, context.exchange, context.now, this.database.mail, this.ids);
        emit({
          action: 'allocation-imported',
          actorId: person.id,
          courseId: context.course.id,
          exchangeId,
          details: { added: add.length, removed: remove.length },
        });
      }
      const show = await shower(manager, context, question);
      return {
        added: add.map(show),
        removed: remove.map(show),
        same: pairs.length - add.length,
        kept: missing.filter(({ begunAt }) => begunAt !== null).map(show),
        problems: problems.map(allocationRowProblem),
        text: source.text,
        applied,
      };
    });
  }

  async #question(manager: EntityManager, { exchange, now }: ExchangeContext): Promise<Question> {
    const plan = await planOf(manager, exchange.id, now);
    return loadQuestion(manager, exchange, wishesOf(exchange, plan), now);
  }
}

async function shower(
  manager: EntityManager,
  context: ExchangeContext,
  question: Question,
): Promise<(pair: Pair) => ImportedPair> {
  const labels = await PersonLabels.ofExchange(manager, context);
  const drafts = new Map(question.drafts.map((one) => [one.draftId, one]));
  return ({ reviewerId, draftId }) => {
    const draft = drafts.get(draftId);
    return { reviewer: labels.reviewer(reviewerId), author: draft === undefined ? {} : labels.authorOf(draft) };
  };
}

/** By what people and drafts may be called in a file: an address first, then a campus id; a group by its title. */
async function namesIn(
  manager: EntityManager,
  { course, exchange }: ExchangeContext,
  question: Question,
): Promise<{ reviewers: Named[]; drafts: Array<Named & { authorIds: readonly string[] }> }> {
  const people = [...question.students, ...question.extras];
  const enrolled = new Map(
    (await manager.findBy(Enrolment, { courseId: course.id })).map((one) => [one.personId, one]),
  );
  const reviewers = people.map(({ id, personId }) => ({
    id,
    names: [enrolled.get(personId)?.email ?? '', enrolled.get(personId)?.campusId ?? ''].filter((name) => name !== ''),
  }));
  const namesOf = new Map(reviewers.map(({ id, names }) => [id, names]));
  const authors = await Authors.load(manager, exchange);
  const drafts = question.drafts.map(({ draftId, groupId, participantId, authorIds }) => ({
    id: draftId,
    names: groupId === null ? (namesOf.get(participantId) ?? []) : [authors.titleOf(groupId) ?? ''],
    authorIds,
  }));
  return { reviewers, drafts: drafts.filter(({ names }) => names.length > 0) };
}
