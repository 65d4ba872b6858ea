import { Inject, Injectable } from '@nestjs/common';
import { Clock } from '../platform/clock/clock.js';
import type { Settings } from '../platform/config/settings.js';
import { SETTINGS } from '../platform/config/settings.token.js';
import { ProblemError } from '../platform/problems/problem-error.js';
import { refusal } from '../platform/problems/sentences.js';
import { passwordFits } from '../platform/security/passwords.js';
import { Tries } from '../platform/security/tries.js';
import { say } from '../words/access.js';
import { SessionService } from './session.service.js';
import type { CurrentUser } from './view-as.js';

/** Milliseconds for which a password that was given counts. */
const RECENT = 10 * 60_000;

/** Asks for the password again before what lasts longer than a session: a browser left open must not be enough for it. */
@Injectable()
export class RecentPassword {
  constructor(
    private readonly sessions: SessionService,
    private readonly tries: Tries,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /**
   * Passes when the password was given in this session within the last ten minutes. An account without a password (somebody who comes
   * by a learning platform) passes within ten minutes of coming in.
   *
   * @throws ProblemError `password-needed`
   */
  async assert(person: CurrentUser, cookie: string | undefined): Promise<void> {
    // People of the demo are stepped into, by nobody's password.
    if (this.settings.mode === 'demo') return;
    const session = await this.sessions.present(cookie);
    const shown = person.passwordHash === null ? session?.createdAt : session?.passwordAt;
    if (shown != null && this.clock.real() - shown <= RECENT) return;
    const here = person.passwordHash !== null;
    throw new ProblemError({
      code: here ? 'password-needed' : 'not-yours',
      sentence: here ? say('passwordNeeded') : say('signInNeeded'),
      whatToDo: here ? say('enterPassword') : say('comeAgainFromPlatform'),
    });
  }

  /** @throws ProblemError `password-wrong`, `too-many-tries` */
  async confirm(person: CurrentUser, password: string, cookie: string | undefined): Promise<void> {
    await this.assertPassword(person, password, 'password');
    await this.sessions.passwordGiven(cookie);
  }

  /** @param path of the field, for the answer @throws ProblemError `password-wrong`, `too-many-tries` */
  async assertPassword(person: CurrentUser, password: string, path: string): Promise<void> {
    if (person.viewAs !== undefined) throw refusal('unknown');
    // A browser that somebody left signed in must not be a place to guess the password at.
    const trying = { network: `own ${person.id}`, account: `own ${person.id}` };
    await this.tries.take(trying);
    if (await passwordFits(person.passwordHash, password)) return this.tries.right(trying);
    const sentence = say('passwordWrong');
    const fields = [{ path, code: 'password-wrong', sentence }];
    throw new ProblemError({ code: 'password-wrong', sentence, whatToDo: say('enterPassword'), fields });
  }
}
