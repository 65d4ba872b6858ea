import { isAddress } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import type { MailSettings } from '../config/settings.js';
import { insertAll } from '../database/insert-all.js';
import { portions } from '../database/portions.js';
import type { Ids } from '../ids/ids.js';
import type { LetterKind } from '../../model/letter-kind.js';
import { Mail } from '../../model/mail.js';
import { News } from '../../model/news.js';
import { Person } from '../../model/person.js';
import { LETTER_RULES } from './letter-rules.js';

export interface Letter {
  readonly kind: LetterKind;
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  readonly courseId: string | null;
  readonly exchangeId?: string | null;
  /** See `Mail.secret`. */
  readonly secret?: string;
  /** See `Mail.sealed`; where it depends on more than the kind. */
  readonly sealed?: boolean;
  /** It tells one person of something: it stands in that person's inbox too, and is mailed as the person wishes. */
  readonly news?: {
    readonly personId: string;
    /** Where it leads, within the application. */
    readonly path: string;
  };
}

/** Puts into inboxes what is news. @returns the letters that are mailed at once */
async function tellNews(
  manager: EntityManager,
  ids: Ids,
  now: number,
  letters: readonly Letter[],
): Promise<readonly Letter[]> {
  const told = letters.flatMap(({ news, courseId }) => (news === undefined || courseId === null ? [] : [news]));
  if (told.length === 0) return letters;
  const wishes = new Map<string, Person['mailWish']>();
  const waiting = new Set<string>();
  // By what it is and where it leads, in whatever words it was told.
  const keyOf = ({ personId, path, kind }: Pick<News, 'personId' | 'path' | 'kind'>) =>
    JSON.stringify([personId, path, kind]);
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
    const { kind, news, subject: words, courseId, exchangeId = null } = letter;
    if (news === undefined || courseId === null) return true;
    const { personId, path } = news;
    const { once = false, always = false } = LETTER_RULES[kind];
    const key = keyOf({ personId, path, kind });
    if (once && waiting.has(key)) return false;
    waiting.add(key);
    const wish = wishes.get(personId) ?? 'off';
    rows.push({
      id: ids.uuid(),
      ...{ personId, path, kind, words, courseId, exchangeId },
      at: now,
      mailDay: wish === 'daily' && !always,
    });
    return always || wish === 'at-once';
  });
  await insertAll(manager, News, rows);
  return mailed;
}

function sendFrom(kind: LetterKind, now: number): number {
  const { waits } = LETTER_RULES[kind];
  return waits === undefined ? 0 : now + waits;
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
  const rows = mailed.map(({ kind, address, subject, text, courseId, exchangeId = null, secret = null, sealed }) => ({
    id: ids.uuid(),
    at: now,
    kind,
    address,
    // A line break in a subject would be a header of its own.
    subject: subject.replace(/\s+/gu, ' ').slice(0, 250),
    text,
    courseId,
    exchangeId,
    secret,
    sealed: sealed ?? LETTER_RULES[kind].sealed ?? false,
    nextTryAt: sendFrom(kind, now),
    state: sendsMail ? ('waiting' as const) : ('kept' as const),
  }));
  await insertAll(manager, Mail, rows);
  return rows.map(({ id }) => id);
}
