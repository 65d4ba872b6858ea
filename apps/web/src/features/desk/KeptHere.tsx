import { wordsBy } from '@salt-circle/core';
import { useState } from 'react';
import type { Kept } from '../../app/offline/keptReviews.js';
import { useAppSelector } from '../../app/store.js';
import { selectWaiting } from '../../app/saving/savesSlice.js';
import { When } from '../../app/time/When.js';
import { bytesInWords } from '../../app/viewing/sizes.js';
import { Button, Dialog } from '../../kit/index.js';
import { say } from '../../words/desk.js';

interface KeptHereProps {
  readonly kept: Kept;
  readonly timeZone: string;
  readonly savePrefix: string;
  readonly onDrop: () => void;
}

const WORDS: Readonly<Record<Kept['state'], string>> = wordsBy(say, {
  none: 'notKeptHere',
  'on-the-way': 'beingKept',
  kept: 'keptHere',
  full: 'noRoomToKeepIt',
  failed: 'notKeptHere',
  removed: 'removedFromHere',
});

/** What of this review is in this browser, and what waits to be sent. */
export function KeptHere({ kept, timeZone, savePrefix, onDrop }: KeptHereProps) {
  const [open, setOpen] = useState(false);
  const waiting = useAppSelector((state) => selectWaiting(state, savePrefix));
  return (
    <>
      <Button look="quiet" small onClick={() => setOpen(true)}>
        {WORDS[kept.state]}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('withoutConnection')}>
        <div className="space-y-3">
          {kept.state === 'kept' ? (
            <p>
              {say('draftAndYourReviewAre', {
                files: kept.files,
                bytesInWords: bytesInWords(kept.bytes),
                when: <When at={new Date(kept.until).toISOString()} timeZone={timeZone} />,
              })}
            </p>
          ) : (
            <p>
              {kept.state === 'on-the-way'
                ? say('draftIsBeingCopiedInto')
                : kept.state === 'full'
                  ? say('thisBrowserHasNoRoom')
                  : kept.state === 'removed'
                    ? say('youRemovedDraftFromThis')
                    : say('draftCouldNotBeCopied')}
            </p>
          )}
          <p>{waiting === 0 ? say('everythingThatYouWroteHas') : say('changesWaitToBeSent', { waiting })}</p>
          {kept.state === 'kept' && (
            <Button
              onClick={() => {
                setOpen(false);
                onDrop();
              }}
            >
              {say('removeItFromThisBrowser')}
            </Button>
          )}
        </div>
      </Dialog>
    </>
  );
}
