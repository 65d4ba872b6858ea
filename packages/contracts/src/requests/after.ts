import {
  DECISIONS,
  HELPED,
  MAX_PROMPTS,
  RATINGS_RULES,
  type AfterRule,
  type DecisionKind,
  type Helped,
  type ReflectionRule,
} from '@salt-circle/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const PROMPTS = { message: () => say('askOneToQuestionsEach', { maxprompts: MAX_PROMPTS, guidance: LIMITS.guidance }) };
const WORDS = { message: () => say('giveWholeNumberOfWords') };

class ReflectionRuleRequest implements ReflectionRule {
  @IsArray(PROMPTS)
  @ArrayMinSize(1, PROMPTS)
  @ArrayMaxSize(MAX_PROMPTS, PROMPTS)
  @IsString({ each: true, ...PROMPTS })
  @Length(1, LIMITS.guidance, { each: true, ...PROMPTS })
  prompts!: string[];

  @IsInt(WORDS)
  @Min(0, WORDS)
  @Max(5_000, WORDS)
  minimumWords!: number;
}

/** What comes after the release. */
export class AfterRuleRequest implements AfterRule {
  @IsIn(RATINGS_RULES)
  ratings!: AfterRule['ratings'];

  @ValidateIf((_, value) => value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => ReflectionRuleRequest)
  reflection!: ReflectionRuleRequest | null;

  @IsBoolean()
  othersReviews!: boolean;

  @IsBoolean()
  revisionShown!: boolean;
}

const REPLY = { message: () => say('writeYourAnswerInUp', { reply: LIMITS.reply }) };

/** An answer to a review, or to a note or an answer of it. */
export class ReplyRequest {
  /** Made by the page: sent twice, it is there once. */
  @IsUUID()
  id!: string;

  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  noteId!: string | null;

  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 64)
  itemId!: string | null;

  @IsString(REPLY)
  @Matches(NOT_BLANK, REPLY)
  @MaxLength(LIMITS.reply, REPLY)
  words!: string;
}

/** How a review helped. */
export class RatingRequest {
  @IsIn(HELPED, { message: () => say('chooseHowItHelpedYou') })
  helped!: Helped;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('sayItInUpTo', { guidance: LIMITS.guidance }) })
  words!: string;
}

const WHY = { message: () => say('sayWhyInUpTo', { guidance: LIMITS.guidance }) };

/** What is decided about a remark. */
export class DecisionRequest {
  @ValidateIf((_, value) => value !== null)
  @IsIn(DECISIONS, { message: () => say('chooseWhatYouDecide') })
  decision!: DecisionKind | null;

  @IsString(WHY)
  @MaxLength(LIMITS.guidance, WHY)
  why!: string;

  @IsBoolean()
  done!: boolean;

  @IsInt()
  @Min(0)
  revision!: number;
}

/** Proposed edits to be put into the text. */
export class AdoptRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200, { message: () => say('adoptUpTo200Edits') })
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  noteIds!: string[];
}

const TEXT = { message: () => say('writeUpToCharactersTo', { reflection: LIMITS.reflection }) };

export class ReflectionRequest {
  @IsArray()
  @ArrayMaxSize(MAX_PROMPTS)
  @IsString({ each: true, ...TEXT })
  @MaxLength(LIMITS.reflection, { each: true, ...TEXT })
  texts!: string[];

  @IsInt()
  @Min(0)
  revision!: number;

  @IsBoolean()
  handIn!: boolean;
}

/** Which news are read: one that was opened, or all that the page shows. */
export class ReadNewsRequest {
  @IsArray()
  @ArrayMaxSize(500)
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  ids!: string[];
}

export class MailWishRequest {
  @IsIn(['at-once', 'daily', 'off'], { message: () => say('chooseWhenMailTellsYou') })
  mailWish!: 'at-once' | 'daily' | 'off';
}
