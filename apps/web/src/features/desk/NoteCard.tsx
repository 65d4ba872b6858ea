import type { NoteView, ShorthandEntry } from '@salt-circle/contracts';
import type { AnchorMatch } from '@salt-circle/core';
import { Trash2 } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import { NoteText, PassageState } from '../../app/reading/NoteText.js';
import { KINDS, KIND_EDGE, KIND_TEXT, kindWord } from '../../app/reading/noteKinds.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSavingState } from '../../app/saving/useSaving.js';

export interface NoteCardProps {
  readonly note: NoteView;
  readonly saveKey: string;
  readonly match: AnchorMatch | undefined;
  readonly active: boolean;
  readonly editable: boolean;
  readonly quoted: boolean;
  readonly domId?: string | undefined;
  /** Labels that a Fix note can be begun with. */
  readonly shorthand: readonly ShorthandEntry[];
  readonly onActivate: () => void;
  readonly onClose: () => void;
  readonly onChange: (part: Partial<Pick<NoteView, 'kind' | 'body'>>) => void;
  readonly onRemove: () => void;
  readonly onReplace: (theirs: NoteView | null) => void;
}

/** A note beside its passage: to read until it is chosen, then to write. */
export function NoteCard({
  note,
  saveKey,
  match,
  active,
  editable,
  quoted,
  domId,
  shorthand,
  onActivate,
  onClose,
  onChange,
  onRemove,
  onReplace,
}: NoteCardProps) {
  const saving = useSavingState(saveKey);
  const theirs = saving.problem?.current as NoteView | null | undefined;
  if (saving.state === 'conflict' && saving.problem !== null) {
    return (
      <Conflict
        saveKey={saveKey}
        problem={saving.problem}
        revision={theirs?.revision ?? 0}
        theirs={
          theirs == null ? (
            <p>It was removed.</p>
          ) : (
            <p>
              {kindWord(theirs.kind)}: {theirs.body}
            </p>
          )
        }
        onTake={() => onReplace(theirs ?? null)}
      />
    );
  }
  if (!editable) {
    return <NoteText note={note} match={match} active={active} quoted={quoted} domId={domId} onActivate={onActivate} />;
  }
  const refused = saving.state === 'refused' ? saving.problem?.sentence : undefined;
  if (!active) {
    return (
      <div
        role="button"
        tabIndex={0}
        aria-label={nameOf(note)}
        className="cursor-pointer"
        onClick={onActivate}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          // The key would be typed into the note that opens under it.
          event.preventDefault();
          onActivate();
        }}
      >
        <NoteText note={note} match={match} quoted={quoted} domId={domId} inside />
        {refused !== undefined && <p className="text-sm text-madder">{refused}</p>}
      </div>
    );
  }
  return (
    <NoteForm
      refused={refused}
      note={note}
      match={match}
      quoted={quoted}
      shorthand={shorthand}
      onClose={onClose}
      onChange={onChange}
      onRemove={onRemove}
    />
  );
}

type NoteFormProps = Pick<
  NoteCardProps,
  'note' | 'match' | 'quoted' | 'shorthand' | 'onClose' | 'onChange' | 'onRemove'
> & {
  /** Why the server did not take it. */
  readonly refused: string | undefined;
};

function NoteForm({ refused, note, match, quoted, shorthand, onClose, onChange, onRemove }: NoteFormProps) {
  const area = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    // Only where the card can be seen: it stands in the margin and in the list.
    if (area.current?.offsetParent != null) area.current.focus();
  }, []);
  const insert = ({ label }: ShorthandEntry) => {
    onChange({ body: note.body.trim() === '' ? label : `${note.body.trimEnd()} ${label}` });
    area.current?.focus();
  };
  const press = (event: KeyboardEvent) => {
    const label = event.altKey && note.kind === 'fix' ? shorthandOf(shorthand, event.code) : undefined;
    const kind = event.altKey ? KINDS.find(({ key }) => event.code === `Digit${key}`)?.kind : undefined;
    if (kind !== undefined) {
      event.preventDefault();
      onChange({ kind });
    } else if (label !== undefined) {
      event.preventDefault();
      insert(label);
    } else if (event.key === 'Escape') onClose();
  };
  return (
    <div
      className={`border border-l-[3px] border-line bg-paper px-2.5 py-1.5 text-sm ${KIND_EDGE[note.kind]}`}
      onKeyDown={press}
    >
      <RadioGroup.Root
        aria-label="Kind of note"
        orientation="horizontal"
        value={note.kind}
        onValueChange={(kind) => onChange({ kind: kind as NoteView['kind'] })}
        className="mb-1 flex flex-wrap gap-x-2.5"
      >
        {KINDS.map(({ kind, word, key, hint }) => (
          <RadioGroup.Item
            key={kind}
            value={kind}
            title={`${hint} (Alt ${key})`}
            className={
              kind === note.kind
                ? `font-semibold underline decoration-2 underline-offset-4 ${KIND_TEXT[kind]}`
                : 'text-ink-soft'
            }
          >
            {word}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <PassageState match={match} selector={note.place.selector} quoted={quoted} />
      {note.kind === 'fix' && shorthand.length > 0 && (
        <div role="group" aria-label="Shorthand" className="mb-1 flex flex-wrap gap-1">
          {shorthand.map((entry) => (
            <button
              key={entry.key}
              type="button"
              title={`${entry.meaning} (Alt ${entry.key.toUpperCase()})`}
              onClick={() => insert(entry)}
              className="rounded border border-line px-1.5 hover:border-edge"
            >
              {entry.label}
            </button>
          ))}
        </div>
      )}
      <textarea
        ref={area}
        aria-label={`${kindWord(note.kind)} note`}
        rows={2}
        maxLength={5000}
        value={note.body}
        placeholder="Say what, and why"
        onChange={(event) => onChange({ body: event.target.value })}
        className="field-sizing-content block max-h-60 w-full resize-none rounded border border-edge bg-paper px-1.5 py-1 placeholder:text-ink-soft"
      />
      {refused !== undefined && (
        <p role="alert" className="text-madder">
          {refused}
        </p>
      )}
      <div className="mt-1 flex items-center justify-between">
        <button type="button" onClick={onClose} className="text-ink-soft hover:text-ink">
          Done
        </button>
        <button
          type="button"
          onClick={onRemove}
          aria-label="Remove this note"
          title="Remove this note"
          className="rounded p-1 text-ink-soft hover:text-madder"
        >
          <Trash2 size={15} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}

/** Its kind, its words and its passage, for those who hear it: "Ask note: Where was this measured? On “four centimetres”. Edit". */
function nameOf({ kind, body, place }: NoteView): string {
  const passage =
    place.selector.type === 'text' ? ` On “${place.selector.quote.exact.replace(/\s+/g, ' ').slice(0, 80)}”.` : '';
  return `${kindWord(kind)} note: ${body.trim() === '' ? 'without a remark yet' : body.trim()}.${passage} Edit`;
}

/** By the key's place on the keyboard: with Alt, some systems type another letter. */
function shorthandOf(shorthand: readonly ShorthandEntry[], code: string): ShorthandEntry | undefined {
  return shorthand.find(({ key }) => code === `Key${key.toUpperCase()}`);
}
