import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
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
import type { NamesPolicy } from '@salt-circle/core';
import { LIMITS } from '../limits.js';

const DATE_MESSAGE = { message: 'Give a date and a time.' };
const TITLE_MESSAGE = { message: `Give a title of 1 to ${LIMITS.title} characters.` };
const NOT_BLANK = /\S/u;

export class CreateCourseRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsString()
  @Length(1, 64, { message: 'Choose the time zone in which the course’s dates are given.' })
  timeZone!: string;
}

export class CreateExchangeRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;
}

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
  reviewsOpen!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  reviewsDue!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  release!: string | null;
}

const NAMES_POLICIES: readonly NamesPolicy[] = ['both-ways', 'open'];
const REVIEWS_MESSAGE = {
  message: `Each student can give ${LIMITS.reviewsPerStudentMin} to ${LIMITS.reviewsPerStudentMax} reviews. Enter a whole number in that span.`,
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
  @MaxLength(LIMITS.settingsHtml, { message: 'The brief is too long to keep. Shorten it, or give the rest as a link.' })
  briefHtml!: string;

  @IsString()
  @MaxLength(LIMITS.settingsHtml, { message: 'The guide is too long to keep. Shorten it, or give the rest as a link.' })
  guideHtml!: string;

  @ValidateNested()
  @Type(() => DatesRequest)
  dates!: DatesRequest;

  @IsInt(REVIEWS_MESSAGE)
  @Min(LIMITS.reviewsPerStudentMin, REVIEWS_MESSAGE)
  @Max(LIMITS.reviewsPerStudentMax, REVIEWS_MESSAGE)
  reviewsPerStudent!: number;

  @IsIn(NAMES_POLICIES, { message: 'Choose whether names are hidden or shown.' })
  names!: NamesPolicy;
}

export class LevelRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, { message: `Keep the name of a level under ${LIMITS.title} characters.` })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.levelDescription, {
    message: `Keep the description of a level under ${LIMITS.levelDescription} characters.`,
  })
  description!: string;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: 'Points are a number, or left blank.' })
  points!: number | null;
}

export class FormItemRequest {
  @IsIn(['criterion', 'prompt'])
  kind!: 'criterion' | 'prompt';

  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, { message: `Keep a title under ${LIMITS.title} characters.` })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Keep the guidance under ${LIMITS.guidance} characters.` })
  guidance!: string;

  @IsBoolean()
  required!: boolean;

  @ValidateIf((item: FormItemRequest) => item.kind === 'criterion')
  @IsArray()
  @ArrayMaxSize(LIMITS.levels, { message: `A criterion can have up to ${LIMITS.levels} levels.` })
  @ValidateNested({ each: true })
  @Type(() => LevelRequest)
  levels?: LevelRequest[];

  @ValidateIf((item: FormItemRequest) => item.kind === 'criterion')
  @IsIn(['none', 'optional', 'required'])
  comment?: 'none' | 'optional' | 'required';

  @ValidateIf((item: FormItemRequest) => item.kind === 'prompt')
  @IsNumber({}, { message: 'The least number of words is a number, 0 for none.' })
  minimumWords?: number;
}

export class FormRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsArray()
  @ArrayMaxSize(LIMITS.items, { message: `A form can have up to ${LIMITS.items} items.` })
  @ValidateNested({ each: true })
  @Type(() => FormItemRequest)
  items!: FormItemRequest[];
}

export class AllocationPreviewRequest {
  @IsInt({ message: 'The seed is a whole number.' })
  @Min(0)
  @Max(4_294_967_295)
  seed!: number;
}

export class AllocationApplyRequest extends AllocationPreviewRequest {
  /** From the preview; refused when hand-ins have changed since. */
  @IsString()
  @Length(1, 128)
  fingerprint!: string;
}

export class ReleaseRequest {
  /** Null releases now. */
  @IsOptional()
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  at!: string | null;
}
