import { Injectable } from '@nestjs/common';
import type {
  AnswerRequest,
  AnswerView,
  GradeGroundsView,
  GradeMoveView,
  GradeOverrideRequest,
  GradeRow,
  GradeRuleRequest,
  GradesReleaseRequest,
  GradesView,
  OwnGradeView,
} from '@salt-circle/contracts';
import { gradeOf, QUALITY_COLUMNS, type GradeRule } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Access, act, acts, ownParticipant, participantOf, see, type Place } from '../../access/access.js';
import { gradeIsReleased } from '../../access/facts-of.js';
import { Labels } from '../../access/labels.js';
import { listedOf, namesOf } from '../../access/listed.js';
import { activeParticipants } from '../../access/participants.js';
import type { Asker } from '../../access/seeing.js';
import { Course, Enrolment } from '../../model/course.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { GradeOverrideRow, ReviewingMark } from '../../model/grade.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { conflict, invalid, refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { answerFrom, sameAnswer } from '../../access/answer-from.js';
import { adjustSentence, asked } from './rule-asked.js';
import { KeptEvidence } from './kept-evidence.js';
import { Evidence, reviewingFormOf, ruleOf, type Evidenced } from './evidence.service.js';

/** Grades as they are worked out, what staff give instead, and who sees them. */
@Injectable()
export class Grades {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly evidence: Evidence,
    private readonly kept: KeptEvidence,
    private readonly ids: Ids,
  ) {}

  async view(person: Asker, exchangeId: string): Promise<GradesView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const { exchange } = place;
    const rule = ruleOf(exchange);
    const { people, adjusted } = await this.evidence.of(manager, place, rule);
    const labels = await Labels.ofExchange(manager, place);
    const enrolled = await manager.findBy(Enrolment, { courseId: place.course.id });
    const sections = new Map(enrolled.map((one) => [one.personId, one.section]));
    const graders = await namesOf(
      manager,
      place.course.id,
      people.flatMap(({ mark }) => mark?.byId ?? []),
    );
    const rows = people.map((one): GradeRow => {
      const { participant, mark } = one;
      const grade = gradeOf(exchange.gradeParts, rule, one.evidence);
      const told = participant.gradeTold;
      return {
        id: participant.id,
        person: labels.author(participant.id),
        section: sections.get(participant.personId) ?? null,
        draftId: one.draftId,
        reviewIds: one.reviewIds,
        grade,
        grounds: one.grounds,
        mark: {
          answers: mark?.answers ?? {},
          by: mark?.byId == null ? null : (graders.get(mark.byId) ?? 'someone who has left'),
        },
        released: gradeIsReleased(exchange, participant, place.now),
        correction: told !== null && told !== (grade.words ?? '') ? told : null,
      };
    });
    return {
      parts: exchange.gradeParts,
      rule,
      revision: exchange.revision,
      reviewingForm: reviewingFormOf(exchange),
      rows: rows.sort((a, b) => (a.person.name ?? '').localeCompare(b.person.name ?? '')),
      release: isoOrNull(exchange.gradesRelease),
      problem: adjusted?.problem == null ? null : adjustSentence(adjusted.problem),
      mayRule: acts(place, { kind: 'plan' }),
    };
  }

  async own(person: Asker, exchangeId: string): Promise<OwnGradeView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'own-grade' });
    const { id } = ownParticipant(place);
    const rule = ruleOf(place.exchange);
    const { people } = await this.kept.of(place);
    const mine = people.find(({ participant }) => participant.id === id);
    if (mine === undefined) throw refusal('unknown');
    const grade = gradeOf(place.exchange.gradeParts, rule, mine.evidence);
    return { rule, grade, grounds: asStudentsRead(mine.grounds, rule) };
  }

  /** Whose grade moves by how much, if this were the rule. */
  async preview(person: Asker, exchangeId: string, request: GradeRuleRequest): Promise<GradeMoveView[]> {
    const place = await this.access.exchange(person, exchangeId);
    act(place, { kind: 'plan' });
    const manager = this.database.read;
    const { parts, rule } = await asked(manager, place, request);
    const before = await this.evidence.of(manager, place, ruleOf(place.exchange));
    const after = await this.evidence.of(manager, place, rule);
    const labels = await Labels.ofExchange(manager, place);
    const then = new Map(after.people.map((one) => [one.participant.id, gradeOf(parts, rule, one.evidence)]));
    const moves = before.people.map(({ participant, evidence }): GradeMoveView => {
      const now = gradeOf(place.exchange.gradeParts, ruleOf(place.exchange), evidence);
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

  async saveRule(person: Asker, exchangeId: string, request: GradeRuleRequest): Promise<void> {
    await this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'plan' });
      const { exchange } = place;
      if (exchange.revision !== request.revision) throw conflict('The plan of this exchange', null);
      const { parts, rule } = await asked(manager, place, request);
      const revision = exchange.revision + 1;
      await manager.update(Exchange, { id: exchangeId }, { gradeParts: parts, gradeRule: rule, revision });
      const tell = JSON.stringify(parts) !== JSON.stringify(exchange.gradeParts) && place.facts.published;
      const where = { courseId: place.course.id, exchangeId };
      happened({
        action: 'grade-rule-set',
        actorId: person.id,
        ...where,
        details: { weights: parts.map(({ part, weight }) => `${part} ${weight}`).join(', ') },
      });
      if (tell) await this.#tellWeights(manager, place);
    });
  }

  async override(
    person: Asker,
    exchangeId: string,
    participantId: string,
    request: GradeOverrideRequest,
  ): Promise<void> {
    const { part, value } = request;
    const reason = (request.reason ?? '').trim();
    await this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'grade' });
      const participant = await participantOf(manager, exchangeId, participantId);
      const rule = ruleOf(place.exchange);
      const most = part === '' ? rule.most : 1;
      if (value !== null && !(value >= 0 && value <= most)) throw invalid([outside(part === '' ? rule.most : 100)]);
      const mine = await this.#one(manager, place, participant);
      const grade = gradeOf(place.exchange.gradeParts, rule, mine.evidence);
      const line = grade.lines.find((one) => one.part === part);
      if (part !== '' && line === undefined) throw refusal('unknown');
      const where = { participantId, part };
      if (value === null) await manager.delete(GradeOverrideRow, where);
      else {
        const computed = (part === '' ? grade.computed : line?.computed) ?? null;
        await manager.save(GradeOverrideRow, { ...where, value, reason, computed, byId: person.id, at: place.now });
      }
      happened({
        ...{ action: 'grade-overridden', actorId: person.id, courseId: place.course.id, exchangeId },
        details: {
          participant: participantId,
          part: part === '' ? 'whole' : part,
          value,
          ...(value !== null && { reason }),
        },
      });
    });
  }

  /** One answer of the form by which reviewing is marked. */
  async mark(
    person: Asker,
    exchangeId: string,
    participantId: string,
    itemId: string,
    request: AnswerRequest,
  ): Promise<AnswerView> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'grade' });
      await participantOf(manager, exchangeId, participantId);
      const item = reviewingFormOf(place.exchange).find(({ id }) => id === itemId);
      if (item === undefined) throw refusal('unknown');
      const { levelId, text, next, value, checks, choices } = answerFrom(request, item);
      const known = await manager.findOneBy(ReviewingMark, { participantId });
      const current = known?.answers[itemId] ?? null;
      if (current !== null && sameAnswer(current, { levelId, text, next, value, checks, choices })) return current;
      if ((current?.revision ?? 0) !== request.revision) throw conflict(`What is said under “${item.title}”`, current);
      const answer = { levelId, text, next, value, checks, choices, revision: request.revision + 1 };
      const answers = { ...known?.answers, [itemId]: answer };
      await manager.save(ReviewingMark, { participantId, answers, byId: person.id, at: place.now });
      happened.quietly({ topic: 'grades', courseId: place.course.id, exchangeId });
      return answer;
    });
  }

  /** Grades apart from feedback: for all, from a time on; for some, now; or taken back. Who sees one for the first time is told. */
  async release(person: Asker, exchangeId: string, { how, at, participantIds }: GradesReleaseRequest): Promise<void> {
    await this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'release' });
      const when = at === null ? place.now : Date.parse(at);
      if (how === 'none') {
        await manager.update(Exchange, { id: exchangeId }, { gradesRelease: null });
        await manager.update(Participant, { exchangeId }, { gradeFrom: null });
      } else if (how === 'all') await manager.update(Exchange, { id: exchangeId }, { gradesRelease: when });
      else {
        const ids = [...new Set(participantIds)];
        const found = await manager.findBy(Participant, { exchangeId, id: In(ids) });
        if (ids.length === 0 || found.length < ids.length) throw refusal('unknown');
        await manager.update(Participant, { id: In(ids) }, { gradeFrom: place.now });
      }
      const where = { courseId: place.course.id, exchangeId };
      happened({
        action: 'grades-released',
        actorId: person.id,
        ...where,
        details: {
          how,
          at: how === 'all' ? isoOrNull(when) : null,
          people: how === 'some' ? participantIds.length : null,
        },
      });
      await this.tell(manager, exchangeId, place.now);
    });
  }

  /**
   * Tells whoever sees a grade that they do, or that it is another one than they were told of. @returns how many were told
   */
  async tell(manager: EntityManager, exchangeId: string, now: number): Promise<number> {
    const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
    const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
    const place = { exchange, course, now };
    const people = await activeParticipants(manager, exchangeId);
    if (!people.some((one) => gradeIsReleased(exchange, one, place.now))) return 0;
    const rule = ruleOf(exchange);
    const { people: all } = await this.evidence.of(manager, place, rule);
    const letters: Letter[] = [];
    const listed = await listedOf(
      manager,
      place.course.id,
      all.map(({ participant }) => participant.personId),
    );
    const told: string[] = [];
    for (const { participant, evidence } of all) {
      if (!gradeIsReleased(exchange, participant, place.now)) continue;
      const words = gradeOf(exchange.gradeParts, rule, evidence).words ?? '';
      if (participant.gradeTold === words) continue;
      await manager.update(Participant, { id: participant.id }, { gradeTold: words });
      told.push(participant.personId);
      const address = listed.get(participant.personId)?.email;
      if (address === undefined) continue;
      const again = participant.gradeTold !== null;
      const path = `/exchanges/${exchangeId}/grade`;
      const was = participant.gradeTold === '' ? 'none' : participant.gradeTold;
      letters.push({
        ...{ address, courseId: place.course.id, exchangeId, news: { personId: participant.personId, path } },
        subject: `${place.course.title}: your grade for “${exchange.title}” ${again ? 'has been corrected' : 'is there'}`,
        text:
          (again
            ? `Your grade for “${exchange.title}” (${place.course.title}) has been corrected: it was ${was}, and is ${words === '' ? 'none' : words} now.`
            : `Your grade for “${exchange.title}” (${place.course.title}) is there, with how it came about.`) +
          `\n\n${this.database.mail.publicUrl}${path}\n`,
      });
    }
    await queueMail(manager, this.ids, this.database.mail, place.now, letters);
    return told.length;
  }

  async #one(manager: EntityManager, place: Place, { id }: Participant): Promise<Evidenced> {
    const { people } = await this.evidence.of(manager, place, ruleOf(place.exchange));
    const mine = people.find(({ participant }) => participant.id === id);
    if (mine === undefined) throw refusal('unknown');
    return mine;
  }

  async #tellWeights(manager: EntityManager, { exchange, course, now }: Place): Promise<void> {
    const people = await activeParticipants(manager, exchange.id);
    const listed = await listedOf(
      manager,
      course.id,
      people.map(({ personId }) => personId),
    );
    const path = `/exchanges/${exchange.id}`;
    const letters = people.flatMap(({ personId }): Letter[] => {
      const address = listed.get(personId)?.email;
      if (address === undefined) return [];
      return [
        {
          ...{ address, courseId: course.id, exchangeId: exchange.id, news: { personId, path } },
          subject: `${course.title}: what the grade of “${exchange.title}” is made of has changed`,
          text: `What the grade of “${exchange.title}” (${course.title}) is made of has changed. It stands beside the brief.\n\n${this.database.mail.publicUrl}${path}\n`,
        },
      ];
    });
    await queueMail(manager, this.ids, this.database.mail, now, letters);
  }
}

/** Single scores are told with the feedback; what does not count is the staff’s to look at. */
function asStudentsRead(grounds: GradeGroundsView, rule: GradeRule): GradeGroundsView {
  const quality = Object.fromEntries(
    QUALITY_COLUMNS.map((column) => [column, rule.quality[column] > 0 ? grounds.quality[column] : null]),
  ) as unknown as GradeGroundsView['quality'];
  return { ...grounds, scores: [], quality };
}

function outside(most: number) {
  return { path: 'value', code: 'grade-outside', sentence: `Give 0 to ${most} percent.` };
}
