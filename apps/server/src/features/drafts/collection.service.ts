import { Injectable } from '@nestjs/common';
import type { ExtendRequest, HandInForRequest, TextForRequest, VersionMeta } from '@salt-circle/contracts';
import { IsNull, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { cleanHtml } from '../../platform/html/clean-html.js';
import { DatesService } from '../planning/dates.service.js';
import { PersonalDatesRow, Participant } from '../../model/exchange.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { Copies } from '../reading/copies.service.js';
import { Clock } from '../../platform/clock/clock.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { draftOf, groupIdOf } from '../../permissions/own-draft.js';
import { Draft, DraftPart } from '../../model/draft.js';
import { HandInService } from './hand-in.service.js';
import { OwnDrafts } from './own-draft.service.js';
import { say } from '../../words/drafts.js';

/** What staff do with hand-ins: extend, excuse, hand in for somebody, and have a copy made again. */
@Injectable()
export class CollectionService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly dates: DatesService,
    private readonly handing: HandInService,
    private readonly copies: Copies,
    private readonly clock: Clock,
    private readonly drafts: OwnDrafts,
  ) {}

  /** Own due time or excuse for one student, or, where groups hand in, for the group; other own times stay. */
  async extend(person: CurrentUser, exchangeId: string, participantId: string, request: ExtendRequest): Promise<void> {
    const manager = this.database.read;
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'plan' });
    const participant = await participantOf(manager, exchangeId, participantId);
    const { exchange, course } = context;
    const groupId = await groupIdOf(manager, exchange, participant.personId);
    const enrolment = await manager.findOneByOrFail(Enrolment, { courseId: course.id, personId: participant.personId });
    const whose = groupId === null ? { studentId: enrolment.id, groupId: null } : { studentId: null, groupId };
    const where = groupId === null ? { exchangeId, enrolmentId: enrolment.id } : { exchangeId, groupId };
    const known = await manager.findOneBy(PersonalDatesRow, where);
    const rest = {
      reviewsDue: isoOrNull(known?.reviewsDue ?? null),
      repliesDue: isoOrNull(known?.repliesDue ?? null),
      revisionDue: isoOrNull(known?.revisionDue ?? null),
    };
    const draftsDue = request.what === 'extend' ? (request.draftsDue ?? null) : null;
    const excused = request.what === 'excuse';
    const nothing = !excused && draftsDue === null && Object.values(rest).every((at) => at === null);
    if (nothing && known !== null) await this.dates.removeOwn(person, exchangeId, known.id);
    else if (!nothing || request.what === 'extend') {
      await this.dates.setOwn(person, exchangeId, { ...whose, ...rest, draftsDue, excused, reason: request.reason });
    }
  }

  /** Hands in for a student what is saved, and what came by another way. The title is for a draft that has none. */
  handInFor(
    person: CurrentUser,
    exchangeId: string,
    participantId: string,
    { title = null, texts }: HandInForRequest,
  ): Promise<VersionMeta> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'collect' });
      const participant = await participantOf(manager, exchangeId, participantId);
      await this.#keepTexts(manager, await this.access.actingFor(context, participantId, manager), texts ?? []);
      const draft = await draftOf(
        manager,
        participant,
        await groupIdOf(manager, context.exchange, participant.personId),
      );
      if (draft === null) {
        throw new ProblemError({
          code: 'draft-empty',
          sentence: say('nothingHasBeenSavedOr'),
          whatToDo: say('addFileForStudentOr'),
        });
      }
      const untitled = draft.title.trim() === '' && title !== null && title.trim() !== '';
      if (untitled) {
        const revision = draft.revision + 1;
        await manager.update(Draft, { id: draft.id }, { title: title.trim(), revision, savedAt: this.clock.now() });
      }
      const named = untitled ? { ...draft, title: title.trim() } : draft;
      return this.handing.handInFor(person, context, named, manager, emit);
    });
  }

  async #keepTexts(manager: EntityManager, context: ExchangeContext, texts: readonly TextForRequest[]): Promise<void> {
    for (const { deliverableId, html: given } of texts) {
      const html = cleanHtml(given);
      const { title } = this.drafts.deliverable(context, deliverableId, ['text']);
      if (html === '') continue;
      const draft = await this.drafts.ensure(manager, context);
      const where = { draftId: draft.id, versionId: IsNull(), deliverableId };
      const current = await manager.findOneBy(DraftPart, where);
      if (current !== null && current.html !== '') {
        throw new ProblemError({
          code: 'conflict',
          sentence: say('studentHasSavedTextFor', { title }),
          whatToDo: say('leaveFieldEmptyToHand'),
        });
      }
      const savedAt = this.clock.now();
      if (current === null) await this.drafts.newPart(manager, draft, deliverableId, { kind: 'text', html, savedAt });
      else await manager.update(DraftPart, { id: current.id }, { html, savedAt, revision: current.revision + 1 });
    }
  }

  async copyAgain(person: CurrentUser, exchangeId: string, draftId: string, partId: string): Promise<void> {
    const context = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const own = await this.access.ownDraft(context);
    if (own?.id !== draftId) assertCan(context, { kind: 'collect' });
    const part = await manager.findOneBy(DraftPart, { id: partId, draftId });
    if (part?.digest == null) throw refusal('unknown');
    await this.copies.again(part.digest, person.id);
  }
}

async function participantOf(manager: EntityManager, exchangeId: string, id: string): Promise<Participant> {
  const participant = await manager.findOneBy(Participant, { id, exchangeId });
  if (participant === null) throw refusal('unknown');
  return participant;
}
