import { Injectable } from '@nestjs/common';
import type { FieldProblem, ReflectionRead, ReflectionRequest, ReflectionView } from '@salt-circle/contracts';
import { countWords, type ReflectionRule } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import {
  Access,
  assertCan,
  can,
  ownParticipant,
  assertCanSee,
  type ExchangeContext,
} from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Participant } from '../../model/exchange.js';
import { ReflectionRow } from '../../model/revision.js';
import { Database } from '../../platform/database/database.js';
import { conflict, invalid, refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { say } from '../../words/revising.js';

/** What authors think over once they have read their feedback. */
@Injectable()
export class Reflections {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  async mine(person: CurrentUser, exchangeId: string): Promise<ReflectionView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'feedback' });
    return this.#view(this.database.read, context);
  }

  /** What was handed in can be changed and handed in again, until the time for it is over. */
  async save(
    person: CurrentUser,
    exchangeId: string,
    { texts, revision, handIn }: ReflectionRequest,
  ): Promise<ReflectionView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'reflect' });
      const rule = ruleOf(context);
      const { id: participantId } = ownParticipant(context);
      const known = await manager.findOneBy(ReflectionRow, { participantId });
      const given = rule.prompts.map((_, index) => texts[index] ?? '');
      const same = JSON.stringify(known?.texts) === JSON.stringify(given);
      if (!same && (known?.revision ?? 0) !== revision) {
        throw conflict(say('yourReflection'), await this.#view(manager, context));
      }
      if (handIn) assertEnough(rule, given);
      await manager.save(ReflectionRow, {
        participantId,
        texts: given,
        revision: same ? (known?.revision ?? 0) : revision + 1,
        savedAt: same ? (known?.savedAt ?? context.now) : context.now,
        handedInAt: handIn ? context.now : (known?.handedInAt ?? null),
      });
      if (handIn) emit.quietly({ topic: 'drafts', courseId: context.course.id, exchangeId });
      return this.#view(manager, context);
    });
  }

  /** Those that are handed in, for staff; by name. */
  async all(person: CurrentUser, exchangeId: string): Promise<ReflectionRead[]> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const rule = context.exchange.after.reflection;
    if (rule === null) return [];
    const manager = this.database.read;
    const people = await manager.findBy(Participant, { exchangeId });
    const labels = await PersonLabels.ofExchange(manager, context);
    const rows = await handedInOf(manager, exchangeId);
    const known = new Set(people.map(({ id }) => id));
    return rows
      .filter(({ participantId }) => known.has(participantId))
      .map(({ participantId, texts, handedInAt }) => ({
        author: labels.author(participantId),
        prompts: rule.prompts,
        texts,
        handedInAt: isoOrNull(handedInAt),
      }))
      .sort((a, b) => (a.author.name ?? '').localeCompare(b.author.name ?? ''));
  }

  async #view(manager: EntityManager, context: ExchangeContext): Promise<ReflectionView> {
    const { prompts, minimumWords } = ruleOf(context);
    const row = await manager.findOneBy(ReflectionRow, { participantId: ownParticipant(context).id });
    return {
      prompts,
      minimumWords,
      texts: prompts.map((_, index) => row?.texts[index] ?? ''),
      revision: row?.revision ?? 0,
      savedAt: isoOrNull(row?.savedAt ?? null),
      handedInAt: isoOrNull(row?.handedInAt ?? null),
      open: can(context, { kind: 'reflect' }),
    };
  }
}

/** Of an exchange, those that are handed in. */
export function handedInOf(manager: EntityManager, exchangeId: string): Promise<ReflectionRow[]> {
  return manager
    .createQueryBuilder(ReflectionRow, 'reflection')
    .innerJoin(Participant, 'participant', 'participant.id = reflection.participantId')
    .where('participant.exchangeId = :exchangeId AND reflection.handedInAt IS NOT NULL', { exchangeId })
    .getMany();
}

function ruleOf({ exchange }: ExchangeContext): ReflectionRule {
  const rule = exchange.after.reflection;
  if (rule === null) throw refusal('unknown');
  return rule;
}

function assertEnough({ prompts, minimumWords }: ReflectionRule, texts: readonly string[]): void {
  const problems: FieldProblem[] = prompts.flatMap((prompt, index) =>
    (texts[index] ?? '').trim() === ''
      ? [{ path: `texts.${index}`, code: 'missing', sentence: say('hasNoAnswerYet', { prompt }) }]
      : [],
  );
  const words = texts.reduce((sum, text) => sum + countWords(text), 0);
  if (problems.length === 0 && words < minimumWords) {
    const sentence = say('theseAreOfWordsThat', { words, minimumWords });
    problems.push({ path: 'texts.0', code: 'too-short', sentence });
  }
  if (problems.length > 0) throw invalid(problems);
}
