import { useEffect, useState } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { say } from '../../words/app.js';
import { endSession } from './leave.js';

/** Milliseconds between two tries. */
const TRY_EVERY = 3_000;

/** In the place of every page while the session is left and the server does not know it yet. */
export function SigningOutPage() {
  const [done, setDone] = useState(false);
  useEffect(() => {
    if (done) return;
    let tries = 0;
    const look = async () => {
      tries += 1;
      const isFirst = tries === 1;
      if (!(await endSession())) return;
      // A full load: nothing of this person's data stays in memory for the next one.
      if (isFirst) window.location.assign('/');
      else setDone(true);
    };
    void look();
    const timer = setInterval(() => void look(), TRY_EVERY);
    const online = () => void look();
    window.addEventListener('online', online);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', online);
    };
  }, [done]);
  return (
    <main id="main" className="mx-auto max-w-xl space-y-4 px-5 py-12">
      <h1 className="text-xl font-semibold">{done ? say('signOutDoneTitle') : say('signOutPendingTitle')}</h1>
      <div role="status">{done ? say('signOutDone') : <Notice tone="waiting">{say('signOutPending')}</Notice>}</div>
      <p className="text-ink-soft">{say('signOutPendingRemoved')}</p>
      {done && (
        <Button look="primary" onClick={() => window.location.assign('/')}>
          {say('signOutDoneContinue')}
        </Button>
      )}
    </main>
  );
}
