import { Injectable } from '@nestjs/common';
import type { InboxView } from '@salt-circle/contracts';
import { In, IsNull, Not } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { News } from '../../model/news.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso } from '../../platform/wire/instants.js';

/** So many are shown, and as many older ones that were not read: else nobody could ever be done with them. */
const SHOWN = 200;

/** What happened that concerns somebody, read and unread. */
@Injectable()
export class Inbox {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** With a student's eyes there is nothing: an inbox is its person's own. */
  async mine(person: CurrentUser): Promise<InboxView> {
    if (person.viewAs !== undefined) return { unread: 0, news: [], mailWish: 'off' };
    const manager = this.database.read;
    const order = { at: 'DESC', id: 'ASC' } as const;
    const newest = await manager.find(News, { where: { personId: person.id }, order, take: SHOWN });
    const older = await manager.find(News, {
      where: { personId: person.id, readAt: IsNull(), id: Not(In(newest.map(({ id }) => id))) },
      order,
      take: SHOWN,
    });
    const rows = [...newest, ...older];
    const { mailWish } = await manager.findOneByOrFail(Person, { id: person.id });
    return {
      unread: await manager.countBy(News, { personId: person.id, readAt: IsNull() }),
      news: rows.map(({ id, at, words, path, readAt }) => ({ id, at: iso(at), words, path, read: readAt !== null })),
      mailWish,
    };
  }

  async read(person: CurrentUser, ids: readonly string[]): Promise<InboxView> {
    assertOwn(person);
    await this.database.write((manager) =>
      manager.update(
        News,
        { id: In([...ids]), personId: person.id, readAt: IsNull() },
        { readAt: this.clock.now(), mailDay: false },
      ),
    );
    return this.mine(person);
  }

  async wish(person: CurrentUser, mailWish: InboxView['mailWish']): Promise<InboxView> {
    assertOwn(person);
    await this.database.write(async (manager) => {
      await manager.update(Person, { id: person.id }, { mailWish });
      // What waits for the letter of the day is in the inbox all the same.
      if (mailWish === 'off') await manager.update(News, { personId: person.id, mailDay: true }, { mailDay: false });
    });
    return this.mine(person);
  }
}

function assertOwn({ viewAs }: CurrentUser): void {
  if (viewAs !== undefined) throw refusal('read-only');
}
