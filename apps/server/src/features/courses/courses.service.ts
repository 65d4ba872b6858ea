import { Injectable } from '@nestjs/common';
import type {
  CourseCard,
  CourseSettingsRequest,
  CourseView,
  CreateCourseRequest,
  ExchangeCard,
} from '@salt-circle/contracts';
import { zoneName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { courseExchanges } from '../../queries/course-exchanges.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { Access, assertCan } from '../../permissions/access.js';
import { Participant } from '../../model/exchange.js';
import type { Person } from '../../model/person.js';
import { courseCard, exchangeCard } from '../../queries/exchange-views.js';
import { Ids } from '../../platform/ids/ids.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { Course, Enrolment } from '../../model/course.js';
import { say } from '../../words/courses.js';

@Injectable()
export class CoursesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async list(person: CurrentUser): Promise<CourseCard[]> {
    const manager = this.database.read;
    const { viewAs } = person;
    if (viewAs !== undefined)
      return [courseCard(await manager.findOneByOrFail(Course, { id: viewAs.courseId }), 'student')];
    const enrolments = await manager.findBy(Enrolment, { personId: person.id, active: true });
    const cards: CourseCard[] = [];
    for (const { courseId, role } of enrolments) {
      cards.push(courseCard(await manager.findOneByOrFail(Course, { id: courseId }), role));
    }
    return cards.sort((a, b) => a.title.localeCompare(b.title));
  }

  async one(person: CurrentUser, courseId: string): Promise<CourseView> {
    const context = await this.access.course(person, courseId);
    const { course } = context;
    const role = context.viewer.role ?? 'student';
    return {
      ...courseCard(course, role),
      exchanges: await this.#exchanges(person, courseId, role === 'student'),
      holidays: course.holidays,
      measuresTime: course.measuresTime,
      students:
        role === 'student'
          ? null
          : await this.database.read.countBy(Enrolment, { courseId, role: 'student', active: true }),
    };
  }

  create(person: CurrentUser, request: CreateCourseRequest): Promise<{ id: string }> {
    if (!person.createsCourses) throw refusal('not-yours');
    return this.database.write((manager, emit) => this.createIn(manager, emit, person, request));
  }

  /** Makes a course whose instructor the person is, as part of a larger change. May the person do it? That is asked before. */
  async createIn(
    manager: EntityManager,
    emit: EmitEvent,
    person: Pick<Person, 'id' | 'name' | 'email'>,
    request: CreateCourseRequest,
    place: Partial<Enrolment> = {},
  ): Promise<{ id: string }> {
    assertTimeZone(request.timeZone);
    const id = this.ids.uuid();
    const createdAt = this.clock.now();
    await manager.insert(Course, { id, title: request.title.trim(), timeZone: request.timeZone, createdAt });
    await manager.insert(Enrolment, {
      id: this.ids.uuid(),
      courseId: id,
      personId: person.id,
      name: person.name,
      email: person.email ?? '',
      role: 'instructor',
      active: true,
      ...place,
    });
    emit({ action: 'course-created', actorId: person.id, courseId: id });
    return { id };
  }

  saveSettings(person: CurrentUser, courseId: string, request: CourseSettingsRequest): Promise<CourseView> {
    const saved = this.database.write(async (manager, emit) => {
      const context = await this.access.course(person, courseId);
      assertCan(context, { kind: 'manage-course' });
      assertTimeZone(request.timeZone);
      assertHolidays(request.holidays);
      const holidays = request.holidays.map(({ title, from, to }) => ({ title: title.trim(), from, to }));
      const { measuresTime } = request;
      const row = {
        title: request.title.trim(),
        timeZone: request.timeZone,
        holidays,
        ...(measuresTime !== undefined && { measuresTime }),
      };
      await manager.update(Course, { id: courseId }, row);
      emit({ action: 'course-changed', actorId: person.id, courseId });
    });
    return saved.then(() => this.one(person, courseId));
  }

  async #exchanges(person: CurrentUser, courseId: string, asStudent: boolean): Promise<ExchangeCard[]> {
    const manager = this.database.read;
    const all = await courseExchanges(manager, courseId);
    const now = this.clock.now();
    if (!asStudent) return all.map((one) => exchangeCard(one, now));
    const cards: ExchangeCard[] = [];
    const { viewAs } = person;
    for (const exchange of all) {
      if (viewAs !== undefined && viewAs.exchangeId !== exchange.id) continue;
      if (viewAs?.example === true) {
        cards.push(exchangeCard({ ...exchange, publishedAt: exchange.publishedAt ?? 0 }, viewAs.at ?? now));
        continue;
      }
      const takesPart = await manager.existsBy(Participant, { exchangeId: exchange.id, personId: person.id });
      if (exchange.publishedAt !== null && takesPart) cards.push(exchangeCard(exchange, now));
    }
    return cards;
  }
}

/** By whatever name the zone is known, also an older one; browsers list some that servers list under another name. */
function assertTimeZone(timeZone: string): void {
  if (zoneName(timeZone) !== null) return;
  throw invalid([
    {
      path: 'timeZone',
      code: 'time-zone',
      sentence: say('isNotTimeZoneChoose', { timeZone }),
    },
  ]);
}

function assertHolidays(holidays: CourseSettingsRequest['holidays']): void {
  const wrong = holidays.flatMap(({ title, from, to }, index) =>
    from <= to
      ? []
      : [
          {
            path: `holidays.${index}.to`,
            code: 'holiday-order',
            sentence: say('endsBeforeItBeginsSwap', { title, to, from }),
          },
        ],
  );
  if (wrong.length > 0) throw invalid(wrong);
}
