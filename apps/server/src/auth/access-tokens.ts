import { createHmac } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { LessThan } from 'typeorm';
import { AccessToken } from '../model/access-token.js';
import { Person } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import type { Settings } from '../platform/config/settings.js';
import { SETTINGS } from '../platform/config/settings.token.js';
import { Database } from '../platform/database/database.js';
import { Expiry } from '../platform/expiry/expiry.js';
import { ProblemError } from '../platform/problems/problem-error.js';
import { opens } from './token-scopes.js';
import { say } from '../words/access.js';

const HOUR = 3_600_000;
/** By which one is known for what it is, also where it should not stand. */
export const TOKEN_PREFIX = 'salt_';

/** Scripts that ask in somebody's name. */
@Injectable()
export class AccessTokens {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => manager.delete(AccessToken, { endsAt: LessThan(this.clock.real()) }));
  }

  /**
   * Whose token a request carries.
   *
   * @param header `Authorization`, RFC 6750: "Bearer …"
   * @param path below `/api`
   * @returns null where it carries none
   * @throws ProblemError for one that is not known, has ended, or does not open this
   */
  async personOf(header: string | undefined, method: string, path: string): Promise<Person | null> {
    const token = /^Bearer +(\S+)$/i.exec(header ?? '')?.[1];
    if (token === undefined) return null;
    const tokenHash = this.hash(token);
    const known = await this.database.read.findOneBy(AccessToken, { tokenHash });
    const now = this.clock.real();
    if (known === null || known.endsAt <= now) {
      throw new ProblemError({
        code: 'signed-out',
        sentence: say('thisAccessTokenIsNot'),
        whatToDo: say('makeAnotherOneUnderYour'),
      });
    }
    const reads = method === 'GET' || method === 'HEAD';
    if (!reads || !opens(known.scope, path)) {
      throw new ProblemError({
        code: 'not-yours',
        sentence: reads
          ? known.scope === 'grades'
            ? say('accessTokenDoesNotOpen', { name: known.name })
            : say('accessTokenDoesNotOpenThis', { name: known.name })
          : say('accessTokenReadsAndChanges'),
        whatToDo: say('signInToDoIt'),
      });
    }
    if (known.usedAt === null || now - known.usedAt > HOUR) {
      await this.database.write((manager) => manager.update(AccessToken, { tokenHash }, { usedAt: now }));
    }
    return this.database.read.findOneBy(Person, { id: known.personId });
  }

  hash(token: string): string {
    return createHmac('sha256', this.settings.secret).update(token).digest('base64url');
  }
}
