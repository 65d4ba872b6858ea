import { Injectable } from '@nestjs/common';
import {
  LTI_SCORE_STATES,
  LIMITS,
  type LtiScoreState,
  type LtiScoreView,
  type GradebookDecisionRequest,
  type GradebookRequest,
  type GradebookView,
} from '@salt-circle/contracts';
import { PART_WORDS, SCOPE, type GradePartName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee } from '../../../permissions/access.js';
import { courseNames } from '../../../queries/course-identities.js';
import { activeParticipants } from '../../../queries/participants.js';
import type { CurrentUser } from '../../../auth/view-as.js';
import { LtiLineItem, LtiScoreRow } from '../../../model/lti.js';
import { Database } from '../../../platform/database/database.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { isoOrNull } from '../../../platform/wire/instants.js';
import { canMake, Columns } from './columns.service.js';
import { bookedOf, usersOf, type Booked, type PartOrWhole } from './gradebook-parts.js';
import { Gradebooks } from './gradebooks.service.js';
import { say } from '../../../words/lti.js';

/** What the staff of an exchange see and decide of the gradebook at the platform. */
@Injectable()
export class Gradebook {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly columns: Columns,
    private readonly gradebooks: Gradebooks,
  ) {}

  /** @param only in this state */
  async one(person: CurrentUser, exchangeId: string, only?: LtiScoreState): Promise<GradebookView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const booked = await bookedOf(manager, exchangeId);
    if (booked === null || !takesGrades(booked)) {
      return {
        platform: null,
        columns: 'off',
        canMake: false,
        faults: [],
        tidy: null,
        counts: countsOf([]),
        scores: [],
      };
    }
    const { columns, platform } = booked;
    const scores = await scoresOf(manager, booked);
    const wanted = only === undefined ? scores : scores.filter(({ state }) => state === only);
    return {
      platform: platform.name,
      columns: columns.length === 0 ? 'off' : columns.some(({ part }) => part !== '') ? 'parts' : 'whole',
      canMake: canMake(booked),
      faults: [...new Set(columns.flatMap(({ fault }) => (fault === null ? [] : [fault])))],
      tidy: tidyOf(booked),
      counts: countsOf(scores),
      scores: wanted.slice(0, LIMITS.scores),
    };
  }

  /** Columns that are not wanted any more stay at the platform, unless they are to go there too. */
  async set(person: CurrentUser, exchangeId: string, { columns, removeThere }: GradebookRequest): Promise<void> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'release' });
    const booked = await this.#booked(exchangeId);
    const parts = context.exchange.gradeParts.map(({ part }) => part);
    const wanted: readonly PartOrWhole[] = { off: [], whole: [''] as const, parts }[columns];
    if (columns === 'parts' && (parts.length === 0 || !canMake(booked))) throw noColumns(booked, parts.length);
    const gone = booked.columns.filter(({ part }) => !wanted.includes(part));
    // At the platform first: what fails there leaves all as it is.
    if (removeThere) for (const { url } of gone) if (url !== null) await this.columns.remove(booked, url);
    await this.database.write(async (manager, emit) => {
      for (const { part } of gone) {
        await manager.delete(LtiLineItem, { exchangeId, part });
        await manager.delete(LtiScoreRow, { exchangeId, part });
      }
      const there = new Set(booked.columns.map(({ part }) => part));
      const fresh = wanted.filter((part) => !there.has(part));
      for (const part of fresh)
        await manager.insert(LtiLineItem, { exchangeId, part, url: null, label: null, fault: null });
      const where = { courseId: context.course.id, exchangeId };
      emit({
        action: 'platform-columns-set',
        actorId: person.id,
        ...where,
        details: { columns, removed: gone.length },
      });
    });
    await this.gradebooks.look();
  }

  /** Sends what waits, and looks what the platform holds. */
  async sendNow(person: CurrentUser, exchangeId: string): Promise<void> {
    assertCan(await this.access.exchange(person, exchangeId), { kind: 'release' });
    await this.#booked(exchangeId);
    await this.gradebooks.look();
    await this.gradebooks.compareOne(exchangeId);
  }

  async decide(
    person: CurrentUser,
    exchangeId: string,
    { participantIds, how }: GradebookDecisionRequest,
  ): Promise<void> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'release' });
    await this.#booked(exchangeId);
    await this.database.write(async (manager, emit) => {
      let decided = 0;
      const state = how === 'again' ? 'refused' : 'changed';
      const chosen = new Set(participantIds);
      for (const { participantId, part, theirs } of await manager.findBy(LtiScoreRow, { exchangeId, state })) {
        if (chosen.size > 0 && !chosen.has(participantId)) continue;
        await manager.update(LtiScoreRow, { participantId, part }, changeFor(how, theirs));
        decided += 1;
      }
      // A column that is missing at the platform is made anew.
      if (how === 'again') await manager.update(LtiLineItem, { exchangeId }, { tries: 0, nextTryAt: 0, fault: null });
      const where = { courseId: context.course.id, exchangeId };
      emit({ action: 'platform-score-decided', actorId: person.id, ...where, details: { how, people: decided } });
    });
    if (how !== 'theirs') await this.gradebooks.look();
  }

  async #booked(exchangeId: string): Promise<Booked> {
    const booked = await bookedOf(this.database.read, exchangeId);
    if (booked !== null && takesGrades(booked)) return booked;
    throw new ProblemError({
      code: 'platform-wrong',
      sentence:
        booked === null
          ? say('courseOfThisExchangeIs')
          : say('doesNotLetSaltCirclePass', { name: booked.platform.name }),
      whatToDo: say('whoeverRunsPlatformCanAllow'),
    });
  }
}

/** Where columns are those of parts, and the parts have changed since: what pressing once more would do. */
function tidyOf({ exchange, columns }: Booked): string | null {
  if (columns.every(({ part }) => part === '')) return null;
  const parts = exchange.gradeParts.map(({ part }) => part);
  const fresh = parts.filter((part) => !columns.some((one) => one.part === part));
  const gone = columns.flatMap(({ part }) => (part !== '' && !parts.includes(part) ? [part] : []));
  const said = (names: readonly GradePartName[]) => names.map((part) => `“${PART_WORDS[part]}”`).join(', ');
  const sentences = [
    ...(fresh.length > 0 ? [say('noColumnYetFor', { said: said(fresh) })] : []),
    ...(gone.length > 0 ? [say('noPartOfGradeAny', { said: said(gone) })] : []),
  ];
  return sentences.length === 0 ? null : sentences.join(' ');
}

function changeFor(how: GradebookDecisionRequest['how'], theirs: number | null): Partial<LtiScoreRow> {
  // What is there now is what was sent last, as it were: from it, the next one goes on.
  if (how === 'theirs') return { state: 'sent', sentValue: theirs };
  const due = { state: 'waiting' as const, tries: 0, nextTryAt: 0, error: null };
  return how === 'ours' ? { ...due, sentValue: theirs, theirs: null } : due;
}

function takesGrades({ link }: Booked): boolean {
  return link.services.scopes.includes(SCOPE.scores);
}

function noColumns(booked: Booked, parts: number): ProblemError {
  return new ProblemError({
    code: 'platform-wrong',
    sentence:
      parts === 0 ? say('gradeOfThisExchangeHas') : say('doesNotLetSaltCircleMake', { name: booked.platform.name }),
    whatToDo: say('chooseOneColumnForGrade'),
  });
}

async function scoresOf(manager: EntityManager, { exchange, link, columns }: Booked): Promise<LtiScoreView[]> {
  const users = await usersOf(manager, link);
  const participants = await activeParticipants(manager, exchange.id);
  const names = await courseNames(
    manager,
    exchange.courseId,
    participants.map(({ personId }) => personId),
  );
  const rows = await manager.findBy(LtiScoreRow, { exchangeId: exchange.id });
  const known = new Map(rows.map((row) => [`${row.participantId} ${row.part}`, row]));
  const parts = exchange.gradeParts.map(({ part }) => part as PartOrWhole);
  const sorted = [...columns].sort((a, b) => parts.indexOf(a.part) - parts.indexOf(b.part));
  const views = participants.flatMap(({ id, personId }) =>
    sorted.map(({ part }): LtiScoreView => {
      const row = known.get(`${id} ${part}`);
      const state = row?.state ?? (users.has(personId) ? 'unreleased' : 'apart');
      return {
        ...{ participantId: id, name: names.get(personId) ?? say('someoneWhoHasLeft'), part, state },
        kind: row?.kind ?? 'open',
        ours: row?.value ?? null,
        theirs: row?.theirs ?? null,
        at: isoOrNull(row?.sentAt ?? null),
        nextTryAt: isoOrNull(state === 'waiting' && (row?.nextTryAt ?? 0) > 0 ? (row?.nextTryAt ?? null) : null),
        error: row?.error ?? null,
      };
    }),
  );
  const order = (state: LtiScoreState) => LTI_SCORE_STATES.indexOf(state);
  return views.sort((a, b) => order(a.state) - order(b.state) || a.name.localeCompare(b.name));
}

function countsOf(scores: readonly LtiScoreView[]): GradebookView['counts'] {
  const counts = { changed: 0, refused: 0, waiting: 0, sent: 0, unreleased: 0, apart: 0 };
  for (const { state } of scores) counts[state] += 1;
  return counts;
}
