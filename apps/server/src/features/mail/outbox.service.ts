import { Injectable } from '@nestjs/common';
import type { MailRow, MailView, OutboxView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { isMailHeld } from '../../platform/database/installation.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCan } from '../../permissions/access.js';
import { iso } from '../../platform/wire/instants.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Mail } from '../../model/mail.js';
import { linkGone, PostService } from './post.service.js';

/** Enough for what one act sends to a large course: what belongs together is shown together. */
const SHOWN = 2_500;

@Injectable()
export class OutboxService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly post: PostService,
  ) {}

  async list(person: CurrentUser, courseId: string): Promise<OutboxView> {
    await this.#assertMayRead(person, courseId);
    const [mails, total] = await this.database.read.findAndCount(Mail, {
      where: { courseId },
      order: { at: 'DESC', id: 'ASC' },
      take: SHOWN,
    });
    const failed = await this.database.read.countBy(Mail, { courseId, state: 'failed' });
    const held = await isMailHeld(this.database.read);
    return { mails: mails.map(row), total, failed, held, sends: this.post.sends };
  }

  /** Sends letters again that were given up. @param mailId null for all of the course @returns how many */
  async again(person: CurrentUser, courseId: string, mailId: string | null): Promise<{ letters: number }> {
    await this.#assertMayRead(person, courseId);
    return { letters: await this.post.again(courseId, mailId === null ? null : [mailId]) };
  }

  async one(person: CurrentUser, courseId: string, mailId: string): Promise<MailView> {
    await this.#assertMayRead(person, courseId);
    const mail = await this.database.read.findOneBy(Mail, { id: mailId, courseId });
    if (mail === null) throw refusal('unknown');
    return { ...row(mail), text: readable(mail) };
  }

  /** Everybody's mail with all links in it: for the demo, in which it goes nowhere. */
  async everything(): Promise<OutboxView> {
    const [mails, total] = await this.database.read.findAndCount(Mail, {
      order: { at: 'DESC', id: 'ASC' },
      take: SHOWN,
    });
    return { mails: mails.map(row), total, failed: 0, held: false, sends: this.post.sends };
  }

  async anyOne(id: string): Promise<MailView> {
    const mail = await this.database.read.findOneBy(Mail, { id });
    if (mail === null) throw refusal('unknown');
    return { ...row(mail), text: mail.text };
  }

  async #assertMayRead(person: CurrentUser, courseId: string): Promise<void> {
    const context = await this.access.course(person, courseId);
    assertCan(context, { kind: 'manage-course' });
  }
}

/**
 * A link that lets somebody in is for the one it was sent to. Without a mail server, whoever runs the course must
 * pass it on, so it is shown as long as it waits here.
 */
function readable({ text, secret, state, sealed }: Mail): string {
  return secret === null || (state === 'kept' && !sealed) ? text : text.replaceAll(secret, linkGone());
}

function row({ id, at, address, subject, state, error }: Mail): MailRow {
  return { id, at: iso(at), to: address, subject, state, error };
}
