import { Injectable } from '@nestjs/common';
import { makeAliases, seededRandom } from '@salt-circle/core';
import { IsNull } from 'typeorm';
import { Person } from '../accounts/entities.js';
import type { Seeing } from '../accounts/seeing.js';
import { Clock } from '../clock/clock.js';
import { Enrolment } from '../courses/entities.js';
import { Database } from '../database/database.js';
import { Exchange, Participant } from '../exchanges/entities.js';
import { refusal } from '../problems/sentences.js';

/** Says at which exchange one looks, with whose eyes, and at which moment: `exchange/participant` or `exchange/example@time`. */
export const SEE_HEADER = 'x-salt-circle-see';
const EXAMPLE = 'example';

/** Puts a student in the place of the member of staff who asks, for looking only. */
@Injectable()
export class SeeingService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** @throws ProblemError `not-found` for anybody who is not on the staff of the exchange's course */
  async eyesOf(by: Person, header: string): Promise<Person> {
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
    const person = participant === null ? null : await manager.findOneBy(Person, { id: participant.personId });
    if (participant === null || person === null) throw refusal('unknown');
    person.seeing = { ...base, participant, example: false, at: null };
    return person;
  }

  #invented(exchangeId: string): Participant {
    const [alias = 'Example'] = makeAliases(1, new Set(), seededRandom(1));
    return { id: EXAMPLE, exchangeId, personId: EXAMPLE, alias, extraReviews: null };
  }

  #example(seeing: Seeing): Person {
    return {
      id: EXAMPLE,
      name: 'An example student',
      email: 'student@example.org',
      passwordHash: null,
      createsCourses: false,
      createdAt: this.clock.now(),
      seeing,
    };
  }
}
