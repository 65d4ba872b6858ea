import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { NewPasswordField } from '../../app/session/NewPasswordField.js';
import { Button, Loading } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useChoosePasswordMutation, usePasswordLinkQuery } from './linksApi.js';

/** Where a link for a new password leads. */
export function NewPasswordPage() {
  const { token = '' } = useParams();
  const { data, error } = usePasswordLinkQuery(token);
  return (
    <Entrance title="A new password">
      {error !== undefined && (
        <>
          <ProblemNotice error={error} />
          <p className="mt-4">
            <Link to="/forgotten" className="text-dusk underline">
              Have a new link sent
            </Link>
          </p>
        </>
      )}
      {data === undefined && error === undefined && <Loading what="your link" />}
      {data !== undefined && <Choosing token={token} email={data.email} />}
    </Entrance>
  );
}

function Choosing({ token, email }: { readonly token: string; readonly email: string }) {
  const [password, setPassword] = useState('');
  const [choose, { isLoading, error }] = useChoosePasswordMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await choose({ token, password });
    // A full load: the page begins anew as the one who has just signed in.
    if (result.error === undefined) window.location.assign('/');
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4">
      <p>
        For <strong className="break-words">{email}</strong>. All browsers that are signed in with this account will be
        signed out.
      </p>
      <input type="email" name="username" autoComplete="username" value={email} readOnly hidden />
      <NewPasswordField value={password} problem={fieldProblem(error, 'password')} onChange={setPassword} />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <Button look="primary" type="submit" busy={isLoading}>
        Set it and sign in
      </Button>
    </form>
  );
}
