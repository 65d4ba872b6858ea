import { Injectable } from '@nestjs/common';
import type {
  AnswerRequest,
  AnswerView,
  GradeGroundsView,
  GradeMoveView,
  GradeOverrideRequest,
  GradeRuleRequest,
  GradesView,
  OwnGradeView,
} from '@salt-circle/contracts';
import { gradeOf, ofMarkKey, QUALITY_COLUMNS, type FormItem, type GradeRule } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import {
  Access,
  assertCan,
  can,
  ownParticipant,
  participantOf,
  assertCanSee,
  type ExchangeContext,
} from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { reviewingFormOf, ruleOf } from '../../queries/grade-rule.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { GradeOverrideRow, ReviewingMark } from '../../model/grade.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { conflict, invalid, refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { answerFrom, sameAnswer } from '../../queries/answers.js';
import { adjustSentence, asked } from './rule-asked.js';
import { KeptEvidence } from './kept-evidence.js';
import { Evidence, type AllEvidence } from './evidence.service.js';
import { stillWorking, withinReason } from './within-reason.js';
import { gradeRows } from './grade-rows.js';
import { gradersOf } from './grading.service.js';
import { say } from '../../words/grades.js';

/** Grades as they are worked out, and what staff give instead. */
@Injectable()
export class Grades {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly evidence: Evidence,
    private readonly kept: KeptEvidence,
  ) {}

  /** @param whole waits for what takes long: what is read out is not to be provisional */
  async view(person: CurrentUser, exchangeId: string, whole = false): Promise<GradesView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const { exchange } = context;
    const rule = ruleOf(exchange);
    const worked = this.kept.of(context);
    const there = whole ? await worked : await withinReason(worked);
    const { people, adjusted, unpractised } =
      there ?? (await this.evidence.of(manager, context, { ...rule, score: 'mean' }));
    const graders = await gradersOf(manager, context.course.id);
    const provisional = there === null;
    return {
      parts: exchange.gradeParts,
      rule,
      revision: exchange.revision,
      reviewingForm: reviewingFormOf(exchange).items,
      draftForm: exchange.draftForm?.items ?? null,
      reviewingEach: exchange.reviewingEach,
      graders,
      rows: await gradeRows(manager, context, people, { graders, provisional }),
      release: isoOrNull(exchange.gradesRelease),
      problem: provisional ? stillWorking() : problemOf({ adjusted, unpractised }),
      provisional,
      mayRule: can(context, { kind: 'plan' }),
    };
  }

  /** A student has looked at the own grade: its release is not taken back any more. */
  async read(person: CurrentUser, exchangeId: string): Promise<void> {
    await this.database.write(async (manager) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'read-grade' });
      const { id, gradeReadAt } = ownParticipant(context);
      if (gradeReadAt === null) await manager.update(Participant, { id }, { gradeReadAt: context.now });
    });
  }

  async own(person: CurrentUser, exchangeId: string): Promise<OwnGradeView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'own-grade' });
    const { id } = ownParticipant(context);
    const rule = ruleOf(context.exchange);
    const { people } = await this.kept.of(context);
    const mine = people.find(({ participant }) => participant.id === id);
    if (mine === undefined) throw refusal('unknown');
    const grade = gradeOf(context.exchange.gradeParts, rule, mine.evidence);
    return { rule, grade, grounds: asStudentsRead(mine.grounds, rule) };
  }

  /** Whose grade moves by how much, if this were the rule. */
  async preview(person: CurrentUser, exchangeId: string, request: GradeRuleRequest): Promise<GradeMoveView[]> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'plan' });
    const manager = this.database.read;
    const { parts, rule } = await asked(manager, context, request);
    const present = ruleOf(context.exchange);
    const before = await this.evidence.of(manager, context, present);
    // Weights and rounding change nothing of what anybody did.
    const same = JSON.stringify([present.score, present.quality]) === JSON.stringify([rule.score, rule.quality]);
    const after = same ? before : await this.evidence.of(manager, context, rule);
    const labels = await PersonLabels.ofExchange(manager, context);
    const then = new Map(after.people.map((one) => [one.participant.id, gradeOf(parts, rule, one.evidence)]));
    const moves = before.people.map(({ participant, evidence }): GradeMoveView => {
      const now = gradeOf(context.exchange.gradeParts, present, evidence);
      const next = then.get(participant.id);
      const by = now.percent === null || next?.percent == null ? null : next.percent - now.percent;
      return {
        id: participant.id,
        person: labels.author(participant.id),
        before: now.words,
        after: next?.words ?? null,
        by,
      };
    });
    return moves.sort((a, b) => Math.abs(b.by ?? 0) - Math.abs(a.by ?? 0));
  }

  async saveRule(person: CurrentUser, exchangeId: string, request: GradeRuleRequest): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const { exchange } = context;
      if (exchange.revision !== request.revision) throw conflict(say('planOfThisExchange'), null);
      const { parts, rule } = await asked(manager, context, request);
      const revision = exchange.revision + 1;
      await manager.update(Exchange, { id: exchangeId }, { gradeParts: parts, gradeRule: rule, revision });
      const reported = { actorId: person.id, courseId: context.course.id, exchangeId };
      emit({ ...reported, action: 'grade-rule-set' });
      // What students were told of is told of again, as where it is changed in the plan.
      if (context.facts.published && JSON.stringify(parts) !== JSON.stringify(exchange.gradeParts))
        emit({ ...reported, action: 'rules-changed', details: { changed: ['gradeParts'], tell: true } });
    });
  }

  async override(
    person: CurrentUser,
    exchangeId: string,
    participantId: string,
    request: GradeOverrideRequest,
  ): Promise<void> {
    const { part, value } = request;
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'grade' });
    await participantOf(this.database.read, exchangeId, participantId);
    const { gradeParts } = context.exchange;
    const rule = ruleOf(context.exchange);
    const most = part === '' ? rule.most : 1;
    if (value !== null && !(value >= 0 && value <= most)) throw invalid([outside(part === '' ? rule.most : 100)]);
    // Before the transaction, which nobody else's saving should wait for.
    const { people } = await this.kept.of(context);
    const mine = people.find(({ participant }) => participant.id === participantId);
    if (mine === undefined) throw refusal('unknown');
    const grade = gradeOf(gradeParts, rule, mine.evidence);
    const line = grade.lines.find((one) => one.part === part);
    if (part !== '' && line === undefined) throw refusal('unknown');
    const computed = part === '' ? grade.computed : (line?.computed ?? null);
    const reason = (request.reason ?? '').trim();
    await this.database.write(async (manager, emit) => {
      assertCan(await this.access.exchange(person, exchangeId, manager), { kind: 'grade' });
      const where = { participantId, part };
      const from = (await manager.findOneBy(GradeOverrideRow, where))?.value ?? computed;
      if (value === null) await manager.delete(GradeOverrideRow, where);
      else
        await manager.save(GradeOverrideRow, { ...where, value, reason, computed, byId: person.id, at: context.now });
      emit({
        ...{ action: 'grade-overridden', actorId: person.id, courseId: context.course.id, exchangeId },
        details: {
          participant: participantId,
          part: part === '' ? 'whole' : part,
          from: shareOf(part, from),
          to: shareOf(part, value),
          reason: value === null ? null : reason,
        },
      });
    });
  }

  /** One answer of the form by which reviewing is marked. */
  async mark(
    person: CurrentUser,
    exchangeId: string,
    participantId: string,
    itemId: string,
    request: AnswerRequest,
  ): Promise<AnswerView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'grade' });
      await participantOf(manager, exchangeId, participantId);
      const item = await markedItem(manager, context, participantId, itemId);
      const { levelId, text, next, value, checks, choices } = answerFrom(request, item);
      const known = await manager.findOneBy(ReviewingMark, { participantId });
      const current = known?.answers[itemId] ?? null;
      if (current !== null && sameAnswer(current, { levelId, text, next, value, checks, choices })) return current;
      if ((current?.revision ?? 0) !== request.revision)
        throw conflict(say('whatIsSaidUnder', { title: item.title }), current);
      const answer = { levelId, text, next, value, checks, choices, revision: request.revision + 1 };
      const answers = { ...known?.answers, [itemId]: answer };
      await manager.save(ReviewingMark, { participantId, answers, byId: person.id, at: context.now });
      emit.quietly({ topic: 'grades', courseId: context.course.id, exchangeId });
      return answer;
    });
  }
}

/** @param key of the item, or of a review and the item, as the exchange has it */
async function markedItem(
  manager: EntityManager,
  { exchange }: ExchangeContext,
  participantId: string,
  key: string,
): Promise<FormItem> {
  const of = exchange.reviewingEach ? ofMarkKey(key) : { itemId: key };
  const item = reviewingFormOf(exchange).items.find(({ id }) => id === of?.itemId);
  if (of === null || item === undefined) throw refusal('unknown');
  if ('reviewId' in of) {
    const review = { id: of.reviewId, exchangeId: exchange.id, reviewerId: participantId };
    if (!(await manager.existsBy(Review, review))) throw refusal('unknown');
  }
  return item;
}

/** Single scores are told with the feedback; what does not count is the staff’s to look at. */
function asStudentsRead(grounds: GradeGroundsView, rule: GradeRule): GradeGroundsView {
  const quality = Object.fromEntries(
    QUALITY_COLUMNS.map((column) => [column, rule.quality[column] > 0 ? grounds.quality[column] : null]),
  ) as unknown as GradeGroundsView['quality'];
  return { ...grounds, ...(!rule.scoreTold && { interval: null, company: null }), scores: [], quality };
}

/** Why scores are not worked out as the rule has it, if they are not. */
function problemOf({ adjusted, unpractised }: Pick<AllEvidence, 'adjusted' | 'unpractised'>): string | null {
  if (unpractised) return say('nobodyHasSubmittedPracticeDraft');
  return adjusted?.problem == null ? null : adjustSentence(adjusted.problem);
}

function outside(most: number) {
  return { path: 'value', code: 'grade-outside', sentence: say('give0ToPercent', { most }) };
}

/** Of an override: a grade as a whole is given in percent, a part as a share. @returns a share from 0 to 1 */
function shareOf(part: string, value: number | null): number | null {
  return value !== null && part === '' ? value / 100 : value;
}
