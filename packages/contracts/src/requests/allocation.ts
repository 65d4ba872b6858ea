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

const ID = 64;
const EACH = `Reviews each are a whole number from ${LIMITS.reviewsPerStudentMin} to ${LIMITS.reviewsPerStudentMax}.`;

export class WishesPart {
  @IsIn(['anyone', 'own-group', 'other-groups', 'partners'], { message: 'Choose who may review whom.' })
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
  @IsInt({ message: 'At most so many reviews for a draft: a whole number from 1 to 100, or nothing.' })
  @Min(1, { message: 'At most so many reviews for a draft: a whole number from 1 to 100, or nothing.' })
  @Max(100, { message: 'At most so many reviews for a draft: a whole number from 1 to 100, or nothing.' })
  maxPerDraft!: number | null;
}

export class PreviewRequest {
  @IsIn(['new', 'repair', 'round'])
  kind!: PreviewKind;

  /** Null leaves the choice to chance. */
  @IsOptional()
  @IsInt({ message: 'The seed is a whole number.' })
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

  @IsIn(['command', 'at-due', 'at', 'nightly'], { message: 'Choose when drafts are allocated.' })
  schedule!: ScheduleKind;

  @ValidateIf((plan: ScheduleRequest) => plan.schedule === 'at')
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  at!: string | null;

  @IsInt({ message: 'A round takes at least so many people: a whole number from 2 to 50.' })
  @Min(2, { message: 'A round takes at least so many people: a whole number from 2 to 50.' })
  @Max(50, { message: 'A round takes at least so many people: a whole number from 2 to 50.' })
  party!: number;

  @IsInt({ message: 'Nights to wait are a whole number from 0 to 30.' })
  @Min(0, { message: 'Nights to wait are a whole number from 0 to 30.' })
  @Max(30, { message: 'Nights to wait are a whole number from 0 to 30.' })
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
  @IsInt({ message: 'Reviews are a whole number from 1 to 100.' })
  @Min(1, { message: 'Reviews are a whole number from 1 to 100.' })
  @Max(100, { message: 'Reviews are a whole number from 1 to 100.' })
  reviews!: number | null;
}

export class AllocationImportRequest extends SourceRequest {
  /** False looks at what the file would do. */
  @IsBoolean()
  apply!: boolean;
}
