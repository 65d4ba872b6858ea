import type { NoteKind, ShorthandEntry } from '@salt-circle/contracts';
import type { KeyboardEvent } from 'react';
import { Key } from '../../kit/index.js';
import { kindsOfNotes, KIND_TEXT } from './noteKinds.js';
import { say } from '../../words/app.js';

export interface SelectionBarProps {
  /** The selected passage, in the window. */
  readonly at: DOMRect;
  readonly label?: string;
  readonly shorthand?: readonly ShorthandEntry[];
  /** @param body what the note says already: a label of the shorthand */
  readonly onPick: (kind: NoteKind, body?: string) => void;
}

/** CSS pixels of a row of it. */
const HEIGHT = 44;
const WIDTH = 360;

/** Over, or else under, the selected passage: the four kinds of notes with their keys, and the labels that leave one at once. */
export function SelectionBar({
  at,
  label = say('leaveNoteOnSelectedPassage'),
  shorthand = [],
  onPick,
}: SelectionBarProps) {
  const rows = 1 + Math.min(5, Math.ceil(shorthand.length / 4));
  const above = at.top > rows * HEIGHT + 60;
  return (
    <div
      role="toolbar"
      aria-label={label}
      // Keeps the selection: a press would otherwise move the focus and clear it.
      onMouseDown={(event) => event.preventDefault()}
      className="fixed z-30 max-w-[22.5rem] rounded border border-line bg-paper p-1 shadow-lg"
      style={{
        left: Math.max(8, Math.min(at.left, window.innerWidth - WIDTH)),
        // Measured from below where it stands over the passage: how high it is, its own words decide.
        ...(above
          ? { bottom: Math.max(8, window.innerHeight - at.top + 6) }
          : { top: Math.min(at.bottom + 8, window.innerHeight - 60) }),
      }}
    >
      <div className="flex gap-1">
        {kindsOfNotes().map(({ kind, word, key, hint }) => (
          <button
            key={kind}
            type="button"
            title={hint}
            onClick={() => onPick(kind)}
            className={`flex items-center gap-1.5 rounded px-2 py-1 font-medium hover:bg-crust ${KIND_TEXT[kind]}`}
          >
            {word} <Key>{key}</Key>
          </button>
        ))}
      </div>
      {shorthand.length > 0 && (
        <div
          role="group"
          aria-label={say('shorthand')}
          className="mt-1 max-h-52 overflow-y-auto border-t border-line pt-1"
        >
          {byGroup(shorthand).map(([group, entries]) => (
            <div key={group} className="flex flex-wrap items-center gap-1">
              {group !== '' && <span className="w-14 text-xs text-ink-soft">{group}</span>}
              {entries.map((entry) => (
                <button
                  key={entry.key}
                  type="button"
                  title={entry.meaning}
                  onClick={() => onPick('fix', entry.label)}
                  className={`flex min-h-6 items-center gap-1 rounded px-1.5 text-sm hover:bg-crust ${KIND_TEXT.fix}`}
                >
                  {entry.label} <Key>{entry.key}</Key>
                </button>
              ))}
            </div>
          ))}
        </div>
      )}
    </div>
  );
}

/** In the order in which each group first comes. */
function byGroup(entries: readonly ShorthandEntry[]): Array<readonly [string, readonly ShorthandEntry[]]> {
  const groups = new Map<string, ShorthandEntry[]>();
  for (const entry of entries) groups.set(entry.group, [...(groups.get(entry.group) ?? []), entry]);
  return [...groups];
}

/** What a key leaves on the selected passage: a kind, or a Fix note with a label. */
export function pickedBy(
  { key, ctrlKey, metaKey, altKey }: KeyboardEvent,
  shorthand: readonly ShorthandEntry[],
): readonly [kind: NoteKind, body?: string] | null {
  if (ctrlKey || metaKey || altKey) return null;
  const kind = kindsOfNotes().find((one) => one.key === key)?.kind;
  if (kind !== undefined) return [kind];
  const entry = shorthand.find((one) => one.key === key.toLowerCase());
  return entry === undefined ? null : ['fix', entry.label];
}
