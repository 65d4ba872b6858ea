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

const OWN_NAME = { message: `Your name has 1 to ${LIMITS.name} characters.` };
const NEW_PASSWORD = {
  message: `A password needs at least ${LIMITS.passwordMin} characters. A few words in a row do well.`,
};

export class SignInRequest {
  @IsEmail({}, { message: 'Enter your email address, such as name@example.org.' })
  @MaxLength(254, { message: 'This is longer than any email address.' })
  email!: string;

  @IsString({ message: 'Enter your password.' })
  @Length(1, LIMITS.passwordMax, { message: 'Enter your password.' })
  password!: string;
}

/** For a link by which a new password can be chosen. */
export class ForgottenRequest {
  @IsEmail({}, { message: 'Enter your email address, such as name@example.org.' })
  @MaxLength(254, { message: 'This is longer than any email address.' })
  email!: string;
}

export class NewPasswordRequest {
  @IsString(NEW_PASSWORD)
  @Length(LIMITS.passwordMin, LIMITS.passwordMax, NEW_PASSWORD)
  password!: string;
}

export class ChangePasswordRequest extends NewPasswordRequest {
  @IsString({ message: 'Enter the password that you have now.' })
  @Length(1, LIMITS.passwordMax, { message: 'Enter the password that you have now.' })
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
  @ArrayNotEmpty({ message: 'Choose at least one place.' })
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
  @IsISO8601({ strict: true }, { message: 'Give a time such as 2026-03-12T08:00:00Z.' })
  to!: string | null;
}
