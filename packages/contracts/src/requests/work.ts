import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsDefined,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import { NOTE_KINDS, type NoteKind } from '../noteKinds.js';

/** A map from ids to yes or no, of a bounded size. */
function IsChecks(options: ValidationOptions): PropertyDecorator {
  const fits = (value: unknown) =>
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.keys(value).length <= LIMITS.parts &&
    Object.values(value).every((one) => one === 'yes' || one === 'no');
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
  @MaxLength(LIMITS.answerText, { message: `Keep an answer under ${LIMITS.answerText} characters.` })
  text?: string;

  @MayBeMissing()
  @IsString()
  @MaxLength(LIMITS.answerText, { message: `Keep an answer under ${LIMITS.answerText} characters.` })
  next?: string;

  @IsOptional()
  @IsNumber({}, { message: 'This is not a number.' })
  value?: number | null;

  @MayBeMissing()
  @IsChecks({ message: 'Each entry of a checklist is answered with yes or no.' })
  checks?: Record<string, 'yes' | 'no'>;

  @MayBeMissing()
  @IsArray()
  @ArrayMaxSize(LIMITS.parts)
  @IsString({ each: true })
  choices?: string[];
}

export class QuoteRequest {
  @IsIn(['TextQuoteSelector'])
  type!: 'TextQuoteSelector';

  @IsString()
  @Length(1, LIMITS.quote, { message: 'Select a shorter passage: a note is about a few sentences at most.' })
  exact!: string;

  @IsString()
  @MaxLength(LIMITS.context)
  prefix!: string;

  @IsString()
  @MaxLength(LIMITS.context)
  suffix!: string;
}

export class PositionRequest {
  @IsIn(['TextPositionSelector'])
  type!: 'TextPositionSelector';

  @IsInt()
  @Min(0)
  start!: number;

  @IsInt()
  @Min(1)
  end!: number;
}

/** A passage of a text. The other selectors of the core can be sent once pages can show them. */
export class SelectorRequest {
  @IsIn(['text'], { message: 'A note stands on a passage of a text.' })
  type!: 'text';

  @ValidateNested()
  @Type(() => QuoteRequest)
  quote!: QuoteRequest;

  @ValidateNested()
  @Type(() => PositionRequest)
  position!: PositionRequest;
}

export class PlaceRequest {
  /** Of the draft, from 1: the one that is read. */
  @IsInt()
  @Min(1)
  version!: number;

  @IsString()
  @MaxLength(64)
  partId!: string;

  @IsDefined({ message: 'A note stands on a passage of a text.' })
  @ValidateNested()
  @Type(() => SelectorRequest)
  selector!: SelectorRequest;
}

export class NoteRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsIn(NOTE_KINDS, { message: 'A note is one of Keep, Change, Ask and Fix.' })
  kind!: NoteKind;

  @IsString()
  @MaxLength(LIMITS.noteBody, { message: `Keep a note under ${LIMITS.noteBody} characters.` })
  body!: string;

  @IsDefined({ message: 'A note needs a place in the draft.' })
  @ValidateNested()
  @Type(() => PlaceRequest)
  place!: PlaceRequest;
}

/** Ids of notes are made where the note is written, so that a note made offline keeps its id. */
export class NoteParams {
  @IsString()
  reviewId!: string;

  @Matches(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/, {
    message: 'The id of a note is a random UUID in lower case.',
  })
  noteId!: string;
}
