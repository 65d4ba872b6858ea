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

const PROMPTS = { message: `Ask one to ${MAX_PROMPTS} questions, each in up to ${LIMITS.guidance} characters.` };
const WORDS = { message: 'Give a whole number of words, up to 5,000; 0 for no minimum.' };

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

const REPLY = { message: `Write your answer, in up to ${LIMITS.reply} characters.` };

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
  @IsIn(HELPED, { message: 'Choose how it helped you.' })
  helped!: Helped;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Say it in up to ${LIMITS.guidance} characters.` })
  words!: string;
}

const WHY = { message: `Say why in up to ${LIMITS.guidance} characters.` };

/** What is decided about a remark. */
export class DecisionRequest {
  @ValidateIf((_, value) => value !== null)
  @IsIn(DECISIONS, { message: 'Choose what you decide.' })
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
  @ArrayMaxSize(200, { message: 'Adopt up to 200 edits at once.' })
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  noteIds!: string[];
}

const TEXT = { message: `Write up to ${LIMITS.reflection} characters to each question.` };

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
  @IsIn(['at-once', 'daily', 'off'], { message: 'Choose when mail tells you.' })
  mailWish!: 'at-once' | 'daily' | 'off';
}
