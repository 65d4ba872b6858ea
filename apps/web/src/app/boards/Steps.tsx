import type { PersonLabel } from '@salt-circle/contracts';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useEffectEvent } from 'react';
import { selectSingleKeys } from '../layoutSlice.js';
import { labelWords } from '../People.js';
import { useAppSelector } from '../store.js';
import { say } from '../../words/app.js';

/** Where letters are letters; on something that is chosen they are not. */
const TYPED_IN = 'input:not([type=radio]):not([type=checkbox]), textarea, select';

interface Row {
  readonly id: string;
  readonly person: PersonLabel;
}

interface StepsProps {
  /** As they are listed: previous and next go by it. */
  readonly rows: readonly Row[];
  readonly id: string;
  readonly onShow: (id: string) => void;
}

/** To the previous and the next person of a board, in a sheet beside it: by a press, or by P and N. */
export function Steps({ rows, id, onShow }: StepsProps) {
  const singleKeys = useAppSelector(selectSingleKeys);
  const at = rows.findIndex((row) => row.id === id);
  const [before, after] = [rows[at - 1], rows[at + 1]];
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !event.defaultPrevented;
    // The sheet is a dialog that leaves the page to be used: its own fields alone are typed in.
    if (!singleKeys || !plain || (event.target instanceof Element && event.target.closest(TYPED_IN) !== null)) return;
    const to = { n: after, p: before }[event.key.toLowerCase()];
    if (to !== undefined) onShow(to.id);
  });
  useEffect(() => {
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <Step words={say('previous')} keys="P" to={before} onShow={onShow}>
        <ChevronLeft size={16} aria-hidden="true" />
      </Step>
      <Step words={say('next')} keys="N" to={after} onShow={onShow}>
        <ChevronRight size={16} aria-hidden="true" />
      </Step>
    </>
  );
}

interface StepProps {
  readonly words: string;
  readonly keys: string;
  readonly to: Row | undefined;
  readonly onShow: (id: string) => void;
  readonly children: React.ReactNode;
}

function Step({ words, keys, to, onShow, children }: StepProps) {
  const name = to === undefined ? words : say('stepTo', { way: words, name: labelWords(to.person) });
  return (
    <button
      type="button"
      disabled={to === undefined}
      aria-label={name}
      title={say('stepByKey', { step: name, key: keys })}
      className="inline-flex size-7 items-center justify-center rounded border border-edge disabled:opacity-40"
      onClick={() => to !== undefined && onShow(to.id)}
    >
      {children}
    </button>
  );
}
