import type { AllocationPlan, AllocationStep, ForbiddenPair } from '../../../model/allocation.js';
import type { ExchangeAttachment } from '../../../model/attachment.js';
import type { LookRequestRow, ReviewCheck, Withheld } from '../../../model/moderation.js';
import type { Course, Enrolment } from '../../../model/course.js';
import type { Draft, DraftPart, DraftPicture, DraftVersion } from '../../../model/draft.js';
import type { Exchange, PersonalDatesRow, Participant, ReviewFormRow } from '../../../model/exchange.js';
import type { GradeOverrideRow, GradingTask, ReviewingMark } from '../../../model/grade.js';
import type { GroupMemberRow, GroupSet, StudentGroup } from '../../../model/group.js';
import type { LibraryItem } from '../../../model/library.js';
import type { PracticeTry } from '../../../model/practice.js';
import type { AuditEntry } from '../../../model/audit-entry.js';
import type { RatingRow, ReplyRow } from '../../../model/reply.js';
import type { AnswerRow, NoteRow, Review, SubmittedReview } from '../../../model/review.js';
import type { ReviewFile } from '../../../model/review-file.js';
import type { AdoptionRow, DecisionRow, ReflectionRow } from '../../../model/revision.js';
import type { StoredFile } from '../../../model/stored-file.js';

/**
 * A line of each file in `rows/`, as JSON. What belongs to one installation alone is left out: the course, numbers that a table gives by
 * itself, uploads, and the round before.
 */
export interface ArchiveRows {
  /** People as the course lists them, staff and whoever takes part. */
  enrolment: Omit<Enrolment, 'courseId' | 'source' | 'ltiUser'>;
  group_set: Omit<GroupSet, 'courseId'>;
  student_group: StudentGroup;
  group_member: GroupMemberRow;
  /** The set of labels that the exchange uses. */
  library_item: Omit<LibraryItem<'shorthand'>, 'courseId'>;
  review_form: Omit<ReviewFormRow, 'courseId'>;
  /** The exchange, and its practice drafts, each an exchange of its own. */
  exchange: Omit<Exchange, 'courseId' | 'followsId'>;
  own_times: PersonalDatesRow;
  participant: Participant;
  draft: Omit<Draft, 'followsId'>;
  draft_version: DraftVersion;
  draft_part: Omit<DraftPart, 'uploadId'>;
  draft_picture: DraftPicture;
  exchange_attachment: Omit<ExchangeAttachment, 'uploadId'>;
  review: Review;
  submitted_review: SubmittedReview;
  answer: AnswerRow;
  note: NoteRow;
  review_file: Omit<ReviewFile, 'uploadId'>;
  review_check: ReviewCheck;
  withheld: Withheld;
  look_request: LookRequestRow;
  reply: ReplyRow;
  rating: RatingRow;
  decision: DecisionRow;
  adoption: AdoptionRow;
  reflection: ReflectionRow;
  grade_override: GradeOverrideRow;
  reviewing_mark: ReviewingMark;
  grading_task: GradingTask;
  practice_try: PracticeTry;
  allocation_plan: AllocationPlan;
  forbidden_pair: Omit<ForbiddenPair, 'id'>;
  allocation_step: Omit<AllocationStep, 'id'>;
  record: Omit<AuditEntry, 'id' | 'courseId'>;
  /** A file in `files/`, under its digest (SHA-256). */
  stored_file: Pick<StoredFile, 'digest' | 'size' | 'mime' | 'family'>;
}

export type ArchivedTable = keyof ArchiveRows;

/** `manifest.json`: what the archive is, and what it holds. */
export interface ArchiveManifest {
  /** Says of a ZIP that it is such an archive. */
  readonly format: 'salt-circle-exchange';
  /** Of the format. A newer one is not read by an older application; an older one is filled in. */
  readonly version: number;
  readonly madeAt: string;
  readonly title: string;
  /** `names`: as the course lists people. `aliases`: for research; dates are moved, and names in texts are hidden where they were found. */
  readonly people: 'names' | 'aliases';
  /** Whether what was handed in is there: texts, files, and the words that notes stand on. */
  readonly drafts: boolean;
  readonly course: Pick<Course, 'title' | 'timeZone' | 'holidays' | 'measuresTime'>;
  /** Lines of each file in `rows/`. */
  readonly rows: Readonly<Record<string, number>>;
}

/** Everything that is described by the schema. */
export interface ExchangeArchive {
  readonly manifest: ArchiveManifest;
  readonly rows: ArchiveRows;
}
