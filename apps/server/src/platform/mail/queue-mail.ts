import { isAddress } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import type { MailSettings } from '../config/settings.js';
import { insertAll } from '../database/insert-all.js';
import { portions } from '../database/portions.js';
import type { Ids } from '../ids/ids.js';
import { Mail } from '../../model/mail.js';
import { News } from '../../model/news.js';
import { Person } from '../../model/person.js';

export interface Letter {
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  readonly courseId: string | null;
  readonly exchangeId?: string | null;
  /** See `Mail.secret`. */
  readonly secret?: string;
  /** Milliseconds for which it waits before it leaves, so that another one can take its place. */
  readonly waits?: number;
  /** See `Mail.sealed`. */
  readonly sealed?: boolean;
  /** It tells one person of something: it stands in that person's inbox too, and is mailed as the person wishes. */
  readonly news?: {
    readonly personId: string;
    /** Where it leads, within the application. */
    readonly path: string;
    /** As long as it has not been read it is told once, however often it happens. */
    readonly once?: boolean;
    /** Mailed whatever the wishes: a receipt. */
    readonly always?: boolean;
  };
}

/** Puts into inboxes what is news. @returns the letters that are mailed at once */
async function tellNews(
  manager: EntityManager,
  ids: Ids,
  now: number,
  letters: readonly Letter[],
): Promise<readonly Letter[]> {
  const told = letters.flatMap(({ news, subject, courseId, exchangeId = null }) =>
    news === undefined || courseId === null ? [] : [{ ...news, words: subject, courseId, exchangeId }],
  );
  if (told.length === 0) return letters;
  const wishes = new Map<string, Person['mailWish']>();
  const waiting = new Set<string>();
  const keyOf = ({ personId, path, words }: Pick<News, 'personId' | 'path' | 'words'>) =>
    JSON.stringify([personId, path, words]);
  for (const some of portions(told)) {
    const personId = In([...new Set(some.map((one) => one.personId))]);
    for (const { id, mailWish } of await manager.find(Person, {
      where: { id: personId },
      select: { id: true, mailWish: true },
    }))
      wishes.set(id, mailWish);
    for (const one of await manager.findBy(News, { personId, readAt: IsNull() })) waiting.add(keyOf(one));
  }
  const rows: Array<QueryDeepPartialEntity<News>> = [];
  const mailed = letters.filter((letter) => {
    const { news, subject: words, courseId, exchangeId = null } = letter;
    if (news === undefined || courseId === null) return true;
    const { personId, path, once = false, always = false } = news;
    const key = keyOf({ personId, path, words });
    if (once && waiting.has(key)) return false;
    waiting.add(key);
    const wish = wishes.get(personId) ?? 'off';
    rows.push({
      id: ids.uuid(),
      ...{ personId, path, words, courseId, exchangeId },
      at: now,
      mailDay: wish === 'daily' && !always,
    });
    return always || wish === 'at-once';
  });
  await insertAll(manager, News, rows);
  return mailed;
}

/** The one way in which a mail comes into being: in the transaction of what it tells of. @returns the ids, in the order given */
export async function queueMail(
  manager: EntityManager,
  ids: Ids,
  { sendsMail }: MailSettings,
  now: number,
  letters: readonly Letter[],
): Promise<string[]> {
  // Whoever has no address has an inbox all the same.
  const mailed = (await tellNews(manager, ids, now, letters)).filter(({ address }) => isAddress(address));
  const rows = mailed.map(
    ({ address, subject, text, courseId, exchangeId = null, secret = null, sealed = false, waits = 0 }) => ({
      id: ids.uuid(),
      at: now,
      address,
      // A line break in a subject would be a header of its own.
      subject: subject.replace(/\s+/gu, ' ').slice(0, 250),
      text,
      courseId,
      exchangeId,
      secret,
      sealed,
      nextTryAt: waits === 0 ? 0 : now + waits,
      state: sendsMail ? ('waiting' as const) : ('kept' as const),
    }),
  );
  await insertAll(manager, Mail, rows);
  return rows.map(({ id }) => id);
}
