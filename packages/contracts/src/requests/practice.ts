import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';
import { MAX_PRACTICE_TRIES } from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { NOT_BLANK, TITLE_MESSAGE } from './exchange.js';

const CONSENT_MESSAGE = {
  message: `Say how the author agreed, and when, in up to ${LIMITS.guidance} characters: it is kept on record.`,
};
const TEXT_MESSAGE = { message: 'Write or paste the text of the practice draft; a long one goes as a file.' };

/** Practice as a plan sets it. */
export class PracticeRuleRequest {
  @IsIn(['off', 'offered', 'first'], { message: 'Choose whether practice is offered, comes first, or is off.' })
  when!: 'off' | 'offered' | 'first';

  @ValidateIf((_, value) => value !== null)
  @IsInt({ message: 'How often practice may be tried is a whole number.' })
  @Min(1, { message: 'A practice draft can be tried at least once.' })
  @Max(MAX_PRACTICE_TRIES, { message: `A practice draft can be tried at most ${MAX_PRACTICE_TRIES} times.` })
  tries!: number | null;

  /** 0..1. */
  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: 'What is close enough is a share of the items.' })
  @Min(0, { message: 'What is close enough is between 0 and 100%.' })
  @Max(1, { message: 'What is close enough is between 0 and 100%.' })
  closeEnough!: number | null;
}

/** A practice draft: typed here, from a file that was uploaded, or from a draft of an earlier exchange. */
export class PracticeDraftRequest {
  @IsString(TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  @MaxLength(LIMITS.title, TITLE_MESSAGE)
  title!: string;

  @IsIn(['text', 'file', 'draft'])
  from!: 'text' | 'file' | 'draft';

  @ValidateIf(({ from }: PracticeDraftRequest) => from === 'text')
  @IsString(TEXT_MESSAGE)
  @Matches(NOT_BLANK, TEXT_MESSAGE)
  @MaxLength(LIMITS.draftHtml, TEXT_MESSAGE)
  html?: string;

  @ValidateIf(({ from }: PracticeDraftRequest) => from === 'file')
  @IsString({ message: 'Choose a file.' })
  @Length(1, 64)
  uploadId?: string;

  @ValidateIf(({ from }: PracticeDraftRequest) => from === 'draft')
  @IsString({ message: 'Choose a draft.' })
  @Length(1, 64)
  draftId?: string;

  /** How the author agreed; kept on record. */
  @ValidateIf(({ from }: PracticeDraftRequest) => from === 'draft')
  @IsString(CONSENT_MESSAGE)
  @Matches(NOT_BLANK, CONSENT_MESSAGE)
  @MaxLength(LIMITS.guidance, CONSENT_MESSAGE)
  consent?: string;
}

/** Begins a try of a practice draft. */
export class PracticeBeginRequest {
  /** Once more, after a try that was submitted. */
  @IsBoolean()
  again!: boolean;
}
