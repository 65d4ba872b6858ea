import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { NewPasswordField } from '../../app/session/NewPasswordField.js';
import { Button, Loading } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useChoosePasswordMutation, usePasswordLinkQuery } from './linksApi.js';
import { say } from '../../words/sign-in.js';

/** Where a link for a new password leads. */
export function NewPasswordPage() {
  const { token = '' } = useParams();
  const { data, error } = usePasswordLinkQuery(token);
  return (
    <Entrance title={say('newPassword')}>
      {error !== undefined && (
        <>
          <ProblemNotice error={error} />
          <p className="mt-4">
            <Link to="/forgotten" className="text-dusk underline">
              {say('haveNewLinkSent')}
            </Link>
          </p>
        </>
      )}
      {data === undefined && error === undefined && <Loading what={say('yourLink')} />}
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
      <p>{say('forAllBrowsersThatAre', { strong: <strong className="break-words">{email}</strong> })}</p>
      <input type="email" name="username" autoComplete="username" value={email} readOnly hidden />
      <NewPasswordField value={password} problem={fieldProblem(error, 'password')} onChange={setPassword} />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <Button look="primary" type="submit" busy={isLoading}>
        {say('setItAndSignIn')}
      </Button>
    </form>
  );
}
