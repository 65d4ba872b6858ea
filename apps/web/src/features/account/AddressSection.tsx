import { counted } from '@salt-circle/core';
import type { AccountView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { useSessionQuery } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Notice, TextField } from '../../kit/index.js';
import { useChangeAddressMutation, useKeepAddressMutation } from './accountApi.js';

type Waiting = NonNullable<AccountView['newAddress']>;

/** The address to sign in with, and another one on its way to take its place. */
export function AddressSection({ account }: { readonly account: AccountView }) {
  const { data: session } = useSessionQuery();
  const { email, confirmed, newAddress } = account;
  return (
    <div className="space-y-3">
      <p>
        <span className="break-words">{email}</span>{' '}
        {!confirmed && <span className="text-ink-soft">not confirmed by mail yet</span>}
      </p>
      {newAddress !== null && <OnItsWay waiting={newAddress} email={email} />}
      {newAddress === null && session?.mail === true && <AddressForm />}
      {newAddress === null && session?.mail === false && (
        <p className="text-ink-soft">This server sends no mail, so another address cannot be confirmed.</p>
      )}
    </div>
  );
}

function AddressForm() {
  const [open, setOpen] = useState(false);
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [change, { isLoading, error }] = useChangeAddressMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void change({ email, password });
  };
  if (!open) return <Button onClick={() => setOpen(true)}>Change the address…</Button>;
  return (
    <form onSubmit={submit} className="max-w-md space-y-3" noValidate>
      <TextField
        label="New address"
        type="email"
        autoFocus
        autoComplete="email"
        hint="Both addresses are sent a link. The change is made when both have been used."
        value={email}
        problem={fieldProblem(error, 'email')}
        onChange={({ target }) => setEmail(target.value)}
      />
      <TextField
        label="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        problem={fieldProblem(error, 'password')}
        onChange={({ target }) => setPassword(target.value)}
      />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex gap-2">
        <Button look="primary" type="submit" busy={isLoading}>
          Send the links
        </Button>
        <Button onClick={() => setOpen(false)}>Leave it</Button>
      </div>
    </form>
  );
}

function OnItsWay({ waiting, email }: { readonly waiting: Waiting; readonly email: string }) {
  const [keep, { isLoading, error }] = useKeepAddressMutation();
  const open = [...(waiting.fromOld ? [] : [email]), ...(waiting.fromNew ? [] : [waiting.email])];
  return (
    <Notice tone="waiting" title={`To be changed to ${waiting.email}`}>
      <p>
        Waits for the {counted(open.length, 'link', 'links')} sent to {open.join(' and to ')}. Links last a day; until
        then you sign in as before.
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="mt-2">
        <Button small busy={isLoading} onClick={() => void keep()}>
          Keep the present address
        </Button>
      </div>
    </Notice>
  );
}
