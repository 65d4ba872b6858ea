import { createHmac } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { parseCookie } from 'cookie';
import { Clock } from '../clock/clock.js';
import type { Settings } from '../config/settings.js';
import { SETTINGS } from '../config/settings.token.js';
import { Database, type Report } from '../database/database.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { Person, Session } from './entities.js';
import { passwordFits } from './passwords.js';

export const COOKIE = 'salt_circle';

const HOUR = 3_600_000;
/** A session ends after this long without a request, and after the longer one in any case. */
const IDLE = 14 * 24 * HOUR;
const LONGEST = 60 * 24 * HOUR;
/** How stale `lastSeenAt` may get before a request pays for writing it. */
const SEEN_STEP = HOUR;

@Injectable()
export class SessionService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

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
  async signIn(email: string, password: string): Promise<string> {
    const person = await this.database.read.findOneBy(Person, { email: email.trim().toLowerCase() });
    const fits = await passwordFits(person?.passwordHash ?? null, password);
    if (person === null || !fits) {
      await this.database.report({ action: 'sign-in-refused', actorId: person?.id ?? null });
      throw new ProblemError({
        code: 'sign-in-wrong',
        sentence: 'No account has this email address with this password.',
        whatToDo: 'Check both. If you forgot the password, ask your instructor.',
      });
    }
    return this.open(person, 'signed-in');
  }

  open(person: Person, action: 'signed-in' | 'stepped-in'): Promise<string> {
    const token = this.ids.token();
    const now = this.clock.real();
    return this.database.write(async (manager, happened: Report) => {
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
