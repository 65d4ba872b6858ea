import { Injectable } from '@nestjs/common';
import { makeAliases, MAX_FILES, seededRandom, type Deliverable } from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import { ownParticipant, type ExchangeContext } from '../../permissions/access.js';
import { authorPersons, Authors } from '../../queries/authors.js';
import { draftOf } from '../../permissions/own-draft.js';
import { Draft, DraftPart } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import type { EmitEvent } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { say } from '../../words/drafts.js';

/** The draft as it is saved, not yet handed in: made with the first thing that is put into it. */
@Injectable()
export class OwnDrafts {
  constructor(private readonly ids: Ids) {}

  /** The draft of the one who asks, made when there is none yet. */
  async ensure(manager: EntityManager, context: ExchangeContext): Promise<Draft> {
    const participant = ownParticipant(context);
    const known = await draftOf(manager, participant, context.groupId);
    if (known !== null) return known;
    const { groupId } = context;
    const draft = manager.create(Draft, {
      id: this.ids.uuid(),
      exchangeId: context.exchange.id,
      participantId: await freeMember(manager, context, participant.id),
      groupId,
      alias: groupId === null ? null : await this.#groupAlias(manager, context.exchange.id),
      title: '',
      context: '',
      revision: 0,
      savedAt: null,
    });
    await manager.insert(Draft, draft);
    return draft;
  }

  async #groupAlias(manager: EntityManager, exchangeId: string): Promise<string> {
    const people = await manager.findBy(Participant, { exchangeId });
    const drafts = await manager.findBy(Draft, { exchangeId });
    const taken = new Set([...people, ...drafts].flatMap(({ alias }) => (alias === null ? [] : [alias])));
    return makeAliases(1, taken, seededRandom(this.ids.seed()))[0] as string;
  }

  /** A new part, behind those that there are. @throws ProblemError when the deliverable has as many as it can have */
  async newPart(manager: EntityManager, draft: Draft, deliverableId: string, content: Partial<DraftPart>) {
    const part = manager.create(DraftPart, {
      id: this.ids.uuid(),
      draftId: draft.id,
      deliverableId,
      position: await nextPosition(manager, draft.id, deliverableId),
      versionId: null,
      html: '',
      revision: 0,
      digest: null,
      captions: null,
      hidden: [],
      uploadId: null,
      ...content,
    });
    await manager.insert(DraftPart, part);
    return part;
  }

  /** A part of the draft as it is saved, not of a version. */
  async part(manager: EntityManager, draft: Draft | null, partId: string): Promise<DraftPart> {
    const part = draft === null ? null : await manager.findOneBy(DraftPart, { id: partId, draftId: draft.id });
    if (part === null || part.versionId !== null) throw refusal('unknown');
    return part;
  }

  /** @throws ProblemError when the exchange asks for no such thing */
  deliverable({ exchange }: ExchangeContext, id: string, kinds: ReadonlyArray<Deliverable['kind']>): Deliverable {
    const one = exchange.deliverables.find((each) => each.id === id);
    if (one === undefined || !kinds.includes(one.kind)) throw refusal('unknown');
    return one;
  }

  /** Pages of its other authors hear that the draft was changed, and staff that somebody is at work. */
  async tell(
    manager: EntityManager,
    emit: EmitEvent,
    { exchange, person }: ExchangeContext,
    draft: Draft,
  ): Promise<void> {
    const where = { courseId: exchange.courseId, exchangeId: exchange.id };
    const personIds = (await authorPersons(manager, exchange, draft)).filter((id) => id !== person.id);
    if (personIds.length > 0) emit.quietly({ topic: 'own-draft', ...where, personIds });
    emit.quietly({ topic: 'drafts', ...where });
  }
}

/** A draft stands under one member; somebody who has moved between groups may stand for another one already. */
async function freeMember(
  manager: EntityManager,
  { exchange, groupId }: ExchangeContext,
  wanted: string,
): Promise<string> {
  const members =
    groupId === null ? [] : (await Authors.load(manager, exchange)).of({ participantId: wanted, groupId });
  const taken = new Set((await manager.findBy(Draft, { exchangeId: exchange.id })).map((one) => one.participantId));
  const free = [wanted, ...members].find((id) => !taken.has(id));
  if (free !== undefined) return free;
  throw new ProblemError({
    code: 'conflict',
    sentence: say('youHaveBegunDraftWith'),
    whatToDo: say('askYourInstructorToPut'),
  });
}

async function nextPosition(manager: EntityManager, draftId: string, deliverableId: string): Promise<number> {
  const rows = await manager.findBy(DraftPart, { draftId, versionId: IsNull(), deliverableId });
  if (rows.length >= MAX_FILES) {
    throw new ProblemError({
      code: 'too-many-files',
      sentence: say('thereAreAlreadyAndNo', { rows: rows.length, maxfiles: MAX_FILES }),
      whatToDo: say('takeOneAwayFirst'),
    });
  }
  return 1 + Math.max(-1, ...rows.map(({ position }) => position));
}
