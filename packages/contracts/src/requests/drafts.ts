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
import { say } from '../words/requests.js';

const TOO_LONG_DRAFT = {
  message: () => say('thisDraftIsLongerThan'),
};

export class DraftSaveRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString()
  @MaxLength(LIMITS.title, { message: () => say('keepTitleUnderCharacters', { title: LIMITS.title }) })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.draftContext, {
    message: () => say('keepWordsForYourReviewers', { draftContext: LIMITS.draftContext }),
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
  @MaxLength(LIMITS.url, { message: () => say('keepAddressUnderCharacters', { url: LIMITS.url }) })
  @IsUrl(
    { protocols: ['http', 'https'], require_protocol: true, require_tld: false, disallow_auth: true },
    { message: () => say('addressBeginsWithHttpsOr') },
  )
  url!: string;

  @IsString()
  @Length(1, LIMITS.title, { message: () => say('sayInFewWordsWhat') })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('keepItUnderCharacters', { guidance: LIMITS.guidance }) })
  about!: string;
}

/** Attaches what was uploaded. Asking twice for the same upload does no harm. */
export class AttachRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: () => say('notAnUpload') })
  uploadId!: string;

  /** For captions: the recording or file they belong to. */
  @MayBeMissing()
  @IsString()
  @MaxLength(64)
  captionsFor?: string;
}

/** A picture in a text, or an attachment: what it is for was said when it was sent. */
export class UploadedRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: () => say('notAnUpload') })
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
  @Matches(/^[\w-]{43}$/, { message: () => say('checkBeforeHiding') })
  fingerprint!: string;

  @IsString()
  @MaxLength(600)
  key!: string;
}

export class HandInRequest {
  /** Of the check that the author has looked at; refused when anything has been saved since. */
  @Matches(/^[\w-]{43}$/, { message: () => say('checkBeforeHandingIn') })
  fingerprint!: string;

  /** The author has seen what may tell a name, and wants to keep it. */
  @IsBoolean()
  namesSeen!: boolean;

  /** Of a revision: what changed, for the instructor. */
  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('sayWhatChangedInUp', { guidance: LIMITS.guidance }) })
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
  @MaxLength(LIMITS.guidance, { message: () => say('keepYourOwnWordsUnder', { guidance: LIMITS.guidance }) })
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
  @MaxLength(LIMITS.title, { message: () => say('keepTitleUnderCharacters', { title: LIMITS.title }) })
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
  @IsISO8601({ strict: true }, { message: () => say('chooseDateAndTime') })
  draftsDue?: string | null;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('keepReasonUnderCharacters', { guidance: LIMITS.guidance }) })
  reason!: string;
}
