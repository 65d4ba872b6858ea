import { createHmac } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { LessThan, Not, type EntityManager } from 'typeorm';
import { AccessToken } from '../model/access-token.js';
import { Person, Session } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import type { Settings } from '../platform/config/settings.js';
import { SETTINGS } from '../platform/config/settings.token.js';
import { Database } from '../platform/database/database.js';
import { Expiry } from '../platform/expiry/expiry.js';
import { Ids } from '../platform/ids/ids.js';
import { tokenIn } from './session-cookie.js';

const HOUR = 3_600_000;
/** A session ends after this long without a request, and after the longer one in any case; milliseconds. */
const IDLE = 14 * 24 * HOUR;
const LONGEST = 60 * 24 * HOUR;
/** How stale `lastSeenAt` may get before a request pays for writing it. */
const SEEN_STEP = HOUR;
/** Of what a browser calls itself. */
const LONGEST_NAME = 300;

/** Sessions of people who have shown who they are. How they show it is for the accounts to say. */
@Injectable()
export class SessionService {
  readonly #logger = new Logger('sessions');
  /** Hashes of tokens whose sessions are being extended. */
  readonly #extending = new Set<string>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => this.#removeOver(manager));
  }

  /** Whose session a cookie names; null for none, or one that is over. */
  async personOf(cookieHeader: string | undefined): Promise<Person | null> {
    const token = tokenIn(cookieHeader, this.settings);
    if (token === null) return null;
    const tokenHash = this.#hash(token);
    const session = await this.database.read.findOneBy(Session, { tokenHash });
    const now = this.clock.real();
    if (session === null || now - session.lastSeenAt > IDLE || now - session.createdAt > LONGEST) return null;
    if (now - session.lastSeenAt > SEEN_STEP) this.#extend(tokenHash, now);
    return this.database.read.findOneBy(Person, { id: session.personId });
  }

  /** Nobody waits for it: changes stand in a queue, and whoever only reads has no part in that. */
  #extend(tokenHash: string, now: number): void {
    if (this.#extending.has(tokenHash)) return;
    this.#extending.add(tokenHash);
    this.database
      .write((manager) => manager.update(Session, { tokenHash }, { lastSeenAt: now }))
      .catch((fault: unknown) =>
        this.#logger.warn(fault, 'a session could not be extended; its next request tries again'),
      )
      .finally(() => this.#extending.delete(tokenHash));
  }

  /** @param browser what it calls itself @returns the token for the cookie */
  open(person: Pick<Person, 'id'>, action: 'signed-in' | 'stepped-in', browser = ''): Promise<string> {
    return this.database.write(async (manager, emit) => {
      const token = await this.openIn(manager, person.id, browser, action === 'signed-in');
      emit({ action, actorId: person.id });
      return token;
    });
  }

  /** Like {@link open}, as part of a larger change. @param byPassword whether the person has just given or chosen it */
  async openIn(manager: EntityManager, personId: string, browser: string, byPassword: boolean): Promise<string> {
    const token = this.ids.token();
    const now = this.clock.real();
    await manager.insert(Session, {
      tokenHash: this.#hash(token),
      id: this.ids.uuid(),
      personId,
      browser: browser.slice(0, LONGEST_NAME),
      createdAt: now,
      lastSeenAt: now,
      passwordAt: byPassword ? now : null,
    });
    return token;
  }

  async close(cookieHeader: string | undefined): Promise<void> {
    const token = tokenIn(cookieHeader, this.settings);
    if (token !== null) {
      await this.database.write((manager) => manager.delete(Session, { tokenHash: this.#hash(token) }));
    }
  }

  /** The session that the cookie names; null for none. */
  async present(cookieHeader: string | undefined): Promise<Session | null> {
    const token = tokenIn(cookieHeader, this.settings);
    return token === null ? null : this.database.read.findOneBy(Session, { tokenHash: this.#hash(token) });
  }

  /** The password was given again in the session that the cookie names. */
  async passwordGiven(cookieHeader: string | undefined): Promise<void> {
    const token = tokenIn(cookieHeader, this.settings);
    if (token === null) return;
    const change = { passwordAt: this.clock.real() };
    await this.database.write((manager) => manager.update(Session, { tokenHash: this.#hash(token) }, change));
  }

  /** Those that are not over, the latest seen first; and the id of the one that the cookie names. */
  async of(
    personId: string,
    cookieHeader: string | undefined,
  ): Promise<{ readonly sessions: readonly Session[]; readonly present: string | null }> {
    const now = this.clock.real();
    const rows = await this.database.read.find(Session, { where: { personId }, order: { lastSeenAt: 'DESC' } });
    const token = tokenIn(cookieHeader, this.settings);
    const tokenHash = token === null ? null : this.#hash(token);
    return {
      sessions: rows.filter((one) => now - one.lastSeenAt <= IDLE && now - one.createdAt <= LONGEST),
      present: rows.find((one) => one.tokenHash === tokenHash)?.id ?? null,
    };
  }

  /** Ends one of a person's sessions, or, without an id, all but the one that is kept. */
  async end(
    manager: EntityManager,
    personId: string,
    { id, keep }: { id?: string; keep?: string | null },
  ): Promise<void> {
    if (id !== undefined) await manager.delete(Session, { personId, id });
    else {
      await manager.delete(Session, { personId, ...(keep == null ? {} : { id: Not(keep) }) });
      // Whoever ends all else wants nobody else in: scripts are no exception.
      await manager.delete(AccessToken, { personId });
    }
  }

  async #removeOver(manager: EntityManager): Promise<void> {
    const now = this.clock.real();
    await manager.delete(Session, [{ lastSeenAt: LessThan(now - IDLE) }, { createdAt: LessThan(now - LONGEST) }]);
  }

  #hash(token: string): string {
    return createHmac('sha256', this.settings.secret).update(token).digest('base64url');
  }
}
