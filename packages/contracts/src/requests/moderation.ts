import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsNumber,
  IsObject,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { WITHHOLDABLE, type Withholdable } from '../withholdable.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

/** What staff have made of a submitted review. */
export class CheckRequest {
  /** Somebody has looked at it, as it is submitted now. */
  @IsBoolean()
  looked!: boolean;

  /** Keys of dismissed flags. */
  @IsArray()
  @ArrayMaxSize(LIMITS.flags)
  @IsString({ each: true })
  @MaxLength(LIMITS.flagKey, { each: true })
  dismissed!: string[];
}

/** Something of a review: the whole of it, a note, an answer or a file. */
export class WithholdableRequest {
  @IsIn(WITHHOLDABLE)
  kind!: Withholdable;

  /** Id of the note, the item or the file; empty for the whole review. */
  @IsString()
  @MaxLength(64)
  targetId!: string;
}

const REASON_MESSAGE = {
  message: () => say('sayWhyInUpToCharacters', { guidance: LIMITS.guidance }),
};

/** Keeps it from the author. */
export class WithholdRequest extends WithholdableRequest {
  @IsString(REASON_MESSAGE)
  @Matches(NOT_BLANK, REASON_MESSAGE)
  @MaxLength(LIMITS.guidance, REASON_MESSAGE)
  reason!: string;

  /** The reviewer sees that it is withheld, and why. */
  @IsBoolean()
  told!: boolean;

  /** It counts for the reviewer all the same. */
  @IsBoolean()
  counts!: boolean;
}

const SHARE = { message: () => say('giveShareBetween0And') };

/** Which flags a review gets. */
export class FlaggingRulesRequest {
  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, SHARE)
  @Min(0, SHARE)
  @Max(1, SHARE)
  fewWords!: number | null;

  @IsBoolean()
  nothingToDo!: boolean;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, SHARE)
  @Min(0, SHARE)
  @Max(1, SHARE)
  farFromOthers!: number | null;

  @IsBoolean()
  oneEnd!: boolean;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, SHARE)
  @Min(0, SHARE)
  @Max(1, SHARE)
  sameText!: number | null;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: () => say('giveNumberOfSecondsOr') })
  @Min(0)
  @Max(86_400)
  hasty!: number | null;

  @IsBoolean()
  names!: boolean;

  @IsArray()
  @ArrayMaxSize(LIMITS.harshWords, { message: () => say('upToWordsCanBe', { harshWords: LIMITS.harshWords }) })
  @IsString({ each: true })
  @Length(1, LIMITS.name, { each: true })
  harshWords!: string[];
}

export class QueueBoundsRequest {
  @IsObject()
  @ValidateNested()
  @Type(() => FlaggingRulesRequest)
  bounds!: FlaggingRulesRequest;
}
