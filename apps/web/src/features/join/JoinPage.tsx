import type { InvitationView, OpenPlace } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { api, useSessionQuery, useSignOutMutation } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { NewPasswordField } from '../../app/session/NewPasswordField.js';
import { SignInForm } from '../../app/session/SignInForm.js';
import { Button, Checkbox, Loading, TextField } from '../../kit/index.js';
import { say } from '../../words/join.js';

interface Joining {
  readonly token: string;
  readonly placeIds: readonly string[];
  readonly password?: string;
  readonly name?: string;
}

const { useInvitationQuery, useAcceptMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    invitation: build.query<InvitationView, string>({ query: (token) => `/invitations/${token}` }),
    accept: build.mutation<null, Joining>({
      query: ({ token, ...body }) => ({ url: `/invitations/${token}`, method: 'POST', body }),
    }),
  }),
});

/** Where an invitation leads: what places it gives, and with which account to take them. */
export function JoinPage() {
  const { token = '' } = useParams();
  const { data, error } = useInvitationQuery(token);
  const { data: session } = useSessionQuery();
  const waiting = (data === undefined || session === undefined) && error === undefined;
  return (
    <Page title={say('placeForYou')}>
      <div className="mx-auto w-full max-w-md px-5 py-12">
        {error !== undefined && (
          <>
            <ProblemNotice error={error} />
            <p className="mt-4">
              <Link to="/" className="text-dusk underline">
                {say('goToSaltCircle')}
              </Link>
            </p>
          </>
        )}
        {waiting && <Loading what={say('yourInvitation')} />}
        {data !== undefined && session !== undefined && (
          <Invitation token={token} invitation={data} me={session.person?.email ?? null} />
        )}
      </div>
    </Page>
  );
}

interface InvitationProps {
  readonly token: string;
  readonly invitation: InvitationView;
  /** Address of whoever is signed in. */
  readonly me: string | null;
}

function Invitation({ token, invitation, me }: InvitationProps) {
  const { places, email, hasAccount } = invitation;
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [known, setKnown] = useState(hasAccount);
  const placeIds = places.flatMap(({ id }) => (without.has(id) ? [] : [id]));
  const choose = (id: string, taken: boolean) => {
    const next = new Set(without);
    if (taken) next.delete(id);
    else next.add(id);
    setWithout(next);
  };
  return (
    <div className="space-y-5">
      <Places places={places} chosen={placeIds} onChoose={choose} />
      {me !== null && <TakeAs token={token} placeIds={placeIds} me={me} invited={email} />}
      {me === null && known && <SignInFirst email={email} onNew={hasAccount ? null : () => setKnown(false)} />}
      {me === null && !known && (
        <MakeAccount
          token={token}
          placeIds={placeIds}
          email={email}
          name={places[0]?.name ?? ''}
          onKnown={() => setKnown(true)}
        />
      )}
    </div>
  );
}

interface PlacesProps {
  readonly places: readonly OpenPlace[];
  readonly chosen: readonly string[];
  readonly onChoose: (id: string, taken: boolean) => void;
}

function Places({ places, chosen, onChoose }: PlacesProps) {
  return (
    <ul aria-label={say('places')}>
      {places.map(({ id, course, name, role, by }) => (
        <li key={id} className="border-b border-line py-3 first:border-t">
          {places.length === 1 ? (
            <h2 className="text-xl font-semibold">{course}</h2>
          ) : (
            <Checkbox
              label={<span className="font-semibold">{course}</span>}
              checked={chosen.includes(id)}
              onChange={({ target }) => onChoose(id, target.checked)}
            />
          )}
          <p className="text-ink-soft">{say('hasGivenYouPlaceAs', { by, role, name })}</p>
        </li>
      ))}
    </ul>
  );
}

interface TakingProps {
  readonly token: string;
  readonly placeIds: readonly string[];
}

/** A full load: the page begins anew, with what has been taken. */
function leave(): void {
  window.location.assign('/');
}

function TakeAs({ token, placeIds, me, invited }: TakingProps & { readonly me: string; readonly invited: string }) {
  const [accept, { isLoading, error }] = useAcceptMutation();
  const [signOut] = useSignOutMutation();
  const take = async () => {
    const result = await accept({ token, placeIds });
    if (result.error === undefined) leave();
  };
  return (
    <div className="space-y-3">
      <p>
        {say('youAreSignedInAs', { strong: <strong className="break-words">{me}</strong> })}{' '}
        {me !== invited && <>{say('invitationWentToYouCan', { invited })}</>}
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-2">
        <Button look="primary" busy={isLoading} disabled={placeIds.length === 0} onClick={() => void take()}>
          {placeIds.length > 1 ? say('takePlaces', { placeIds: placeIds.length }) : say('takePlace')}
        </Button>
        <Button onClick={() => void signOut().then(() => window.location.reload())}>{say('useAnotherAccount')}</Button>
      </div>
    </div>
  );
}

function SignInFirst({ email, onNew }: { readonly email: string; readonly onNew: (() => void) | null }) {
  return (
    <div className="space-y-4">
      <p>{onNew === null ? say('youHaveAccountWithThen', { email }) : say('signInWithAccountThat')}</p>
      <SignInForm email={email} onSignedIn={() => window.location.reload()} />
      <p className="flex gap-4">
        <Link to="/forgotten" state={{ email }} className="text-dusk underline">
          {say('forgottenYourPassword')}
        </Link>
        {onNew !== null && (
          <button type="button" className="text-dusk underline" onClick={onNew}>
            {say('iHaveNoAccount')}
          </button>
        )}
      </p>
    </div>
  );
}

interface MakeAccountProps extends TakingProps {
  readonly email: string;
  readonly name: string;
  readonly onKnown: () => void;
}

function MakeAccount({ token, placeIds, email, name: listed, onKnown }: MakeAccountProps) {
  const [name, setName] = useState(listed);
  const [password, setPassword] = useState('');
  const [accept, { isLoading, error }] = useAcceptMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await accept({ token, placeIds, name, password });
    if (result.error === undefined) leave();
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4">
      <p>{say('makeAccountFromThenOn', { strong: <strong className="break-words">{email}</strong> })}</p>
      <input type="email" name="username" autoComplete="username" value={email} readOnly hidden />
      <TextField
        label={say('yourName')}
        autoComplete="name"
        value={name}
        maxLength={200}
        problem={fieldProblem(error, 'name')}
        onChange={({ target }) => setName(target.value)}
      />
      <NewPasswordField value={password} problem={fieldProblem(error, 'password')} onChange={setPassword} />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex flex-wrap items-center gap-4">
        <Button look="primary" type="submit" busy={isLoading} disabled={placeIds.length === 0}>
          {say('takeYourPlace')}
        </Button>
        <button type="button" className="text-dusk underline" onClick={onKnown}>
          {say('iHaveAccountAlready')}
        </button>
      </div>
    </form>
  );
}
