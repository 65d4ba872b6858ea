import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Button, Loading } from '../../kit/index.js';
import { selectSignedOut } from '../saving/savesSlice.js';
import { saveQueue, useAppSelector } from '../store.js';
import { say } from '../../words/app.js';
import { signInBy } from './requestSignIn.js';
import { useMe } from './useMe.js';

// Brings the validation of its form with it, which nobody needs who stays signed in.
const SignInForm = lazy(async () => ({ default: (await import('./SignInForm.js')).SignInForm }));

/**
 * When the session ended while somebody was typing. It lies over the top of the page and never takes the focus: what is typed goes on
 * into the text. It stays until somebody has signed in, and then all that was typed is sent.
 */
export function SignedOutBar() {
  const signedOut = useAppSelector(selectSignedOut);
  const me = useMe();
  const [open, setOpen] = useState(false);
  const before = useRef<Element | null>(null);
  const openForm = () => {
    before.current = document.activeElement;
    setOpen(true);
  };
  // Back to where the next word goes.
  const closeForm = () => {
    setOpen(false);
    if (before.current instanceof HTMLElement) before.current.focus();
  };
  useEffect(() => {
    signInBy(openForm);
    return () => signInBy(null);
  }, []);
  useEffect(() => {
    if (!signedOut) setOpen(false);
  }, [signedOut]);
  if (!signedOut) return null;
  return (
    <div className="no-print fixed inset-x-0 top-0 z-40 border-b-2 border-copper bg-paper px-5 py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <p role="status" className="flex-1 font-semibold text-copper">
          {say('signedOutBarTitle')}
        </p>
        {open ? (
          <Button small onClick={closeForm}>
            {say('signedOutBarClose')}
          </Button>
        ) : (
          <Button small look="primary" onClick={openForm}>
            {say('signedOutBarOpen')}
          </Button>
        )}
      </div>
      {open && (
        <div className="mx-auto max-w-md py-3">
          <Suspense fallback={<Loading what={say('form')} />}>
            <SignInForm
              email={me.email}
              onSignedIn={() => {
                closeForm();
                saveQueue.retryAll();
              }}
            />
          </Suspense>
        </div>
      )}
    </div>
  );
}
