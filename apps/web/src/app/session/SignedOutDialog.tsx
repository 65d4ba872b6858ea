import { lazy, Suspense, useState } from 'react';
import { Dialog, Loading } from '../../kit/index.js';
import { selectSignedOut } from '../saving/savesSlice.js';
import { saveQueue, useAppSelector } from '../store.js';
import { useMe } from './useMe.js';

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
      title="Your session ran out"
      description="What you typed is kept in this browser. Sign in here, and it will be saved; you stay where you are."
    >
      <Suspense fallback={<Loading what="the form" />}>
        <SignInForm email={me.email} onSignedIn={() => saveQueue.retryAll()} />
      </Suspense>
    </Dialog>
  );
}
