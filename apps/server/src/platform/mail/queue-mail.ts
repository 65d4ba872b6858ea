import type { EntityManager } from 'typeorm';
import type { MailSettings } from '../config/settings.js';
import { insertAll } from '../database/insert-all.js';
import type { Ids } from '../ids/ids.js';
import { Mail } from '../../model/mail.js';

export interface Letter {
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  readonly courseId: string | null;
  readonly exchangeId?: string | null;
  /** See `Mail.secret`. */
  readonly secret?: string;
  /** See `Mail.sealed`. */
  readonly sealed?: boolean;
}

/** The one way in which a mail comes into being: in the transaction of what it tells of. @returns the ids, in the order given */
export async function queueMail(
  manager: EntityManager,
  ids: Ids,
  { sendsMail }: MailSettings,
  now: number,
  letters: readonly Letter[],
): Promise<string[]> {
  const rows = letters.map(
    ({ address, subject, text, courseId, exchangeId = null, secret = null, sealed = false }) => ({
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
      state: sendsMail ? ('waiting' as const) : ('kept' as const),
    }),
  );
  await insertAll(manager, Mail, rows);
  return rows.map(({ id }) => id);
}
