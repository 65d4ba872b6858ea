import { useEffect, useRef, useState, type FormEvent } from 'react';
import { Button, Dialog, TextField } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { say } from '../../words/app.js';
import { askPasswordBy } from './confirmPassword.js';
import { belongsNowhere, fieldProblem } from './fieldProblem.js';
import { useMe } from './useMe.js';

const { useConfirmPasswordMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    confirmPassword: build.mutation<null, string>({
      query: (password) => ({ url: '/session/password', method: 'POST', body: { password } }),
    }),
  }),
});

/** Asks for the password again where an act wants it; the act goes on by itself once it is given. */
export function ConfirmPasswordDialog() {
  const { email } = useMe();
  const [open, setOpen] = useState(false);
  const [password, setPassword] = useState('');
  const answer = useRef<(given: boolean) => void>(() => undefined);
  const [confirm, { isLoading, error, reset }] = useConfirmPasswordMutation();
  useEffect(() => {
    askPasswordBy(
      () =>
        new Promise((done) => {
          answer.current = done;
          setOpen(true);
        }),
    );
    return () => askPasswordBy(null);
  }, []);
  const close = (given: boolean) => {
    answer.current(given);
    setOpen(false);
    setPassword('');
    reset();
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await confirm(password);
    if (result.error === undefined) close(true);
  };
  return (
    <Dialog
      open={open}
      onClose={() => close(false)}
      title={say('confirmPasswordTitle')}
      description={say('confirmPasswordDescription')}
    >
      <form onSubmit={(event) => void submit(event)} className="space-y-4" noValidate>
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <TextField
          label={say('password')}
          type="password"
          autoComplete="current-password"
          value={password}
          problem={fieldProblem(error, 'password')}
          onChange={({ target }) => setPassword(target.value)}
        />
        {belongsNowhere(error) && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" busy={isLoading}>
          {say('confirmPasswordSubmit')}
        </Button>
      </form>
    </Dialog>
  );
}
