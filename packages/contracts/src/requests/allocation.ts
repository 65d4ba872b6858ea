import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { Whom } from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import type { PreviewKind, ScheduleKind } from '../views/allocation.js';
import { DATE_MESSAGE } from './exchange.js';
import { SourceRequest } from './people.js';
import { say } from '../words/requests.js';

const ID = 64;
const EACH = () =>
  say('reviewsEachAreWholeNumber', {
    reviewsPerStudentMin: LIMITS.reviewsPerStudentMin,
    reviewsPerStudentMax: LIMITS.reviewsPerStudentMax,
  });

export class WishesPart {
  @IsIn(['anyone', 'own-group', 'other-groups', 'partners'], { message: () => say('chooseWhoMayReviewWhom') })
  whom!: Whom;

  @IsInt({ message: EACH })
  @Min(LIMITS.reviewsPerStudentMin, { message: EACH })
  @Max(LIMITS.reviewsPerStudentMax, { message: EACH })
  reviewsEach!: number;

  /** Null avoids the pairs of all earlier exchanges. */
  @ValidateIf((part: WishesPart) => part.avoid !== null)
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  @Length(1, ID, { each: true })
  avoid!: string[] | null;

  @IsBoolean()
  mix!: boolean;

  @IsOptional()
  @IsInt({ message: () => say('atMostSoManyReviews') })
  @Min(1, { message: () => say('atMostSoManyReviews') })
  @Max(100, { message: () => say('atMostSoManyReviews') })
  maxPerDraft!: number | null;
}

export class PreviewRequest {
  @IsIn(['new', 'repair', 'round'])
  kind!: PreviewKind;

  /** Null leaves the choice to chance. */
  @IsOptional()
  @IsInt({ message: () => say('seedIsWholeNumber') })
  @Min(0)
  @Max(4_294_967_295)
  seed!: number | null;

  /** Null for the wishes as they stand. */
  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => WishesPart)
  wishes!: WishesPart | null;
}

export class ApplyPreviewRequest {
  @IsString()
  @Length(1, ID)
  previewId!: string;
}

/** The step that is to be taken back, as the board showed it. */
export class UndoRequest {
  @IsInt()
  @Min(1)
  step!: number;
}

export class PairPart {
  @IsString()
  @Length(1, ID)
  reviewerId!: string;

  @IsString()
  @Length(1, ID)
  draftId!: string;
}

/** What is done by hand, as a whole or not at all. */
export class AllocationActsRequest {
  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  add?: PairPart[];

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  remove?: PairPart[];

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  lock?: PairPart[];

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  unlock?: PairPart[];

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  forbid?: PairPart[];

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PairPart)
  allow?: PairPart[];

  /** That reviews which have begun are taken away has been read and meant. */
  @MayBeMissing()
  @IsBoolean()
  confirmed?: boolean;
}

/** When drafts are allocated by themselves. */
export class ScheduleRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsIn(['command', 'at-due', 'at', 'nightly'], { message: () => say('chooseWhenDraftsAreAllocated') })
  schedule!: ScheduleKind;

  @ValidateIf((plan: ScheduleRequest) => plan.schedule === 'at')
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  at!: string | null;

  @IsInt({ message: () => say('roundTakesAtLeastSo') })
  @Min(2, { message: () => say('roundTakesAtLeastSo') })
  @Max(50, { message: () => say('roundTakesAtLeastSo') })
  party!: number;

  @IsInt({ message: () => say('nightsToWaitAreWhole') })
  @Min(0, { message: () => say('nightsToWaitAreWhole') })
  @Max(30, { message: () => say('nightsToWaitAreWhole') })
  patience!: number;
}

export class AllocationPlanRequest extends ScheduleRequest {
  @IsObject()
  @ValidateNested()
  @Type(() => WishesPart)
  wishes!: WishesPart;
}

export class ExtraReviewerRequest {
  @IsString()
  @Length(1, ID)
  personId!: string;

  /** Null for none any more. */
  @IsOptional()
  @IsInt({ message: () => say('reviewsAreWholeNumberFrom') })
  @Min(1, { message: () => say('reviewsAreWholeNumberFrom') })
  @Max(100, { message: () => say('reviewsAreWholeNumberFrom') })
  reviews!: number | null;
}

export class AllocationImportRequest extends SourceRequest {
  /** False looks at what the file would do. */
  @IsBoolean()
  apply!: boolean;
}
