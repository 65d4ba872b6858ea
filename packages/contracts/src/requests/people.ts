import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsISO8601,
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
import type { Role } from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import { NOT_BLANK, TITLE_MESSAGE } from './exchange.js';
import { say } from '../words/requests.js';

const NAME_MESSAGE = { message: () => say('nameHas1ToCharacters', { name: LIMITS.name }) };
const ROLES: readonly Role[] = ['instructor', 'assistant', 'student'];
/** Base64 takes four characters for three bytes. */
const BASE64_LENGTH = Math.ceil((LIMITS.importBytes * 4) / 3) + 4;
const TOO_LARGE = { message: () => say('thisIsLargerThanMb', { importBytes: LIMITS.importBytes / 1_000_000 }) };

export class HolidayRequest {
  @IsString()
  @Length(1, LIMITS.title, { message: () => say('giveHolidayName') })
  @Matches(NOT_BLANK, { message: () => say('giveHolidayName') })
  title!: string;

  @IsISO8601({ strict: true }, { message: () => say('giveDay') })
  @Length(10, 10, { message: () => say('giveDay') })
  from!: string;

  @IsISO8601({ strict: true }, { message: () => say('giveDay') })
  @Length(10, 10, { message: () => say('giveDay') })
  to!: string;
}

export class CourseSettingsRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsString()
  @Length(1, 64, { message: () => say('chooseTimeZoneInWhich') })
  timeZone!: string;

  @IsArray()
  @ArrayMaxSize(LIMITS.holidays, { message: () => say('courseCanHaveUpTo', { holidays: LIMITS.holidays }) })
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => HolidayRequest)
  holidays!: HolidayRequest[];

  /** Whether the time that reviewers are at work is measured; left out, it stays as it is. */
  @MayBeMissing()
  @IsBoolean()
  measuresTime?: boolean;
}

/** A file, or what was pasted. */
export class SourceRequest {
  @IsOptional()
  @IsString()
  @MaxLength(BASE64_LENGTH, TOO_LARGE)
  base64!: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.importBytes, TOO_LARGE)
  text!: string | null;
}

export class RosterRequest extends SourceRequest {
  /** Title of the column to mix groups by, or null. */
  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.title)
  traitColumn!: string | null;

  /** Classes of a bundle; empty for all. */
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  classIds!: string[];
}

export class RosterApplyRequest extends RosterRequest {
  /** Whether students that the roster does not name are dropped. */
  @IsBoolean()
  dropMissing!: boolean;

  @IsBoolean()
  invite!: boolean;

  /** From the preview; refused when people have changed since. */
  @IsString()
  @Length(1, 128)
  fingerprint!: string;
}

export class PersonRequest {
  @IsString(NAME_MESSAGE)
  @Length(1, LIMITS.name, NAME_MESSAGE)
  @Matches(NOT_BLANK, NAME_MESSAGE)
  name!: string;

  /** Blank leaves somebody without one who had none. */
  @ValidateIf(({ email }: PersonRequest) => email !== '')
  @IsEmail({}, { message: () => say('enterEmailAddressSuchAs') })
  @MaxLength(254, { message: () => say('thisIsLongerThanAny') })
  email!: string;

  @IsIn(ROLES)
  role!: Role;

  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.name)
  campusId!: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.name)
  section!: string | null;
}

export class AddPersonRequest extends PersonRequest {
  @IsBoolean()
  invite!: boolean;
}

export class InviteRequest {
  /** Ids of enrolments; empty for everybody whose place is open. */
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsString({ each: true })
  enrolmentIds!: string[];
}

export class GroupSetRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;
}

export class DivisionRequest {
  @IsIn(['count', 'size'])
  by!: 'count' | 'size';

  @IsInt({ message: () => say('giveWholeNumber') })
  @Min(1, { message: () => say('giveNumberOf1Or') })
  @Max(5000, { message: () => say('giveNumberOfAtMost') })
  number!: number;

  @IsIn(['nothing', 'section', 'trait'])
  mixedBy!: 'nothing' | 'section' | 'trait';

  @IsInt()
  @Min(0)
  @Max(4_294_967_295)
  seed!: number;
}

/** Puts somebody into a group, or out of all with null. */
export class MoveMemberRequest {
  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  groupId!: string | null;

  /** That the consequences for running exchanges have been read. */
  @IsBoolean()
  confirmed!: boolean;
}

export class GroupImportRequest extends SourceRequest {
  @IsBoolean()
  apply!: boolean;
}

export class FormFileRequest extends SourceRequest {
  /** As the file is called; only its ending and its stem as a title are looked at. */
  @IsString()
  @MaxLength(LIMITS.title)
  name!: string;

  /** Which of several rubrics in one document. */
  @IsInt()
  @Min(0)
  @Max(1000)
  index!: number;

  /** Adds it; without, only says what was understood. */
  @IsBoolean()
  add!: boolean;
}
