import { IsIn, IsISO8601, IsOptional, IsString, Length, Matches } from 'class-validator';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import { say } from '../words/requests.js';

export const DATE_MESSAGE = { message: () => say('giveDateAndTime') };
export const TITLE_MESSAGE = { message: () => say('giveTitleOf1To', { title: LIMITS.title }) };
export const NOT_BLANK = /\S/u;

export class CreateCourseRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsString()
  @Length(1, 64, { message: () => say('chooseTimeZoneInWhich') })
  timeZone!: string;
}

export class CreateExchangeRequest {
  /** What its form begins with: the items that most begin with, or none. */
  @MayBeMissing()
  @IsIn(['usual', 'none'])
  form?: 'usual' | 'none';

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;
}

export class ReleaseRequest {
  /** Null releases now. */
  @IsOptional()
  @IsISO8601({ strict: true }, DATE_MESSAGE)
  at!: string | null;
}
