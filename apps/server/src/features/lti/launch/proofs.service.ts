import { Inject, Injectable } from '@nestjs/common';
import type { LtiProofView } from '@salt-circle/contracts';
import { isAddress } from '@salt-circle/core';
import { LessThan, MoreThan, type EntityManager } from 'typeorm';
import { takePlace } from '../../../queries/take-enrolment.js';
import { LtiPlatform, LtiPerson, LtiProof } from '../../../model/lti.js';
import { Enrolment } from '../../../model/course.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import { mailArrives, type Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { Expiry } from '../../../platform/expiry/expiry.js';
import { hashOf } from '../../../platform/ids/hash-of.js';
import { Ids } from '../../../platform/ids/ids.js';
import { queueMail } from '../../../platform/mail/queue-mail.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { Tries } from '../../../platform/security/tries.js';
import { Invitations } from '../../people/invitations.service.js';
import { arrivalProblem } from './arrival-fault.js';
import { Arrivals, type At } from './arrivals.service.js';
import { say } from '../../../words/lti.js';

/** Milliseconds for which a link can be used, and how many one person is sent within that time. */
const LASTS = 3_600_000;
const MOST = 3;

/** To whom a link goes, and whose account or place it ties to the person of the platform. */
interface Owner {
  readonly address: string;
  readonly person: Person;
}

/** Links by mail, by which the owner of an account or of an address says that a person of the platform is the same. */
@Injectable()
export class Proofs {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly tries: Tries,
    private readonly arrivals: Arrivals,
    private readonly invitations: Invitations,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => manager.delete(LtiProof, { createdAt: LessThan(clock.real() - LASTS) }));
  }

  /** Answers the same whether there is somebody to send it to or not. @param email of an account; null for the place that waits */
  async send(at: At, email: string | null, network: string): Promise<void> {
    if (!mailArrives(this.settings)) {
      throw new ProblemError({
        code: 'no-mail',
        sentence: say('thisSaltCircleHasNo'),
        whatToDo: say('usePasswordOfYourAccount'),
      });
    }
    const { arrival, state } = await this.arrivals.found(at);
    const { next, person, waiting } = state;
    const address = email?.trim().toLowerCase() ?? null;
    await this.tries.take({ network: `proof ${network}`, account: `proof ${address ?? waiting?.place.id ?? ''}` });
    let owner: Owner | null = null;
    if (next === 'prove' && waiting !== null) {
      const { place, behind, taken } = waiting;
      owner = { address: taken ? (behind.email ?? '') : place.email, person: behind };
    } else if (next === 'who' && address !== null) {
      const account = await this.database.read.findOneBy(Person, { email: address });
      owner = account === null ? null : { address, person: account };
    } else if (person !== null || next !== 'who') throw arrivalProblem('arrival-over');
    if (owner === null || owner.address === '' || !isAddress(owner.address)) return;
    const { address: to, person: of } = owner;
    const platform = await this.database.read.findOneByOrFail(LtiPlatform, { id: arrival.platformId });
    await this.database.write((manager) =>
      this.#queue(manager, platform, arrival.launch.user, { address: to, person: of }),
    );
  }

  async one(token: string): Promise<LtiProofView> {
    const manager = this.database.read;
    const { platformId, personId } = await this.#valid(manager, token);
    const platform = await manager.findOneByOrFail(LtiPlatform, { id: platformId });
    const { name } = await manager.findOneByOrFail(Person, { id: personId });
    return { platform: platform.name, name };
  }

  /** Whoever has the link reads the mail: the account, or the place, is the platform's person's from now on. */
  async confirm(token: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const { platformId, user, personId } = await this.#valid(manager, token);
      const known = await manager.findOneBy(LtiPerson, { platformId, user });
      const places = await manager.findBy(Enrolment, { personId });
      if (known === null) {
        await manager.insert(LtiPerson, { platformId, user, personId, createdAt: this.clock.real() });
      } else if (known.personId !== personId) {
        const { email } = await manager.findOneByOrFail(Person, { id: personId });
        const [place] = places;
        // An account is somebody's already; a place that nobody has taken can be given to the one who is known.
        const { courseId = '' } = place ?? {};
        const isIn = await manager.existsBy(Enrolment, { courseId, personId: known.personId });
        if (email !== null || place === undefined || isIn) throw arrivalProblem('taken');
        await takePlace(manager, place, known.personId);
      }
      await this.invitations.end(
        manager,
        places.map(({ id }) => id),
      );
      await manager.delete(LtiProof, { platformId, user });
      emit({
        action: 'platform-person-known',
        actorId: known?.personId ?? personId,
        details: { platform: platformId },
      });
    });
  }

  async #queue(manager: EntityManager, platform: LtiPlatform, user: string, { address, person }: Owner): Promise<void> {
    const createdAt = this.clock.real();
    const recent = await manager.countBy(LtiProof, { personId: person.id, createdAt: MoreThan(createdAt - LASTS) });
    if (recent >= MOST) return;
    const token = this.ids.token();
    await manager.insert(LtiProof, {
      ...{ tokenHash: hashOf(token), platformId: platform.id, user, personId: person.id, createdAt },
    });
    const secret = `${this.settings.publicUrl}/platform-proof/${token}`;
    const text = say('somebodyHasComeToSalt', { name: person.name, name2: platform.name, secret });
    await queueMail(manager, this.ids, this.database.mail, this.clock.now(), [
      {
        ...{ kind: 'platform-proof', address, courseId: null },
        ...{ subject: say('isItYouWhoComes', { name: platform.name }), text, secret },
      },
    ]);
  }

  async #valid(manager: EntityManager, token: string): Promise<LtiProof> {
    const proof = await manager.findOneBy(LtiProof, { tokenHash: hashOf(token) });
    if (proof !== null && this.clock.real() - proof.createdAt <= LASTS) return proof;
    throw new ProblemError({
      code: 'link-over',
      sentence: say('thisLinkHasBeenUsed'),
      whatToDo: say('comeFromPlatformOnceMore'),
    });
  }
}
