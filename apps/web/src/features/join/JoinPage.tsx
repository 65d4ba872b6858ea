import type { InvitationView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { api, problemOf } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, TextField } from '../../kit/index.js';

const { useInvitationQuery, useAcceptMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    invitation: build.query<InvitationView, string>({ query: (token) => `/invitations/${token}` }),
    accept: build.mutation<null, { token: string; password: string }>({
      query: ({ token, password }) => ({ url: `/invitations/${token}`, method: 'POST', body: { password } }),
    }),
  }),
});

/** Where an invitation leads: choose a password, and one is in. */
export function JoinPage() {
  const { token = '' } = useParams();
  const { data, error } = useInvitationQuery(token);
  return (
    <Page title="Your place">
      <div className="mx-auto w-full max-w-md px-5 py-12">
        {error !== undefined && (
          <>
            <ProblemNotice error={error} />
            <p className="mt-4">
              <Link to="/sign-in" className="text-dusk underline">
                Sign in
              </Link>
            </p>
          </>
        )}
        {error === undefined && data === undefined && <Loading what="your invitation" />}
        {data !== undefined && <Joining token={token} invitation={data} />}
      </div>
    </Page>
  );
}

function Joining({ token, invitation }: { readonly token: string; readonly invitation: InvitationView }) {
  const [password, setPassword] = useState('');
  const [accept, { isLoading, error }] = useAcceptMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await accept({ token, password });
    // A full load: the page begins anew as the one who has just signed in.
    if (result.error === undefined) window.location.assign('/');
  };
  const field =
    error === undefined ? undefined : problemOf(error).fields.find(({ path }) => path === 'password')?.sentence;
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4">
      <h2 className="text-xl font-semibold">{invitation.course}</h2>
      <p>
        {invitation.by} has given you, {invitation.name}, a place in this course. Choose a password; from then on you
        sign in with {invitation.email}.
      </p>
      <input type="email" name="username" autoComplete="username" value={invitation.email} readOnly hidden />
      <TextField
        label="Password"
        type="password"
        autoComplete="new-password"
        hint="At least 12 characters. A few words in a row do well."
        value={password}
        problem={field}
        onChange={({ target }) => setPassword(target.value)}
      />
      {error !== undefined && field === undefined && <ProblemNotice error={error} />}
      <Button look="primary" type="submit" busy={isLoading}>
        Take your place
      </Button>
    </form>
  );
}
