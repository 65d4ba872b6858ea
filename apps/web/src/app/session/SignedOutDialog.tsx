import { lazy, Suspense, useState } from 'react';
import { Dialog, Loading } from '../../kit/index.js';
import { selectSignedOut } from '../saving/savesSlice.js';
import { saveQueue, useAppSelector } from '../store.js';
import { useMe } from './useMe.js';
import { say } from '../../words/app.js';

// Brings the validation of its form with it, which nobody needs who stays signed in.
const SignInForm = lazy(async () => ({ default: (await import('./SignInForm.js')).SignInForm }));

/** When the session ran out while somebody was typing: sign in on the spot, and what was typed is saved. */
export function SignedOutDialog() {
  const signedOut = useAppSelector(selectSignedOut);
  const me = useMe();
  const [putOff, setPutOff] = useState(false);
  return (
    <Dialog
      open={signedOut && !putOff}
      onClose={() => setPutOff(true)}
      title={say('yourSessionRanOut')}
      description={say('whatYouTypedIsKeptIn')}
    >
      <Suspense fallback={<Loading what={say('form')} />}>
        <SignInForm email={me.email} onSignedIn={() => saveQueue.retryAll()} />
      </Suspense>
    </Dialog>
  );
}
