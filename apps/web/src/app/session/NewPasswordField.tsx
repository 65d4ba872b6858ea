import { LIMITS } from '@salt-circle/contracts/plain';
import { TextField } from '../../kit/index.js';
import { say } from '../../words/app.js';

export interface NewPasswordFieldProps {
  readonly value: string;
  readonly problem: string | undefined;
  readonly onChange: (password: string) => void;
}

export function NewPasswordField({ value, problem, onChange }: NewPasswordFieldProps) {
  return (
    <TextField
      label={say('newPassword')}
      type="password"
      autoComplete="new-password"
      hint={say('atLeastCharactersFewWords', { passwordMin: LIMITS.passwordMin })}
      value={value}
      maxLength={LIMITS.passwordMax}
      problem={problem}
      onChange={({ target }) => onChange(target.value)}
    />
  );
}
