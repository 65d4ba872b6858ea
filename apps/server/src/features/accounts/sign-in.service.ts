import { Injectable, Logger } from '@nestjs/common';
import { SessionService } from '../../auth/session.service.js';
import { Person } from '../../model/person.js';
import { Database } from '../../platform/database/database.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { passwordFits } from '../../platform/security/passwords.js';
import { Tries } from '../../platform/security/tries.js';
import { say } from '../../words/accounts.js';

/** From where somebody tries, and with what. */
export interface From {
  /** Address of the network. */
  readonly network: string;
  /** What the browser calls itself. */
  readonly browser: string;
  /** By which a browser is known that has signed in with this account before. */
  readonly known?: string | null;
}

@Injectable()
export class SignInService {
  readonly #logger = new Logger('sign-in');

  constructor(
    private readonly database: Database,
    private readonly sessions: SessionService,
    private readonly tries: Tries,
  ) {}

  /** A try that comes to nothing is counted in memory and told to the log: it costs no turn of the database. @returns the token for the cookie */
  async signIn(email: string, password: string, from: From): Promise<string> {
    return this.sessions.open(await this.whose(email, password, from), 'signed-in', from.browser);
  }

  /** Like {@link signIn}, without letting anybody in. @returns whose account it is */
  async whose(
    email: string,
    password: string,
    { network, known = null }: Pick<From, 'network' | 'known'>,
  ): Promise<Person> {
    const account = email.trim().toLowerCase();
    const trying = { network, account, browser: known };
    await this.tries.take(trying);
    const person = await this.database.read.findOneBy(Person, { email: account });
    const fits = await passwordFits(person?.passwordHash ?? null, password);
    if (person === null || !fits) {
      this.#logger.warn(`a try from ${network} came to nothing${person === null ? '' : `, person ${person.id}`}`);
      throw new ProblemError({
        code: 'sign-in-wrong',
        sentence: say('noAccountHasThisEmail'),
        whatToDo: say('checkBothIfYouForgot'),
      });
    }
    await this.tries.right(trying);
    return person;
  }
}
