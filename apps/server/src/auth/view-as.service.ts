import { Injectable } from '@nestjs/common';
import { makeAliases, seededRandom } from '@salt-circle/core';
import { IsNull } from 'typeorm';
import type { Person } from '../model/person.js';
import type { CurrentUser, ViewAs } from './view-as.js';
import { Enrolment } from '../model/course.js';
import { Database } from '../platform/database/database.js';
import { Exchange, Participant } from '../model/exchange.js';
import { refusal } from '../platform/problems/sentences.js';
import { say } from '../words/access.js';

/** Says at which exchange one looks, with whose eyes, and at which moment: `exchange/participant` or `exchange/example@time`. */
export const VIEW_AS_HEADER = 'x-salt-circle-view-as';
const EXAMPLE = 'example';

/** Puts a student in the place of the member of staff who asks, for looking only. */
@Injectable()
export class ViewAsService {
  constructor(private readonly database: Database) {}

  /** @throws ProblemError `not-found` for anybody who is not on the staff of the exchange's course */
  async eyesOf(by: CurrentUser, header: string): Promise<CurrentUser> {
    const match = /^([\w-]{1,64})\/([\w-]{1,64})(?:@(\S{1,40}))?$/.exec(header);
    const [, exchangeId = '', who = '', time] = match ?? [];
    const manager = this.database.read;
    const exchange = await manager.findOneBy(Exchange, { id: exchangeId });
    const staff =
      exchange !== null &&
      (await manager.findBy(Enrolment, { courseId: exchange.courseId, personId: by.id, active: true })).some(
        ({ role }) => role !== 'student',
      );
    if (exchange === null || !staff) throw refusal('unknown');
    const base = { by, courseId: exchange.courseId, exchangeId };
    if (who === EXAMPLE) {
      const at = time === undefined || Number.isNaN(Date.parse(time)) ? null : Date.parse(time);
      return this.#example({ ...base, participant: this.#invented(exchangeId), example: true, at });
    }
    const participant = await manager.findOneBy(Participant, { id: who, exchangeId, extraReviews: IsNull() });
    const { courseId } = exchange;
    const listed =
      participant === null ? null : await manager.findOneBy(Enrolment, { courseId, personId: participant.personId });
    if (participant === null || listed === null) throw refusal('unknown');
    // As the course lists them: how the account behind it is called is the student's own.
    return {
      ...nobody(listed.personId, listed.name, listed.email),
      viewAs: { ...base, participant, example: false, at: null },
    };
  }

  #invented(exchangeId: string): Participant {
    const [alias = say('example')] = makeAliases(1, new Set(), seededRandom(1));
    return {
      id: EXAMPLE,
      exchangeId,
      personId: EXAMPLE,
      alias,
      extraReviews: null,
      feedbackReadAt: null,
      feedbackToldAt: null,
      feedbackFrom: null,
      feedbackHeld: null,
      gradeFrom: null,
      gradeTold: null,
      gradeReadAt: null,
    };
  }

  #example(viewAs: ViewAs): CurrentUser {
    return { ...nobody(EXAMPLE, say('exampleStudent'), 'student@example.org'), viewAs };
  }
}

/** Somebody without an account to do anything with. */
function nobody(id: string, name: string, email: string): Person {
  return {
    ...{ id, name, email, passwordHash: null, addressConfirmedAt: null },
    ...{ mailWish: 'off' as const, createsCourses: false, runsPlatforms: false, createdAt: 0 },
  };
}
