import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  IsUrl,
  Length,
  Matches,
  MaxLength,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { WEB_ADDRESS } from '../webAddress.js';
import { LTI_SCORE_STATES, type LtiScoreState } from '../views/lti.js';
import { MayBeMissing } from './mayBeMissing.js';
import { NOT_BLANK, TITLE_MESSAGE } from './exchange.js';
import { say } from '../words/requests.js';

const ADDRESS = { require_tld: false, protocols: ['https', 'http'], require_protocol: true };
const saying = (
  key: 'platformAsItCallsItself' | 'signInAuthenticationRequest' | 'platformsKeys' | 'platformTokens',
) => ({
  message: () => say(key),
});
const NAME_MESSAGE = { message: () => say('giveNameOf1To', { name: LIMITS.name }) };

export class PlatformNameRequest {
  @IsString(NAME_MESSAGE)
  @Length(1, LIMITS.name, NAME_MESSAGE)
  @Matches(NOT_BLANK, NAME_MESSAGE)
  name!: string;
}

export class PlatformRequest extends PlatformNameRequest {
  @IsUrl(ADDRESS, saying('platformAsItCallsItself'))
  @Matches(WEB_ADDRESS, saying('platformAsItCallsItself'))
  @MaxLength(LIMITS.url)
  issuer!: string;

  @IsString()
  @Length(1, 255, { message: () => say('giveClientIdThatPlatform') })
  clientId!: string;

  @IsUrl(ADDRESS, saying('signInAuthenticationRequest'))
  @Matches(WEB_ADDRESS, saying('signInAuthenticationRequest'))
  @MaxLength(LIMITS.url)
  authUrl!: string;

  @IsUrl(ADDRESS, saying('platformTokens'))
  @Matches(WEB_ADDRESS, saying('platformTokens'))
  @MaxLength(LIMITS.url)
  tokenUrl!: string;

  @IsUrl(ADDRESS, saying('platformsKeys'))
  @Matches(WEB_ADDRESS, saying('platformsKeys'))
  @MaxLength(LIMITS.url)
  keysUrl!: string;

  @IsOptional()
  @IsString()
  @MaxLength(LIMITS.url)
  tokenAudience!: string | null;

  /** Of those of the platform that may show Salt Circle inside of them. */
  @IsArray()
  @ArrayMaxSize(20, { message: () => say('upTo20AddressesOf') })
  @IsUrl(ADDRESS, { each: true, message: () => say('giveAddressesOfPagesSuch') })
  @Matches(WEB_ADDRESS, { each: true, message: () => say('giveAddressesOfPagesSuch') })
  @MaxLength(LIMITS.url, { each: true })
  pages!: string[];

  @IsBoolean()
  active!: boolean;

  @IsBoolean()
  makesCourses!: boolean;

  /** Those that are allowed; others that were seen are not. */
  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @MaxLength(255, { each: true })
  deployments!: string[];
}

export class ArrivalAccountRequest {
  @IsString()
  @Length(1, 254, { message: () => say('enterAddressThatYouSign') })
  email!: string;

  @IsString()
  @Length(1, LIMITS.passwordMax, { message: () => say('enterYourPassword') })
  password!: string;
}

export class ArrivalMailRequest {
  /** Left out for the place that waits: the link goes where the course says. */
  @IsOptional()
  @IsString()
  @MaxLength(254)
  email!: string | null;
}

export class ArrivalCourseRequest {
  /** One of the person's own, or null for a new one. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  courseId!: string | null;

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsString()
  @Length(1, 64)
  timeZone!: string;
}

export class ArrivalChoiceRequest {
  /** Null for the course as a whole. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  exchangeId!: string | null;

  @IsBoolean()
  column!: boolean;
}

export class CoursePlatformRequest {
  @IsIn(['off', 'add'])
  nightly!: 'off' | 'add';
}

export class PlatformPeopleRequest {
  /** From the preview; refused when either side has changed since. */
  @IsString()
  @Length(1, 128)
  fingerprint!: string;

  @IsBoolean()
  dropMissing!: boolean;
}

export class GradebookRequest {
  @IsIn(['off', 'whole', 'parts'])
  columns!: 'off' | 'whole' | 'parts';

  /** For those that are not wanted any more: whether they are removed at the platform too, with what is in them. */
  @IsBoolean()
  removeThere!: boolean;
}

export class GradebookQuery {
  /** Left out for all. */
  @MayBeMissing()
  @IsIn(LTI_SCORE_STATES)
  state?: LtiScoreState;
}

export class GradebookDecisionRequest {
  /** Empty for all whom it concerns. */
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsString({ each: true })
  participantIds!: string[];

  /** `again`: what was refused is tried once more. `ours`: what the platform holds is written over. `theirs`: it stays. */
  @IsIn(['again', 'ours', 'theirs'])
  how!: 'again' | 'ours' | 'theirs';
}
