import { useState, type FormEvent } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { problemOf, useSignInMutation } from '../api.js';
import { belongsNowhere } from './fieldProblem.js';
import { SignInFields } from './SignInFields.js';
import { say } from '../../words/app.js';

export interface SignInFormProps {
  readonly email?: string;
  readonly onSignedIn: () => void;
}

export function SignInForm({ email: known = '', onSignedIn }: SignInFormProps) {
  const [email, setEmail] = useState(known);
  const [password, setPassword] = useState('');
  const [signIn, { isLoading, error }] = useSignInMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await signIn({ email, password });
    if (result.error === undefined) onSignedIn();
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4" noValidate>
      <SignInFields email={email} password={password} error={error} onEmail={setEmail} onPassword={setPassword} />
      {belongsNowhere(error) && (
        <Notice tone="problem" title={problemOf(error).sentence}>
          {problemOf(error).whatToDo}
        </Notice>
      )}
      <Button look="primary" type="submit" busy={isLoading}>
        {say('signIn')}
      </Button>
    </form>
  );
}
