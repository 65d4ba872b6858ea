import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import type { PlatformsView, PlatformRequest, PlatformRow } from '@salt-circle/contracts';
import { SCOPE } from '@salt-circle/core';
import { LessThan, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../../auth/view-as.js';
import { LtiPlatform, LtiCourse, LtiDeployment, LtiPerson, LtiRegistration } from '../../../model/lti.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { Expiry } from '../../../platform/expiry/expiry.js';
import { hashOf } from '../../../platform/ids/hash-of.js';
import { Ids } from '../../../platform/ids/ids.js';
import { Framing } from '../../../platform/security/framing.js';
import { ARRIVAL_FAULTS, isArrivalFault } from '../../../platform/problems/lti-sentences.js';
import { webAddress } from '../../../platform/security/web-address.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { invalid, refusal } from '../../../platform/problems/sentences.js';
import { isoOrNull } from '../../../platform/wire/instants.js';
import { LtiClient } from './lti-client.service.js';
import { LtiKeys } from './keys.service.js';
import { say } from '../../../words/lti.js';

/** Milliseconds for which a link to register can be used. */
const LINK_LASTS = 24 * 3_600_000;

/** What a platform is, but for what only we know of it. */
export type LtiFacts = Omit<PlatformRequest, 'deployments'> & { readonly deployments: readonly string[] };

/** Platforms that are connected, for whoever sees to them. */
@Injectable()
export class Platforms implements OnApplicationBootstrap {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly keys: LtiKeys,
    private readonly client: LtiClient,
    private readonly framing: Framing,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => manager.delete(LtiRegistration, { createdAt: LessThan(clock.real() - LINK_LASTS) }));
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.#frame(this.database.read);
  }

  async list(person: CurrentUser): Promise<PlatformsView> {
    assertRuns(person);
    const manager = this.database.read;
    const platforms: PlatformRow[] = [];
    for (const one of await manager.find(LtiPlatform, { order: { name: 'ASC', id: 'ASC' } })) {
      const { createdAt: _, arrivedAt, answeredAt, fault, faultAt, arrivalFault, arrivalFaultAt, ...row } = one;
      const arrival = arrivalFault !== null && isArrivalFault(arrivalFault) ? ARRIVAL_FAULTS[arrivalFault]()[0] : null;
      const deployments = await manager.find(LtiDeployment, {
        where: { platformId: one.id },
        order: { deploymentId: 'ASC' },
      });
      platforms.push({
        ...row,
        deployments: deployments.map(({ deploymentId, allowed }) => ({ id: deploymentId, allowed })),
        courses: await manager.countBy(LtiCourse, { platformId: one.id }),
        people: await manager.countBy(LtiPerson, { platformId: one.id }),
        arrivedAt: isoOrNull(arrivedAt),
        answeredAt: isoOrNull(answeredAt),
        faults: [
          ...unusable(one).map((address) => ({ sentence: say('addressUnusable', { address }), at: null })),
          ...(fault === null ? [] : [{ sentence: fault, at: isoOrNull(faultAt) }]),
          ...(arrival === null
            ? []
            : [{ sentence: say('somebodyWasNotLetIn', { arrival }), at: isoOrNull(arrivalFaultAt) }]),
        ],
      });
    }
    return { platforms, ours: this.ours, keys: await this.keys.list() };
  }

  /** What a platform has to know of us. */
  get ours(): PlatformsView['ours'] {
    const base = `${this.settings.publicUrl}/api/lti`;
    return {
      loginUrl: `${base}/login`,
      launchUrl: `${base}/launch`,
      keysUrl: `${base}/keys`,
      scopes: Object.values(SCOPE),
    };
  }

  add(person: CurrentUser, request: PlatformRequest): Promise<{ id: string }> {
    assertRuns(person);
    return this.insert(request, person.id);
  }

  /**
   * @param registration token hash of the link that brought it: used up in the same transaction, so that a refusal leaves it usable
   * @throws ProblemError when the link is over by now
   */
  insert(facts: LtiFacts, byId: string | null, registration: string | null = null): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      if (registration !== null) {
        const { affected } = await manager.delete(LtiRegistration, { tokenHash: registration });
        if (affected !== 1) throw linkOver();
      }
      const id = this.ids.uuid();
      await assertNew(manager, facts, id);
      await manager.insert(LtiPlatform, { id, ...columnsOf(facts), createdAt: this.clock.real() });
      await setDeployments(manager, id, facts.deployments);
      await this.#frame(manager);
      emit({ action: 'platform-added', actorId: byId, details: { platform: id } });
      return { id };
    });
  }

  async change(person: CurrentUser, id: string, request: PlatformRequest): Promise<void> {
    assertRuns(person);
    await this.database.write(async (manager, emit) => {
      await assertThere(manager, id);
      await assertNew(manager, request, id);
      await manager.update(LtiPlatform, { id }, columnsOf(request));
      await setDeployments(manager, id, request.deployments);
      await this.#frame(manager);
      emit({ action: 'platform-changed', actorId: person.id, details: { platform: id, active: request.active } });
    });
    this.client.forget(id);
  }

  /** People keep their work and places; they come in by it no more, and its gradebook hears nothing more. */
  async remove(person: CurrentUser, id: string): Promise<void> {
    assertRuns(person);
    await this.database.write(async (manager, emit) => {
      await assertThere(manager, id);
      await manager.delete(LtiPlatform, { id });
      await this.#frame(manager);
      emit({ action: 'platform-removed', actorId: person.id, details: { platform: id } });
    });
    this.client.forget(id);
  }

  async makeKey(person: CurrentUser): Promise<void> {
    assertRuns(person);
    await this.keys.rotate();
    await this.database.write((_, emit) => Promise.resolve(emit({ action: 'platform-key-made', actorId: person.id })));
  }

  /** A link by which whoever runs a platform registers us there, without typing anything over. */
  async registrationLink(person: CurrentUser, name: string): Promise<{ url: string }> {
    assertRuns(person);
    const token = this.ids.token();
    await this.database.write((manager) =>
      manager.insert(LtiRegistration, {
        ...{ tokenHash: hashOf(token), byId: person.id, name: name.trim(), createdAt: this.clock.real() },
      }),
    );
    return { url: `${this.settings.publicUrl}/api/lti/register/${token}` };
  }

  /** @returns who asked for the link, and the name that the platform gets @throws ProblemError when it is over */
  async registrationOf(token: string, manager: EntityManager = this.database.read): Promise<LtiRegistration> {
    const row = await manager.findOneBy(LtiRegistration, { tokenHash: hashOf(token) });
    const isOpen = row !== null && this.clock.real() - row.createdAt <= LINK_LASTS;
    // Whoever made it may have lost the right to.
    if (isOpen && (await manager.existsBy(Person, { id: row.byId, runsPlatforms: true }))) return row;
    throw linkOver();
  }

  async #frame(manager: EntityManager): Promise<void> {
    const platforms = await manager.findBy(LtiPlatform, { active: true });
    this.framing.allow(platforms.flatMap(({ pages }) => pages));
  }
}

function linkOver(): ProblemError {
  return new ProblemError({
    code: 'link-over',
    sentence: say('thisLinkToRegisterHas'),
    whatToDo: say('makeAnotherOneOnPage'),
  });
}

/** Addresses of a row that may not be asked or named in a header, however they came there. */
function unusable({ issuer, authUrl, tokenUrl, keysUrl, pages }: LtiPlatform): string[] {
  return [issuer, authUrl, tokenUrl, keysUrl, ...pages].filter((one) => webAddress(one) === null);
}

export function assertRuns({ runsPlatforms, viewAs }: CurrentUser): void {
  if (!runsPlatforms || viewAs !== undefined) throw refusal('unknown');
}

async function assertThere(manager: EntityManager, id: string): Promise<void> {
  if (!(await manager.existsBy(LtiPlatform, { id }))) throw refusal('unknown');
}

async function assertNew(manager: EntityManager, { issuer, clientId }: LtiFacts, id: string): Promise<void> {
  const there = await manager.findOneBy(LtiPlatform, { issuer, clientId });
  if (there === null || there.id === id) return;
  const sentence = say('isThisVeryPlatformWith', { name: there.name });
  throw invalid([{ path: 'clientId', code: 'there-already', sentence }]);
}

function columnsOf({ deployments: _, pages, tokenAudience, name, ...rest }: LtiFacts): Omit<LtiFacts, 'deployments'> {
  return {
    ...rest,
    name: name.trim(),
    tokenAudience: tokenAudience === '' ? null : tokenAudience,
    pages: [...new Set(pages.map((one) => new URL(one).origin))],
  };
}

/** Others that have been seen stay, and are not allowed. */
async function setDeployments(manager: EntityManager, platformId: string, allowed: readonly string[]): Promise<void> {
  await manager.update(LtiDeployment, { platformId }, { allowed: false });
  for (const deploymentId of new Set(allowed))
    await manager.save(LtiDeployment, { platformId, deploymentId, allowed: true });
}
