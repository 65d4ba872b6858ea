import { IsString, Length, Matches, MaxLength, ValidateIf } from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const WORDS_MESSAGE = { message: () => say('sayWhatIsToBe', { guidance: LIMITS.guidance }) };
const ANSWER_MESSAGE = { message: () => say('writeAnswerOfUpTo', { guidance: LIMITS.guidance }) };

/** Asks the instructor to look at a review, or at one note of it. */
export class LookRequest {
  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  noteId!: string | null;

  @IsString(WORDS_MESSAGE)
  @Matches(NOT_BLANK, WORDS_MESSAGE)
  @MaxLength(LIMITS.guidance, WORDS_MESSAGE)
  words!: string;
}

export class LookAnswerRequest {
  @IsString(ANSWER_MESSAGE)
  @Matches(NOT_BLANK, ANSWER_MESSAGE)
  @MaxLength(LIMITS.guidance, ANSWER_MESSAGE)
  answer!: string;
}
