import type { WithheldView } from './moderation.js';
import type {
  Check,
  DateName,
  FileFamily,
  Deliverable,
  GradePart,
  LateRule,
  NamesPolicy,
  Place,
  ProposedEdit,
  ReviewForm,
  Role,
  SelfReview,
  Stage,
  NeedKind,
  StudentStatus,
} from '@salt-circle/core';
import type { NoteKind } from '../noteKinds.js';
import type { ShorthandEntry } from './shorthand.js';
import type { DraftReading } from './drafts.js';
import type { IsoInstant, PersonLabel } from './person.js';

export interface SessionView {
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly createsCourses: boolean;
    /** Whether the person sees to platforms. */
    readonly runsPlatforms: boolean;
  } | null;
  readonly demo: boolean;
  /** Whether mail leaves this server, or can be read in the demo. */
  readonly mail: boolean;
  /** The application's time, which the demo can move. */
  readonly now: IsoInstant;
  readonly clockMoved: boolean;
  /** Set while somebody of the staff looks with a student's eyes: who looks, at which exchange, and as whom. */
  readonly viewAs: ViewAsView | null;
}

export interface ViewAsView {
  readonly by: string;
  readonly as: string;
  readonly exchangeId: string;
  /** An invented student, for an exchange that nobody takes part in yet. */
  readonly example: boolean;
}

export interface DemoPerson {
  readonly id: string;
  readonly name: string;
  readonly places: ReadonlyArray<{ readonly course: string; readonly role: Role }>;
}

export type DatesView = Readonly<Record<DateName, IsoInstant | null>>;

export interface NextChangeView {
  readonly date: DateName;
  readonly at: IsoInstant;
}

export interface CourseCard {
  readonly id: string;
  readonly title: string;
  readonly timeZone: string;
  readonly role: Role;
}

export interface ExchangeCard {
  readonly id: string;
  readonly title: string;
  readonly published: boolean;
  readonly stage: Stage;
  readonly dates: DatesView;
  readonly next: NextChangeView | null;
}

export interface CourseView extends CourseCard {
  readonly exchanges: readonly ExchangeCard[];
  readonly holidays: ReadonlyArray<{ readonly title: string; readonly from: string; readonly to: string }>;
  /** Whether the time that reviewers are at work is measured. */
  readonly measuresTime: boolean;
  /** For instructors and assistants only. */
  readonly students: number | null;
}

export interface StaffFigures {
  readonly students: number;
  readonly handedIn: number;
  readonly allocated: number;
  readonly asked: number;
  readonly submitted: number;
  readonly begun: number;
}

export interface StudentMarks {
  readonly draft: 'none' | 'saved' | 'handed-in';
  readonly savedSinceHandIn: boolean;
  readonly versions: number;
  readonly reviewsDone: number;
  readonly reviewsAllocated: number;
  readonly reviewsReceived: number | null;
  /** A revision is handed in. */
  readonly revised: boolean;
  /** The reflection is handed in. */
  readonly reflected: boolean;
}

export interface PersonalDatesPart {
  readonly draftsDue: IsoInstant | null;
  readonly reviewsDue: IsoInstant | null;
  readonly repliesDue: IsoInstant | null;
  readonly revisionDue: IsoInstant | null;
  readonly excused: boolean;
}

export type AttachmentPlace = 'brief' | 'guide';

/** A file that is given with the brief or the guide. */
export interface AttachmentCard {
  readonly id: string;
  readonly place: AttachmentPlace;
  readonly name: string;
  /** Bytes. */
  readonly size: number;
}

export interface ExchangeView extends ExchangeCard {
  readonly course: CourseCard;
  readonly names: NamesPolicy;
  readonly reviewsPerStudent: number;
  readonly selfReview: SelfReview;
  readonly deliverables: readonly Deliverable[];
  readonly late: LateRule | null;
  readonly gradeParts: readonly GradePart[];
  readonly briefHtml: string;
  readonly guideHtml: string;
  readonly attachments: readonly AttachmentCard[];
  readonly alias: string | null;
  readonly mayHandIn: boolean;
  /** Handing in now counts as late. */
  readonly handInIsLate: boolean;
  readonly mayReview: boolean;
  /** The review of the own draft can be submitted. */
  readonly maySelfReview: boolean;
  /** A revision can be handed in by the one who asks. */
  readonly mayRevise: boolean;
  readonly mayReflect: boolean;
  /** Authors are asked to think their feedback over. */
  readonly reflection: boolean;
  /** Reviewers see what became of the drafts that they reviewed, and the other reviews of them. */
  readonly revisionShown: boolean;
  readonly othersReviews: boolean;
  /** Its drafts are the revisions of another exchange: nobody hands in here. */
  readonly secondRound: boolean;
  /** The one who asks can see the own grade; null for staff, and where there is none to come. */
  readonly gradeOpen: boolean | null;
  /** From when on students see their grades; null: not yet said. */
  readonly gradesRelease: IsoInstant | null;
  readonly released: boolean;
  /** Authors can read what has been submitted: since the release, or review by review. */
  readonly feedbackOpen: boolean;
  /** The feedback of the one who asks is held back for now. */
  readonly feedbackHeld: boolean;
  /** Due times of the one who asks that differ from the common ones, and whether that one is excused. */
  readonly own: PersonalDatesPart | null;
  /** Practice drafts that a student can try, and how many of them are behind that one; null without any, and for staff. */
  readonly practice: { readonly done: number; readonly of: number; readonly first: boolean } | null;
  readonly figures: StaffFigures | null;
  readonly marks: StudentMarks | null;
}

export type ReviewState = 'not-begun' | 'in-progress' | 'submitted';

export interface ReviewCard {
  readonly id: string;
  readonly author: PersonLabel;
  readonly draftTitle: string;
  readonly draftId: string;
  /** The revision of it can be looked at, and what others wrote about it. */
  readonly revision: boolean;
  readonly others: boolean;
  /** Of the reviewer's own draft. */
  readonly self: boolean;
  /** Not to be opened yet: the self-review comes first. */
  readonly waits: boolean;
  readonly state: ReviewState;
  /** Submitted, and being changed: it counts as it was until it is submitted again. */
  readonly changing: boolean;
  readonly answered: number;
  readonly required: number;
  readonly notes: number;
}

export interface AnswerView {
  readonly levelId: string | null;
  readonly text: string;
  readonly next: string;
  readonly value: number | null;
  readonly checks: Readonly<Record<string, Check>>;
  readonly choices: readonly string[];
  readonly revision: number;
}

/** A place in a draft that has versions. */
export interface VersionPlace extends Place {
  /** Number of the version, from 1. */
  readonly version: number;
}

export interface NoteView {
  readonly id: string;
  readonly kind: NoteKind;
  readonly body: string;
  readonly place: VersionPlace;
  /** What it proposes to do with its passage. */
  readonly edit: ProposedEdit | null;
  /** The item of the form that it is filed under. */
  readonly itemId: string | null;
  readonly revision: number;
}

/** A name in what a reviewer wrote: under an item of the form, or in a note. */
export interface ReviewNameView {
  readonly itemId: string | null;
  readonly noteId: string | null;
  /** As it stands there. */
  readonly exact: string;
  /** The reviewer's own; else of somebody of the course. */
  readonly own: boolean;
}

/** What was found of names in a review, and how far it was looked for. */
export interface ReviewNamesView {
  /** What the exchange hides. */
  readonly policy: NamesPolicy;
  /** None where names are shown, in the review of one's own draft, and in a review that is not one's own. Of a very long one the beginning. */
  readonly searched: 'all' | 'beginning' | 'none';
  /** Attached files that have no text to be looked through: pictures and recordings, and those that are still being read. */
  readonly unread: number;
  readonly names: readonly ReviewNameView[];
}

/** A remark of one's own from an earlier review. */
export interface OwnRemarkView {
  readonly id: string;
  readonly title: string;
  readonly body: string;
  /** Where it was first written. */
  readonly courseTitle: string;
  readonly uses: number;
}

/** A file or a spoken remark that goes with a note or an answer. */
export interface ReviewFileCard {
  readonly id: string;
  /** What it goes with: one of the two. */
  readonly itemId: string | null;
  readonly noteId: string | null;
  /** As it came, for its reviewer and for staff; a neutral one for the author. */
  readonly name: string;
  readonly family: FileFamily | 'captions';
}

export interface ReviewContent {
  /** By which staff wrote it, where that is not the form of the exchange. */
  readonly form?: ReviewForm;
  readonly files: readonly ReviewFileCard[];
  readonly answers: Readonly<Record<string, AnswerView>>;
  readonly notes: readonly NoteView[];
}

export interface DeskView extends ReviewContent {
  readonly id: string;
  readonly exchange: {
    readonly id: string;
    readonly title: string;
    readonly courseId: string;
    readonly courseTitle: string;
    readonly timeZone: string;
    readonly guideHtml: string;
    readonly briefHtml: string;
    readonly attachments: readonly AttachmentCard[];
    /** Null while an exchange is planned and has no dates. */
    readonly reviewsDue: IsoInstant | null;
    readonly stage: Stage;
  };
  readonly author: PersonLabel;
  readonly reviewer: PersonLabel;
  readonly self: boolean;
  readonly shorthand: readonly ShorthandEntry[];
  /** The version that this review is of. */
  readonly draft: DraftReading;
  /** The author has handed in another version since this review was begun; it stays with the one it began on. */
  readonly overtaken: boolean;
  readonly form: ReviewForm;
  readonly submittedAt: IsoInstant | null;
  /** What was submitted is being changed; it counts as it was until it is submitted again. */
  readonly changing: boolean;
  /** Whether the one who asks may write in it now. */
  readonly editable: boolean;
  /** False once reviews are due: what is written stays, but no longer counts. */
  readonly submittable: boolean;
  readonly reopenable: boolean;
  /** Seconds that its reviewer was at work on it; null where that is not measured, or not for the one who asks. */
  readonly spentSeconds: number | null;
  /** As whom somebody of the staff writes it under the own name; null for an allocated review. */
  readonly voice: 'instructor' | 'assistant' | null;
  /** The draft is a revision that is reviewed once more: there is earlier feedback on it. */
  readonly earlier: boolean;
  /** Why an instructor reopened it; null where none did. */
  readonly reopenReason: string | null;
  /** Until when it can be submitted again, where the instructor said so. */
  readonly reopenUntil: IsoInstant | null;
  /** Place among the reviews of this reviewer, from 1, and the next one of them to work on. */
  readonly position: number;
  readonly total: number;
  readonly nextId: string | null;
  /** The one who asks may look through it for staff, and keep things of it from its author. */
  readonly checkable: boolean;
  /** What of it is kept from the author: all that is for staff, for its reviewer what they were told. */
  readonly withheld: readonly WithheldView[];
  /** Of a practice draft: which it is, the exchange that it practises for, and whether this is its key. */
  readonly practice: { readonly id: string; readonly forId: string; readonly key: boolean } | null;
}

export interface FeedbackView {
  /** The versions that the reviews are of, the newest first; without reviews the one that counts. Empty: none was handed in. */
  readonly drafts: readonly DraftReading[];
  readonly form: ReviewForm;
  readonly reviews: ReadonlyArray<
    ReviewContent & {
      readonly id: string;
      readonly reviewer: PersonLabel;
      readonly self: boolean;
      /** Number of the version that it is of. */
      readonly version: number;
    }
  >;
  /** Reviews that were allocated but not submitted. */
  readonly missing: number;
}

/** What was written about a draft, for staff: also what its author does not read. */
export interface DraftFeedbackView extends FeedbackView {
  readonly author: PersonLabel;
  /** The review of whoever asks, under the own name, as far as it is; null before it is begun. */
  readonly ownId: string | null;
  readonly mayReview: boolean;
  readonly withheld: ReadonlyArray<Omit<WithheldView, 'staff'> & { readonly reviewId: string }>;
}

export type TodayKind = NeedKind | 'mend-allocation' | 'look-at-allocation';

export interface TodayItem {
  readonly kind: TodayKind;
  readonly exchangeId: string;
  readonly exchangeTitle: string;
  readonly courseTitle: string;
  readonly timeZone: string;
  /** When it must be done by, if at all. */
  readonly due: IsoInstant | null;
  readonly reviewId: string | null;
  readonly done: number;
  readonly of: number;
}

export interface WaitingItem {
  readonly exchangeId: string;
  readonly exchangeTitle: string;
  readonly courseTitle: string;
  readonly timeZone: string;
  readonly role: Role;
  readonly next: NextChangeView;
  /** Of a student: how far what was asked is done. */
  readonly standing: StudentStatus;
}

export interface TodayView {
  readonly items: readonly TodayItem[];
  readonly waiting: readonly WaitingItem[];
}

/** A date that was moved; null for one that was or is not set. */
export interface AuditMove {
  readonly date: DateName;
  readonly from: IsoInstant | null;
  readonly to: IsoInstant | null;
}

/** An override: shares from 0 to 1; null where nothing was overridden, or what was before is not on record. */
export interface AuditGrade {
  /** A part of the grade, or `whole`. */
  readonly part: string;
  readonly from: number | null;
  readonly to: number | null;
}

/** An entry of the audit log: who did what to whom, from what to what, and why. */
export interface AuditRow {
  readonly id: number;
  readonly at: IsoInstant;
  readonly actor: string;
  readonly action: string;
  /** Whom it concerns; of a review the reviewer, then the authors of the draft. */
  readonly about: readonly string[];
  readonly moved: readonly AuditMove[];
  readonly grade: AuditGrade | null;
  /** Names of settings that changed. */
  readonly changed: readonly string[];
  readonly reason: string | null;
}

export interface SubmitView {
  readonly submittedAt: IsoInstant;
}
