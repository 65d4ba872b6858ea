import { Injectable } from '@nestjs/common';
import type { GradesReleaseRequest } from '@salt-circle/contracts';
import { givenGrade, givenWords, gradeOf, isSameGrade, type GivenGrade } from '@salt-circle/core';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Access, assertCan } from '../../permissions/access.js';
import { mailRecipients } from '../../queries/mail-recipients.js';
import { gradeIsReleased } from '../../permissions/exchange-facts.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { ruleOf } from '../../queries/grade-rule.js';
import { Course } from '../../model/course.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { Evidence } from './evidence.service.js';
import { say } from '../../words/grades.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

/** Who sees a grade from when on, and who is told of it. */
@Injectable()
export class GradesRelease {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly evidence: Evidence,
    private readonly ids: Ids,
  ) {}

  /** Apart from feedback: for all, from a time on; for some, now; or taken back, until somebody has looked. */
  async release(
    person: CurrentUser,
    exchangeId: string,
    { how, at, participantIds }: GradesReleaseRequest,
  ): Promise<void> {
    const ids = [...new Set(participantIds)];
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'release' });
      const when = at === null ? context.now : Date.parse(at);
      if (how === 'none') await takeBack(manager, exchangeId);
      else if (how === 'all') await manager.update(Exchange, { id: exchangeId }, { gradesRelease: when });
      else {
        const found = await manager.findBy(Participant, { exchangeId, id: In(ids) });
        if (ids.length === 0 || found.length < ids.length) throw refusal('unknown');
        await manager.update(Participant, { id: In(ids) }, { gradeFrom: context.now });
      }
      const details = {
        how,
        at: how === 'all' ? isoOrNull(when) : null,
        people: how === 'some' ? ids.length : null,
      };
      const where = { courseId: context.course.id, exchangeId };
      emit({ action: 'grades-released', actorId: person.id, ...where, details });
    });
    await this.tell(exchangeId);
  }

  /**
   * Tells whoever sees a grade that they do, or that it is another one than they were told of. Worked out before the transaction, which
   * nobody else's saving should wait for; what changes in between is told of the next time.
   *
   * @returns how many were told
   */
  async tell(exchangeId: string): Promise<number> {
    const now = this.clock.now();
    const exchange = await this.database.read.findOneByOrFail(Exchange, { id: exchangeId });
    const rule = ruleOf(exchange);
    const { people } = await this.evidence.of(this.database.read, { exchange, now }, rule);
    const grades = new Map(
      people
        .filter(({ participant }) => gradeIsReleased(exchange, participant, now))
        .map(({ participant, evidence }) => [
          participant.id,
          givenGrade(gradeOf(exchange.gradeParts, rule, evidence), rule),
        ]),
    );
    if (grades.size === 0) return 0;
    return this.database.write(async (manager) => {
      // In the order of random ids, which says nothing of who somebody is.
      const present = await manager.find(Participant, { where: { exchangeId }, order: { id: 'ASC' } });
      const untold = present.filter(({ id, gradeTold }) => {
        const given = grades.get(id);
        return given !== undefined && (gradeTold === null || !isSameGrade(given, gradeTold));
      });
      const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
      const told = new Map(untold.map((one) => [one.personId, one]));
      const letters = (await mailRecipients(manager, course.id, [...told.keys()])).map(
        ({ address, personId }): Letter => {
          const { id, gradeTold } = told.get(personId) as Participant;
          const path = `/exchanges/${exchangeId}/grade`;
          return {
            ...{ kind: 'grade', address, courseId: course.id, exchangeId, news: { personId, path } },
            ...letter(
              course.title,
              exchange.title,
              gradeTold,
              grades.get(id) ?? { scale: 'none' },
              `${this.database.mail.publicUrl}${path}`,
            ),
          };
        },
      );
      for (const { id } of untold) await manager.update(Participant, { id }, { gradeTold: grades.get(id) });
      if (letters.length > 0) await queueMail(manager, this.ids, this.database.mail, now, letters);
      return untold.length;
    });
  }
}

/** @throws ProblemError once somebody has looked at a grade */
async function takeBack(manager: EntityManager, exchangeId: string): Promise<void> {
  const read = await manager.countBy(Participant, { exchangeId, gradeReadAt: Not(IsNull()) });
  if (read > 0) {
    throw new ProblemError({
      code: 'already-read',
      sentence: say('studentsHaveLookedAtGrade', { read }),
      whatToDo: say('giveAnotherGradeWhereOne'),
    });
  }
  await manager.update(Exchange, { id: exchangeId }, { gradesRelease: null });
  // Whoever was told is told again the next time.
  await manager.update(Participant, { exchangeId }, { gradeFrom: null, gradeTold: null });
}

/** @param was what was told of before; null for nothing */
function letter(
  course: string,
  exchange: string,
  was: GivenGrade | null,
  is: GivenGrade,
  link: string,
): Pick<Letter, 'subject' | 'text'> {
  const named = (grade: GivenGrade) => givenWords(grade) ?? say('noGrade');
  if (was === null) {
    return {
      subject: say('yourGradeForIsThere', { course, exchange }),
      text: paragraphs([say('yourGradeForIsThereWith', { exchange, course }), link]),
    };
  }
  return {
    subject: say('yourGradeForHasBeen', { course, exchange }),
    text: paragraphs([say('yourGradeForHasBeenCorrected', { exchange, course, was: named(was), is: named(is) }), link]),
  };
}
