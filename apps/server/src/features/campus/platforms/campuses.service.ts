import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import type { CampusesView, CampusRequest, CampusRow } from '@salt-circle/contracts';
import { SCOPE } from '@salt-circle/core';
import { LessThan, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../../auth/view-as.js';
import { Campus, CampusCourse, CampusDeployment, CampusPerson, CampusRegistration } from '../../../model/campus.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { Expiry } from '../../../platform/expiry/expiry.js';
import { hashOf } from '../../../platform/ids/hash-of.js';
import { Ids } from '../../../platform/ids/ids.js';
import { Framing } from '../../../platform/security/framing.js';
import { ARRIVAL_FAULTS, isArrivalFault } from '../../../platform/problems/campus-sentences.js';
import { webAddress } from '../../../platform/security/web-address.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { invalid, refusal } from '../../../platform/problems/sentences.js';
import { isoOrNull } from '../../../platform/wire/instants.js';
import { CampusClient } from './campus-client.service.js';
import { CampusKeys } from './keys.service.js';
import { say } from '../../../words/campus.js';

/** Milliseconds for which a link to register can be used. */
const LINK_LASTS = 24 * 3_600_000;

/** What a campus is, but for what only we know of it. */
export type CampusFacts = Omit<CampusRequest, 'deployments'> & { readonly deployments: readonly string[] };

/** Campuses that are connected, for whoever sees to them. */
@Injectable()
export class Campuses implements OnApplicationBootstrap {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly keys: CampusKeys,
    private readonly client: CampusClient,
    private readonly framing: Framing,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => manager.delete(CampusRegistration, { createdAt: LessThan(clock.real() - LINK_LASTS) }));
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.#frame(this.database.read);
  }

  async list(person: CurrentUser): Promise<CampusesView> {
    assertRuns(person);
    const manager = this.database.read;
    const campuses: CampusRow[] = [];
    for (const one of await manager.find(Campus, { order: { name: 'ASC', id: 'ASC' } })) {
      const { createdAt: _, arrivedAt, answeredAt, fault, faultAt, arrivalFault, arrivalFaultAt, ...row } = one;
      const arrival = arrivalFault !== null && isArrivalFault(arrivalFault) ? ARRIVAL_FAULTS[arrivalFault]()[0] : null;
      const deployments = await manager.find(CampusDeployment, {
        where: { campusId: one.id },
        order: { deploymentId: 'ASC' },
      });
      campuses.push({
        ...row,
        deployments: deployments.map(({ deploymentId, allowed }) => ({ id: deploymentId, allowed })),
        courses: await manager.countBy(CampusCourse, { campusId: one.id }),
        people: await manager.countBy(CampusPerson, { campusId: one.id }),
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
    return { campuses, ours: this.ours, keys: await this.keys.list() };
  }

  /** What a campus has to know of us. */
  get ours(): CampusesView['ours'] {
    const base = `${this.settings.publicUrl}/api/campus`;
    return {
      loginUrl: `${base}/login`,
      launchUrl: `${base}/launch`,
      keysUrl: `${base}/keys`,
      scopes: Object.values(SCOPE),
    };
  }

  add(person: CurrentUser, request: CampusRequest): Promise<{ id: string }> {
    assertRuns(person);
    return this.insert(request, person.id);
  }

  /**
   * @param registration token hash of the link that brought it: used up in the same transaction, so that a refusal leaves it usable
   * @throws ProblemError when the link is over by now
   */
  insert(facts: CampusFacts, byId: string | null, registration: string | null = null): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      if (registration !== null) {
        const { affected } = await manager.delete(CampusRegistration, { tokenHash: registration });
        if (affected !== 1) throw linkOver();
      }
      const id = this.ids.uuid();
      await assertNew(manager, facts, id);
      await manager.insert(Campus, { id, ...columnsOf(facts), createdAt: this.clock.real() });
      await setDeployments(manager, id, facts.deployments);
      await this.#frame(manager);
      emit({ action: 'campus-added', actorId: byId, details: { campus: id } });
      return { id };
    });
  }

  async change(person: CurrentUser, id: string, request: CampusRequest): Promise<void> {
    assertRuns(person);
    await this.database.write(async (manager, emit) => {
      await assertThere(manager, id);
      await assertNew(manager, request, id);
      await manager.update(Campus, { id }, columnsOf(request));
      await setDeployments(manager, id, request.deployments);
      await this.#frame(manager);
      emit({ action: 'campus-changed', actorId: person.id, details: { campus: id, active: request.active } });
    });
    this.client.forget(id);
  }

  /** People keep their work and places; they come in by it no more, and its gradebook hears nothing more. */
  async remove(person: CurrentUser, id: string): Promise<void> {
    assertRuns(person);
    await this.database.write(async (manager, emit) => {
      await assertThere(manager, id);
      await manager.delete(Campus, { id });
      await this.#frame(manager);
      emit({ action: 'campus-removed', actorId: person.id, details: { campus: id } });
    });
    this.client.forget(id);
  }

  async makeKey(person: CurrentUser): Promise<void> {
    assertRuns(person);
    await this.keys.rotate();
    await this.database.write((_, emit) => Promise.resolve(emit({ action: 'campus-key-made', actorId: person.id })));
  }

  /** A link by which whoever runs a campus registers us there, without typing anything over. */
  async registrationLink(person: CurrentUser, name: string): Promise<{ url: string }> {
    assertRuns(person);
    const token = this.ids.token();
    await this.database.write((manager) =>
      manager.insert(CampusRegistration, {
        ...{ tokenHash: hashOf(token), byId: person.id, name: name.trim(), createdAt: this.clock.real() },
      }),
    );
    return { url: `${this.settings.publicUrl}/api/campus/register/${token}` };
  }

  /** @returns who asked for the link, and the name that the campus gets @throws ProblemError when it is over */
  async registrationOf(token: string, manager: EntityManager = this.database.read): Promise<CampusRegistration> {
    const row = await manager.findOneBy(CampusRegistration, { tokenHash: hashOf(token) });
    const isOpen = row !== null && this.clock.real() - row.createdAt <= LINK_LASTS;
    // Whoever made it may have lost the right to.
    if (isOpen && (await manager.existsBy(Person, { id: row.byId, runsCampuses: true }))) return row;
    throw linkOver();
  }

  async #frame(manager: EntityManager): Promise<void> {
    const campuses = await manager.findBy(Campus, { active: true });
    this.framing.allow(campuses.flatMap(({ pages }) => pages));
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
function unusable({ issuer, authUrl, tokenUrl, keysUrl, pages }: Campus): string[] {
  return [issuer, authUrl, tokenUrl, keysUrl, ...pages].filter((one) => webAddress(one) === null);
}

export function assertRuns({ runsCampuses, viewAs }: CurrentUser): void {
  if (!runsCampuses || viewAs !== undefined) throw refusal('unknown');
}

async function assertThere(manager: EntityManager, id: string): Promise<void> {
  if (!(await manager.existsBy(Campus, { id }))) throw refusal('unknown');
}

async function assertNew(manager: EntityManager, { issuer, clientId }: CampusFacts, id: string): Promise<void> {
  const there = await manager.findOneBy(Campus, { issuer, clientId });
  if (there === null || there.id === id) return;
  const sentence = say('isThisVeryCampusWith', { name: there.name });
  throw invalid([{ path: 'clientId', code: 'there-already', sentence }]);
}

function columnsOf({
  deployments: _,
  pages,
  tokenAudience,
  name,
  ...rest
}: CampusFacts): Omit<CampusFacts, 'deployments'> {
  return {
    ...rest,
    name: name.trim(),
    tokenAudience: tokenAudience === '' ? null : tokenAudience,
    pages: [...new Set(pages.map((one) => new URL(one).origin))],
  };
}

/** Others that have been seen stay, and are not allowed. */
async function setDeployments(manager: EntityManager, campusId: string, allowed: readonly string[]): Promise<void> {
  await manager.update(CampusDeployment, { campusId }, { allowed: false });
  for (const deploymentId of new Set(allowed))
    await manager.save(CampusDeployment, { campusId, deploymentId, allowed: true });
}
