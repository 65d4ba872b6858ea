import type { NoteKind, PartView } from '@salt-circle/contracts';
import type { Place } from '@salt-circle/core';
import { useState, type ReactNode } from 'react';
import { kindsOfNotes, KIND_TEXT } from '../noteKinds.js';
import { say } from '../../../words/app.js';

export interface WholeNotesProps {
  readonly part: PartView;
  /** Whether the draft has only this part. */
  readonly only: boolean;
  /** The page in view, of a part that has pages. */
  readonly page: number | null;
  readonly onNote: (kind: NoteKind, place: Place) => void;
}

type Scope = 'page' | 'part' | 'draft';

/** Leaves a note on more than a passage: the page in view, the whole part, or the whole draft. */
export function WholeNoteBar({ part, only, page, onNote }: WholeNotesProps) {
  const scopes: ReadonlyArray<readonly [Scope, string]> = [
    ...(page === null ? [] : [['page', say('page', { page })] as const]),
    ...(only ? [] : [['part', say('thisPart')] as const]),
    ['draft', say('wholeDraft')] as const,
  ];
  const [chosen, setChosen] = useState<Scope>('page');
  const scope = scopes.some(([one]) => one === chosen) ? chosen : (scopes[0]?.[0] ?? 'draft');
  const place = (): Place => {
    if (scope === 'page') return { partId: part.id, selector: { type: 'page', page: page ?? 1 } };
    return { partId: scope === 'part' ? part.id : null, selector: { type: 'whole' } };
  };
  return (
    <div
      role="group"
      aria-label={say('noteOnWhole')}
      className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line pb-2 text-sm text-ink-soft"
    >
      <label className="flex items-center gap-1.5">
        {say('noteOn')}
        {scopes.length === 1 ? (
          <span>{scopes[0]?.[1]}</span>
        ) : (
          <select
            aria-label={say('whatNoteIsOn')}
            value={scope}
            onChange={({ target }) => setChosen(target.value as Scope)}
            className="rounded border border-edge bg-paper px-1.5 py-0.5 text-ink"
          >
            {scopes.map(([one, words]) => (
              <option key={one} value={one}>
                {words}
              </option>
            ))}
          </select>
        )}
      </label>
      {kindsOfNotes().map(({ kind, word, hint }) => (
        <button
          key={kind}
          type="button"
          title={hint}
          onClick={() => onNote(kind, place())}
          className={`min-h-6 font-medium hover:underline ${KIND_TEXT[kind]}`}
        >
          {word}
        </button>
      ))}
    </div>
  );
}

/** Notes of which no place is marked in the draft: on the whole of it, or of this part. */
export function WholeNoteList({
  ids,
  label,
  render,
}: {
  readonly ids: readonly string[];
  readonly label: string;
  readonly render: (id: string) => ReactNode;
}) {
  if (ids.length === 0) return null;
  return (
    <section aria-label={label} className="mb-4 max-w-xl space-y-2">
      <h3 className="text-sm font-semibold text-ink-soft">{label}</h3>
      {ids.map((id) => (
        <div key={id}>{render(id)}</div>
      ))}
    </section>
  );
}
