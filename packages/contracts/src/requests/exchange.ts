import { IsIn, IsISO8601, IsOptional, IsString, Length, Matches } from 'class-validator';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';

export const DATE_MESSAGE = { message: 'Give a date and a time.' };
export const TITLE_MESSAGE = { message: `Give a title of 1 to ${LIMITS.title} characters.` };
export const NOT_BLANK = /\S/u;

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
