import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  DELIVERABLE_KINDS,
  FILE_FAMILIES,
  GRADE_PARTS,
  DATE_ORDER,
  type DateName,
  type DeliverableKind,
  type FileFamily,
  type GradePartName,
  type NamesPolicy,
  type SelfReview,
  type Whom,
} from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { AfterRuleRequest } from './after.js';
import { PracticeRuleRequest } from './practice.js';
import { MayBeMissing } from './mayBeMissing.js';
import { DATE_MESSAGE, NOT_BLANK, TITLE_MESSAGE } from './exchange.js';
import { say } from '../words/requests.js';

/** ISO 8601 instants with an offset, or null where left blank. */
export class DatesRequest {
  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  draftsOpen!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  draftsDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  lateUntil!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  reviewsOpen!: string | null;

  /** Not there in what a page kept unsent from before there was such a date. */
  @IsOptional()
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  selfReviewDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  reviewsDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  checkUntil!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  release!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  repliesDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  revisionDue!: string | null;
}

export class LateRequest {
  @IsNumber({}, { message: () => say('whatLateHandInLoses') })
  amount!: number;

  @IsIn(['points', 'percent'])
  unit!: 'points' | 'percent';

  @IsIn(['once', 'day'])
  per!: 'once' | 'day';

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: () => say('mostThatCanBeLost') })
  cap!: number | null;

  @IsNumber({}, { message: () => say('gracePeriodIsNumberOf') })
  graceMinutes!: number;
}

export class DeliverableRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsIn(DELIVERABLE_KINDS)
  kind!: DeliverableKind;

  @IsString()
  @MaxLength(LIMITS.title, { message: () => say('keepTitleUnderCharactersOf', { title: LIMITS.title }) })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('keepDescriptionUnderCharactersOf', { guidance: LIMITS.guidance }) })
  description!: string;

  @IsBoolean()
  required!: boolean;

  @IsArray()
  @IsIn(FILE_FAMILIES, { each: true })
  families!: FileFamily[];

  @IsInt({ message: () => say('largestSizeIsWholeNumber') })
  maxMegabytes!: number;
}

export class TakesPartRequest {
  @IsIn(['everyone', 'chosen', 'except'])
  kind!: 'everyone' | 'chosen' | 'except';

  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  sections!: string[];

  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  groupIds!: string[];

  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  studentIds!: string[];
}

export class GradePartRequest {
  @IsIn(GRADE_PARTS)
  part!: GradePartName;

  @IsNumber({}, { message: () => say('weightIsNumber') })
  weight!: number;
}

const NAMES_POLICIES: readonly NamesPolicy[] = ['both-ways', 'reviewers-only', 'authors-only', 'open'];
const WHOM: readonly Whom[] = ['anyone', 'own-group', 'other-groups', 'partners'];
const SELF: readonly SelfReview[] = ['off', 'first', 'with', 'after'];
const REVIEWS_MESSAGE = {
  message: () =>
    say('eachStudentCanGiveTo', {
      reviewsPerStudentMin: LIMITS.reviewsPerStudentMin,
      reviewsPerStudentMax: LIMITS.reviewsPerStudentMax,
    }),
};

/** All settings of an exchange at once, with the revision they were read at. */
export class PlanRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsString()
  @MaxLength(LIMITS.settingsHtml, { message: () => say('briefIsTooLongTo') })
  briefHtml!: string;

  @IsString()
  @MaxLength(LIMITS.settingsHtml, { message: () => say('guideIsTooLongTo') })
  guideHtml!: string;

  @IsObject()
  @ValidateNested()
  @Type(() => DatesRequest)
  dates!: DatesRequest;

  @ValidateIf((_, value) => value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => LateRequest)
  late!: LateRequest | null;

  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => DeliverableRequest)
  deliverables!: DeliverableRequest[];

  @IsObject()
  @ValidateNested()
  @Type(() => TakesPartRequest)
  takesPart!: TakesPartRequest;

  @IsIn(['alone', 'group'])
  handInAs!: 'alone' | 'group';

  @IsIn(WHOM)
  whom!: Whom;

  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  groupSetId!: string | null;

  @IsInt(REVIEWS_MESSAGE)
  @Min(LIMITS.reviewsPerStudentMin, REVIEWS_MESSAGE)
  @Max(LIMITS.reviewsPerStudentMax, REVIEWS_MESSAGE)
  reviewsPerStudent!: number;

  @IsIn(SELF)
  selfReview!: SelfReview;

  @IsBoolean()
  ownHandInFirst!: boolean;

  @IsIn(NAMES_POLICIES, { message: () => say('chooseWhetherNamesAreHidden') })
  names!: NamesPolicy;

  @IsBoolean()
  showNamesAtRelease!: boolean;

  @IsBoolean()
  feedbackEach!: boolean;

  /** Pages from before there was a choice leave it out. */
  @MayBeMissing()
  @IsBoolean()
  reviewsFinal?: boolean;

  /** Pages from before there was practice leave it out. */
  @MayBeMissing()
  @IsObject()
  @ValidateNested()
  @Type(() => PracticeRuleRequest)
  practice?: PracticeRuleRequest;

  /** Pages from before there was a choice leave these out. */
  @MayBeMissing()
  @IsObject()
  @ValidateNested()
  @Type(() => AfterRuleRequest)
  after?: AfterRuleRequest;

  @MayBeMissing()
  @ValidateIf((_, value) => value !== null)
  @IsInt({ message: () => say('giveWholeHours1To') })
  @Min(1, { message: () => say('giveWholeHours1To') })
  @Max(168, { message: () => say('giveWholeHours1To') })
  remindHours?: number | null;

  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => GradePartRequest)
  gradeParts!: GradePartRequest[];

  /** The shorthand set that reviewers are offered, from the course's library. */
  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  shorthandId!: string | null;
}

/** Moves dates of a published exchange. */
export class MoveDatesRequest {
  @IsObject()
  @ValidateNested()
  @Type(() => DatesRequest)
  dates!: DatesRequest;

  /** Whether those concerned are told by mail. */
  @IsBoolean()
  tell!: boolean;
}

/** Of a published exchange, what students have been told beside its dates. What is left out stays. */
export class RulesRequest {
  @MayBeMissing()
  @ValidateIf((_, value) => value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => LateRequest)
  late?: LateRequest | null;

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => GradePartRequest)
  gradeParts?: GradePartRequest[];

  /** Whether those concerned are told by mail. */
  @IsBoolean()
  tell!: boolean;
}

/** “Open now” and “close now”. */
export class DateNowRequest {
  @IsIn(DATE_ORDER)
  date!: DateName;

  @IsBoolean()
  tell!: boolean;
}

export class PersonalDatesRequest {
  /** Of one of the two: an enrolment of a student, or a group. */
  @IsOptional()
  @IsString()
  @Length(1, 64)
  studentId!: string | null;

  @IsOptional()
  @IsString()
  @Length(1, 64)
  groupId!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  draftsDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  reviewsDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  repliesDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  revisionDue!: string | null;

  @IsBoolean()
  excused!: boolean;

  @IsString()
  @MaxLength(500, { message: () => say('keepReasonUnder500Characters') })
  reason!: string;
}

/** A new exchange from another one, or from a template. */
export class CopyExchangeRequest {
  @IsIn(['exchange', 'template'])
  from!: 'exchange' | 'template';

  @IsString()
  @Length(1, 64)
  sourceId!: string;

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  /** By a number of days, to a new first date, or without dates. */
  @IsIn(['days', 'first', 'none'])
  shift!: 'days' | 'first' | 'none';

  @IsInt({ message: () => say('shiftByWholeNumberOf') })
  @Min(-3660, { message: () => say('thatIsMoreThanTen') })
  @Max(3660, { message: () => say('thatIsMoreThanTen') })
  days!: number;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  firstAt!: string | null;

  @IsBoolean()
  keepWeekdays!: boolean;
}
