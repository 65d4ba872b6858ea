import { IsBoolean, IsIn, IsISO8601, IsString, Length, Matches, ValidateIf } from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const TITLE = { message: () => say('giveTitleOf1To', { title: LIMITS.title }) };
const DUE = { message: () => say('sayUntilWhenRevisionsAre') };

/** The revisions of an exchange, reviewed once more. */
export class SecondRoundRequest {
  @IsString(TITLE)
  @Length(1, LIMITS.title, TITLE)
  @Matches(NOT_BLANK, TITLE)
  readonly title!: string;

  /** `same`: whoever submitted a review of the draft reviews its revision; `others`: they are allocated anew. */
  @IsIn(['same', 'others'])
  readonly reviewers!: 'same' | 'others';

  /** Reviewers read all earlier feedback on the drafts that they get, not only their own. */
  @IsBoolean()
  readonly earlierShown!: boolean;

  @IsISO8601({ strict: true }, DUE)
  readonly reviewsDue!: string;

  /** Null for as soon as reviews are due. */
  @ValidateIf(({ release }: SecondRoundRequest) => release !== null)
  @IsISO8601({ strict: true })
  readonly release!: string | null;
}
