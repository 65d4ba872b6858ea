import { useState, type FormEvent } from 'react';
import { Link, useLocation } from 'react-router';
import { useSessionQuery } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Loading, Notice, TextField } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useForgottenMutation } from './linksApi.js';

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
    <Entrance title="A new password">
      {session === undefined && <Loading what="this page" />}
      {session?.mail === false && (
        <Notice tone="waiting" title="This server sends no mail.">
          Ask the one who runs it for a link to choose a new password.
        </Notice>
      )}
      {session?.mail === true && isSuccess && (
        <Notice tone="done" title="Look into your mailbox.">
          If {email.trim()} has an account, a link is on its way there. It works once, within an hour. If nothing comes,
          look among unwanted mail; perhaps your account has another address.
        </Notice>
      )}
      {session?.mail === true && !isSuccess && (
        <form onSubmit={submit} className="space-y-4" noValidate>
          <TextField
            label="Email"
            type="email"
            autoComplete="username"
            hint="The address that you sign in with."
            value={email}
            problem={fieldProblem(error, 'email')}
            onChange={({ target }) => setEmail(target.value)}
          />
          {belongsNowhere(error) && <ProblemNotice error={error} />}
          <Button look="primary" type="submit" busy={isLoading}>
            Send me a link
          </Button>
        </form>
      )}
      <p className="mt-6 flex gap-4">
        <Link to="/sign-in" className="text-dusk underline">
          Back to signing in
        </Link>
        {session?.demo === true && (
          <Link to="/demo/mail" className="text-dusk underline">
            Mail of the demo
          </Link>
        )}
      </p>
    </Entrance>
  );
}
