import { Inject, Injectable } from '@nestjs/common';
import { IsNull, Not } from 'typeorm';
import { Course } from '../../model/course.js';
import { Exchange } from '../../model/exchange.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { PeriodicJob } from '../../platform/jobs/periodic-job.js';
import { RemindersService } from './reminders.service.js';

const LOOK_EVERY = 60_000;

/** Reminds before due times where the plan says so. What was missed while the server was down is made up for, as long as it is not due. */
@Injectable()
export class DueReminders extends PeriodicJob {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly reminders: RemindersService,
    @Inject(SETTINGS) { mode }: Settings,
  ) {
    super({ name: 'due-reminders', every: LOOK_EVERY, fault: 'nobody could be reminded' }, mode);
  }

  protected async round(): Promise<void> {
    const wanted = { remindHours: Not(IsNull()), publishedAt: Not(IsNull()) };
    for (const { id } of await this.database.read.findBy(Exchange, wanted)) {
      await this.database.write(async (manager, emit) => {
        const exchange = await manager.findOneByOrFail(Exchange, { id });
        if (exchange.remindHours === null) return;
        const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
        const now = this.clock.now();
        const around = { exchange, course, now };
        const people = await this.reminders.sendDue(manager, around, exchange.remindHours, exchange.remindedUntil ?? 0);
        if (people === 0) return;
        // In the same transaction: whoever was reminded is not once more.
        await manager.update(Exchange, { id }, { remindedUntil: now });
        emit({ action: 'reminded', actorId: null, courseId: course.id, exchangeId: id, details: { people } });
      });
    }
  }
}
