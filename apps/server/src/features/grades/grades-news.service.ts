import { Inject, Injectable } from '@nestjs/common';
import { isOver } from '@salt-circle/core';
import { IsNull, Not } from 'typeorm';
import { gradeIsReleased, timelineOf } from '../../permissions/exchange-facts.js';
import { activeParticipants } from '../../queries/participants.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { PeriodicJob } from '../../platform/jobs/periodic-job.js';
import { GradesRelease } from './grades-release.service.js';

const LOOK_EVERY = 60_000;
/** Corrections are told of once things have settled: not at every press. Milliseconds. */
const SETTLED = 15 * 60_000;

/** Tells of grades that are released by their date, and of corrections. */
@Injectable()
export class GradesNews extends PeriodicJob {
  /** When each exchange was last gone through. Milliseconds. */
  readonly #lookedAt = new Map<string, number>();
  /** Exchanges that are over, and were gone through since: nothing comes of them until something changes. */
  readonly #settled = new Set<string>();
  readonly #stop: () => void;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly grades: GradesRelease,
    @Inject(SETTINGS) { mode }: Settings,
  ) {
    super({ name: 'grades-news', every: LOOK_EVERY, fault: 'nobody could be told of grades' }, mode);
    this.#stop = database.changes.listen((changes) => {
      for (const { exchangeId } of changes) {
        const again = exchangeId === null ? [...this.#settled] : [exchangeId];
        // Told of once that has settled, too.
        for (const id of again) if (this.#settled.delete(id)) this.#lookedAt.set(id, clock.now());
      }
    });
  }

  override async onApplicationShutdown(): Promise<void> {
    this.#stop();
    await super.onApplicationShutdown();
  }

  protected async round(): Promise<void> {
    const manager = this.database.read;
    const now = this.clock.now();
    const early = await manager
      .createQueryBuilder(Participant, 'participant')
      .where('participant.gradeFrom IS NOT NULL')
      .select('DISTINCT participant.exchangeId', 'id')
      .getRawMany<{ id: string }>();
    const released = await manager.find(Exchange, { where: { gradesRelease: Not(IsNull()) }, select: { id: true } });
    for (const id of new Set([...released, ...early].map((one) => one.id))) {
      if (this.#settled.has(id)) continue;
      const exchange = await manager.findOneByOrFail(Exchange, { id });
      const people = await activeParticipants(manager, id);
      const untold = people.some((one) => one.gradeTold === null && gradeIsReleased(exchange, one, now));
      if (!untold && now - (this.#lookedAt.get(id) ?? 0) < SETTLED) continue;
      await this.grades.tell(id);
      this.#lookedAt.set(id, now);
      if (isOver(timelineOf(exchange), now) && (exchange.gradesRelease ?? Infinity) <= now) this.#settled.add(id);
    }
  }
}
