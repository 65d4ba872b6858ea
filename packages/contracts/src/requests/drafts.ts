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
  IsUrl,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';

const TOO_LONG_DRAFT = {
  message: `This draft is longer than can be kept ($constraint1 characters with its formatting). It stays in this browser; shorten it, or take out what was pasted by mistake.`,
};

export class DraftSaveRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString()
  @MaxLength(LIMITS.title, { message: `Keep the title under ${LIMITS.title} characters.` })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.draftContext, {
    message: `Keep the words for your reviewers under ${LIMITS.draftContext} characters.`,
  })
  context!: string;
}

export class TextSaveRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString()
  @MaxLength(LIMITS.draftHtml, TOO_LONG_DRAFT)
  html!: string;
}

export class LinkRequest {
  @IsString()
  @MaxLength(LIMITS.url, { message: `Keep an address under ${LIMITS.url} characters.` })
  @IsUrl(
    { protocols: ['http', 'https'], require_protocol: true, require_tld: false, disallow_auth: true },
    { message: 'An address begins with https:// or http://, and holds no name or password.' },
  )
  url!: string;

  @IsString()
  @Length(1, LIMITS.title, { message: 'Say in a few words what the link is.' })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Keep it under ${LIMITS.guidance} characters.` })
  about!: string;
}

/** Attaches what was uploaded. Asking twice for the same upload does no harm. */
export class AttachRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: 'This is not the id of an upload.' })
  uploadId!: string;

  /** For captions: the recording or file they belong to. */
  @MayBeMissing()
  @IsString()
  @MaxLength(64)
  captionsFor?: string;
}

/** A picture in a text, or an attachment: what it is for was said when it was sent. */
export class UploadedRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: 'This is not the id of an upload.' })
  uploadId!: string;
}

export class PartOrderRequest {
  @IsArray()
  @ArrayMaxSize(LIMITS.parts)
  @IsString({ each: true })
  partIds!: string[];
}

/** Passages of a reading copy that reviewers do not get to see. */
export class HideRequest {
  @IsInt()
  @Min(0)
  start!: number;

  @IsInt()
  @Min(1)
  end!: number;

  @IsBoolean()
  hide!: boolean;
}

/** One of the finds of a check, to be hidden from reviewers. */
export class HideFindRequest {
  @Matches(/^[\w-]{43}$/, { message: 'Check the draft before hiding something in it.' })
  fingerprint!: string;

  @IsString()
  @MaxLength(600)
  key!: string;
}

export class HandInRequest {
  /** Of the check that the author has looked at; refused when anything has been saved since. */
  @Matches(/^[\w-]{43}$/, { message: 'Check the draft before handing it in.' })
  fingerprint!: string;

  /** The author has seen what may tell a name, and wants to keep it. */
  @IsBoolean()
  namesSeen!: boolean;

  /** Of a revision: what changed, for the instructor. */
  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Say what changed in up to ${LIMITS.guidance} characters.` })
  changes?: string;
}

export class RemindRequest {
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  participantIds!: string[];

  /** What is still to be done. */
  @IsIn(['draft', 'reviews'])
  about!: 'draft' | 'reviews';

  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Keep your own words under ${LIMITS.guidance} characters.` })
  words?: string;
}

/** A typed text that came by another way. */
export class TextForRequest {
  @IsString()
  @Length(1, 64)
  deliverableId!: string;

  @IsString()
  @MaxLength(LIMITS.draftHtml, TOO_LONG_DRAFT)
  html!: string;
}

/** Handing in for a student, by staff. */
export class HandInForRequest {
  /** For a draft that has no title yet. */
  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.title, { message: `Keep the title under ${LIMITS.title} characters.` })
  title?: string | null;

  /** For typed texts of which the student has saved nothing. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => TextForRequest)
  texts?: TextForRequest[] | null;
}

/** Own times for one participant, from the table of hand-ins. */
export class ExtendRequest {
  @IsIn(['extend', 'excuse', 'take-back'])
  what!: 'extend' | 'excuse' | 'take-back';

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Choose a date and a time.' })
  draftsDue?: string | null;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Keep the reason under ${LIMITS.guidance} characters.` })
  reason!: string;
}
