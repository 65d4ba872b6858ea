import { Injectable } from '@nestjs/common';
import type { ProgressReview, ProgressRow, ProgressView } from '@salt-circle/contracts';
import { completeness, type OwnTimes } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { Authors } from '../drafts/authors.js';
import { lateView } from '../drafts/version-meta.js';
import { LAST_NUMBER } from '../drafts/versions.js';
import { Access, see } from '../exchanges/access.js';
import { Participant, type Exchange } from '../exchanges/entities.js';
import { formOf } from '../exchanges/form-of.js';
import { Labels } from '../exchanges/labels.js';
import { isoOrNull } from '../exchanges/instants.js';
import { allOwnTimes } from '../exchanges/own-times.js';
import { activeParticipants } from '../exchanges/participants.js';
import { Review } from '../reviews/entities.js';
import { reviewState } from '../reviews/state.js';

interface DraftState {
  readonly draftId: string;
  readonly participantId: string;
  readonly groupId: string | null;
  readonly alias: string | null;
  readonly savedAt: number | null;
  /** Parts that are saved, and bytes and failed reading copies of the version that counts. */
  readonly parts: number;
  readonly bytes: number;
  readonly failed: number;
  readonly revision: number;
  readonly version: number | null;
  readonly title: string | null;
  readonly words: number | null;
  readonly handedInAt: number | null;
}

@Injectable()
export class ProgressService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** A row per student. A fixed number of queries, however large the course. */
  async board(person: Person, exchangeId: string): Promise<ProgressView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const participants = await manager.findBy(Participant, { exchangeId });
    const labels = await Labels.load(manager, place, participants);
    const drafts = await draftStates(manager, exchangeId);
    const reviews = await manager.find(Review, { where: { exchangeId }, order: { position: 'ASC' } });
    const askedAtFirst = completeness(await formOf(manager, place), {}, 0).required;
    const authors = await Authors.load(manager, place.exchange);
    const draftOf = new Map(drafts.flatMap((one) => authors.of(one).map((id) => [id, one] as const)));
    const draftById = new Map(drafts.map((one) => [one.draftId, one]));
    const byReviewer = grouped(reviews, ({ reviewerId }) => reviewerId);
    const byDraft = grouped(reviews, ({ draftId }) => draftId);
    const asView = (review: Review): ProgressReview => ({
      id: review.id,
      author: labels.authorOf(draftById.get(review.draftId) as DraftState),
      state: reviewState(review),
      answered: review.answered,
      required: review.begunAt === null ? askedAtFirst : review.required,
      words: review.words,
      notes: review.noteCount,
    });
    const active = new Set((await activeParticipants(manager, exchangeId)).map(({ id }) => id));
    const own = await allOwnTimes(manager, place.exchange);
    const students = participants.filter(({ extraReviews }) => extraReviews === null);
    const rows = students.map(({ id, personId }): ProgressRow => {
      const draft = draftOf.get(id);
      const given = byReviewer.get(id) ?? [];
      const received = byDraft.get(draft?.draftId ?? '') ?? [];
      return {
        id,
        person: labels.author(id),
        draft: draftView(place.exchange, own.get(personId) ?? null, draft, authors.titleOf(draft?.groupId ?? null)),
        reviews: given.map(asView),
        received: received.filter(({ submittedAt }) => submittedAt !== null).length,
        receives: received.length,
        dropped: !active.has(id),
        excused: own.get(personId)?.excused === true,
        words: given.reduce((sum, { words }) => sum + words, 0),
        notes: given.reduce((sum, { noteCount }) => sum + noteCount, 0),
      };
    });
    return { rows: rows.sort((a, b) => (a.person.name ?? '').localeCompare(b.person.name ?? '')) };
  }
}

function draftView(
  exchange: Exchange,
  own: OwnTimes | null,
  draft: DraftState | undefined,
  group: string | null,
): ProgressRow['draft'] {
  const handedIn = draft?.version != null;
  const begun = draft !== undefined && (draft.revision > 0 || draft.parts > 0);
  const handedInAt = draft?.handedInAt ?? null;
  return {
    group,
    bytes: draft?.bytes ?? 0,
    copyFailed: (draft?.failed ?? 0) > 0,
    savedAt: isoOrNull(draft?.savedAt ?? null),
    late: handedInAt === null ? null : lateView(exchange, own, handedInAt),
    id: handedIn ? draft.draftId : null,
    state: handedIn ? 'handed-in' : begun ? 'saved' : 'none',
    version: draft?.version ?? 0,
    handedInAt: isoOrNull(handedInAt),
    words: draft?.words ?? 0,
    title: draft?.title ?? '',
  };
}

function draftStates(manager: EntityManager, exchangeId: string): Promise<DraftState[]> {
  return manager.query(
    `SELECT draft.id AS draftId, draft.participantId, draft.groupId, draft.alias, draft.revision,
            version.number AS version, version.title, version.words, version.handedInAt,
            MAX(COALESCE(draft.savedAt, 0), COALESCE((SELECT MAX(part.savedAt) FROM draft_part part
              WHERE part.draftId = draft.id AND part.versionId IS NULL), 0)) AS savedAt,
            (SELECT COUNT(*) FROM draft_part part WHERE part.draftId = draft.id AND part.versionId IS NULL) AS parts,
            COALESCE((SELECT SUM(file.size) FROM draft_part part JOIN stored_file file ON file.digest = part.digest
              WHERE part.versionId = version.id), 0) AS bytes,
            (SELECT COUNT(*) FROM draft_part part JOIN stored_file file ON file.digest = part.digest
              WHERE part.versionId = version.id AND file.copyState = 'failed') AS failed
       FROM draft
       LEFT JOIN draft_version version ON version.draftId = draft.id AND version.number = ${LAST_NUMBER}
      WHERE draft.exchangeId = ?`,
    [exchangeId],
  );
}

function grouped<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) {
    const group = groups.get(key(one));
    if (group === undefined) groups.set(key(one), [one]);
    else group.push(one);
  }
  return groups;
}
