import type { SessionRow } from '@salt-circle/contracts';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { relatively } from '../../app/time/words.js';
import { Button } from '../../kit/index.js';
import { useEndSessionMutation } from './accountApi.js';
import { say } from '../../words/account.js';

/** Browsers that are signed in, and how to end that. */
export function SessionsSection({ sessions }: { readonly sessions: readonly SessionRow[] }) {
  const [end, { isLoading, error }] = useEndSessionMutation();
  // Sessions go by the real time, which the demo does not move.
  const now = Date.now();
  const others = sessions.filter(({ thisOne }) => !thisOne);
  return (
    <>
      <ul>
        {sessions.map(({ id, browser, since, lastSeen, thisOne }) => (
          <li key={id} className="flex items-center gap-3 border-b border-line py-2 first:border-t">
            <div className="min-w-0 flex-1">
              <span className="font-semibold">{browser}</span>{' '}
              {thisOne && <span className="text-kelp">{say('thisBrowser')}</span>}
              <p className="text-sm text-ink-soft">
                {thisOne
                  ? say('signedIn', { when: relatively(Date.parse(since), now) })
                  : say('lastUsed', {
                      when: relatively(Date.parse(since), now),
                      used: relatively(Date.parse(lastSeen), now),
                    })}
              </p>
            </div>
            {!thisOne && (
              <Button
                small
                disabled={isLoading}
                aria-label={say('signOutSignedIn', { browser, when: relatively(Date.parse(since), now) })}
                onClick={() => void end(id)}
              >
                {say('signOut')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {error !== undefined && <ProblemNotice error={error} />}
      {others.length > 1 && (
        <div className="mt-3">
          <Button busy={isLoading} onClick={() => void end(null)}>
            {say('signOutAllOthers', { others: others.length })}
          </Button>
        </div>
      )}
    </>
  );
}
