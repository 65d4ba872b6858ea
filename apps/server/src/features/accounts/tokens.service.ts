import { Injectable } from '@nestjs/common';
import type { MadeTokenView, TokenRequest, TokensView } from '@salt-circle/contracts';
import { MoreThan, Not } from 'typeorm';
import { AccessTokens, TOKEN_PREFIX } from '../../auth/access-tokens.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { AccessToken } from '../../model/access-token.js';
import { Enrolment } from '../../model/course.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import { say } from '../../words/accounts.js';

const DAY = 24 * 3_600_000;
/** Of one person at a time. */
const MOST = 20;

/** Tokens for scripts of staff: made, listed, taken back. Their times are real ones, which the demo does not move. */
@Injectable()
export class Tokens {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly tokens: AccessTokens,
  ) {}

  async of({ id: personId }: CurrentUser): Promise<TokensView> {
    const manager = this.database.read;
    const rows = await manager.find(AccessToken, {
      where: { personId, endsAt: MoreThan(this.clock.real()) },
      order: { createdAt: 'DESC' },
    });
    return {
      may: await manager.existsBy(Enrolment, { personId, active: true, role: Not('student') }),
      tokens: rows.map(({ id, name, scope, createdAt, endsAt, usedAt }) => ({
        ...{ id, name, scope, created: iso(createdAt), ends: iso(endsAt), used: isoOrNull(usedAt) },
      })),
    };
  }

  async make(person: CurrentUser, { name, scope, days }: TokenRequest): Promise<MadeTokenView> {
    const { may, tokens } = await this.of(person);
    if (!may) throw refusal('not-yours');
    if (tokens.length >= MOST) {
      throw new ProblemError({
        code: 'invalid',
        sentence: say('youHaveAccessTokensWhich', { most: MOST }),
        whatToDo: say('takeOneBackThatYou'),
      });
    }
    const token = TOKEN_PREFIX + this.ids.token();
    const now = this.clock.real();
    await this.database.write(async (manager, emit) => {
      await manager.insert(AccessToken, {
        ...{ tokenHash: this.tokens.hash(token), id: this.ids.uuid(), personId: person.id, name: name.trim(), scope },
        ...{ createdAt: now, endsAt: now + days * DAY, usedAt: null },
      });
      emit({ action: 'token-made', actorId: person.id, details: { scope, days } });
    });
    return { token };
  }

  /** Taken back twice, it is gone once. */
  async takeBack({ id: personId }: CurrentUser, id: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const { affected } = await manager.delete(AccessToken, { personId, id });
      if ((affected ?? 0) > 0) emit({ action: 'token-taken-back', actorId: personId });
    });
  }
}
