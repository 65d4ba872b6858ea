import { makeAliases, seededRandom, type Deliverable } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { ownParticipant, type Place } from '../exchanges/access.js';
import { Participant } from '../exchanges/entities.js';
import type { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { refusal } from '../problems/sentences.js';
import { Authors, draftOf } from './authors.js';
import { Draft, DraftPart } from './entities.js';

/** The draft of the one who asks, made when there is none yet. */
export async function ensureDraft(manager: EntityManager, place: Place, ids: Ids): Promise<Draft> {
  const participant = ownParticipant(place);
  const known = await draftOf(manager, participant, place.groupId);
  if (known !== null) return known;
  const { groupId } = place;
  const draft = manager.create(Draft, {
    id: ids.uuid(),
    exchangeId: place.exchange.id,
    participantId: await freeMember(manager, place, participant.id),
    groupId,
    alias: groupId === null ? null : await groupAlias(manager, place.exchange.id, ids),
    title: '',
    context: '',
    revision: 0,
    savedAt: null,
  });
  await manager.insert(Draft, draft);
  return draft;
}

/** A draft stands under one member; somebody who has moved between groups may stand for another one already. */
async function freeMember(manager: EntityManager, { exchange, groupId }: Place, wanted: string): Promise<string> {
  const members =
    groupId === null ? [] : (await Authors.load(manager, exchange)).of({ participantId: wanted, groupId });
  const taken = new Set((await manager.findBy(Draft, { exchangeId: exchange.id })).map((one) => one.participantId));
  const free = [wanted, ...members].find((id) => !taken.has(id));
  if (free !== undefined) return free;
  throw new ProblemError({
    code: 'conflict',
    sentence: 'You have begun a draft with another group, so another one cannot stand under your name.',
    whatToDo: 'Ask your instructor to put somebody else into your old group, or you back.',
  });
}

async function groupAlias(manager: EntityManager, exchangeId: string, ids: Ids): Promise<string> {
  const people = await manager.findBy(Participant, { exchangeId });
  const drafts = await manager.findBy(Draft, { exchangeId });
  const taken = new Set([...people, ...drafts].flatMap(({ alias }) => (alias === null ? [] : [alias])));
  return makeAliases(1, taken, seededRandom(ids.seed()))[0] as string;
}

/** @throws ProblemError when the exchange asks for no such thing */
export function deliverableOf({ exchange }: Place, id: string, kinds: ReadonlyArray<Deliverable['kind']>): Deliverable {
  const one = exchange.deliverables.find((each) => each.id === id);
  if (one === undefined || !kinds.includes(one.kind)) throw refusal('unknown');
  return one;
}

/** A part of the draft as it is saved, not of a version. */
export async function ownPart(manager: EntityManager, draft: Draft | null, partId: string): Promise<DraftPart> {
  const part = draft === null ? null : await manager.findOneBy(DraftPart, { id: partId, draftId: draft.id });
  if (part === null || part.versionId !== null) throw refusal('unknown');
  return part;
}
