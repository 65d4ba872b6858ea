import { counted } from '@salt-circle/core';
import { useState } from 'react';
import type { Kept } from '../../app/offline/keptReviews.js';
import { useAppSelector } from '../../app/store.js';
import { selectWaiting } from '../../app/saving/savesSlice.js';
import { When } from '../../app/time/When.js';
import { bytesInWords } from '../../app/viewing/sizes.js';
import { Button, Dialog } from '../../kit/index.js';

interface KeptHereProps {
  readonly kept: Kept;
  readonly timeZone: string;
  readonly savePrefix: string;
  readonly onDrop: () => void;
}

const WORDS: Readonly<Record<Kept['state'], string>> = {
  none: 'Not kept here',
  'on-the-way': 'Being kept…',
  kept: 'Kept here',
  full: 'No room to keep it',
  failed: 'Not kept here',
  removed: 'Removed from here',
};

/** What of this review is in this browser, and what waits to be sent. */
export function KeptHere({ kept, timeZone, savePrefix, onDrop }: KeptHereProps) {
  const [open, setOpen] = useState(false);
  const waiting = useAppSelector((state) => selectWaiting(state, savePrefix));
  return (
    <>
      <Button look="quiet" small onClick={() => setOpen(true)}>
        {WORDS[kept.state]}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="Without a connection">
        <div className="space-y-3">
          {kept.state === 'kept' ? (
            <p>
              The draft and your review are kept in this browser, with {counted(kept.files, '1 file', '# files')} (
              {bytesInWords(kept.bytes)} in all): you can go on without a connection, also after closing the browser. It
              is removed when you sign out, and otherwise{' '}
              <When at={new Date(kept.until).toISOString()} timeZone={timeZone} />.
            </p>
          ) : (
            <p>
              {kept.state === 'on-the-way'
                ? 'The draft is being copied into this browser, so that you can go on without a connection.'
                : kept.state === 'full'
                  ? 'This browser has no room left for the draft. You can read and write as long as there is a connection; what you type is kept all the same.'
                  : kept.state === 'removed'
                    ? 'You removed the draft from this browser. It is copied again when you next open this review. What you type is kept as long as this page is open.'
                    : 'The draft could not be copied into this browser: there is no connection, or it keeps nothing, as in a private window. What you type is kept as long as this page is open.'}
            </p>
          )}
          <p>
            {waiting === 0
              ? 'Everything that you wrote has reached the server.'
              : counted(waiting, '1 change waits to be sent.', '# changes wait to be sent.')}
          </p>
          {kept.state === 'kept' && (
            <Button
              onClick={() => {
                setOpen(false);
                onDrop();
              }}
            >
              Remove it from this browser
            </Button>
          )}
        </div>
      </Dialog>
    </>
  );
}
