import { Injectable } from '@nestjs/common';
import type { RoundCard, SecondRoundRequest } from '@salt-circle/contracts';
import { checkDates, makeAliases, NO_DATES, seededRandom, type ExchangeDates } from '@salt-circle/core';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { authorPersons, Authors } from '../../queries/authors.js';
import { formOf } from '../../queries/review-form.js';
import { mailRecipients } from '../../queries/mail-recipients.js';
import { datesView } from '../../queries/exchange-views.js';
import { activeParticipants, enrolParticipants } from '../../queries/participants.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { rowFrom, settingsOf } from '../../queries/plan-settings.js';
import { lastRevision, partsOf } from '../../queries/versions.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { dateInWords, dateProblem, invalid } from '../../platform/problems/sentences.js';
import { insertExchange } from '../../queries/insert-exchange.js';
import { say } from '../../words/rounds.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

/** A draft with the revision that is reviewed once more, and whose it is in the new exchange. */
interface Revised {
  readonly draft: Draft;
  readonly revision: DraftVersion;
  readonly participantId: string;
}

/** An exchange in which the revisions of another one are reviewed: handed in already, and open for reviews at once. */
@Injectable()
export class Rounds {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  /** Those made from this one, the oldest first. */
  async list(person: CurrentUser, exchangeId: string): Promise<RoundCard[]> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const rounds = await this.database.read.find(Exchange, {
      where: { followsId: exchangeId },
      order: { createdAt: 'ASC' },
    });
    return rounds.map(({ id, title }) => ({ id, title }));
  }

  /** Whoever has left since, and drafts without a revision, are left out; reviewers are told as with every allocation. */
  make(person: CurrentUser, exchangeId: string, request: SecondRoundRequest): Promise<RoundCard> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'create-exchange' });
      assertCan(context, { kind: 'release' });
      const exchange = await this.#exchange(manager, context, request);
      await enrolParticipants(manager, exchange, this.ids);
      const revised = await this.#revised(manager, context, exchange);
      const drafts = await this.#drafts(manager, exchange, revised);
      if (request.reviewers === 'same') await this.#sameReviewers(manager, context, exchange, drafts);
      await this.#tell(manager, context, exchange, revised);
      const where = { courseId: context.course.id, exchangeId: exchange.id };
      emit({ action: 'round-made', actorId: person.id, ...where, details: { drafts: drafts.size } });
      return { id: exchange.id, title: exchange.title };
    });
  }

  /** The plan and form of the one before, but for what comes before reviewing, and what was planned after it. */
  async #exchange(manager: EntityManager, context: ExchangeContext, request: SecondRoundRequest): Promise<Exchange> {
    const { exchange: before, course, now } = context;
    // Not on a whole minute, so that drafts are due at once, and not at the end of it.
    const handedIn = now % 60_000 === 0 ? now - 1 : now;
    const dates: ExchangeDates = {
      ...NO_DATES,
      ...{ draftsOpen: handedIn - 1, draftsDue: handedIn, reviewsOpen: handedIn },
      reviewsDue: Date.parse(request.reviewsDue),
      release: request.release === null ? null : Date.parse(request.release),
    };
    const clashes = checkDates(dates, true).map((one) => dateProblem(one, course.timeZone));
    if (clashes.length > 0) throw invalid(clashes);
    const id = this.ids.uuid();
    const row = rowFrom({
      ...settingsOf(before),
      ...{ title: request.title, dates: datesView(dates), late: null, gradeParts: [], remindHours: null },
      ...{ selfReview: 'off', ownHandInFirst: false, feedbackEach: false },
      practice: { when: 'off', tries: null, closeEnough: null },
    });
    const after = { ...row.after, reflection: null };
    const follows = { followsId: before.id, earlierShown: request.earlierShown, publishedAt: now, createdAt: now };
    const made = { ...row, after, ...follows, id, courseId: course.id };
    await insertExchange(manager, this.ids, made, await formOf(manager, context));
    const attached = await manager.findBy(ExchangeAttachment, { exchangeId: before.id });
    const own = { exchangeId: id, uploadId: null };
    await insertAll(
      manager,
      ExchangeAttachment,
      attached.map((one) => ({ ...one, ...own, id: this.ids.uuid() })),
    );
    return manager.findOneByOrFail(Exchange, { id });
  }

  /** @throws ProblemError where nobody has handed in a revision */
  async #revised(manager: EntityManager, context: ExchangeContext, exchange: Exchange): Promise<Revised[]> {
    const active = await activeParticipants(manager, exchange.id);
    const byPerson = new Map(active.map(({ id, personId }) => [personId, id]));
    const revised: Revised[] = [];
    for (const draft of await manager.find(Draft, {
      where: { exchangeId: context.exchange.id },
      order: { id: 'ASC' },
    })) {
      const revision = await lastRevision(manager, draft.id);
      if (revision === null) continue;
      const persons = await authorPersons(manager, context.exchange, draft);
      const participantId = persons.map((id) => byPerson.get(id)).find((id) => id !== undefined);
      if (participantId !== undefined) revised.push({ draft, revision, participantId });
    }
    if (revised.length > 0) return revised;
    throw new ProblemError({
      code: 'draft-empty',
      sentence: say('nobodyHasHandedInRevision'),
      whatToDo: say('makeSecondRoundOnceRevisions'),
    });
  }

  /** @returns the new drafts by those that they follow */
  async #drafts(
    manager: EntityManager,
    exchange: Exchange,
    revised: readonly Revised[],
  ): Promise<ReadonlyMap<string, string>> {
    const people = await manager.findBy(Participant, { exchangeId: exchange.id });
    const groups = revised.filter(({ draft }) => draft.groupId !== null).map(({ draft }) => draft.id);
    const taken = new Set(people.map(({ alias }) => alias));
    const aliases = makeAliases(groups.length, taken, seededRandom(this.ids.seed()));
    const aliasOf = new Map(groups.map((id, index) => [id, aliases[index] as string]));
    const drafts = new Map<string, string>();
    for (const { draft, revision, participantId } of revised) {
      const draftId = this.ids.uuid();
      drafts.set(draft.id, draftId);
      const versionId = this.ids.uuid();
      const { title, context } = revision;
      await manager.insert(Draft, {
        ...{ id: draftId, exchangeId: exchange.id, participantId, groupId: draft.groupId },
        ...{ alias: aliasOf.get(draft.id) ?? null, title, context, revision: 1, followsId: draft.id },
        savedAt: revision.handedInAt,
      });
      const fresh = { id: versionId, draftId, number: 1, purpose: 'draft' as const, changes: '' };
      await manager.insert(DraftVersion, { ...revision, ...fresh });
      const parts = await partsOf(manager, draft.id, revision.id, exchange.deliverables);
      // As it is handed in, and as it is saved: nothing has been changed since.
      for (const keptAs of [versionId, null])
        await insertAll(
          manager,
          DraftPart,
          parts.map((part) => ({ ...part, id: this.ids.uuid(), draftId, versionId: keptAs, uploadId: null })),
        );
      const pictures = await manager.findBy(DraftPicture, { draftId: draft.id });
      await insertAll(
        manager,
        DraftPicture,
        pictures.map(({ digest }) => ({ draftId, digest })),
      );
    }
    return drafts;
  }

  async #sameReviewers(
    manager: EntityManager,
    context: ExchangeContext,
    exchange: Exchange,
    drafts: ReadonlyMap<string, string>,
  ): Promise<void> {
    const active = await activeParticipants(manager, exchange.id);
    const now = new Map(active.map(({ id, personId }) => [personId, id]));
    const people = await manager.findBy(Participant, { exchangeId: context.exchange.id });
    const personOf = new Map(people.map(({ id, personId }) => [id, personId]));
    const reviews = await manager.find(Review, {
      where: { exchangeId: context.exchange.id, ...ALLOCATED, submittedAt: Not(IsNull()) },
      order: { position: 'ASC' },
    });
    const pairs = reviews.flatMap(({ reviewerId, draftId }) => {
      const reviewer = now.get(personOf.get(reviewerId) ?? '');
      const draft = drafts.get(draftId);
      return reviewer === undefined || draft === undefined ? [] : [{ reviewerId: reviewer, draftId: draft }];
    });
    const authors = await Authors.load(manager, exchange);
    const made = await manager.findBy(Draft, { id: In([...drafts.values()]) });
    const ownOf = new Map(made.map((draft) => [draft.id, authors.of(draft)]));
    const rows = [...groupedBy(pairs, ({ reviewerId }) => reviewerId).values()].flatMap((mine) =>
      mine
        // Where there was a review of the own draft, it is not asked for again.
        .filter(({ reviewerId, draftId }) => ownOf.get(draftId)?.includes(reviewerId) !== true)
        .map((pair, index) => ({ ...pair, id: this.ids.uuid(), exchangeId: exchange.id, position: index + 1 })),
    );
    await insertAll(manager, Review, rows);
  }

  async #tell(
    manager: EntityManager,
    context: ExchangeContext,
    exchange: Exchange,
    revised: readonly Revised[],
  ): Promise<void> {
    const persons = new Set<string>();
    for (const { draft } of revised)
      for (const id of await authorPersons(manager, context.exchange, draft)) persons.add(id);
    const active = await activeParticipants(manager, exchange.id);
    const authors = active.map(({ personId }) => personId).filter((id) => persons.has(id));
    const due = dateInWords(exchange.reviewsDue as number, context.course.timeZone);
    const path = `/exchanges/${exchange.id}`;
    const where = { course: context.course.title, exchange: exchange.title, earlier: context.exchange.title };
    const letters = (await mailRecipients(manager, context.course.id, authors)).map(({ address, personId }) => ({
      kind: 'next-round' as const,
      ...{ address, courseId: context.course.id, exchangeId: exchange.id, news: { personId, path } },
      subject: say('yourRevisionIsReviewedOnce', where),
      text: paragraphs([
        say('whatYouHandedInAs', where),
        say('reviewsDue', { due }),
        `${this.database.mail.publicUrl}${path}`,
      ]),
    }));
    await queueMail(manager, this.ids, this.database.mail, context.now, letters);
  }
}
