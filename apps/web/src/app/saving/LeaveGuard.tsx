import { useEffect, type ReactNode } from 'react';
import { useBlocker } from 'react-router';
import { Button, Dialog } from '../../kit/index.js';
import { say } from '../../words/app.js';

interface LeaveGuardProps {
  /** Something on the page would be gone. */
  readonly unsaved: boolean;
  /** What it is. */
  readonly children: ReactNode;
}

/** Asks before the page is left while something on it can be saved nowhere. One of a page. */
export function LeaveGuard({ unsaved, children }: LeaveGuardProps) {
  const blocker = useBlocker(({ currentLocation, nextLocation }) => {
    return unsaved && currentLocation.pathname !== nextLocation.pathname;
  });
  useEffect(() => {
    if (!unsaved) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unsaved]);
  return (
    <Dialog
      open={blocker.state === 'blocked'}
      onClose={() => blocker.reset?.()}
      title={say('leaveWithSomethingNotSaved')}
    >
      <div className="mb-4 space-y-1">{children}</div>
      <div className="flex flex-wrap gap-2">
        <Button look="primary" onClick={() => blocker.reset?.()}>
          {say('stay')}
        </Button>
        <Button look="destructive" onClick={() => blocker.proceed?.()}>
          {say('leaveWithoutIt')}
        </Button>
      </div>
    </Dialog>
  );
}
