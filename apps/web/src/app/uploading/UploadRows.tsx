import { Button } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import type { Uploads } from './useUploads.js';

/** Files on their way: how far each is, and why one was refused. */
export function UploadRows({ uploads }: { readonly uploads: Uploads }) {
  if (uploads.rows.length === 0) return null;
  return (
    <ul className="max-w-[68ch]" aria-label="On the way">
      {uploads.rows.map(({ key, name, share, state, problem }) => (
        <li key={key} className="border-b border-line py-2">
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="min-w-0 flex-1 break-words">{name}</p>
            {state === 'refused' ? (
              <Button small onClick={() => uploads.dismiss(key)}>
                Put aside
              </Button>
            ) : (
              <span className="flex items-center gap-2 text-sm text-ink-soft">
                <progress className="h-2 w-32 accent-iodine" max={1} value={share} aria-label={`${name} on its way`} />
                <span role="status" className="w-28">
                  {state === 'looking' ? 'being looked at…' : `${Math.floor(share * 100)}% sent`}
                </span>
                {state === 'sending' && (
                  <Button small aria-label={`Cancel ${name}`} onClick={() => uploads.cancel(key)}>
                    Cancel
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
