import { IsEmail, IsOptional, IsISO8601, IsString, Length, MaxLength } from 'class-validator';

export class SignInRequest {
  @IsEmail({}, { message: 'Enter your email address, such as name@example.org.' })
  @MaxLength(254, { message: 'This is longer than any email address.' })
  email!: string;

  @IsString({ message: 'Enter your password.' })
  @Length(1, 200, { message: 'Enter your password.' })
  password!: string;
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
