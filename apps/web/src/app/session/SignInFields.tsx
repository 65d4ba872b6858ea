import { TextField } from '../../kit/index.js';
import { fieldProblem } from './fieldProblem.js';
import { say } from '../../words/app.js';

export interface SignInFieldsProps {
  readonly email: string;
  readonly password: string;
  /** What was refused, if anything: it stands at the field that it is about. */
  readonly error: unknown;
  readonly onEmail: (email: string) => void;
  readonly onPassword: (password: string) => void;
}

/** Address and password of an account, as browsers know them. */
export function SignInFields({ email, password, error, onEmail, onPassword }: SignInFieldsProps) {
  return (
    <>
      <TextField
        label={say('email')}
        type="email"
        autoComplete="username"
        value={email}
        problem={fieldProblem(error, 'email')}
        onChange={({ target }) => onEmail(target.value)}
      />
      <TextField
        label={say('password')}
        type="password"
        autoComplete="current-password"
        value={password}
        problem={fieldProblem(error, 'password')}
        onChange={({ target }) => onPassword(target.value)}
      />
    </>
  );
}
