import { Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import type { ChangeNews } from '@salt-circle/contracts';
import { hears } from '@salt-circle/core';
import { In } from 'typeorm';
import { SessionService } from '../../auth/session.service.js';
import { Enrolment } from '../../model/course.js';
import { Exchange } from '../../model/exchange.js';
import type { Change } from '../../platform/changes/changes.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';

/** An open page that hears what changed. */
interface Listener {
  readonly personId: string;
  readonly cookie: string | undefined;
  readonly tell: (news: ChangeNews) => void;
  readonly end: () => void;
}

/** Changes are gathered for so long (milliseconds), so that what belongs together is one piece of news. */
export const GATHERED = 250;
/** Sessions of those who listen are looked at again so often, and a sign of life is sent; milliseconds. */
const BEAT = 25_000;
/** Pages of one person that can listen at once; the oldest is let go, and goes on by asking now and then. */
export const MOST_PAGES = 12;

/** Tells open pages that something changed, never what it is now: they ask for it, and may see it or not. */
@Injectable()
export class ChangesService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  readonly #listeners = new Set<Listener>();
  #gathered: Change[] = [];
  #timer: NodeJS.Timeout | null = null;
  #beat: NodeJS.Timeout | null = null;
  #stop: () => void = () => {};

  constructor(
    private readonly database: Database,
    private readonly sessions: SessionService,
  ) {}

  onApplicationBootstrap(): void {
    this.#stop = this.database.changes.listen((changes) => this.#gather(changes));
    this.#beat = setInterval(() => void this.beat(), BEAT);
    this.#beat.unref();
  }

  /** Streams would keep the server from closing. */
  beforeApplicationShutdown(): void {
    this.#stop();
    if (this.#timer !== null) clearTimeout(this.#timer);
    if (this.#beat !== null) clearInterval(this.#beat);
    for (const { end } of this.#listeners) end();
    this.#listeners.clear();
  }

  /** @returns a function that ends it */
  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    const [oldest, ...others] = [...this.#listeners].filter(({ personId }) => personId === listener.personId);
    if (oldest !== undefined && others.length >= MOST_PAGES) this.#drop(oldest);
    return () => this.#listeners.delete(listener);
  }

  #drop(listener: Listener): void {
    this.#listeners.delete(listener);
    listener.end();
  }

  /** Whoever has signed out meanwhile hears nothing any more. */
  async beat(): Promise<void> {
    for (const listener of [...this.#listeners]) {
      const person = await this.sessions.personOf(listener.cookie);
      if (person?.id === listener.personId) listener.tell({ topics: [], courseId: null, exchangeId: null });
      else this.#drop(listener);
    }
  }

  #gather(changes: readonly Change[]): void {
    if (this.#listeners.size === 0) return;
    this.#gathered.push(...changes);
    this.#timer ??= setTimeout(() => {
      this.#timer = null;
      void this.deliver();
    }, GATHERED);
    this.#timer.unref();
  }

  /** Hands over what was gathered: to each listener the topics that are for them, an exchange at a time. */
  async deliver(): Promise<void> {
    const changes = this.#gathered;
    this.#gathered = [];
    for (const [, about] of groupedBy(changes, ({ courseId, exchangeId }) => `${courseId} ${exchangeId}`)) {
      await this.#deliverAbout(about as [Change, ...Change[]]);
    }
  }

  async #deliverAbout(changes: readonly [Change, ...Change[]]): Promise<void> {
    const [{ courseId, exchangeId }] = changes;
    const manager = this.database.read;
    const exchange = exchangeId === null ? null : await manager.findOneBy(Exchange, { id: exchangeId });
    // Pages ask about the exchange, not about what its practice drafts stand in.
    const about = exchange?.practiceOf ?? exchangeId;
    const facts = exchange === null ? null : { published: exchange.publishedAt !== null };
    const listening = [...new Set([...this.#listeners].map(({ personId }) => personId))];
    const enrolled = await manager.findBy(Enrolment, { courseId, active: true, personId: In(listening) });
    const roles = new Map(enrolled.map(({ personId, role }) => [personId, role]));
    for (const { personId, tell } of this.#listeners) {
      const viewer = { role: roles.get(personId) ?? null };
      const heard = changes.filter(({ topic, personIds }) =>
        hears(viewer, facts, topic, personIds?.includes(personId) === true),
      );
      const topics = [...new Set(heard.map(({ topic }) => topic))];
      if (topics.length > 0) tell({ topics, courseId, exchangeId: about });
    }
  }
}
