import { listed } from '@salt-circle/core';
import type { AccountView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { useSessionQuery } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Notice, TextField } from '../../kit/index.js';
import { useChangeAddressMutation, useKeepAddressMutation } from './accountApi.js';
import { say } from '../../words/account.js';

type Waiting = NonNullable<AccountView['newAddress']>;

/** The address to sign in with, and another one on its way to take its place. */
export function AddressSection({ account }: { readonly account: AccountView }) {
  const { data: session } = useSessionQuery();
  const { email, confirmed, newAddress } = account;
  return (
    <div className="space-y-3">
      <p>
        <span className="break-words">{email}</span>{' '}
        {!confirmed && <span className="text-ink-soft">{say('notConfirmedByMailYet')}</span>}
      </p>
      {newAddress !== null && <OnItsWay waiting={newAddress} email={email} />}
      {newAddress === null && session?.mail === true && <AddressForm />}
      {newAddress === null && session?.mail === false && (
        <p className="text-ink-soft">{say('thisServerSendsNoMail')}</p>
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
  if (!open) return <Button onClick={() => setOpen(true)}>{say('changeAddress')}</Button>;
  return (
    <form onSubmit={submit} className="max-w-md space-y-3" noValidate>
      <TextField
        label={say('newAddress')}
        type="email"
        autoFocus
        autoComplete="email"
        hint={say('bothAddressesAreSentLink')}
        value={email}
        problem={fieldProblem(error, 'email')}
        onChange={({ target }) => setEmail(target.value)}
      />
      <TextField
        label={say('yourPassword')}
        type="password"
        autoComplete="current-password"
        value={password}
        problem={fieldProblem(error, 'password')}
        onChange={({ target }) => setPassword(target.value)}
      />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex gap-2">
        <Button look="primary" type="submit" busy={isLoading}>
          {say('sendLinks')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('leaveIt')}</Button>
      </div>
    </form>
  );
}

function OnItsWay({ waiting, email }: { readonly waiting: Waiting; readonly email: string }) {
  const [keep, { isLoading, error }] = useKeepAddressMutation();
  const open = [...(waiting.fromOld ? [] : [email]), ...(waiting.fromNew ? [] : [waiting.email])];
  return (
    <Notice tone="waiting" title={say('toBeChangedTo', { email: waiting.email })}>
      <p>{say('waitsForLinksSentTo', { links: open.length, addresses: listed(open) })}</p>
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="mt-2">
        <Button small busy={isLoading} onClick={() => void keep()}>
          {say('keepPresentAddress')}
        </Button>
      </div>
    </Notice>
  );
}
