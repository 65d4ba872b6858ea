import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere } from '../../app/session/fieldProblem.js';
import { SignInFields } from '../../app/session/SignInFields.js';
import { Button, Notice } from '../../kit/index.js';
import type { StepProps } from './step.js';
import { useSendProofMutation } from './arriveApi.js';
import { say } from '../../words/arrive.js';

interface OwnAccountProps extends Omit<StepProps, 'view'> {
  /** Whether a link can be sent to the account instead. */
  readonly byMail?: boolean;
  readonly onLeave: () => void;
}

/** By an account that somebody has already: its password, or a link to its address. */
export function OwnAccount({ token, busy, error, tell, byMail = false, onLeave }: OwnAccountProps) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    tell('account', { email, password });
  };
  return (
    <form onSubmit={submit} className="space-y-4" noValidate>
      <p>{say('signInWithYourAccount')}</p>
      <SignInFields email={email} password={password} error={error} onEmail={setEmail} onPassword={setPassword} />
      {error !== undefined && belongsNowhere(error) && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" look="primary" busy={busy} disabled={email === '' || password === ''}>
          {say('useThisAccount')}
        </Button>
        <Button onClick={onLeave}>{say('back')}</Button>
      </div>
      {byMail && <ByMail token={token} email={email} words={say('sendLinkToItInstead')} />}
    </form>
  );
}

/** @param email null for the place that waits: the link goes where the course says */
export function ByMail({ token, email, words }: { token: string; email: string | null; words: string }) {
  const [send, { isLoading, isSuccess, error }] = useSendProofMutation();
  return (
    <div className="space-y-2">
      <Button busy={isLoading} disabled={email === ''} onClick={() => void send({ token, email })}>
        {words}
      </Button>
      {isSuccess && (
        <Notice tone="done" title={say('ifThereIsSomebodyWith')}>
          {say('openItSayThatIt')}
        </Notice>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
