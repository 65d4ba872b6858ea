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
import { say } from '../words/requests.js';

const CONSENT_MESSAGE = {
  message: () => say('sayHowAuthorAgreedAnd', { guidance: LIMITS.guidance }),
};
const TEXT_MESSAGE = { message: () => say('writeOrPasteTextOf') };

/** Practice as a plan sets it. */
export class PracticeRuleRequest {
  @IsIn(['off', 'offered', 'first'], { message: () => say('chooseWhetherPracticeIsOffered') })
  when!: 'off' | 'offered' | 'first';

  @ValidateIf((_, value) => value !== null)
  @IsInt({ message: () => say('howOftenPracticeMayBe') })
  @Min(1, { message: () => say('practiceDraftCanBeTried') })
  @Max(MAX_PRACTICE_TRIES, {
    message: () => say('practiceDraftCanBeTriedAt', { maxpracticetries: MAX_PRACTICE_TRIES }),
  })
  tries!: number | null;

  /** 0..1. */
  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: () => say('whatIsCloseEnoughIs') })
  @Min(0, { message: () => say('whatIsCloseEnoughIsBetween') })
  @Max(1, { message: () => say('whatIsCloseEnoughIsBetween') })
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
  @IsString({ message: () => say('chooseFile') })
  @Length(1, 64)
  uploadId?: string;

  @ValidateIf(({ from }: PracticeDraftRequest) => from === 'draft')
  @IsString({ message: () => say('chooseDraft') })
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
