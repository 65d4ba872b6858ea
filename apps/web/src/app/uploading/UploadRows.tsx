import { Button } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import type { Uploads } from './useUploads.js';
import { say } from '../../words/app.js';

/** Files on their way: how far each is, and why one was refused. */
export function UploadRows({ uploads }: { readonly uploads: Uploads }) {
  if (uploads.rows.length === 0) return null;
  return (
    <ul className="max-w-[68ch]" aria-label={say('onWay')}>
      {uploads.rows.map(({ key, name, share, state, problem }) => (
        <li key={key} className="border-b border-line py-2">
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="min-w-0 flex-1 break-words">{name}</p>
            {state === 'refused' ? (
              <Button small onClick={() => uploads.dismiss(key)}>
                {say('putAside')}
              </Button>
            ) : (
              <span className="flex items-center gap-2 text-sm text-ink-soft">
                <progress
                  className="h-2 w-32 accent-iodine"
                  max={1}
                  value={share}
                  aria-label={say('onItsWay', { name })}
                />
                <span role="status" className="w-28">
                  {state === 'looking' ? say('beingLookedAt') : say('sent', { floor: Math.floor(share * 100) })}
                </span>
                {state === 'sending' && (
                  <Button small aria-label={say('cancel', { name })} onClick={() => uploads.cancel(key)}>
                    {say('cancelLabel')}
                  </Button>
                )}
              </span>
            )}
          </div>
          {problem !== null && <ProblemNotice error={problem} />}
        </li>
      ))}
    </ul>
  );
}
