import type { SessionRow } from '@salt-circle/contracts';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { relatively } from '../../app/time/words.js';
import { Button } from '../../kit/index.js';
import { useEndSessionMutation } from './accountApi.js';

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
              {thisOne && <span className="text-kelp">this browser</span>}
              <p className="text-sm text-ink-soft">
                signed in {relatively(Date.parse(since), now)}
                {!thisOne && <>, last used {relatively(Date.parse(lastSeen), now)}</>}
              </p>
            </div>
            {!thisOne && (
              <Button
                small
                disabled={isLoading}
                aria-label={`Sign out ${browser}, signed in ${relatively(Date.parse(since), now)}`}
                onClick={() => void end(id)}
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {error !== undefined && <ProblemNotice error={error} />}
      {others.length > 1 && (
        <div className="mt-3">
          <Button busy={isLoading} onClick={() => void end(null)}>
            Sign out all {others.length} others
          </Button>
        </div>
      )}
    </>
  );
}
