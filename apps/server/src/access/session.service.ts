import { createHmac } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { parseCookie } from 'cookie';
import { Person, Session } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import type { Settings } from '../platform/config/settings.js';
import { SETTINGS } from '../platform/config/settings.token.js';
import { Database } from '../platform/database/database.js';
import { Ids } from '../platform/ids/ids.js';

export const COOKIE = 'salt_circle';

const HOUR = 3_600_000;
/** A session ends after this long without a request, and after the longer one in any case; milliseconds. */
const IDLE = 14 * 24 * HOUR;
const LONGEST = 60 * 24 * HOUR;
/** How stale `lastSeenAt` may get before a request pays for writing it. */
const SEEN_STEP = HOUR;

/** Sessions of people who have shown who they are. How they show it is for the accounts to say. */
@Injectable()
export class SessionService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** Whose session a cookie names; null for none, or one that is over. */
  async personOf(cookieHeader: string | undefined): Promise<Person | null> {
    const token = cookieHeader === undefined ? undefined : parseCookie(cookieHeader)[COOKIE];
    if (!token) return null;
    const tokenHash = this.#hash(token);
    const session = await this.database.read.findOneBy(Session, { tokenHash });
    const now = this.clock.real();
    if (session === null || now - session.lastSeenAt > IDLE || now - session.createdAt > LONGEST) return null;
    if (now - session.lastSeenAt > SEEN_STEP) {
      await this.database.write((manager) => manager.update(Session, { tokenHash }, { lastSeenAt: now }));
    }
    return this.database.read.findOneBy(Person, { id: session.personId });
  }

  /** @returns the token for the cookie */
  open(person: Person, action: 'signed-in' | 'stepped-in'): Promise<string> {
    const token = this.ids.token();
    const now = this.clock.real();
    return this.database.write(async (manager, happened) => {
      await manager.insert(Session, {
        tokenHash: this.#hash(token),
        personId: person.id,
        createdAt: now,
        lastSeenAt: now,
      });
      happened({ action, actorId: person.id });
      return token;
    });
  }

  async close(cookieHeader: string | undefined): Promise<void> {
    const token = cookieHeader === undefined ? undefined : parseCookie(cookieHeader)[COOKIE];
    if (token) await this.database.write((manager) => manager.delete(Session, { tokenHash: this.#hash(token) }));
  }

  #hash(token: string): string {
    return createHmac('sha256', this.settings.secret).update(token).digest('base64url');
  }
}
