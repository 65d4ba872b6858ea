import { useEffect, useState } from 'react';
import { selectSingleKeys, singleKeysChanged } from '../../app/layoutSlice.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Button, Checkbox, Dialog, Key } from '../../kit/index.js';
import { say } from '../../words/desk.js';

const keysOfDesk = (): ReadonlyArray<readonly [string, string]> => [
  ['↓ ↑', say('inDraftChooseNextOr')],
  [say('shift'), say('addSentenceToChosenPassage')],
  ['1 2 3 4', say('leaveKeepChangeAskOr')],
  ['s, t, …', say('leaveFixNoteWithLabel')],
  [say('alt1234'), say('inNoteChooseItsKind')],
  [say('altE'), say('inChangeOrFixNote')],
  ['↓ ↑ ← →', say('onceMarkRegionWasPressed')],
  [say('space'), say('onTimeLineSecondBack')],
  [say('page'), say('inPdfNextOrPrevious')],
  [say('esc'), say('leaveNoteOrLetGo')],
  ['← →', say('onStripBetweenSidesMake')],
  [say('ctrlK'), say('goToAnotherPage')],
  ['P N', say('readingListOfReviewsPrevious')],
  ['L', say('checkingReviewsLookedAtAnd')],
  ['?', say('showTheseKeys')],
];

export function DeskHelp() {
  const [open, setOpen] = useState(false);
  const singleKeys = useAppSelector(selectSingleKeys);
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (!singleKeys) return;
    const press = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).closest('input, textarea, select, [contenteditable]') !== null;
      if (event.key === '?' && !typing) setOpen(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [singleKeys]);
  return (
    <>
      <Button look="quiet" small onClick={() => setOpen(true)}>
        {say('keys')} {singleKeys && <Key>?</Key>}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('keys')}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
          {keysOfDesk().map(([key, words]) => (
            <div key={key} className="contents">
              <dt>
                <Key>{key}</Key>
              </dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
        <div className="mt-4">
          <Checkbox
            label={say('singleKeysPNL')}
            checked={singleKeys}
            onChange={({ target }) => dispatch(singleKeysChanged(target.checked))}
          />
        </div>
      </Dialog>
    </>
  );
}
