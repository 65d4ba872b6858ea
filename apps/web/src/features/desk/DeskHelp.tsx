import { useEffect, useState } from 'react';
import { selectSingleKeys, singleKeysChanged } from '../../app/layoutSlice.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Button, Checkbox, Dialog, Key } from '../../kit/index.js';

const KEYS: ReadonlyArray<readonly [string, string]> = [
  ['↓ ↑', 'in the draft: choose the next or previous sentence'],
  ['Shift ↓ ↑', 'add a sentence to the chosen passage'],
  ['1 2 3 4', 'leave a Keep, Change, Ask or Fix note on the chosen passage, region or moment'],
  ['s, t, …', 'leave a Fix note with the label of the shorthand that has this letter'],
  ['Alt 1 2 3 4', 'in a note: choose its kind'],
  ['Alt E', 'in a Change or Fix note: propose an edit'],
  ['↓ ↑ ← →', 'once “Mark a region” was pressed: move the region, with Shift make it larger or smaller'],
  ['← → Space', 'on the time line: a second back or on, with Shift a frame; play or pause'],
  ['Page ↓ ↑', 'in a PDF: the next or previous page'],
  ['Esc', 'leave a note, or let go of the passage'],
  ['← →', 'on the strip between the sides: make one wider'],
  ['Ctrl K', 'go to another page'],
  ['P N', 'reading a list of reviews: previous and next'],
  ['L', 'checking reviews: looked at, and on to the next'],
  ['?', 'show these keys'],
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
        Keys {singleKeys && <Key>?</Key>}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="Keys">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
          {KEYS.map(([key, words]) => (
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
            label="Single keys (?, P, N, L) do something outside of fields"
            checked={singleKeys}
            onChange={({ target }) => dispatch(singleKeysChanged(target.checked))}
          />
        </div>
      </Dialog>
    </>
  );
}
