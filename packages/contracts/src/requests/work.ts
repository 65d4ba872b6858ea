import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsDefined,
  IsISO8601,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import type { Check } from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import { NOTE_KINDS, type NoteKind } from '../noteKinds.js';
import { EDIT_REQUESTS, EditRequest, type AnyEditRequest } from './edit.js';
import { PlaceRequest } from './place.js';
import { say } from '../words/requests.js';

/** A map from ids to yes or no, of a bounded size. */
function IsChecks(options: ValidationOptions): PropertyDecorator {
  const fits = (value: unknown) =>
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.keys(value).length <= LIMITS.parts &&
    Object.values(value).every((one) => one === 'yes' || one === 'no' || one === 'cannot-tell');
  return ValidateBy({ name: 'isChecks', validator: { validate: fits } }, options);
}

export class AnswerRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  /** Of the draft, from 1: the one that is read. A review begins with it. */
  @MayBeMissing()
  @IsInt()
  @Min(1)
  version?: number;

  @IsOptional()
  @IsString()
  @MaxLength(64)
  levelId?: string | null;

  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.answerText, { message: () => say('keepAnswerUnderCharacters', { answerText: LIMITS.answerText }) })
  text?: string;

  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.answerText, { message: () => say('keepAnswerUnderCharacters', { answerText: LIMITS.answerText }) })
  next?: string;

  @IsOptional()
  @IsNumber({}, { message: () => say('thisIsNotNumber') })
  value?: number | null;

  @MayBeMissing()
  @IsChecks({ message: () => say('eachEntryOfChecklistIs') })
  checks?: Record<string, Check>;

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.parts)
  @IsString({ each: true })
  choices?: string[];
}

export class NoteRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsIn(NOTE_KINDS, { message: () => say('noteIsOneOfKeep') })
  kind!: NoteKind;

  @IsString()
  @MaxLength(LIMITS.noteBody, { message: () => say('keepNoteUnderCharacters', { noteBody: LIMITS.noteBody }) })
  body!: string;

  @IsDefined({ message: () => say('noteNeedsPlaceInDraft') })
  @IsObject()
  @ValidateNested()
  @Type(() => PlaceRequest)
  place!: PlaceRequest;

  /** What is proposed to be done with the passage; pages from before there were any leave it out. */
  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => EditRequest, {
    discriminator: { property: 'type', subTypes: EDIT_REQUESTS },
    keepDiscriminatorProperty: true,
  })
  edit?: AnyEditRequest | null;

  /** The item of the form that it speaks to, if it is filed under one. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  itemId?: string | null;
}

/** Ids of notes are made where the note is written, so that a note made offline keeps its id. */
export class NoteParams {
  @IsString()
  reviewId!: string;

  @Matches(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/, {
    message: () => say('idOfNote'),
  })
  noteId!: string;
}

/** A file that was marked elsewhere, as it was uploaded. */
export class BringRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: () => say('notAnUpload') })
  uploadId!: string;
}

/** One of what the preview showed, as it is to be added. */
export class BroughtNoteRequest {
  @IsString()
  @MaxLength(64)
  id!: string;

  @IsIn(NOTE_KINDS, { message: () => say('noteIsOneOfKeep') })
  kind!: NoteKind;
}

export class BringInRequest extends BringRequest {
  @IsArray()
  @ArrayMaxSize(LIMITS.notes, { message: () => say('reviewCanHaveUpTo', { notes: LIMITS.notes }) })
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => BroughtNoteRequest)
  notes!: BroughtNoteRequest[];
}

/** An upload that goes with a note or an answer. */
export class ReviewFileRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: () => say('notAnUpload') })
  uploadId!: string;

  @IsOptional()
  @IsString()
  @MaxLength(64)
  itemId?: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(64)
  noteId?: string | null;
}

/** How long a reviewer was at work since this was last told. */
export class SpentRequest {
  @IsInt()
  @Min(1)
  @Max(LIMITS.spentSeconds, { message: () => say('thatIsMoreTimeThan') })
  seconds!: number;
}

/** The reviewer says nothing; staff say why. */
export class ReopenRequest {
  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('sayItInCharacters', { guidance: LIMITS.guidance }) })
  reason?: string;

  /** Until when it can be submitted again; staff alone say so. Left out: until the release. */
  @MayBeMissing()
  @IsISO8601({ strict: true }, { message: () => say('chooseDateAndTime') })
  until?: string;
}

/** A remark of one's own, kept to be used again. */
export class OwnRemarkRequest {
  @IsString()
  @Length(1, LIMITS.title, { message: () => say('giveItNameOf1', { title: LIMITS.title }) })
  title!: string;

  @IsString()
  @Length(1, LIMITS.noteBody, { message: () => say('remarkHas1ToCharacters', { noteBody: LIMITS.noteBody }) })
  body!: string;
}
