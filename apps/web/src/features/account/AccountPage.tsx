import type { AccountView } from '@salt-circle/contracts';
import { useState, type FormEvent, type ReactNode } from 'react';
import { Page } from '../../app/frame/Page.js';
import { OpenPlaces } from '../../app/places/OpenPlaces.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { NewPasswordField } from '../../app/session/NewPasswordField.js';
import { Button, Loading, Notice, TextField } from '../../kit/index.js';
import { useAccountQuery, useChangePasswordMutation, useRenameMutation } from './accountApi.js';
import { AddressSection } from './AddressSection.js';
import { SessionsSection } from './SessionsSection.js';
import { TokensSection } from './TokensSection.js';
import { say } from '../../words/account.js';
import { ROLE_WORDS } from '../../app/People.js';

/** The account, which is one's own: courses have no say in it. */
export function AccountPage() {
  const { data, error } = useAccountQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Page title={say('yourAccount')}>
      <div className="mx-auto w-full max-w-2xl px-5 py-6">
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what={say('yourAccountWord')} />}
        {data !== undefined && <Sections account={data} />}
      </div>
    </Page>
  );
}

function Sections({ account }: { readonly account: AccountView }) {
  return (
    <>
      <OpenPlaces places={account.open} />
      <Section title={say('name')}>
        <NameForm name={account.name} />
      </Section>
      {account.email === '' ? (
        <Section title={say('howYouComeIn')}>
          <p>{say('byYourPlatformPressLink')}</p>
        </Section>
      ) : (
        <>
          <Section title={say('addressToSignInWith')}>
            <AddressSection account={account} />
          </Section>
          <Section title={say('password')}>
            <PasswordForm email={account.email} />
          </Section>
        </>
      )}
      <Section title={say('whereYouAreSignedIn')}>
        <SessionsSection sessions={account.sessions} />
      </Section>
      <TokensSection />
      <Section title={say('howCoursesListYou')}>
        <Listed places={account.places} />
      </Section>
    </>
  );
}

function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-t border-line py-6 first:border-t-0 first:pt-0">
      <h2 className="mb-3 text-lg font-semibold">{title}</h2>
      {children}
    </section>
  );
}

function NameForm({ name }: { readonly name: string }) {
  const [value, setValue] = useState(name);
  const [rename, { isLoading, isSuccess, error }] = useRenameMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void rename(value);
  };
  return (
    <form onSubmit={submit} className="max-w-md space-y-3">
      <TextField
        label={say('yourName')}
        labelHidden
        autoComplete="name"
        hint={say('forYouAloneWhatOthers')}
        value={value}
        maxLength={200}
        problem={fieldProblem(error, 'name')}
        onChange={({ target }) => setValue(target.value)}
      />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex items-center gap-3">
        <Button type="submit" busy={isLoading} disabled={value.trim() === name}>
          {say('saveName')}
        </Button>
        {isSuccess && value.trim() === name && (
          <span role="status" className="text-kelp">
            {say('saved')}
          </span>
        )}
      </div>
    </form>
  );
}

function PasswordForm({ email }: { readonly email: string }) {
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [change, { isLoading, isSuccess, error }] = useChangePasswordMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await change({ old, password });
    if (result.error !== undefined) return;
    setOld('');
    setPassword('');
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="max-w-md space-y-3">
      <input type="email" name="username" autoComplete="username" value={email} readOnly hidden />
      <TextField
        label={say('presentPassword')}
        type="password"
        autoComplete="current-password"
        value={old}
        problem={fieldProblem(error, 'old')}
        onChange={({ target }) => setOld(target.value)}
      />
      <NewPasswordField value={password} problem={fieldProblem(error, 'password')} onChange={setPassword} />
      {belongsNowhere(error) && <ProblemNotice error={error} />}
      {isSuccess && <Notice tone="done">{say('passwordIsChangedAllOther')}</Notice>}
      <Button type="submit" busy={isLoading} disabled={old === '' || password === ''}>
        {say('changePassword')}
      </Button>
    </form>
  );
}

function Listed({ places }: Pick<AccountView, 'places'>) {
  if (places.length === 0) return <p className="text-ink-soft">{say('youHaveNoPlaceIn')}</p>;
  return (
    <>
      <ul>
        {places.map(({ course, name, email, role }) => (
          <li key={course} className="border-b border-line py-2 first:border-t">
            <span className="font-semibold">{course}</span> <span className="text-ink-soft">{ROLE_WORDS[role]}</span>
            <br />
            {say('listedAs', {
              name,
              address: <span className="break-words">{email === '' ? say('noAddress') : email}</span>,
            })}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-ink-soft">{say('coursesMailGoesToAddress')}</p>
    </>
  );
}
