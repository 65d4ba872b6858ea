import { useState } from 'react';
import { Dialog, TextField } from '../../../kit/index.js';
import { say } from '../../../words/allocation.js';

export interface Choice {
  readonly key: string;
  readonly words: string;
  /** What choosing it does, or why it cannot be chosen. */
  readonly effect: string;
  readonly disabled: boolean;
  readonly onPick: () => void;
}

/** More are found by typing. */
const SHOWN = 40;

/** One of many, by keyboard or pointer, with what each choice would do. */
export function Picker({
  title,
  choices,
  onClose,
}: {
  readonly title: string;
  readonly choices: readonly Choice[];
  readonly onClose: () => void;
}) {
  const [wanted, setWanted] = useState('');
  const fitting = choices.filter(({ words }) => words.toLowerCase().includes(wanted.trim().toLowerCase()));
  return (
    <Dialog open onClose={onClose} title={title}>
      <TextField label={say('findByName')} value={wanted} onChange={({ target }) => setWanted(target.value)} />
      <ul className="mt-3 max-h-80 overflow-y-auto" aria-label={title}>
        {fitting.slice(0, SHOWN).map(({ key, words, effect, disabled, onPick }) => (
          <li key={key}>
            <button
              type="button"
              disabled={disabled}
              onClick={() => {
                onPick();
                onClose();
              }}
              className="flex w-full items-baseline justify-between gap-3 rounded px-2 py-1.5 text-left hover:bg-crust disabled:text-ink-soft disabled:hover:bg-transparent"
            >
              <span>{words}</span>
              <span className="text-sm text-ink-soft">{effect}</span>
            </button>
          </li>
        ))}
      </ul>
      {fitting.length === 0 && <p className="mt-2 text-ink-soft">{say('nobodyByThatName')}</p>}
      {fitting.length > SHOWN && (
        <p className="mt-2 text-sm text-ink-soft">{say('moreTypePartOfName', { fitting: fitting.length - SHOWN })}</p>
      )}
    </Dialog>
  );
}
