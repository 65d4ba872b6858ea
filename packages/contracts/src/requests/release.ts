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

const REASON_MESSAGE = {
  message: `Say why, in up to ${LIMITS.guidance} characters: it stays on record, for staff to read.`,
};

/** When chosen authors read their feedback: before the others, not before that is said, or with them. */
export class ReleasePeopleRequest {
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one author.' })
  @ArrayMaxSize(LIMITS.chosen, { message: `Choose up to ${LIMITS.chosen} authors at once.` })
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
