import { useEffect, useState } from 'react';
import { Button, Dialog, Key } from '../../kit/index.js';

const KEYS: ReadonlyArray<readonly [string, string]> = [
  ['↓ ↑', 'in the draft: choose the next or previous sentence'],
  ['Shift ↓ ↑', 'add a sentence to the chosen passage'],
  ['1 2 3 4', 'leave a Keep, Change, Ask or Fix note on the chosen passage'],
  ['Esc', 'leave a note, or let go of the passage'],
  ['← →', 'on the strip between the sides: make one wider'],
  ['Ctrl K', 'go to another page'],
  ['?', 'show these keys'],
];

export function DeskHelp() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).closest('input, textarea, select, [contenteditable]') !== null;
      if (event.key === '?' && !typing) setOpen(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <>
      <Button look="quiet" small onClick={() => setOpen(true)}>
        Keys <Key>?</Key>
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
      </Dialog>
    </>
  );
}
