import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { SignInRequest } from '@salt-circle/contracts';
import { useForm } from 'react-hook-form';
import { Button, Notice, TextField } from '../../kit/index.js';
import { problemOf, useSignInMutation } from '../api.js';

const resolver = classValidatorResolver(SignInRequest);

export interface SignInFormProps {
  readonly email?: string;
  readonly onSignedIn: () => void;
}

export function SignInForm({ email = '', onSignedIn }: SignInFormProps) {
  const [signIn, { isLoading, error }] = useSignInMutation();
  const { register, handleSubmit, formState } = useForm<SignInRequest>({
    resolver,
    defaultValues: { email, password: '' },
  });
  const { errors } = formState;
  const submit = handleSubmit(async (values) => {
    const result = await signIn({ email: values.email, password: values.password });
    if (result.error === undefined) onSignedIn();
  });
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4" noValidate>
      <TextField
        label="Email"
        type="email"
        autoComplete="username"
        problem={errors.email?.message}
        {...register('email')}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        problem={errors.password?.message}
        {...register('password')}
      />
      {error !== undefined && (
        <Notice tone="problem" title={problemOf(error).sentence}>
          {problemOf(error).whatToDo}
        </Notice>
      )}
      <Button look="primary" type="submit" busy={isLoading}>
        Sign in
      </Button>
    </form>
  );
}
