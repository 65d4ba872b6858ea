import { useState, type FormEvent } from 'react';
import { Link, useLocation } from 'react-router';
import { useSessionQuery } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Loading, Notice, TextField } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useForgottenMutation } from './linksApi.js';
import { say } from '../../words/sign-in.js';

/** For whoever has forgotten the password: a link by mail. */
export function ForgottenPage() {
  const { data: session } = useSessionQuery();
  const location = useLocation();
  const [email, setEmail] = useState((location.state as { email?: string } | null)?.email ?? '');
  const [ask, { isLoading, isSuccess, error }] = useForgottenMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void ask(email.trim());
  };
  return (
    <Entrance title={say('newPassword')}>
      {session === undefined && <Loading what={say('thisPage')} />}
      {session?.mail === false && (
        <Notice tone="waiting" title={say('thisServerSendsNoMail')}>
          {say('askOneWhoRunsIt')}
        </Notice>
      )}
      {session?.mail === true && isSuccess && (
        <Notice tone="done" title={say('lookIntoYourMailbox')}>
          {say('ifHasAccountLinkIs', { email: email.trim() })}
        </Notice>
      )}
      {session?.mail === true && !isSuccess && (
        <form onSubmit={submit} className="space-y-4" noValidate>
          <TextField
            label={say('email')}
            type="email"
            autoComplete="username"
            hint={say('addressThatYouSignIn')}
            value={email}
            problem={fieldProblem(error, 'email')}
            onChange={({ target }) => setEmail(target.value)}
          />
          {belongsNowhere(error) && <ProblemNotice error={error} />}
          <Button look="primary" type="submit" busy={isLoading}>
            {say('sendMeLink')}
          </Button>
        </form>
      )}
      <p className="mt-6 flex gap-4">
        <Link to="/sign-in" className="text-dusk underline">
          {say('backToSigningIn')}
        </Link>
        {session?.demo === true && (
          <Link to="/demo/mail" className="text-dusk underline">
            {say('mailOfDemo')}
          </Link>
        )}
      </p>
    </Entrance>
  );
}
