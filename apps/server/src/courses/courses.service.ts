import { Injectable } from '@nestjs/common';
import type { CourseCard, CourseView, CreateCourseRequest, ExchangeCard } from '@salt-circle/contracts';
import { mayDo } from '@salt-circle/core';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Database } from '../database/database.js';
import { Access, assertAllowed } from '../exchanges/access.js';
import { Exchange, Participant, ReviewFormRow } from '../exchanges/entities.js';
import { courseCard, exchangeCard } from '../exchanges/mapper.js';
import { Ids } from '../ids/ids.js';
import { invalid, refusal } from '../problems/sentences.js';
import { Course, Enrolment } from './entities.js';

@Injectable()
export class CoursesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async list(person: Person): Promise<CourseCard[]> {
    const manager = this.database.read;
    const enrolments = await manager.findBy(Enrolment, { personId: person.id, active: true });
    const cards: CourseCard[] = [];
    for (const { courseId, role } of enrolments) {
      cards.push(courseCard(await manager.findOneByOrFail(Course, { id: courseId }), role));
    }
    return cards.sort((a, b) => a.title.localeCompare(b.title));
  }

  async one(person: Person, courseId: string): Promise<CourseView> {
    const place = await this.access.course(person, courseId);
    const { course } = place;
    const role = place.viewer.role ?? 'student';
    return {
      ...courseCard(course, role),
      exchanges: await this.#exchanges(person, courseId, role === 'student'),
      people: role === 'student' ? null : await this.#people(courseId),
    };
  }

  create(person: Person, request: CreateCourseRequest): Promise<{ id: string }> {
    if (!person.createsCourses) throw refusal('not-yours');
    if (!Intl.supportedValuesOf('timeZone').includes(request.timeZone) && request.timeZone !== 'UTC') {
      throw invalid([
        {
          path: 'timeZone',
          code: 'time-zone',
          sentence: `“${request.timeZone}” is not a time zone. Choose one from the list.`,
        },
      ]);
    }
    const id = this.ids.uuid();
    return this.database.write(async (manager, happened) => {
      const createdAt = this.clock.now();
      await manager.insert(Course, { id, title: request.title.trim(), timeZone: request.timeZone, createdAt });
      await manager.insert(Enrolment, {
        id: this.ids.uuid(),
        courseId: id,
        personId: person.id,
        role: 'instructor',
        active: true,
      });
      happened({ action: 'course-created', actorId: person.id, courseId: id });
      return { id };
    });
  }

  async createExchange(person: Person, courseId: string, title: string): Promise<{ id: string }> {
    const { viewer } = await this.access.course(person, courseId);
    assertAllowed(mayDo(viewer, null, { kind: 'create-exchange' }));
    const id = this.ids.uuid();
    const formId = this.ids.uuid();
    return this.database.write(async (manager, happened) => {
      await manager.insert(ReviewFormRow, { id: formId, courseId, items: [], revision: 1 });
      await manager.insert(Exchange, {
        id,
        courseId,
        formId,
        title: title.trim(),
        briefHtml: '',
        guideHtml: '',
        reviewsPerStudent: 2,
        names: 'both-ways',
        revision: 1,
        createdAt: this.clock.now(),
      });
      happened({ action: 'exchange-created', actorId: person.id, courseId, exchangeId: id });
      return { id };
    });
  }

  async #exchanges(person: Person, courseId: string, asStudent: boolean): Promise<ExchangeCard[]> {
    const manager = this.database.read;
    const all = await manager.find(Exchange, { where: { courseId }, order: { createdAt: 'ASC' } });
    const now = this.clock.now();
    if (!asStudent) return all.map((one) => exchangeCard(one, now));
    const cards: ExchangeCard[] = [];
    for (const exchange of all) {
      const takesPart = await manager.existsBy(Participant, { exchangeId: exchange.id, personId: person.id });
      if (exchange.publishedAt !== null && takesPart) cards.push(exchangeCard(exchange, now));
    }
    return cards;
  }

  async #people(courseId: string): Promise<CourseView['people']> {
    return this.database.read
      .createQueryBuilder(Enrolment, 'enrolment')
      .innerJoin('person', 'person', 'person.id = enrolment.personId')
      .select(['person.name AS name', 'person.email AS email', 'enrolment.role AS role'])
      .where('enrolment.courseId = :courseId AND enrolment.active = 1', { courseId })
      .orderBy("enrolment.role = 'student'", 'ASC')
      .addOrderBy('person.name', 'ASC')
      .getRawMany();
  }
}
