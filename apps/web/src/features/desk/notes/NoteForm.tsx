import type { NoteView, ReviewFileCard, ShorthandEntry } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import type { AnchorMatch, FormItem } from '@salt-circle/core';
import { Trash2 } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { EditWords } from '../../../app/reading/EditWords.js';
import { PassageState } from '../../../app/reading/NoteText.js';
import { kindsOfNotes, KIND_EDGE, KIND_TEXT, kindWord } from '../../../app/reading/noteKinds.js';
import { AddRemarkFile } from './AddRemarkFile.js';
import { EditProposal } from './EditProposal.js';
import { UsedAgain } from './UsedAgain.js';
import { say } from '../../../words/desk.js';

export type NoteChange = Partial<Pick<NoteView, 'kind' | 'body' | 'edit' | 'itemId'>>;

/** What notes are written with on this desk. */
export interface NoteAids {
  /** Labels that a Fix note can be begun with. */
  readonly shorthand: readonly ShorthandEntry[];
  /** Of the form: a note can be filed under one. */
  readonly items: ReadonlyArray<Pick<FormItem, 'id' | 'title'>>;
  /** Files of the review, and where they go. */
  readonly reviewId: string;
  readonly exchangeId: string;
  readonly files: readonly ReviewFileCard[];
  /** Whether this review takes files. */
  readonly filesTaken: boolean;
  /** Plain text of the part that a note stands on; empty for what has none. */
  readonly textOf: (note: NoteView) => string;
}

export interface NoteFormProps {
  readonly note: NoteView;
  readonly match: AnchorMatch | undefined;
  readonly quoted: boolean;
  readonly where: string;
  readonly aids: NoteAids;
  /** Why the server did not take it. */
  readonly refused: string | undefined;
  readonly onClose: () => void;
  readonly onChange: (part: NoteChange) => void;
  readonly onRemove: () => void;
}

/** A note that is being written: its kind, what it says, what it proposes, and what it is filed under. */
export function NoteForm({ note, match, quoted, where, aids, refused, onClose, onChange, onRemove }: NoteFormProps) {
  const area = useRef<HTMLTextAreaElement>(null);
  const { kind, body, edit, itemId, place } = note;
  const { selector } = place;
  const changes = kind === 'fix' || kind === 'change';
  const proposable = changes && (selector.type === 'text' || selector.type === 'passage');
  const [proposing, setProposing] = useState(false);
  useEffect(() => {
    // Only where the card can be seen: it stands in the margin and in the list.
    if (area.current?.offsetParent != null) area.current.focus();
  }, []);
  const insert = (words: string) => {
    onChange({ body: body.trim() === '' ? words : `${body.trimEnd()} ${words}` });
    area.current?.focus();
  };
  /** A Keep or Ask note proposes nothing. */
  const choose = (next: NoteView['kind']) =>
    onChange(next === 'fix' || next === 'change' ? { kind: next } : { kind: next, edit: null });
  const press = (event: KeyboardEvent) => {
    const label = event.altKey && kind === 'fix' ? shorthandOf(aids.shorthand, event.code) : undefined;
    const next = event.altKey ? kindsOfNotes().find(({ key }) => event.code === `Digit${key}`)?.kind : undefined;
    if (next !== undefined) {
      event.preventDefault();
      choose(next);
    } else if (label !== undefined) {
      event.preventDefault();
      insert(label.label);
    } else if (event.altKey && event.code === 'KeyE' && proposable) {
      event.preventDefault();
      setProposing(true);
    } else if (event.key === 'Escape') onClose();
  };
  return (
    <div
      className={`border border-l-[3px] border-line bg-paper px-2.5 py-1.5 text-sm ${KIND_EDGE[kind]}`}
      onKeyDown={press}
    >
      <KindChoice kind={kind} onChoose={choose} />
      <PassageState match={match} selector={selector} where={where} quoted={quoted} />
      {kind === 'fix' && aids.shorthand.length > 0 && (
        <div role="group" aria-label={say('shorthand')} className="mb-1 flex flex-wrap gap-1">
          {aids.shorthand.map((entry) => (
            <button
              key={entry.key}
              type="button"
              title={say('alt', { meaning: entry.meaning, key: entry.key.toUpperCase() })}
              onClick={() => insert(entry.label)}
              className="rounded border border-line px-1.5 hover:border-edge"
            >
              {entry.label}
            </button>
          ))}
        </div>
      )}
      <textarea
        ref={area}
        aria-label={say('noteOf', { kindWord: kindWord(kind) })}
        rows={2}
        maxLength={LIMITS.noteBody}
        value={body}
        placeholder={say('sayWhatAndWhy')}
        onChange={({ target }) => onChange({ body: target.value })}
        className="field-sizing-content block max-h-60 w-full resize-none rounded border border-edge bg-paper px-1.5 py-1 placeholder:text-ink-soft"
      />
      <UsedAgain typed={body} onUse={insert} />
      <AddRemarkFile
        reviewId={aids.reviewId}
        exchangeId={aids.exchangeId}
        files={aids.files}
        taken={aids.filesTaken}
        noteId={note.id}
        editable
      />
      {proposable && proposing && (
        <EditProposal
          selector={selector}
          edit={edit}
          text={aids.textOf(note)}
          onChange={(next) => onChange({ edit: next })}
          onClose={() => setProposing(false)}
        />
      )}
      {proposable && !proposing && (
        <div className="mt-1">
          {edit !== null && <EditWords edit={edit} selector={selector} />}
          <button
            type="button"
            title={say('altE')}
            className="min-h-6 text-dusk underline"
            onClick={() => setProposing(true)}
          >
            {edit === null ? say('proposeEdit') : say('changeProposedEdit')}
          </button>
        </div>
      )}
      {aids.items.length > 0 && (
        <label className="mt-1 flex items-center gap-1.5 text-ink-soft">
          {say('speaksTo')}
          <select
            value={itemId ?? ''}
            onChange={({ target }) => onChange({ itemId: target.value === '' ? null : target.value })}
            className="min-w-0 flex-1 rounded border border-line bg-paper px-1 py-0.5 text-ink"
          >
            <option value="">{say('noItemOfForm')}</option>
            {aids.items.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </label>
      )}
      {refused !== undefined && (
        <p role="alert" className="text-madder">
          {refused}
        </p>
      )}
      <div className="mt-1 flex items-center justify-between">
        <button type="button" onClick={onClose} className="min-h-6 text-ink-soft hover:text-ink">
          {say('done')}
        </button>
        <button
          type="button"
          onClick={onRemove}
          aria-label={say('removeThisNote')}
          title={say('removeThisNote')}
          className="rounded p-1 text-ink-soft hover:text-madder"
        >
          <Trash2 size={15} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}

interface KindChoiceProps {
  readonly kind: NoteView['kind'];
  readonly onChoose: (kind: NoteView['kind']) => void;
}

function KindChoice({ kind, onChoose }: KindChoiceProps) {
  return (
    <RadioGroup.Root
      aria-label={say('kindOfNote')}
      orientation="horizontal"
      value={kind}
      onValueChange={(next) => onChoose(next as NoteView['kind'])}
      className="mb-1 flex flex-wrap gap-x-2.5"
    >
      {kindsOfNotes().map((one) => (
        <RadioGroup.Item
          key={one.kind}
          value={one.kind}
          title={say('altOf', { hint: one.hint, key: one.key })}
          className={
            one.kind === kind
              ? `font-semibold underline decoration-2 underline-offset-4 ${KIND_TEXT[one.kind]}`
              : 'text-ink-soft'
          }
        >
          {one.word}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** By the key's place on the keyboard: with Alt, some systems type another letter. */
function shorthandOf(shorthand: readonly ShorthandEntry[], code: string): ShorthandEntry | undefined {
  return shorthand.find(({ key }) => code === `Key${key.toUpperCase()}`);
}
