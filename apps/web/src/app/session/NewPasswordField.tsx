import { LIMITS } from '@salt-circle/contracts';
import { TextField } from '../../kit/index.js';

export interface NewPasswordFieldProps {
  readonly value: string;
  readonly problem: string | undefined;
  readonly onChange: (password: string) => void;
}

export function NewPasswordField({ value, problem, onChange }: NewPasswordFieldProps) {
  return (
    <TextField
      label="New password"
      type="password"
      autoComplete="new-password"
      hint={`At least ${LIMITS.passwordMin} characters. A few words in a row do well.`}
      value={value}
      maxLength={LIMITS.passwordMax}
      problem={problem}
      onChange={({ target }) => onChange(target.value)}
    />
  );
}
