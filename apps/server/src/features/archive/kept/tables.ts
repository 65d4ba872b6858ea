import type { EntityMetadata, EntityTarget, ObjectLiteral } from 'typeorm';
import { AllocationPlan, AllocationStep, ForbiddenPair } from '../../../model/allocation.js';
import { ExchangeAttachment } from '../../../model/attachment.js';
import { LookRequestRow, ReviewCheck, Withheld } from '../../../model/moderation.js';
import { Enrolment } from '../../../model/course.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../../model/draft.js';
import { Exchange, PersonalDatesRow, Participant, ReviewFormRow } from '../../../model/exchange.js';
import { GradeOverrideRow, GradingTask, ReviewingMark } from '../../../model/grade.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../../model/group.js';
import { LibraryItem } from '../../../model/library.js';
import { PracticeTry } from '../../../model/practice.js';
import { AuditEntry } from '../../../model/audit-entry.js';
import { RatingRow, ReplyRow } from '../../../model/reply.js';
import { AnswerRow, NoteRow, Review, SubmittedReview } from '../../../model/review.js';
import { ReviewFile } from '../../../model/review-file.js';
import { AdoptionRow, DecisionRow, ReflectionRow } from '../../../model/revision.js';
import { FileContent, StoredFile } from '../../../model/stored-file.js';
import type { ArchivedTable } from './rows.js';

/** One archived table: which rows belong to an exchange, and which of its columns mean something elsewhere. */
export interface TableOf {
  readonly name: ArchivedTable;
  readonly entity: EntityTarget<ObjectLiteral>;
  /** In SQL, on the sets of `SETS`. */
  readonly where: string;
  /** Columns of the archive alone, where not all but those of `HERE_ALONE` are. */
  readonly columns?: readonly string[];
  /** Columns with an id of another row that the database does not hold to: null where that row is not there. */
  readonly ids?: readonly string[];
  /** Columns with rich text, cleaned like all that comes in. */
  readonly html?: readonly string[];
  /** Columns with words that people wrote, searched for names where those are hidden. */
  readonly words?: readonly string[];
  /** Columns with what was handed in. */
  readonly drafts?: readonly string[];
}

/** Ids of what belongs to the exchange `@id` and its practice drafts. */
export const SETS = `WITH
  these(id) AS (SELECT id FROM exchange WHERE id = @id OR practiceOf = @id),
  here(id) AS (SELECT courseId FROM exchange WHERE id = @id),
  parts(id) AS (SELECT id FROM participant WHERE exchangeId IN (SELECT id FROM these)),
  drafts(id) AS (SELECT id FROM draft WHERE exchangeId IN (SELECT id FROM these)),
  reviews(id) AS (SELECT id FROM review WHERE exchangeId IN (SELECT id FROM these)),
  sets(id) AS (SELECT groupSetId FROM exchange WHERE id IN (SELECT id FROM these) AND groupSetId IS NOT NULL),
  people(id) AS (
    SELECT id FROM enrolment WHERE courseId IN (SELECT id FROM here) AND (
      role <> 'student'
      OR personId IN (SELECT personId FROM participant WHERE exchangeId IN (SELECT id FROM these))
      OR id IN (SELECT enrolmentId FROM group_member WHERE setId IN (SELECT id FROM sets))
      OR id IN (SELECT enrolmentId FROM personal_dates WHERE exchangeId IN (SELECT id FROM these)))),
  files(digest) AS (
    SELECT digest FROM draft_part WHERE draftId IN (SELECT id FROM drafts) AND digest IS NOT NULL
    UNION SELECT captions FROM draft_part WHERE draftId IN (SELECT id FROM drafts) AND captions IS NOT NULL
    UNION SELECT digest FROM draft_picture WHERE draftId IN (SELECT id FROM drafts)
    UNION SELECT digest FROM exchange_attachment WHERE exchangeId IN (SELECT id FROM these)
    UNION SELECT digest FROM review_file WHERE reviewId IN (SELECT id FROM reviews))`;

/** Of one installation: the course, what a table numbers itself, uploads, the round before, and what a place has from a platform. */
export const HERE_ALONE: ReadonlySet<string> = new Set(['courseId', 'uploadId', 'followsId', 'source', 'ltiUser']);

const OF_EXCHANGES = 'exchangeId IN (SELECT id FROM these)';
const OF_PARTICIPANTS = 'participantId IN (SELECT id FROM parts)';
const OF_DRAFTS = 'draftId IN (SELECT id FROM drafts)';
const OF_REVIEWS = 'reviewId IN (SELECT id FROM reviews)';

/** In an order in which each row comes after those that it names. */
export const TABLES: readonly TableOf[] = [
  { name: 'enrolment', entity: Enrolment, where: 'id IN (SELECT id FROM people)' },
  { name: 'group_set', entity: GroupSet, where: 'id IN (SELECT id FROM sets)' },
  { name: 'student_group', entity: StudentGroup, where: 'setId IN (SELECT id FROM sets)' },
  { name: 'group_member', entity: GroupMemberRow, where: 'setId IN (SELECT id FROM sets)' },
  {
    ...{ name: 'library_item', entity: LibraryItem },
    where: "kind = 'shorthand' AND id IN (SELECT shorthandId FROM exchange WHERE id IN (SELECT id FROM these))",
  },
  {
    ...{ name: 'review_form', entity: ReviewFormRow },
    where: 'id IN (SELECT formId FROM exchange WHERE id IN (SELECT id FROM these))',
  },
  {
    ...{ name: 'exchange', entity: Exchange, where: 'id IN (SELECT id FROM these)' },
    ids: ['groupSetId', 'shorthandId', 'practiceOf'],
    html: ['briefHtml', 'guideHtml'],
  },
  { name: 'own_times', entity: PersonalDatesRow, where: OF_EXCHANGES, words: ['reason'] },
  { name: 'participant', entity: Participant, where: OF_EXCHANGES, words: ['feedbackHeld'] },
  {
    ...{ name: 'draft', entity: Draft, where: OF_EXCHANGES, ids: ['groupId'] },
    ...{ words: ['title', 'context'], drafts: ['title', 'context'] },
  },
  {
    ...{ name: 'draft_version', entity: DraftVersion, where: OF_DRAFTS, ids: ['handedInBy'] },
    ...{ words: ['title', 'context', 'changes'], drafts: ['title', 'context'] },
  },
  {
    ...{ name: 'draft_part', entity: DraftPart, where: OF_DRAFTS, html: ['html'] },
    ...{ words: ['html', 'title', 'about', 'name', 'url'], drafts: ['html', 'url', 'title', 'about', 'name'] },
  },
  { name: 'draft_picture', entity: DraftPicture, where: OF_DRAFTS },
  { name: 'exchange_attachment', entity: ExchangeAttachment, where: OF_EXCHANGES, words: ['name'] },
  { name: 'review', entity: Review, where: OF_EXCHANGES, ids: ['versionId'], words: ['reopenReason'] },
  { name: 'submitted_review', entity: SubmittedReview, where: OF_REVIEWS, words: ['answers', 'notes'] },
  { name: 'answer', entity: AnswerRow, where: OF_REVIEWS, words: ['text', 'next'] },
  { name: 'note', entity: NoteRow, where: OF_REVIEWS, words: ['body', 'edit', 'selector'] },
  { name: 'review_file', entity: ReviewFile, where: OF_REVIEWS, ids: ['noteId'], words: ['name'] },
  { name: 'review_check', entity: ReviewCheck, where: OF_REVIEWS, words: ['dismissed'] },
  { name: 'withheld', entity: Withheld, where: OF_REVIEWS, words: ['reason'] },
  { name: 'look_request', entity: LookRequestRow, where: OF_REVIEWS, ids: ['noteId'], words: ['words', 'answer'] },
  { name: 'reply', entity: ReplyRow, where: OF_REVIEWS, ids: ['noteId'], words: ['words'] },
  { name: 'rating', entity: RatingRow, where: OF_REVIEWS, words: ['words'] },
  { name: 'decision', entity: DecisionRow, where: OF_DRAFTS, words: ['why'] },
  {
    ...{ name: 'adoption', entity: AdoptionRow, where: OF_DRAFTS, html: ['before', 'after'] },
    ...{ words: ['before', 'after'], drafts: ['before', 'after'] },
  },
  { name: 'reflection', entity: ReflectionRow, where: OF_PARTICIPANTS, words: ['texts'] },
  { name: 'grade_override', entity: GradeOverrideRow, where: OF_PARTICIPANTS, words: ['reason'] },
  { name: 'reviewing_mark', entity: ReviewingMark, where: OF_PARTICIPANTS, words: ['answers'] },
  { name: 'grading_task', entity: GradingTask, where: OF_PARTICIPANTS },
  { name: 'practice_try', entity: PracticeTry, where: OF_REVIEWS, words: ['answers', 'notes'] },
  { name: 'allocation_plan', entity: AllocationPlan, where: OF_EXCHANGES },
  { name: 'forbidden_pair', entity: ForbiddenPair, where: OF_EXCHANGES },
  { name: 'allocation_step', entity: AllocationStep, where: OF_EXCHANGES },
  { name: 'record', entity: AuditEntry, where: OF_EXCHANGES, ids: ['actorId', 'exchangeId'], words: ['details'] },
  {
    ...{ name: 'stored_file', entity: StoredFile, where: 'digest IN (SELECT digest FROM files)' },
    columns: ['digest', 'size', 'mime', 'family'],
  },
];

/** What an exchange has and its archive leaves out, with the reason. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  person: 'accounts are of one installation; people come as the course lists them',
  course: 'a few lines of it stand in the manifest',
  session: 'of an account',
  password_link: 'of an account',
  address_change: 'of an account',
  access_token: 'of an account',
  calendar_link: 'of an account',
  own_remark: 'of an account: what somebody uses in all reviews',
  invitation: 'lets somebody into this course alone',
  mail: 'was sent from here',
  news: 'was told here',
  allocation_preview: 'is made anew',
  file_content: 'what lies in the file store of the installation',
  file_picture: 'is made anew with the reading copy',
  setting: 'of the installation',
  lti_platform: 'of the installation',
  lti_deployment: 'of the installation',
  lti_key: 'of the installation, and secret',
  lti_registration: 'of the installation',
  lti_login: 'a browser on its way',
  lti_arrival: 'a browser on its way',
  lti_person: 'of an account',
  lti_proof: 'of an account',
  lti_course: 'links this course alone',
  lti_link: 'links this course alone',
  lti_line_item: 'what this platform was told',
  lti_score: 'what this platform was told',
};

/** The columns of a table that are in the archive, by their names there. */
export function columnsOf(table: TableOf, metadata: EntityMetadata): EntityMetadata['columns'] {
  return metadata.columns.filter(
    ({ propertyName, isGenerated }) =>
      !isGenerated &&
      !HERE_ALONE.has(propertyName) &&
      (table.columns === undefined || table.columns.includes(propertyName)),
  );
}

/** Columns with the id of a row: its own, or another one’s. */
export function idColumnsOf(table: TableOf, metadata: EntityMetadata): string[] {
  const own = metadata.primaryColumns
    .filter(({ propertyName }) => propertyName === 'id')
    .map((one) => one.propertyName);
  const others = rowReferencesOf(metadata).flatMap(({ columnNames }) => columnNames);
  return [...new Set([...own, ...others, ...(table.ids ?? [])])].filter((name) => name !== 'courseId');
}

/** Foreign keys that lead to a row by its id. Files go by their digest, which is the same everywhere. */
export function rowReferencesOf({ foreignKeys }: EntityMetadata): EntityMetadata['foreignKeys'] {
  return foreignKeys.filter(
    ({ referencedEntityMetadata: { target } }) => target !== StoredFile && target !== FileContent,
  );
}

export interface PlainColumn {
  readonly name: string;
  /** Its name in the database. */
  readonly kept: string;
  readonly type: string;
}

/** A table without the tools of the database: it can go into a thread. */
export interface PlainTable extends Omit<TableOf, 'entity' | 'columns'> {
  readonly tableName: string;
  readonly columns: readonly PlainColumn[];
  /** Columns by which its rows follow each other. */
  readonly order: readonly string[];
  /** Columns with the id of a row: its own, or another one’s. */
  readonly idColumns: readonly string[];
}

export function plainTables(metadataOf: (table: TableOf) => EntityMetadata): PlainTable[] {
  return TABLES.map((table) => {
    const metadata = metadataOf(table);
    const { entity: _, ...rest } = table;
    return {
      ...rest,
      tableName: metadata.tableName,
      columns: columnsOf(table, metadata).map(({ propertyName, databaseName, type }) => ({
        name: propertyName,
        kept: databaseName,
        type: typeof type === 'function' ? 'integer' : type,
      })),
      order: metadata.primaryColumns.map(({ databaseName }) => databaseName),
      idColumns: idColumnsOf(table, metadata),
    };
  });
}
