import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { createTransport, type Transporter } from 'nodemailer';
import { In } from 'typeorm';
import { Clock } from '../../platform/clock/clock.js';
import { Rounds } from '../../platform/jobs/rounds.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { isMailHeld } from '../../platform/database/installation.js';
import { LinkRenewal } from '../../platform/mail/link-renewal.js';
import { Mail } from '../../model/mail.js';
import { say } from '../../words/letters.js';

const SECOND = 1000;
const LOOK_EVERY = 2 * SECOND;
/** Milliseconds until a letter is tried again that the mail server has refused, one entry per failure; after the last one it is given up. */
const PAUSES: readonly number[] = [
  60 * SECOND,
  5 * 60 * SECOND,
  30 * 60 * SECOND,
  2 * 3600 * SECOND,
  8 * 3600 * SECOND,
];
/** Milliseconds until a mail server is asked again that cannot be reached; the last one over and over. No letter is charged for it. */
const AWAY: readonly number[] = [30 * SECOND, 60 * SECOND, 5 * 60 * SECOND, 15 * 60 * SECOND];
/** Connections that are kept open, and letters that are handed over beside each other. */
const CONNECTIONS = 4;
/** In the place of a link that only the addressee should have. */
export const linkGone = () => say('linkIsKnownToAddressee');

/** A fault of the way to the mail server or of the server as a whole, by the codes of nodemailer; all others are of one letter. */
const OF_THE_SERVER = new Set([
  'ECONNECTION',
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'ESOCKET',
  'EDNS',
  'ETLS',
  'EAUTH',
  'ENOAUTH',
  'EPROTOCOL',
]);

interface Outcome {
  readonly mail: Mail;
  /** Null where it was handed over. */
  readonly error: string | null;
  readonly serverAway: boolean;
}

/** Hands waiting letters to the mail server, where one is set: those of accounts first, as they let people in. */
@Injectable()
export class PostService implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('mail');
  readonly #transport: Transporter | null;
  readonly #rounds = new Rounds(
    (ending) => this.#deliverWaiting(ending),
    (error) => this.#logger.error(error.stack ?? 'mail could not be handed over'),
  );
  /** While the mail server is away: how often it was asked, and until when it is left alone (real milliseconds). */
  #away = { times: 0, until: 0 };

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly renewal: LinkRenewal,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {
    const { smtp, mailFrom } = settings;
    this.#transport =
      smtp === null
        ? null
        : createTransport({ url: smtp, pool: true, maxConnections: CONNECTIONS } as object, { from: mailFrom });
  }

  get sends(): boolean {
    return this.#transport !== null;
  }

  onApplicationBootstrap(): void {
    if (this.#transport === null || this.settings.mode === 'test') return;
    this.#rounds.begin(LOOK_EVERY);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#rounds.end();
    this.#transport?.close();
  }

  /** @returns how many letters were handed over */
  deliver(): Promise<number> {
    return this.#rounds.make();
  }

  /** Letters that were given up are tried again. @param ids all of the course where it is null @returns how many */
  async again(courseId: string, ids: readonly string[] | null): Promise<number> {
    const where = { courseId, state: 'failed' as const, ...(ids !== null && { id: In([...ids]) }) };
    const change = { state: 'waiting' as const, tries: 0, nextTryAt: 0, error: null };
    const { affected } = await this.database.write((manager) => manager.update(Mail, where, change));
    this.#away = { times: 0, until: 0 };
    return affected ?? 0;
  }

  async #deliverWaiting(ending: AbortSignal): Promise<number> {
    const transport = this.#transport;
    if (transport === null || this.clock.real() < this.#away.until || (await isMailHeld(this.database.read))) return 0;
    let sent = 0;
    while (!ending.aborted) {
      const waiting = await this.#next();
      if (waiting.length === 0) return sent;
      const outcomes = await Promise.all(waiting.map((mail) => this.#send(transport, mail)));
      await this.database.write(async (manager) => {
        for (const one of outcomes) await manager.update(Mail, { id: one.mail.id }, changeOf(one, this.clock.real()));
      });
      sent += outcomes.filter(({ error }) => error === null).length;
      const away = outcomes.find(({ serverAway }) => serverAway);
      if (away !== undefined) {
        this.#leaveAlone(away.error ?? '');
        return sent;
      }
      this.#away = { times: 0, until: 0 };
    }
    return sent;
  }

  /** Those that let people in come first, then by age. Links that have run out meanwhile are made anew. */
  async #next(): Promise<Mail[]> {
    const now = this.clock.real();
    const rows = await this.database.read
      .createQueryBuilder(Mail, 'mail')
      .where("mail.state = 'waiting' AND mail.nextTryAt <= :now", { now })
      .orderBy('CASE WHEN mail.courseId IS NULL OR mail.secret IS NOT NULL THEN 0 ELSE 1 END')
      .addOrderBy('mail.at')
      .addOrderBy('mail.id')
      .take(CONNECTIONS * 2)
      .getMany();
    const mails: Mail[] = [];
    for (const mail of rows) {
      const renewed = mail.secret === null ? mail : await this.#withLink(mail, mail.secret);
      if (renewed !== null) mails.push(renewed);
    }
    return mails.length === 0 && rows.length > 0 ? this.#next() : mails;
  }

  /** @returns null for a letter whose link is over: it is ended */
  #withLink(mail: Mail, link: string): Promise<Mail | null> {
    return this.database.write(async (manager) => {
      const now = await this.renewal.renewed(manager, link);
      if (now === link) return mail;
      const text = mail.text.replaceAll(link, now ?? linkGone());
      const change = { text, secret: now, ...(now === null && { state: 'ended' as const }) };
      await manager.update(Mail, { id: mail.id }, change);
      return now === null ? null : { ...mail, ...change };
    });
  }

  #leaveAlone(reason: string): void {
    const pause = AWAY[Math.min(this.#away.times, AWAY.length - 1)] as number;
    this.#away = { times: this.#away.times + 1, until: this.clock.real() + pause };
    this.#logger.warn(`the mail server cannot be reached, and is asked again in ${pause / SECOND} s: ${reason}`);
  }

  async #send(transport: Transporter, mail: Mail): Promise<Outcome> {
    const { address, subject, text, id } = mail;
    try {
      // The id of the row is the id of the message: handed over twice after a crash, it is recognised as one.
      await transport.sendMail({
        to: address,
        subject,
        text,
        messageId: `<${id}@${new URL(this.settings.publicUrl).hostname}>`,
      });
      return { mail, error: null, serverAway: false };
    } catch (error) {
      const { code = '', responseCode } = error as { code?: string; responseCode?: number };
      const reason = error instanceof Error ? error.message : say('unknownReason');
      // 421: the server says of itself that it is closing (RFC 5321, 3.8).
      const serverAway = OF_THE_SERVER.has(code) || responseCode === 421;
      if (!serverAway) this.#logger.warn(`a mail could not be handed over: ${reason}`);
      return { mail, error: reason, serverAway };
    }
  }
}

function changeOf({ mail, error, serverAway }: Outcome, now: number): Partial<Mail> {
  // Once it is on its way, a link that lets somebody in has no business here.
  if (error === null) {
    const text = mail.secret === null ? mail.text : mail.text.replaceAll(mail.secret, linkGone());
    return { state: 'sent', error: null, secret: null, text };
  }
  if (serverAway) return { error };
  const pause = PAUSES[mail.tries];
  const tries = mail.tries + 1;
  return pause === undefined
    ? { state: 'failed', tries, error }
    : { state: 'waiting', tries, error, nextTryAt: now + pause };
}
