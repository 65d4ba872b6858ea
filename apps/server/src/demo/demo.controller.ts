import { Body, Controller, Get, HttpCode, Inject, Param, Post, Req, Res } from '@nestjs/common';
import {
  MoveClockRequest,
  StepInRequest,
  type DemoPerson,
  type MailView,
  type OutboxView,
} from '@salt-circle/contracts';
import type { Role } from '@salt-circle/core';
import type { Request, Response } from 'express';
import { Course, Enrolment } from '../model/course.js';
import { Person } from '../model/person.js';
import { browserOf, setSessionCookie } from '../auth/session-cookie.js';
import { SessionService } from '../auth/session.service.js';
import { Clock } from '../platform/clock/clock.js';
import type { Settings } from '../platform/config/settings.js';
import { SETTINGS } from '../platform/config/settings.token.js';
import { Database } from '../platform/database/database.js';
import { refusal } from '../platform/problems/sentences.js';
import { Me } from '../auth/session.guard.js';
import { Public } from '../platform/security/public.js';
import { OutboxService } from '../features/mail/outbox.service.js';
import { keepOffset } from './demo-clock.js';

/** Part of the application in demo mode only: elsewhere these addresses do not exist. */
@Public()
@Controller('demo')
export class DemoController {
  constructor(
    private readonly database: Database,
    private readonly sessions: SessionService,
    private readonly clock: Clock,
    private readonly outbox: OutboxService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get('people')
  async people(): Promise<DemoPerson[]> {
    const rows = await this.database.read
      .createQueryBuilder(Enrolment, 'enrolment')
      .innerJoin(Person, 'person', 'person.id = enrolment.personId')
      .innerJoin(Course, 'course', 'course.id = enrolment.courseId')
      .select(['person.id AS id', 'person.name AS name', 'course.title AS course', 'enrolment.role AS role'])
      .where('enrolment.active = 1 AND person.email IS NOT NULL')
      .orderBy('person.name')
      .addOrderBy('course.title')
      .getRawMany<{ id: string; name: string; course: string; role: Role }>();
    const people = new Map<string, DemoPerson>();
    for (const { id, name, course, role } of rows) {
      const places = [...(people.get(id)?.places ?? []), { course, role }];
      people.set(id, { id, name, places });
    }
    return [...people.values()];
  }

  @Get('mail')
  mails(): Promise<OutboxView> {
    return this.outbox.everything();
  }

  @Get('mail/:id')
  mail(@Param('id') id: string): Promise<MailView> {
    return this.outbox.anyOne(id);
  }

  @Post('step-in')
  @HttpCode(204)
  async stepIn(
    @Body() { personId }: StepInRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const person = await this.database.read.findOneBy(Person, { id: personId });
    if (person === null) throw refusal('unknown');
    setSessionCookie(response, await this.sessions.open(person, 'stepped-in', browserOf(request)), this.settings);
  }

  @Post('clock')
  @HttpCode(200)
  async moveClock(@Me() me: Person | null, @Body() { to }: MoveClockRequest): Promise<{ now: string }> {
    const offset = to == null ? 0 : Date.parse(to) - this.clock.real();
    await keepOffset(this.database, offset, me?.id ?? null);
    this.clock.move(offset);
    return { now: new Date(this.clock.now()).toISOString() };
  }
}
