import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { createTransport, type Transporter } from 'nodemailer';
import { LessThanOrEqual } from 'typeorm';
import { Clock } from '../../platform/clock/clock.js';
import { Rounds } from '../../platform/jobs/rounds.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { Mail } from '../../model/mail.js';
import { say } from '../../words/letters.js';

const SECOND = 1000;
const LOOK_EVERY = 2 * SECOND;
/** Milliseconds until a mail is tried again, one entry per failure; after the last one it is given up. */
const PAUSES: readonly number[] = [
  60 * SECOND,
  5 * 60 * SECOND,
  30 * 60 * SECOND,
  2 * 3600 * SECOND,
  8 * 3600 * SECOND,
];
const AT_ONCE = 50;
/** In the place of a link that only the addressee should have. */
export const linkGone = () => say('linkIsKnownToAddressee');

/** Hands waiting mail to the mail server, where one is set. Mail that cannot be handed over waits and is tried again. */
@Injectable()
export class PostService implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('mail');
  readonly #transport: Transporter | null;
  readonly #rounds = new Rounds(
    () => this.#deliverWaiting(),
    (error) => this.#logger.error(error.stack ?? 'mail could not be handed over'),
  );

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {
    const { smtp } = settings;
    this.#transport = smtp === null ? null : createTransport(smtp, { from: settings.mailFrom });
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

  /** @returns how many mails were handed over */
  deliver(): Promise<number> {
    return this.#rounds.make();
  }

  async #deliverWaiting(): Promise<number> {
    const transport = this.#transport;
    if (transport === null) return 0;
    const waiting = await this.database.read.find(Mail, {
      where: { state: 'waiting', nextTryAt: LessThanOrEqual(this.clock.real()) },
      order: { at: 'ASC', id: 'ASC' },
      take: AT_ONCE,
    });
    let sent = 0;
    for (const mail of waiting) {
      const error = await this.#send(transport, mail);
      if (error === null) sent += 1;
      await this.database.write((manager) =>
        manager.update(Mail, { id: mail.id }, outcome(mail, error, this.clock.real())),
      );
    }
    return sent;
  }

  async #send(transport: Transporter, { address, subject, text, id }: Mail): Promise<string | null> {
    try {
      // The id of the row is the id of the message: handed over twice after a crash, it is recognised as one.
      await transport.sendMail({
        to: address,
        subject,
        text,
        messageId: `<${id}@${new URL(this.settings.publicUrl).hostname}>`,
      });
      return null;
    } catch (error) {
      const reason = error instanceof Error ? error.message : say('unknownReason');
      this.#logger.warn(`a mail could not be handed over: ${reason}`);
      return reason;
    }
  }
}

function outcome(mail: Mail, error: string | null, now: number): Partial<Mail> {
  // Once it is on its way, a link that lets somebody in has no business here.
  if (error === null) {
    const text = mail.secret === null ? mail.text : mail.text.replaceAll(mail.secret, linkGone());
    return { state: 'sent', error: null, secret: null, text };
  }
  const pause = PAUSES[mail.tries];
  const tries = mail.tries + 1;
  return pause === undefined
    ? { state: 'failed', tries, error }
    : { state: 'waiting', tries, error, nextTryAt: now + pause };
}
