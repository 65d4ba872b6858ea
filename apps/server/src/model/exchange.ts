import type {
  AfterRule,
  CommentRule,
  Deliverable,
  FlaggingRules,
  FormItem,
  GivenGrade,
  GradePart,
  GradeRule,
  LateRule,
  NamesPolicy,
  PracticeRule,
  ReviewForm,
  SelfReview,
  Whom,
} from '@salt-circle/core';
import type { TakesPartView } from '@salt-circle/contracts';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Person } from './person.js';
import { Course, Enrolment } from './course.js';
import { StudentGroup } from './group.js';

@Entity('review_form')
export class ReviewFormRow {
  @PrimaryColumn('text')
  id: string;

  @Index('review_form_course')
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('simple-json')
  items: FormItem[];

  @Column('integer')
  revision: number;

  @Column('text', { default: 'points' })
  weighting: 'points' | 'weights';

  @Column('text', { default: 'none' })
  overall: CommentRule;

  @Column('integer', { default: 0 })
  overallWords: number;

  @Column('integer', { default: 0 })
  minimumNotes: number;

  @Column('integer', { default: 0 })
  targetNotes: number;
}

@Entity('exchange')
export class Exchange {
  @PrimaryColumn('text')
  id: string;

  @Index('exchange_course')
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  @ForeignKey(() => ReviewFormRow, { onDelete: 'RESTRICT', onUpdate: 'CASCADE' })
  formId: string;

  @Column('text')
  title: string;

  @Column('text')
  briefHtml: string;

  @Column('text')
  guideHtml: string;

  @Column('integer', { nullable: true })
  draftsOpen: number | null;

  @Column('integer', { nullable: true })
  draftsDue: number | null;

  @Column('integer', { nullable: true })
  reviewsOpen: number | null;

  @Column('integer', { nullable: true })
  selfReviewDue: number | null;

  @Column('integer', { nullable: true })
  reviewsDue: number | null;

  @Column('integer', { nullable: true })
  release: number | null;

  @Column('integer')
  reviewsPerStudent: number;

  @Column('text')
  names: NamesPolicy;

  @Column('integer', { nullable: true })
  publishedAt: number | null;

  @Column('integer')
  revision: number;

  @Column('integer')
  createdAt: number;

  @Column('integer', { nullable: true })
  lateUntil: number | null;

  @Column('integer', { nullable: true })
  checkUntil: number | null;

  @Column('integer', { nullable: true })
  repliesDue: number | null;

  @Column('integer', { nullable: true })
  revisionDue: number | null;

  @Column('simple-json', { nullable: true })
  late: LateRule | null;

  @Column('simple-json', { default: '[]' })
  deliverables: Deliverable[];

  @Column('simple-json', { default: '{"kind":"everyone","sections":[],"groupIds":[],"studentIds":[]}' })
  takesPart: TakesPartView;

  @Column('text', { default: 'alone' })
  handInAs: 'alone' | 'group';

  @Column('text', { default: 'anyone' })
  whom: Whom;

  /** Of the course; a set in use cannot be deleted. */
  @Column('text', { nullable: true })
  groupSetId: string | null;

  @Column('text', { default: 'off' })
  selfReview: SelfReview;

  @Column('boolean', { default: true })
  ownHandInFirst: boolean;

  /** Drafts are allocated every night as they come in. */
  @Column('boolean', { default: false })
  rolling: boolean;

  @Column('boolean', { default: false })
  showNamesAtRelease: boolean;

  /** Authors read each review as it is submitted. */
  @Column('boolean', { default: false })
  feedbackEach: boolean;

  /** What a reviewer has submitted stays, unless an instructor reopens it. */
  @Column('boolean', { default: false })
  reviewsFinal: boolean;

  @Column('simple-json', { default: '[]' })
  gradeParts: GradePart[];

  /** How the parts become a grade; null for the usual. */
  @Column('simple-json', { nullable: true })
  gradeRule: GradeRule | null;

  /** By which staff mark reviewing; null for the ready one. */
  @Column('simple-json', { nullable: true })
  reviewingForm: FormItem[] | null;

  /** Whether points of it are added, or weighed against each other. */
  @Column('text', { default: 'points' })
  reviewingWeighting: ReviewForm['weighting'];

  /** By which staff mark drafts from now on; null for the form of the exchange. */
  @Column('simple-json', { nullable: true })
  draftForm: ReviewForm | null;

  /** Reviewing is marked review by review, not once a person. */
  @Column('boolean', { default: false })
  reviewingEach: boolean;

  /** From when on students see their grades, apart from feedback; null: not yet. */
  @Column('integer', { nullable: true })
  gradesRelease: number | null;

  /** A shorthand set of the course's library. */
  @Column('text', { nullable: true })
  shorthandId: string | null;

  /** Which flags a review gets; null for the usual. */
  @Column('simple-json', { nullable: true })
  flaggingRules: FlaggingRules | null;

  /** Of the practice drafts of this exchange. */
  @Column('simple-json', { default: '{"when":"off","tries":null,"closeEnough":null}' })
  practice: PracticeRule;

  /** What comes after the release. */
  @Column('simple-json', {
    default: '{"ratings":"staff","reflection":null,"othersReviews":false,"revisionShown":false}',
  })
  after: AfterRule;

  /** Hours before a due time at which whoever has not done it is reminded without being asked; null: never. */
  @Column('integer', { nullable: true })
  remindHours: number | null;

  /** Up to when that was done. */
  @Column('integer', { nullable: true })
  remindedUntil: number | null;

  /** The exchange whose revisions are reviewed here, and whose feedback stands beside them; null for most. */
  @Column('text', { nullable: true })
  followsId: string | null;

  /** Its reviewers read all feedback of that one on the drafts that they get, not only what they wrote themselves. */
  @Column('boolean', { default: false })
  earlierShown: boolean;

  /**
   * The exchange that this one holds a practice draft for; null for every other. It is never published: its dates, its form and who
   * takes part are those of that one, and no list of exchanges has it.
   */
  @Index('exchange_practice')
  @Column('text', { nullable: true })
  practiceOf: string | null;

  /** Of a practice draft that a student wrote: how its author agreed, in words of whoever took it. */
  @Column('text', { nullable: true })
  practiceConsent: string | null;
}

/** Due times of one student or one group that differ from the common ones, or an excuse. */
@Entity('personal_dates')
@Unique('personal_dates_student', ['exchangeId', 'enrolmentId'])
@Unique('personal_dates_group', ['exchangeId', 'groupId'])
export class PersonalDatesRow {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** Exactly one of the two is set. */
  @Column('text', { nullable: true })
  @ForeignKey(() => Enrolment, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  enrolmentId: string | null;

  @Column('text', { nullable: true })
  @ForeignKey(() => StudentGroup, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  groupId: string | null;

  @Column('integer', { nullable: true })
  draftsDue: number | null;

  @Column('integer', { nullable: true })
  reviewsDue: number | null;

  @Column('integer', { nullable: true })
  repliesDue: number | null;

  @Column('integer', { nullable: true })
  revisionDue: number | null;

  @Column('boolean', { default: false })
  excused: boolean;

  @Column('text', { default: '' })
  reason: string;
}

/**
 * A person's part in one exchange. Its id and alias are random: they stand for the person wherever
 * the name is hidden, and nothing of the person can be told from them.
 */
@Entity('participant')
@Unique('participant_once', ['exchangeId', 'personId'])
@Unique('participant_alias', ['exchangeId', 'alias'])
export class Participant {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Index('participant_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('text')
  alias: string;

  /** Of somebody of the staff who reviews as well: how many reviews. Null for students. */
  @Column('integer', { nullable: true })
  extraReviews: number | null;

  /** When the feedback was first looked at; null before. */
  @Column('integer', { nullable: true })
  feedbackReadAt: number | null;

  /** Since when this author reads it, before all others; null: with them. */
  @Column('integer', { nullable: true })
  feedbackFrom: number | null;

  /** Why it is held back from this author; null: it is not. */
  @Column('text', { nullable: true })
  feedbackHeld: string | null;

  /** Since when this one sees the own grade, before all others; null: with them. */
  @Column('integer', { nullable: true })
  gradeFrom: number | null;

  /** The grade that was last told of: another one is a correction. Null before. */
  @Column('simple-json', { nullable: true })
  gradeTold: GivenGrade | null;

  /** When the grade was first looked at; null before. */
  @Column('integer', { nullable: true })
  gradeReadAt: number | null;

  /** When a mail said that there is feedback, or there was none to tell of; null before. */
  @Column('integer', { nullable: true })
  feedbackToldAt: number | null;
}
