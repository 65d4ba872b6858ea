import type { EntityManager } from 'typeorm';
import { insertAll } from '../database/insert-all.js';
import type { Ids } from '../ids/ids.js';
import { Mail } from './entities.js';

export interface Letter {
  readonly address: string;
  readonly subject: string;
  readonly text: string;
  readonly courseId: string | null;
  readonly exchangeId?: string | null;
  /** See `Mail.secret`. */
  readonly secret?: string;
}

/** How this server's mail leaves, and where its links lead. */
export interface MailSettings {
  /** Address of the application, without a slash at the end. */
  readonly publicUrl: string;
  /** Whether a mail server is set; otherwise mail is kept in the outbox. */
  readonly sendsMail: boolean;
}

/** The one way in which a mail comes into being: in the transaction of what it tells of. */
export async function queueMail(
  manager: EntityManager,
  ids: Ids,
  { sendsMail }: MailSettings,
  now: number,
  letters: readonly Letter[],
): Promise<void> {
  const rows = letters.map(({ address, subject, text, courseId, exchangeId = null, secret = null }) => ({
    id: ids.uuid(),
    at: now,
    address,
    // A line break in a subject would be a header of its own.
    subject: subject.replace(/\s+/gu, ' ').slice(0, 250),
    text,
    courseId,
    exchangeId,
    secret,
    state: sendsMail ? ('waiting' as const) : ('kept' as const),
  }));
  await insertAll(manager, Mail, rows);
}
