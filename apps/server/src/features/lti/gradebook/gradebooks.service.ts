import { Inject, Injectable } from '@nestjs/common';
import {
  isOver,
  MEDIA,
  readResults,
  sameScore,
  SCOPE,
  scoreBody,
  scoreOfGrade,
  type LtiScore,
} from '@salt-circle/core';
import { In, IsNull, LessThanOrEqual, type EntityManager } from 'typeorm';
import { timelineOf } from '../../../permissions/exchange-facts.js';
import { activeParticipants } from '../../../queries/participants.js';
import { LtiLineItem, LtiScoreRow } from '../../../model/lti.js';
import { Exchange } from '../../../model/exchange.js';
import { Clock } from '../../../platform/clock/clock.js';
import { mailSettingsOf, type Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { isMailHeld } from '../../../platform/database/installation.js';
import { Database } from '../../../platform/database/database.js';
import { insertAll } from '../../../platform/database/insert-all.js';
import { portions } from '../../../platform/database/portions.js';
import { PeriodicJob } from '../../../platform/jobs/periodic-job.js';
import { ReleasedGrades } from '../../grades/released-grades.service.js';
import { LtiClient } from '../platforms/lti-client.service.js';
import { LtiFault } from '../platforms/lti-fault.js';
import { Columns } from './columns.service.js';
import { bookedOf, usersOf, type Booked, type PartOrWhole } from './gradebook-parts.js';
import { say } from '../../../words/lti.js';

const SECOND = 1000;
const MINUTE = 60 * SECOND;
const DAY = 24 * 60 * MINUTE;
const LOOK_EVERY = 15 * SECOND;
/** Grades change also as time passes: how often they are worked out again though nothing happened, while released lately, and later. */
const LATELY = 60 * DAY;
const AGAIN = { lately: 5 * MINUTE, later: DAY };
/** Scores on their way at once, and how many are noted together. */
const AT_ONCE = 4;
const TOGETHER = 40;
/** Milliseconds until a score is tried again, one for each time that the platform could not take it; then it is given up. */
const PAUSES: readonly number[] = [30, 120, 600, 3_600, 4 * 3_600, 12 * 3_600].map((seconds) => seconds * SECOND);
/** The same for a platform that cannot be reached at all, for as long as it cannot. */
const SILENCES: readonly number[] = [15, 60, 300, 900].map((seconds) => seconds * SECOND);

type Theirs = Map<string, number | null>;

/**
 * Passes grades on to gradebooks of platforms: what is released, and what is corrected later. What a platform has taken is not sent again; what it
 * may have taken is asked about first; and what somebody has changed there is shown, not written over.
 */
@Injectable()
export class Gradebooks extends PeriodicJob {
  readonly #lookedAt = new Map<string, number>();
  /** Exchanges that are over, and were worked out since: until something changes, only what still waits is sent. */
  readonly #settled = new Set<string>();
  /** Platforms that cannot be reached: until when nothing is sent, and how often in a row. */
  readonly #silent = new Map<string, { readonly until: number; readonly times: number }>();
  readonly #stop: () => void;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly grades: ReleasedGrades,
    private readonly columns: Columns,
    private readonly client: LtiClient,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {
    super({ name: 'gradebooks', every: LOOK_EVERY, fault: 'grades could not be passed on' }, settings.mode);
    this.#stop = database.changes.listen((changes) => {
      for (const { exchangeId } of changes) {
        if (exchangeId === null) {
          this.#lookedAt.clear();
          this.#settled.clear();
        } else {
          this.#lookedAt.delete(exchangeId);
          this.#settled.delete(exchangeId);
        }
      }
    });
  }

  override async onApplicationShutdown(): Promise<void> {
    this.#stop();
    await super.onApplicationShutdown();
  }

  protected async round(ending: AbortSignal): Promise<void> {
    if (await isMailHeld(this.database.read)) return;
    const rows = await this.database.read.find(LtiLineItem, { select: { exchangeId: true } });
    for (const id of new Set(rows.map(({ exchangeId }) => exchangeId))) {
      if (ending.aborted) return;
      await this.#pass(id);
    }
  }

  /** Whether what columns of the course hold is still what they were told: what is not, is shown. */
  async compare(courseId: string): Promise<void> {
    const exchanges = await this.database.read.find(Exchange, { select: { id: true }, where: { courseId } });
    for (const { id } of exchanges) await this.compareOne(id);
  }

  async compareOne(exchangeId: string): Promise<void> {
    const booked = await bookedOf(this.database.read, exchangeId);
    if (booked === null || !booked.platform.active) return;
    for (const { part, url } of booked.columns) {
      const theirs = url === null ? null : await this.#results(booked, url).catch(letFaultsBe);
      if (theirs === null) continue;
      const users = await this.#users(booked);
      await this.database.write(async (manager) => {
        for (const row of await manager.findBy(LtiScoreRow, { exchangeId, part, state: 'sent' })) {
          const there = theirs.get(users.get(row.participantId) ?? '') ?? null;
          if (!sameScore(there, row.sentValue)) await setRow(manager, row, { state: 'changed', theirs: there });
        }
      });
    }
  }

  async #pass(exchangeId: string): Promise<void> {
    const waits = { exchangeId, state: 'waiting' as const };
    if (this.#settled.has(exchangeId) && !(await this.database.read.existsBy(LtiScoreRow, waits))) return;
    const booked = await bookedOf(this.database.read, exchangeId);
    if (booked === null || !booked.platform.active) return;
    await this.#want(booked);
    if ((this.#silent.get(booked.platform.id)?.until ?? 0) > this.clock.real()) return;
    for (const column of booked.columns) {
      const url = await this.columns.ensure(booked, column);
      if (url !== null) await this.#deliver(booked, column.part, url);
    }
  }

  /** What is to be in the gradebook, next to what was. */
  async #want(booked: Booked): Promise<void> {
    const { exchange, columns } = booked;
    const parts = new Set<string>(['', ...exchange.gradeParts.map(({ part }) => part)]);
    // What is no part of the grade any more stays there as it was last.
    const asked = columns.filter(({ part }) => parts.has(part));
    const now = this.clock.now();
    const lately = Math.abs(now - (exchange.gradesRelease ?? 0)) < LATELY;
    if (now - (this.#lookedAt.get(exchange.id) ?? -DAY) < (lately ? AGAIN.lately : AGAIN.later)) return;
    // Before anything is read: what changes meanwhile is seen the next time.
    this.#lookedAt.set(exchange.id, now);
    if (!lately && isOver(timelineOf(exchange), now)) this.#settled.add(exchange.id);
    const { rule, grades } = await this.grades.of(exchange, now);
    const users = await this.#users(booked);
    await this.database.write(async (manager) => {
      const rows = await manager.findBy(LtiScoreRow, { exchangeId: exchange.id });
      const known = new Map(rows.map((row) => [`${row.participantId} ${row.part}`, row]));
      const fresh: LtiScoreRow[] = [];
      for (const [participantId, grade] of grades) {
        if (!users.has(participantId)) continue;
        for (const { part } of asked) {
          const score = scoreOfGrade(grade, rule, part === '' ? undefined : part);
          const wanted = { kind: score.state, value: score.value, comment: this.#comment(score, exchange.id) };
          const row = known.get(`${participantId} ${part}`);
          if (row === undefined) fresh.push(newRow(participantId, part, exchange.id, wanted));
          else if (isOther(row, wanted))
            await setRow(manager, row, { ...wanted, ...(row.state !== 'changed' && WAITING) });
        }
      }
      await insertAll(manager, LtiScoreRow, fresh);
      // What was taken back before it was sent is not sent.
      const taken = rows.filter((row) => !grades.has(row.participantId) && row.sentAt === null && !row.unsure);
      for (const some of portions(taken.map((row) => row.participantId)))
        await manager.delete(LtiScoreRow, { exchangeId: exchange.id, participantId: In(some), sentAt: IsNull() });
    });
  }

  #comment({ comment }: LtiScore, exchangeId: string): string {
    const { publicUrl } = mailSettingsOf(this.settings);
    return say('howItCameAboutExchanges', { comment, publicUrl, exchangeId });
  }

  /** Until nothing waits that is due, or the platform does not answer. */
  async #deliver(booked: Booked, part: PartOrWhole, url: string): Promise<void> {
    const users = await this.#users(booked);
    let theirs: Theirs | null = null;
    for (;;) {
      const due = await this.database.read.find(LtiScoreRow, {
        where: {
          exchangeId: booked.exchange.id,
          part,
          state: 'waiting',
          nextTryAt: LessThanOrEqual(this.clock.real()),
        },
        order: { participantId: 'ASC' },
        take: TOGETHER,
      });
      if (due.length === 0) return;
      // Asked once a round: also the first time, since somebody may have entered something by hand.
      if (theirs === null) {
        theirs = await this.#results(booked, url).catch(letFaultsBe);
        // Not known is not the same as unchanged: nothing is written over in the dark.
        if (theirs === null && booked.link.services.scopes.includes(SCOPE.results)) {
          if (!(await this.#isGone(booked, part, url))) this.#fellSilent(booked);
          return;
        }
      }
      const silent = await this.#send(booked, url, due, { users, theirs });
      if (silent) {
        this.#fellSilent(booked);
        return;
      }
      this.#silent.delete(booked.platform.id);
    }
  }

  /** Scores of a column that is not there any more have gone with it. */
  async #isGone(booked: Booked, part: PartOrWhole, url: string): Promise<boolean> {
    const exchangeId = booked.exchange.id;
    if (!(await this.columns.isGone(booked, { exchangeId, part }, url))) return false;
    const error = say('columnIsNotThereAny');
    const nothing = { sentAt: null, sentValue: null, theirs: null, unsure: false };
    await this.database.write((manager) =>
      manager.update(LtiScoreRow, { exchangeId, part }, { state: 'refused', error, ...nothing }),
    );
    return true;
  }

  #fellSilent({ platform }: Booked): void {
    const times = this.#silent.get(platform.id)?.times ?? 0;
    const pause = SILENCES[Math.min(times, SILENCES.length - 1)] ?? MINUTE;
    this.#silent.set(platform.id, { until: this.clock.real() + pause, times: times + 1 });
  }

  /** @returns whether the platform could not be reached */
  async #send(
    booked: Booked,
    url: string,
    due: readonly LtiScoreRow[],
    { users, theirs }: { readonly users: ReadonlyMap<string, string>; readonly theirs: Theirs | null },
  ): Promise<boolean> {
    const outcomes = new Map<LtiScoreRow, Partial<LtiScoreRow>>();
    const toSend: LtiScoreRow[] = [];
    for (const row of due) {
      const user = users.get(row.participantId);
      const there = theirs?.get(user ?? '') ?? null;
      const before = theirs === null || user === undefined ? null : standing(row, there);
      if (user === undefined) outcomes.set(row, { state: 'refused', error: say('notOneOfPlatformsPeople') });
      else if (before === 'arrived') outcomes.set(row, this.#taken(row));
      else if (before === 'changed') outcomes.set(row, { state: 'changed', theirs: there, unsure: false });
      else toSend.push(row);
    }
    // Noted before it leaves: after a crash, it is asked about.
    await this.database.write(async (manager) => {
      for (const row of toSend) await setRow(manager, row, { unsure: true });
    });
    const { default: pLimit } = await import('p-limit');
    const limit = pLimit(AT_ONCE);
    let silent = false;
    const send = async (row: LtiScoreRow) => {
      if (silent) {
        outcomes.set(row, { unsure: row.unsure });
        return;
      }
      try {
        const user = users.get(row.participantId) ?? '';
        await this.#post(booked, url, user, row);
        theirs?.set(user, row.value);
        outcomes.set(row, this.#taken(row));
      } catch (error) {
        if (!(error instanceof LtiFault)) throw error;
        silent ||= error.silent;
        outcomes.set(row, this.#failed(row, error));
      }
    };
    await Promise.all(toSend.map((row) => limit(() => send(row))));
    await this.#keep(booked, outcomes);
    return silent;
  }

  async #post({ platform }: Booked, url: string, user: string, row: LtiScoreRow): Promise<void> {
    // Each later than the last one of the person, also where the clock was set back.
    const at = Math.max(this.clock.real(), (row.sentAt ?? 0) + 1);
    await this.client.ask(platform, {
      ...{ scopes: [SCOPE.scores], url: under(url, 'scores'), method: 'POST' },
      headers: { 'content-type': MEDIA.score },
      body: JSON.stringify(scoreBody(user, { state: row.kind, value: row.value, comment: row.comment }, at)),
    });
  }

  async #keep({ exchange }: Booked, outcomes: ReadonlyMap<LtiScoreRow, Partial<LtiScoreRow>>): Promise<void> {
    await this.database.write(async (manager, emit) => {
      let sent = 0;
      for (const [row, outcome] of outcomes) {
        const { participantId, part } = row;
        const present = await manager.findOneBy(LtiScoreRow, { participantId, part });
        if (present === null) continue;
        // Corrected while it was on its way: what has arrived is noted, and the correction waits.
        const { state: _, ...rest } = outcome;
        await setRow(manager, row, isOther(present, row) ? rest : outcome);
        if (outcome.state === 'sent') sent += 1;
      }
      const details = { people: sent };
      const where = { courseId: exchange.courseId, exchangeId: exchange.id };
      if (sent > 0) emit({ action: 'platform-scores-sent', actorId: null, ...where, details });
    });
  }

  #taken({ value }: LtiScoreRow): Partial<LtiScoreRow> {
    const sentAt = this.clock.real();
    return { state: 'sent', sentValue: value, sentAt, unsure: false, theirs: null, tries: 0, error: null };
  }

  #failed({ tries, unsure }: LtiScoreRow, { kind, sentence, silent, unsure: perhaps }: LtiFault): Partial<LtiScoreRow> {
    const next = { error: sentence, unsure: unsure || perhaps };
    // A platform that is away takes no blame for each of its people.
    if (silent) return next;
    const pause = kind === 'down' ? PAUSES[tries] : undefined;
    if (pause === undefined) return { ...next, state: 'refused', tries: tries + 1 };
    return { ...next, tries: tries + 1, nextTryAt: this.clock.real() + pause };
  }

  async #results({ platform, link }: Booked, url: string): Promise<Theirs | null> {
    if (!link.services.scopes.includes(SCOPE.results)) return null;
    const all = new Map<string, number | null>();
    for await (const page of this.client.pages(platform, [SCOPE.results], under(url, 'results'), MEDIA.results)) {
      const found = readResults(page);
      if (found === null)
        throw new LtiFault('odd', say('answeredWithSomethingThatIsNoListOf', { name: platform.name }));
      for (const [user, value] of found) all.set(user, value);
    }
    return all;
  }

  /** Ids at the platform, by participant. */
  async #users({ exchange, link }: Booked): Promise<ReadonlyMap<string, string>> {
    const users = await usersOf(this.database.read, link);
    const participants = await activeParticipants(this.database.read, exchange.id);
    return new Map(
      participants.flatMap(({ id, personId }) => (users.has(personId) ? [[id, users.get(personId) ?? '']] : [])),
    );
  }
}

const WAITING = { state: 'waiting' as const, tries: 0, nextTryAt: 0, error: null };

type Wanted = Pick<LtiScoreRow, 'kind' | 'value' | 'comment'>;

function newRow(participantId: string, part: PartOrWhole, exchangeId: string, wanted: Wanted): LtiScoreRow {
  const nothing = { sentValue: null, sentAt: null, unsure: false, theirs: null };
  return { participantId, part, exchangeId, ...wanted, ...WAITING, ...nothing };
}

function isOther(row: Wanted, wanted: Wanted): boolean {
  return row.kind !== wanted.kind || !sameScore(row.value, wanted.value) || row.comment !== wanted.comment;
}

/** How what is to be sent stands to what is there. @param there what the platform holds; null for nothing */
function standing(row: LtiScoreRow, there: number | null): 'arrived' | 'changed' | 'as-sent' {
  const mayHaveArrived = row.unsure || row.sentAt === null;
  if (mayHaveArrived && row.kind === 'graded' && there !== null && sameScore(there, row.value)) return 'arrived';
  return sameScore(there, row.sentValue) ? 'as-sent' : 'changed';
}

function setRow(
  manager: EntityManager,
  { participantId, part }: Pick<LtiScoreRow, 'participantId' | 'part'>,
  change: Partial<LtiScoreRow>,
): Promise<unknown> {
  return manager.update(LtiScoreRow, { participantId, part }, change);
}

/** A service of a column: its address may have a query, which stays (Assignment and Grade Services 2.0, section 3.3.1). */
function under(url: string, service: 'scores' | 'results'): string {
  const address = new URL(url);
  address.pathname = `${address.pathname.replace(/\/$/, '')}/${service}`;
  return address.href;
}

/** It has been noted with the platform. */
function letFaultsBe(error: unknown): null {
  if (error instanceof LtiFault) return null;
  throw error;
}
