import { Inject, Injectable } from '@nestjs/common';
import { In, LessThanOrEqual } from 'typeorm';
import { News } from '../../model/news.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Ids } from '../../platform/ids/ids.js';
import { PeriodicJob } from '../../platform/jobs/periodic-job.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { say } from '../../words/inbox.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

const LOOK_EVERY = 60_000;
/** The first news of a letter waits this long for others, in milliseconds. */
const DAY = 24 * 3_600_000;

/** Mails whoever wants one letter a day what has come into the inbox and was not read there. */
@Injectable()
export class DayLetters extends PeriodicJob {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) { mode }: Settings,
  ) {
    super({ name: 'day-letters', every: LOOK_EVERY, fault: 'the letters of the day could not be written' }, mode);
  }

  protected async round(): Promise<void> {
    const due = { mailDay: true, at: LessThanOrEqual(this.clock.now() - DAY) };
    if (!(await this.database.read.existsBy(News, due))) return;
    await this.database.write(async (manager) => {
      const now = this.clock.now();
      const first = await manager.find(News, { where: due, select: { id: true, personId: true } });
      const personIds = [...new Set(first.map(({ personId }) => personId))].slice(0, 500);
      const waiting = await manager.find(News, {
        where: { personId: In(personIds), mailDay: true },
        order: { at: 'ASC', id: 'ASC' },
      });
      const people = new Map((await manager.findBy(Person, { id: In(personIds) })).map((one) => [one.id, one]));
      const { publicUrl } = this.database.mail;
      const letters = [...groupedBy(waiting, ({ personId }) => personId)].flatMap(([personId, news]) => {
        const address = people.get(personId)?.email;
        if (address == null) return [];
        const lines = news.map(({ words, path }) => `${words}\n${publicUrl}${path}`);
        return [
          {
            kind: 'day-letter' as const,
            address,
            subject: say('saltCircleThatHappened', { news: news.length }),
            text: paragraphs([...lines, say('youGetOneLetterDay', { address: `${publicUrl}/account` })]),
            courseId: null,
          },
        ];
      });
      await queueMail(manager, this.ids, this.database.mail, now, letters);
      await manager.update(News, { personId: In(personIds), mailDay: true }, { mailDay: false });
    });
  }
}
