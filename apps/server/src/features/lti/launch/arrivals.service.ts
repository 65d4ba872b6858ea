import { Injectable } from '@nestjs/common';
import type {
  ArrivalAccountRequest,
  ArrivalChoiceRequest,
  ArrivalCourseRequest,
  ArrivalView,
} from '@salt-circle/contracts';
import { isAddress, noAddress, type Launch } from '@salt-circle/core';
import { In, IsNull, LessThan, type EntityManager } from 'typeorm';
import { takeIntoRunningExchanges } from '../../../queries/running-exchanges.js';
import { SessionService } from '../../../auth/session.service.js';
import { takePlace } from '../../../queries/take-enrolment.js';
import { LtiPlatform, LtiArrival, LtiCourse, LtiLink, LtiPerson } from '../../../model/lti.js';
import { Course, Enrolment } from '../../../model/course.js';
import { Exchange, Participant } from '../../../model/exchange.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../../platform/database/database.js';
import { Expiry } from '../../../platform/expiry/expiry.js';
import { hashOf } from '../../../platform/ids/hash-of.js';
import { Ids } from '../../../platform/ids/ids.js';
import { ARRIVAL_FAULTS } from '../../../platform/problems/lti-sentences.js';
import { invalid, refusal } from '../../../platform/problems/sentences.js';
import { SignInService } from '../../accounts/sign-in.service.js';
import { CoursesService } from '../../courses/courses.service.js';
import { Invitations } from '../../people/invitations.service.js';
import { arrivalProblem } from './arrival-fault.js';
import type { Believed } from './launch.service.js';
import { arrivalState, type ArrivalState } from './arrival-state.js';
import { say } from '../../../words/lti.js';

/** Milliseconds for which somebody may think about what is asked. */
const LASTS = 3_600_000;

const NO_FAULT = { arrivalFault: null, arrivalFaultAt: null };

/** What the browser shows, and what it is given. */
export interface Arrived {
  readonly view: ArrivalView;
  /** The token for the session cookie, where somebody comes in. */
  readonly session: string | null;
  readonly framed: boolean;
}

/** Who asks: the address of the page, and what the browser holds. */
export interface At {
  readonly token: string;
  readonly browser: string | null;
  readonly userAgent: string;
}

type Work = (manager: EntityManager, emit: EmitEvent, arrival: LtiArrival, state: ArrivalState) => Promise<void>;

/** Takes somebody whom a platform has sent to where they belong, asking no more than has to be asked. */
@Injectable()
export class Arrivals {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly sessions: SessionService,
    private readonly signIn: SignInService,
    private readonly courses: CoursesService,
    private readonly invitations: Invitations,
    expiry: Expiry,
  ) {
    expiry.add((manager) => manager.delete(LtiArrival, { createdAt: LessThan(clock.real() - LASTS) }));
  }

  /** @returns where the browser goes next, and the session that it comes in with */
  async arrive(
    { platform, launch }: Believed,
    browser: { readonly token: string; readonly framed: boolean; readonly userAgent: string },
  ): Promise<{ readonly path: string; readonly session: string | null }> {
    const token = this.ids.token();
    await this.database.write(async (manager) => {
      await manager.update(LtiPlatform, { id: platform.id }, { arrivedAt: this.clock.real(), ...NO_FAULT });
      await manager.insert(LtiArrival, {
        ...{ tokenHash: hashOf(token), platformId: platform.id, framed: browser.framed, chosen: null },
        launch: launch,
        browserHash: hashOf(browser.token),
        createdAt: this.clock.real(),
      });
    });
    const { view, session } = await this.#on({ token, browser: browser.token, userAgent: browser.userAgent });
    return { path: view.go ?? `/arrive/${token}`, session };
  }

  one(at: At): Promise<Arrived> {
    return this.#on(at);
  }

  /** The first time: a person of the platform's own, or the one behind the place that the course has for it. */
  begin(at: At): Promise<Arrived> {
    return this.#on(at, async (manager, emit, { platformId, launch }, state) => {
      if (state.next !== 'who') throw arrivalProblem('arrival-over');
      const { waiting } = state;
      const personId = waiting?.behind.id ?? this.ids.uuid();
      if (waiting === null) {
        const person = { id: personId, email: null, name: launch.name ?? say('somebody'), passwordHash: null };
        await manager.insert(Person, { ...person, createsCourses: false, createdAt: this.clock.now() });
      } else await this.invitations.end(manager, [waiting.place.id]);
      await this.#tie(manager, emit, platformId, launch, personId);
    });
  }

  /** Says which account is the person's own, by its password. */
  async account(at: At, { email, password }: ArrivalAccountRequest, network: string): Promise<Arrived> {
    await this.#found(this.database.read, at);
    const person = await this.signIn.whose(email, password, { network });
    return this.#on(at, async (manager, emit, { platformId, launch }, state) => {
      const { waiting, next } = state;
      if ((next !== 'who' && next !== 'prove') || state.person !== null) throw arrivalProblem('arrival-over');
      const isOwner = waiting === null || waiting.behind.id === person.id || reaches(person, waiting);
      if (next === 'prove' && !isOwner) {
        const sentence = say('thisAccountIsNotOne');
        throw invalid([{ path: 'email', code: 'other-account', sentence }]);
      }
      await this.#tie(manager, emit, platformId, launch, person.id);
    });
  }

  /** The instructor says which course the platform's is. */
  course(at: At, { courseId, title, timeZone }: ArrivalCourseRequest): Promise<Arrived> {
    return this.#on(at, async (manager, emit, { platformId, launch }, { next, person }) => {
      if (next !== 'course' || person === null) throw arrivalProblem('arrival-over');
      const { makesCourses } = await manager.findOneByOrFail(LtiPlatform, { id: platformId });
      if (courseId === null && !makesCourses && !person.createsCourses) throw refusal('not-yours');
      const id =
        courseId ??
        (await this.courses.createIn(manager, emit, person, { title, timeZone }, this.#place(person, launch))).id;
      if (!(await this.#linkable(manager, person)).some((one) => one.id === id) && courseId !== null) {
        throw refusal('unknown');
      }
      await manager.insert(LtiCourse, {
        ...{ courseId: id, platformId, deploymentId: launch.deploymentId, contextId: launch.course.id },
        ...{ title: launch.course.title, services: launch.services, fetchedAt: null, fault: null },
      });
      await manager.update(Enrolment, { courseId: id, personId: person.id }, { ltiUser: launch.user });
      emit({ action: 'platform-linked', actorId: person.id, courseId: id, details: { platform: platformId } });
    });
  }

  /** The person has read that the platform gives another role. */
  role(at: At): Promise<Arrived> {
    return this.#on(at, async (manager, _, { tokenHash }, { next }) => {
      if (next !== 'role') throw arrivalProblem('arrival-over');
      await manager.update(LtiArrival, { tokenHash }, { roleRead: true });
    });
  }

  /** What a link on a page of the platform shall lead to. */
  choose(at: At, { exchangeId, column }: ArrivalChoiceRequest): Promise<Arrived> {
    return this.#on(at, async (manager, emit, { tokenHash, launch, platformId }, { next, person, link }) => {
      if (next !== 'choose' || link === null) throw arrivalProblem('arrival-over');
      const { courseId } = link;
      if (exchangeId !== null && !(await manager.existsBy(Exchange, { id: exchangeId, courseId })))
        throw refusal('unknown');
      const wanted = column && exchangeId !== null && launch.choosing?.acceptsColumn === true;
      await manager.update(LtiArrival, { tokenHash }, { chosen: { exchangeId, column: wanted } });
      const details = { platform: platformId, column: wanted };
      emit({
        action: 'platform-link-chosen',
        actorId: person?.id ?? null,
        courseId,
        exchangeId: exchangeId ?? undefined,
        details,
      });
    });
  }

  /** The arrival whose choice goes back to the platform. */
  async chosen(
    at: At,
  ): Promise<{ readonly arrival: LtiArrival; readonly platform: LtiPlatform; readonly exchange: Exchange | null }> {
    const manager = this.database.read;
    const arrival = await this.#found(manager, at);
    if (arrival.chosen === null) throw arrivalProblem('arrival-over');
    const platform = await manager.findOneByOrFail(LtiPlatform, { id: arrival.platformId });
    const { exchangeId } = arrival.chosen;
    return {
      arrival,
      platform,
      exchange: exchangeId === null ? null : await manager.findOneBy(Exchange, { id: exchangeId }),
    };
  }

  async found(at: At): Promise<{ readonly arrival: LtiArrival; readonly state: ArrivalState }> {
    const arrival = await this.#found(this.database.read, at);
    return { arrival, state: await arrivalState(this.database.read, arrival) };
  }

  /** Whatever can be done without asking is done; what comes then is shown. */
  async #on(at: At, work?: Work): Promise<Arrived> {
    // Looked at first: whoever has nothing here takes no turn of the database.
    await this.#found(this.database.read, at);
    const { arrival, state, target, session } = await this.database.write(async (manager, emit) => {
      const found = await this.#found(manager, at);
      if (work !== undefined) await work(manager, emit, found, await arrivalState(manager, found));
      const after = await manager.findOneByOrFail(LtiArrival, { tokenHash: found.tokenHash });
      const reached = await this.#settle(manager, emit, after);
      const { person, next } = reached;
      const to = next === 'go' ? await targetOf(manager, reached, after.launch) : null;
      if (person === null || to === null || to === 'exchange-gone')
        return { arrival: after, state: reached, target: to, session: null };
      await manager.delete(LtiArrival, { tokenHash: found.tokenHash });
      emit({ action: 'platform-arrived', actorId: person.id, details: { platform: after.platformId } });
      const opened = await this.sessions.openIn(manager, person.id, at.userAgent, false);
      return { arrival: after, state: reached, target: to, session: opened };
    });
    return { view: await this.#view(arrival, state, target, at.token), session, framed: arrival.framed };
  }

  /** Takes or makes the place where nothing stands in the way, and keeps what the platform says of its course and link. */
  async #settle(manager: EntityManager, emit: EmitEvent, arrival: LtiArrival): Promise<ArrivalState> {
    const { platformId, launch } = arrival;
    const before = await arrivalState(manager, arrival);
    const { person, link, waiting, next } = before;
    if (link !== null) {
      const services = merged(link, launch);
      const title = launch.course.title;
      await manager.update(LtiCourse, { courseId: link.courseId }, { services: services, title });
    }
    if (before.place?.ltiUser === null && link !== null) {
      // Another place of the course may have been tied before: that is for its instructor to see.
      const tied = await manager.existsBy(Enrolment, { courseId: link.courseId, ltiUser: launch.user });
      if (!tied) await manager.update(Enrolment, { id: before.place.id }, { ltiUser: launch.user });
    }
    if ((next !== 'take' && next !== 'add') || person === null || link === null) return before;
    const { courseId } = link;
    if (next === 'take' && waiting !== null) {
      await takePlace(manager, waiting.place, person.id);
      await manager.update(Enrolment, { id: waiting.place.id }, { ltiUser: launch.user });
      await this.invitations.end(manager, [waiting.place.id]);
    } else {
      const place = { ...this.#place(person, launch), role: launch.role ?? 'student' };
      await manager.insert(Enrolment, { id: this.ids.uuid(), courseId, personId: person.id, active: true, ...place });
      await takeIntoRunningExchanges(manager, courseId, this.clock.now(), this.ids);
    }
    emit({ action: 'person-joined', actorId: person.id, courseId, details: { platform: platformId } });
    return arrivalState(manager, arrival);
  }

  /** What a course lists of somebody whom a platform brings. */
  #place(
    person: Person,
    { name, email, campusId, user }: Launch,
  ): Partial<Enrolment> & { name: string; email: string } {
    const own = person.addressConfirmedAt === null ? null : person.email;
    return {
      name: name ?? person.name,
      email: email ?? own ?? noAddress(this.ids.uuid()),
      ...{ campusId, section: null, trait: null, source: 'platform', ltiUser: user },
    };
  }

  async #tie(
    manager: EntityManager,
    emit: EmitEvent,
    platformId: string,
    launch: Launch,
    personId: string,
  ): Promise<void> {
    await manager.insert(LtiPerson, { platformId, user: launch.user, personId, createdAt: this.clock.real() });
    emit({ action: 'platform-person-known', actorId: personId, details: { platform: platformId } });
  }

  async #found(manager: EntityManager, { token, browser }: Pick<At, 'token' | 'browser'>): Promise<LtiArrival> {
    const arrival = await manager.findOneBy(LtiArrival, { tokenHash: hashOf(token) });
    const isOver = arrival === null || this.clock.real() - arrival.createdAt > LASTS;
    if (isOver || browser === null || hashOf(browser) !== arrival.browserHash) throw arrivalProblem('arrival-over');
    return arrival;
  }

  /** Courses whose instructor the person is, and that no platform is linked to. */
  async #linkable(manager: EntityManager, person: Person): Promise<Course[]> {
    const places = await manager.findBy(Enrolment, { personId: person.id, role: 'instructor', active: true });
    const linked = await manager.find(LtiCourse, { select: { courseId: true } });
    const ids = places.map(({ courseId }) => courseId);
    return manager.findBy(Course, { id: In(ids.filter((id) => !linked.some(({ courseId }) => courseId === id))) });
  }

  async #view(
    { platformId, launch, chosen }: LtiArrival,
    state: ArrivalState,
    target: string | null,
    token: string,
  ): Promise<ArrivalView> {
    const manager = this.database.read;
    const { person, link, place, waiting, next } = state;
    const platform = await manager.findOneByOrFail(LtiPlatform, { id: platformId });
    const stop = typeof next === 'object' ? next.stop : target === 'exchange-gone' ? target : null;
    const choosing = next === 'choose' && link !== null;
    const exchanges = choosing
      ? await manager.find(Exchange, {
          where: { courseId: link.courseId, practiceOf: IsNull() },
          order: { title: 'ASC' },
        })
      : [];
    const courses = next === 'course' && person !== null ? await this.#linkable(manager, person) : [];
    return {
      ...{ platform: platform.name, name: launch.name, course: launch.course.title, role: launch.role },
      step: stop !== null || typeof next === 'object' || next === 'take' || next === 'add' ? 'stop' : next,
      stop: stop === null ? null : stopOf(stop),
      prove: next === 'prove' && waiting !== null ? proveOf(waiting, person === null) : null,
      courses: courses.map(({ id, title }) => ({ id, title })),
      mayMake: platform.makesCourses || person?.createsCourses === true,
      courseRole: place?.role ?? null,
      exchanges: exchanges.map(({ id, title }) => ({ id, title })),
      acceptsColumn: launch.choosing?.acceptsColumn === true,
      go: chosen !== null && choosing ? `/api/lti/arrivals/${token}/return` : stop === null ? target : null,
    };
  }
}

/** The page that a link leads to; what the link is for is noted. */
async function targetOf(
  manager: EntityManager,
  { link, place, person }: ArrivalState,
  launch: Launch,
): Promise<string> {
  if (link === null) return '/';
  const { courseId } = link;
  const { linkId } = launch;
  const { columnUrl } = launch.services;
  const known = linkId === null ? null : await manager.findOneBy(LtiLink, { courseId, linkId });
  const exchangeId = launch.exchangeId ?? known?.exchangeId ?? null;
  if (exchangeId === null) return place?.role === 'student' ? '/' : `/courses/${courseId}`;
  const exchange = await manager.findOneBy(Exchange, { id: exchangeId, courseId, practiceOf: IsNull() });
  if (exchange === null) return 'exchange-gone';
  if (linkId !== null) await manager.save(LtiLink, { courseId, linkId, exchangeId, columnUrl });
  if (place?.role !== 'student') return `/exchanges/${exchangeId}`;
  const takesPart = await manager.existsBy(Participant, { exchangeId, personId: person?.id ?? '' });
  return exchange.publishedAt !== null && takesPart ? `/exchanges/${exchangeId}` : 'exchange-gone';
}

/** Whether mail to the place's address is known to reach the account. */
function reaches(
  { email, addressConfirmedAt }: Person,
  { place, taken }: { place: Enrolment; taken: boolean },
): boolean {
  return !taken && addressConfirmedAt !== null && email === place.email;
}

function proveOf(
  { place, taken }: { readonly place: Enrolment; readonly taken: boolean },
  byPassword: boolean,
): ArrivalView['prove'] {
  return { name: place.name, hint: isAddress(place.email) ? hintOf(place.email) : '', taken, byPassword };
}

/** Enough of an address to know one's own by. */
function hintOf(email: string): string {
  const [name = '', domain = ''] = email.split('@');
  return `${name.slice(0, 1)}…@${domain}`;
}

/** Each launch names the services that its link may use: what one leaves out, another one has named. */
function merged({ services }: LtiCourse, { services: named }: Launch): Launch['services'] {
  return {
    membershipsUrl: named.membershipsUrl ?? services.membershipsUrl,
    columnsUrl: named.columnsUrl ?? services.columnsUrl,
    columnUrl: null,
    scopes: [...new Set([...services.scopes, ...named.scopes])].sort(),
  };
}

function stopOf(code: NonNullable<ArrivalView['stop']>['code']): NonNullable<ArrivalView['stop']> {
  const [sentence, whatToDo] = ARRIVAL_FAULTS[code]();
  return { code, sentence, whatToDo };
}
