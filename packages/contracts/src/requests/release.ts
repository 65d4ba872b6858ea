import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateIf,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const REASON_MESSAGE = {
  message: () => say('sayWhyInUpToCharacters', { guidance: LIMITS.guidance }),
};

/** When chosen authors read their feedback: before the others, not before that is said, or with them. */
export class ReleasePeopleRequest {
  @IsArray()
  @ArrayMinSize(1, { message: () => say('chooseAtLeastOneAuthor') })
  @ArrayMaxSize(LIMITS.chosen, { message: () => say('chooseUpToAuthorsAt', { chosen: LIMITS.chosen }) })
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  participantIds!: string[];

  @IsIn(['early', 'held', 'as-planned'])
  how!: 'early' | 'held' | 'as-planned';

  /** Of what is held back. */
  @ValidateIf(({ how }: ReleasePeopleRequest) => how === 'held')
  @IsString(REASON_MESSAGE)
  @Matches(NOT_BLANK, REASON_MESSAGE)
  @MaxLength(LIMITS.guidance, REASON_MESSAGE)
  reason?: string;
}
