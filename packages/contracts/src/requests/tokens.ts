import { IsIn, IsInt, IsString, Length, Matches, Max, Min } from 'class-validator';
import { LIMITS } from '../limits.js';
import { TOKEN_SCOPES, type TokenScope } from '../views/tokens.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const NAME = { message: () => say('sayWhatTokenIsFor', { title: LIMITS.title }) };
const DAYS = { message: () => say('tokenLastsFrom1To') };

/** A token for a script of one's own. */
export class TokenRequest {
  @IsString(NAME)
  @Length(1, LIMITS.title, NAME)
  @Matches(NOT_BLANK, NAME)
  name!: string;

  @IsIn(TOKEN_SCOPES)
  scope!: TokenScope;

  @IsInt(DAYS)
  @Min(1, DAYS)
  @Max(366, DAYS)
  days!: number;
}
