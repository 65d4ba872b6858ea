import { Injectable } from '@nestjs/common';
import { SessionService } from '../../access/session.service.js';
import { Person } from '../../model/person.js';
import { Database } from '../../platform/database/database.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { passwordFits } from '../../platform/security/passwords.js';

@Injectable()
export class SignInService {
  constructor(
    private readonly database: Database,
    private readonly sessions: SessionService,
  ) {}

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
    return this.sessions.open(person, 'signed-in');
  }
}
