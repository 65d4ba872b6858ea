import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsEmail,
  IsOptional,
  IsISO8601,
  IsString,
  Length,
  Matches,
  MaxLength,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { say } from '../words/requests.js';

const OWN_NAME = { message: () => say('yourNameHas1To', { name: LIMITS.name }) };
const NEW_PASSWORD = {
  message: () => say('passwordNeedsAtLeastCharacters', { passwordMin: LIMITS.passwordMin }),
};

export class SignInRequest {
  @IsEmail({}, { message: () => say('enterYourEmailAddressSuch') })
  @MaxLength(254, { message: () => say('thisIsLongerThanAny') })
  email!: string;

  @IsString({ message: () => say('enterYourPassword') })
  @Length(1, LIMITS.passwordMax, { message: () => say('enterYourPassword') })
  password!: string;
}

/** For a link by which a new password can be chosen. */
export class ForgottenRequest {
  @IsEmail({}, { message: () => say('enterYourEmailAddressSuch') })
  @MaxLength(254, { message: () => say('thisIsLongerThanAny') })
  email!: string;
}

export class NewPasswordRequest {
  @IsString(NEW_PASSWORD)
  @Length(LIMITS.passwordMin, LIMITS.passwordMax, NEW_PASSWORD)
  password!: string;
}

export class ConfirmPasswordRequest {
  @IsString({ message: () => say('enterYourPassword') })
  @Length(1, LIMITS.passwordMax, { message: () => say('enterYourPassword') })
  password!: string;
}

export class ChangePasswordRequest extends NewPasswordRequest {
  @IsString({ message: () => say('enterPasswordThatYouHave') })
  @Length(1, LIMITS.passwordMax, { message: () => say('enterPasswordThatYouHave') })
  old!: string;
}

export class ChangeAddressRequest extends SignInRequest {}

export class OwnNameRequest {
  @IsString(OWN_NAME)
  @Length(1, LIMITS.name, OWN_NAME)
  @Matches(NOT_BLANK, OWN_NAME)
  name!: string;
}

/** Takes places in courses, with the account that is signed in, or with a new one. */
export class JoinRequest {
  /** Of those that the invitation shows. */
  @IsArray()
  @ArrayNotEmpty({ message: () => say('chooseAtLeastOnePlace') })
  @ArrayMaxSize(LIMITS.places)
  @IsString({ each: true })
  placeIds!: string[];

  /** For a new account. */
  @IsOptional()
  @IsString(NEW_PASSWORD)
  @Length(LIMITS.passwordMin, LIMITS.passwordMax, NEW_PASSWORD)
  password?: string | null;

  /** For a new account. */
  @IsOptional()
  @IsString(OWN_NAME)
  @Length(1, LIMITS.name, OWN_NAME)
  @Matches(NOT_BLANK, OWN_NAME)
  name?: string | null;
}

export class StepInRequest {
  @IsString()
  @Length(1, 64)
  personId!: string;
}

/** Moves the application's time: to an instant, or back to the real one with null. Demo only. */
export class MoveClockRequest {
  @IsOptional()
  @IsISO8601({ strict: true }, { message: () => say('giveTimeSuchAs2026') })
  to!: string | null;
}
