import { Injectable } from '@nestjs/common';
import type { ProgressReview, ProgressRow, ProgressView } from '@salt-circle/contracts';
import { completeness, hasPractised, type PersonalDates, type PracticeState } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Database } from '../../platform/database/database.js';
import { Authors } from '../../queries/authors.js';
import { lateView } from '../../queries/version-meta.js';
import { countingNumber } from '../../queries/versions.js';
import { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import { StoredFile } from '../../model/stored-file.js';
import { Access, assertCanSee } from '../../permissions/access.js';
import { Participant, type Exchange } from '../../model/exchange.js';
import { formOf } from '../../queries/review-form.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import { LookRequestRow } from '../../model/moderation.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import { Enrolment } from '../../model/course.js';
import { practiceStates } from '../../permissions/practice.js';
import { activeParticipants } from '../../queries/participants.js';
import { Review } from '../../model/review.js';
import { ALLOCATED, isChanging, reviewState } from '../../permissions/review-state.js';

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
  async board(person: CurrentUser, exchangeId: string): Promise<ProgressView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const participants = await manager.findBy(Participant, { exchangeId });
    const labels = await PersonLabels.load(manager, context, participants);
    const drafts = await draftStates(manager, exchangeId);
    const reviews = await manager.find(Review, { where: { exchangeId, ...ALLOCATED }, order: { position: 'ASC' } });
    const askedAtFirst = completeness(await formOf(manager, context), {}, 0).required;
    const authors = await Authors.load(manager, context.exchange);
    const draftOf = new Map(drafts.flatMap((one) => authors.of(one).map((id) => [id, one] as const)));
    const draftById = new Map(drafts.map((one) => [one.draftId, one]));
    const byReviewer = groupedBy(reviews, ({ reviewerId }) => reviewerId);
    const byDraft = groupedBy(reviews, ({ draftId }) => draftId);
    const asView = (review: Review): ProgressReview => ({
      id: review.id,
      draftId: review.draftId,
      author: labels.authorOf(draftById.get(review.draftId) as DraftState),
      state: reviewState(review),
      changing: isChanging(review),
      answered: review.answered,
      required: review.begunAt === null ? askedAtFirst : review.required,
      words: review.words,
      notes: review.noteCount,
    });
    const active = new Set((await activeParticipants(manager, exchangeId)).map(({ id }) => id));
    const own = await allPersonalDates(manager, context.exchange);
    const practice = await practiceStates(manager, context.exchange);
    const waiting = await rowsOfReviews(manager, LookRequestRow, exchangeId)
      .andWhere('row.answeredAt IS NULL')
      .getMany();
    const asks = groupedBy(waiting, ({ participantId }) => participantId);
    const enrolled = await manager.find(Enrolment, {
      where: { courseId: context.course.id },
      select: { id: true, personId: true, section: true },
    });
    const sections = new Map(enrolled.map((one) => [one.personId, one.section]));
    const groups = await groupsByPerson(manager, context.course.id);
    const students = participants.filter(({ extraReviews }) => extraReviews === null);
    const rows = students.map(({ id, personId }): ProgressRow => {
      const draft = draftOf.get(id);
      const given = byReviewer.get(id) ?? [];
      const received = byDraft.get(draft?.draftId ?? '') ?? [];
      return {
        id,
        person: labels.author(id),
        draft: draftView(context.exchange, own.get(personId) ?? null, draft, authors.titleOf(draft?.groupId ?? null)),
        reviews: given.map(asView),
        practised: practice === null ? null : practisedView(practice(personId)),
        received: received.filter(({ submittedAt }) => submittedAt !== null).length,
        receives: received.length,
        dropped: !active.has(id),
        excused: own.get(personId)?.excused === true,
        words: given.reduce((sum, { words }) => sum + words, 0),
        notes: given.reduce((sum, { noteCount }) => sum + noteCount, 0),
        minutes: context.course.measuresTime
          ? Math.round(given.reduce((sum, { spentSeconds }) => sum + spentSeconds, 0) / 60)
          : null,
        workedAt: isoOrNull(lastWorked(given)),
        asks: asks.get(id)?.length ?? 0,
        section: sections.get(personId) ?? null,
        groups: groups.get(personId) ?? [],
      };
    });
    return { rows: rows.sort((a, b) => (a.person.name ?? '').localeCompare(b.person.name ?? '')) };
  }
}

/** Of every set of the course: whatever way of dividing it somebody looks by. */
async function groupsByPerson(manager: EntityManager, courseId: string): Promise<Map<string, ProgressRow['groups']>> {
  const rows = await manager
    .createQueryBuilder(GroupMemberRow, 'member')
    .innerJoin(StudentGroup, 'one', 'one.id = member.groupId')
    .innerJoin(GroupSet, 'set', 'set.id = one.setId')
    .innerJoin(Enrolment, 'enrolment', 'enrolment.id = member.enrolmentId')
    .where('set.courseId = :courseId', { courseId })
    .select(['enrolment.personId AS personId', 'one.id AS id', 'set.title AS "set"', 'one.title AS title'])
    .getRawMany<ProgressRow['groups'][number] & { readonly personId: string }>();
  const byPerson = groupedBy(rows, ({ personId }) => personId);
  return new Map(
    [...byPerson].map(([id, all]) => [id, all.map(({ id: one, set, title }) => ({ id: one, set, title }))]),
  );
}

function practisedView(states: readonly PracticeState[]): NonNullable<ProgressRow['practised']> {
  const done = states.filter((state) => hasPractised([state])).length;
  return { done, of: states.length, begun: states.some((state) => state !== 'not-begun') };
}

/** Of reviews that were written before that was kept, the last time that is known. */
function lastWorked(reviews: readonly Review[]): number | null {
  const times = reviews.map(({ workedAt, submittedAt, begunAt }) => workedAt ?? submittedAt ?? begunAt ?? 0);
  return Math.max(0, ...times) || null;
}

function draftView(
  exchange: Exchange,
  own: PersonalDates | null,
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

/** One query, with the sums in it worked out by the database. */
function draftStates(manager: EntityManager, exchangeId: string): Promise<DraftState[]> {
  const saved = manager
    .createQueryBuilder(DraftPart, 'part')
    .where('part.draftId = draft.id AND part.versionId IS NULL');
  const files = manager
    .createQueryBuilder(DraftPart, 'part')
    .innerJoin(StoredFile, 'file', 'file.digest = part.digest')
    .where('part.versionId = version.id');
  const lastSaved = saved.clone().select('MAX(part.savedAt)').getQuery();
  return manager
    .createQueryBuilder(Draft, 'draft')
    .leftJoin(DraftVersion, 'version', `version.draftId = draft.id AND version.number = ${countingNumber(manager)}`)
    .select([
      'draft.id AS draftId',
      'draft.participantId AS participantId',
      'draft.groupId AS groupId',
      'draft.alias AS alias',
      'draft.revision AS revision',
      'version.number AS version',
      'version.title AS title',
      'version.words AS words',
      'version.handedInAt AS handedInAt',
    ])
    .addSelect(`MAX(COALESCE(draft.savedAt, 0), COALESCE((${lastSaved}), 0))`, 'savedAt')
    .addSelect(`(${saved.clone().select('COUNT(*)').getQuery()})`, 'parts')
    .addSelect(`COALESCE((${files.clone().select('SUM(file.size)').getQuery()}), 0)`, 'bytes')
    .addSelect(`(${files.clone().select('COUNT(*)').andWhere("file.copyState = 'failed'").getQuery()})`, 'failed')
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .getRawMany<DraftState>();
}
