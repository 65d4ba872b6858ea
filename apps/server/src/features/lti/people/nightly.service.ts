import { Inject, Injectable } from '@nestjs/common';
import { localTime } from '@salt-circle/core';
import { LtiPlatform, LtiCourse } from '../../../model/lti.js';
import { Course } from '../../../model/course.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { PeriodicJob } from '../../../platform/jobs/periodic-job.js';
import { LtiPeople } from './lti-people.service.js';
import { Gradebooks } from '../gradebook/gradebooks.service.js';

const LOOK_EVERY = 10 * 60_000;
/** Hours of the course's own night in which platforms are asked. */
const NIGHT = { from: 1, to: 5 };
/** Milliseconds: once a night, also where the first try failed in part. */
const APART = 12 * 3_600_000;

/** Every night: who is in linked courses, and whether gradebooks still hold what they were told. */
@Injectable()
export class LtiNights extends PeriodicJob {
  /** By course; milliseconds. A platform that fails is asked again the next night. */
  readonly #triedAt = new Map<string, number>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly people: LtiPeople,
    private readonly gradebooks: Gradebooks,
    @Inject(SETTINGS) { mode }: Settings,
  ) {
    super({ name: 'platform-nights', every: LOOK_EVERY, fault: 'a platform could not be asked at night' }, mode);
  }

  protected async round(): Promise<void> {
    const manager = this.database.read;
    const now = this.clock.now();
    for (const { courseId, platformId, nightly } of await manager.find(LtiCourse)) {
      const { timeZone } = await manager.findOneByOrFail(Course, { id: courseId });
      const { hour } = localTime(now, timeZone);
      if (hour < NIGHT.from || hour >= NIGHT.to || Math.abs(now - (this.#triedAt.get(courseId) ?? 0)) < APART) continue;
      if (!(await manager.existsBy(LtiPlatform, { id: platformId, active: true }))) continue;
      this.#triedAt.set(courseId, now);
      if (nightly === 'add') await this.people.fetchNightly(courseId);
      await this.gradebooks.compare(courseId);
    }
  }
}
