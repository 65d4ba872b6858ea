import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, IsString, Length, Matches, MaxLength, Min, ValidateNested } from 'class-validator';
import { LIMITS } from '../limits.js';

export const NOTE_KINDS = ['keep', 'change', 'ask', 'fix'] as const;
export type NoteKind = (typeof NOTE_KINDS)[number];

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
  @MaxLength(LIMITS.draftHtml, TOO_LONG_DRAFT)
  html!: string;
}

export class HandInRequest {
  /** The saved state that is handed in; refused when another one has been saved since. */
  @IsInt()
  @Min(1)
  revision!: number;
}

export class AnswerRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsOptional()
  @IsString()
  @MaxLength(64)
  levelId?: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.answerText, { message: `Keep an answer under ${LIMITS.answerText} characters.` })
  text?: string;
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

export class AnchorRequest {
  @ValidateNested()
  @Type(() => QuoteRequest)
  quote!: QuoteRequest;

  @ValidateNested()
  @Type(() => PositionRequest)
  position!: PositionRequest;
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

  @ValidateNested()
  @Type(() => AnchorRequest)
  anchor!: AnchorRequest;
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
