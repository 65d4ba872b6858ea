import { Inject, Injectable } from '@nestjs/common';
import { feedbackIsOpen } from '@salt-circle/core';
import { In, IsNull, MoreThanOrEqual, Not, type EntityManager } from 'typeorm';
import { Authors } from '../../queries/authors.js';
import { factsOf } from '../../permissions/exchange-facts.js';
import { courseIdentities } from '../../queries/course-identities.js';
import { activeParticipants } from '../../queries/participants.js';
import { Course } from '../../model/course.js';
import { Draft } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Clock } from '../../platform/clock/clock.js';
import { PeriodicJob } from '../../platform/jobs/periodic-job.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { say } from '../../words/feedback.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

const LOOK_EVERY = 15_000;
/** What was released longer ago is no news: of a server that was down for days, or of data from before mails were sent. */
const NEWS = 2 * 24 * 3_600_000;

/** Mails authors that their feedback is there, whether it was released by its date or by hand: each once. */
@Injectable()
export class ReleaseNews extends PeriodicJob {
  /** When each exchange was last gone through: most of the time there is nothing new in it. Milliseconds. */
  readonly #lookedAt = new Map<string, number>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) { mode }: Settings,
  ) {
    super({ name: 'release-news', every: LOOK_EVERY, fault: 'nobody could be told of feedback' }, mode);
  }

  protected async round(): Promise<void> {
    await this.#tellEach();
    const untold = await this.database.read
      .createQueryBuilder(Participant, 'participant')
      .where('participant.feedbackToldAt IS NULL AND participant.extraReviews IS NULL')
      .andWhere('participant.feedbackHeld IS NULL')
      .select('DISTINCT participant.exchangeId', 'id')
      .getRawMany<{ id: string }>();
    if (untold.length === 0) return;
    const now = this.clock.now();
    const exchanges = await this.database.read.findBy(Exchange, {
      id: In(untold.map(({ id }) => id)),
      publishedAt: Not(IsNull()),
      feedbackEach: false,
    });
    for (const exchange of exchanges) {
      if (!factsOf(exchange, null, now).may.released) continue;
      await this.database.write((manager) => this.#tellOf(manager, exchange, now));
    }
  }

  /** Where reviews are read one by one: of those that were submitted since each author was last told. */
  async #tellEach(): Promise<void> {
    const one = { feedbackEach: true, publishedAt: Not(IsNull()) };
    for (const exchange of await this.database.read.findBy(Exchange, one)) {
      if (!feedbackIsOpen(factsOf(exchange, null, this.clock.now()))) continue;
      const since = this.#lookedAt.get(exchange.id) ?? 0;
      const isNew = { exchangeId: exchange.id, submittedAt: MoreThanOrEqual(since) };
      if (!(await this.database.read.existsBy(Review, isNew))) continue;
      await this.database.write(async (manager) => {
        // In the transaction: what is submitted after it is told of the next time.
        const now = this.clock.now();
        const told = await this.#letters(manager, exchange, ({ feedbackToldAt }) => feedbackToldAt ?? 0);
        if (told.length > 0) {
          const letters = told.map(({ letter }) => letter);
          await queueMail(manager, this.ids, this.database.mail, now, letters);
          await manager.update(Participant, { id: In(told.map(({ id }) => id)) }, { feedbackToldAt: now });
        }
        this.#lookedAt.set(exchange.id, now);
      });
    }
  }

  /** Those who read it before the others hear of it at once, in the transaction in which that is settled. */
  async tellNow(
    manager: EntityManager,
    exchange: Exchange,
    participantIds: readonly string[],
    now: number,
  ): Promise<void> {
    const told = (await this.#letters(manager, exchange, () => 0)).filter(({ id }) => participantIds.includes(id));
    await queueMail(
      manager,
      this.ids,
      this.database.mail,
      now,
      told.map(({ letter }) => letter),
    );
    await manager.update(Participant, { id: In(told.map(({ id }) => id)) }, { feedbackToldAt: now });
  }

  async #tellOf(manager: EntityManager, exchange: Exchange, now: number): Promise<void> {
    const released = exchange.release ?? exchange.checkUntil ?? exchange.reviewsDue ?? 0;
    if (now - released < NEWS) {
      const told = await this.#letters(manager, exchange, ({ feedbackToldAt }) => (feedbackToldAt === null ? 0 : now));
      const letters = told.map(({ letter }) => letter);
      if (letters.length > 0) await queueMail(manager, this.ids, this.database.mail, now, letters);
    }
    // Whoever's is held back hears of it once it is not.
    const rest = { exchangeId: exchange.id, feedbackToldAt: IsNull(), feedbackHeld: IsNull() };
    await manager.update(Participant, rest, { feedbackToldAt: now });
  }

  /**
   * To each author of a draft with reviews by others that can be read and are news to that one: how many they are, and nothing
   * of what is in them.
   */
  async #letters(
    manager: EntityManager,
    exchange: Exchange,
    since: (author: Participant) => number,
  ): Promise<Array<{ readonly id: string; readonly letter: Letter }>> {
    const submitted = { exchangeId: exchange.id, submittedAt: Not(IsNull()), withheldAt: IsNull() };
    const byDraft = groupedBy(await manager.findBy(Review, submitted), ({ draftId }) => draftId);
    const authors = await Authors.load(manager, exchange);
    /** By author, when the reviews of the own draft by others were submitted. */
    const times = new Map<string, number[]>();
    for (const draft of await manager.findBy(Draft, { exchangeId: exchange.id })) {
      const own = authors.of(draft);
      const byOthers = (byDraft.get(draft.id) ?? []).filter(({ reviewerId }) => !own.includes(reviewerId));
      const at = byOthers.map(({ submittedAt }) => submittedAt ?? 0);
      for (const id of own) times.set(id, at);
    }
    const active = await activeParticipants(manager, exchange.id);
    const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
    const listed = await courseIdentities(
      manager,
      course.id,
      active.map(({ personId }) => personId),
    );
    return active.flatMap((author) => {
      const { id, personId, feedbackHeld } = author;
      if (feedbackHeld !== null) return [];
      const count = (times.get(id) ?? []).filter((at) => at > since(author)).length;
      const address = listed.get(personId)?.email;
      if (count === 0 || address === undefined) return [];
      const where = { course: course.title, exchange: exchange.title };
      return [
        {
          id,
          letter: {
            kind: 'feedback-released' as const,
            address,
            subject: say('feedbackOnYourDraftFor', where),
            text: paragraphs([
              say('ofYourDraftForCan', { ...where, count }),
              `${this.database.mail.publicUrl}/exchanges/${exchange.id}/feedback`,
            ]),
            courseId: course.id,
            exchangeId: exchange.id,
            news: { personId, path: `/exchanges/${exchange.id}/feedback` },
          },
        },
      ];
    });
  }
}
