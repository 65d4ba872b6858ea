import type { NoteView } from '@salt-circle/contracts';
import { type AnchorMatch } from '@salt-circle/core';
import { RemarkFiles } from '../../../app/remarks/RemarkFiles.js';
import { kindWord } from '../../../app/reading/noteKinds.js';
import { NoteText } from '../../../app/reading/NoteText.js';
import { Conflict } from '../../../app/saving/Conflict.js';
import { useSavingState } from '../../../app/saving/useSaving.js';
import { DeskThread } from '../DeskThread.js';
import { useIsWithheld, Withholding } from '../moderation/Withholding.js';
import { NoteForm, type NoteAids, type NoteChange } from './NoteForm.js';
import { say } from '../../../words/desk.js';

export interface NoteCardProps {
  readonly note: NoteView;
  readonly saveKey: string;
  readonly match: AnchorMatch | undefined;
  readonly active: boolean;
  readonly editable: boolean;
  readonly quoted: boolean;
  /** Where it stands, in words. */
  readonly where: string;
  readonly domId?: string | undefined;
  /** What a note can be written with. */
  readonly aids: NoteAids;
  readonly onActivate: () => void;
  readonly onClose: () => void;
  readonly onChange: (part: NoteChange) => void;
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
  where,
  domId,
  aids,
  onActivate,
  onClose,
  onChange,
  onRemove,
  onReplace,
}: NoteCardProps) {
  const saving = useSavingState(saveKey);
  const withheld = useIsWithheld('note', note.id);
  const theirs = saving.problem?.current as NoteView | null | undefined;
  if (saving.state === 'conflict' && saving.problem !== null) {
    return (
      <Conflict
        saveKey={saveKey}
        problem={saving.problem}
        revision={theirs?.revision ?? 0}
        theirs={
          theirs == null ? (
            <p>{say('itWasRemoved')}</p>
          ) : (
            <p>{say('kindAndBody', { kind: kindWord(theirs.kind), body: theirs.body })}</p>
          )
        }
        onTake={() => onReplace(theirs ?? null)}
      />
    );
  }
  const files = aids.files.filter(({ noteId }) => noteId === note.id);
  const attached = files.length === 0 ? undefined : <RemarkFiles reviewId={aids.reviewId} files={files} />;
  if (!editable) {
    return (
      <>
        <div className={withheld ? 'line-through' : ''}>
          <NoteText
            note={note}
            match={match}
            active={active}
            quoted={quoted}
            where={where}
            domId={domId}
            attached={attached}
            onActivate={onActivate}
          />
        </div>
        {(active || quoted) && <Withholding kind="note" targetId={note.id} />}
        {(active || quoted) && <DeskThread noteId={note.id} />}
      </>
    );
  }
  const refused = saving.state === 'refused' ? saving.problem?.sentence : undefined;
  if (!active) {
    return (
      <div
        role="button"
        tabIndex={0}
        aria-label={nameOf(note, where)}
        className="cursor-pointer"
        onClick={onActivate}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          // The key would be typed into the note that opens under it.
          event.preventDefault();
          onActivate();
        }}
      >
        <NoteText note={note} match={match} quoted={quoted} where={where} domId={domId} inside />
        {files.length > 0 && (
          <p className="border-l-[3px] border-line px-2.5 text-sm text-ink-soft">
            {say('filesAttached', { files: files.length })}
          </p>
        )}
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
      where={where}
      aids={aids}
      onClose={onClose}
      onChange={onChange}
      onRemove={onRemove}
    />
  );
}

/** Its kind, its words and its passage, for those who hear it: "Ask note: Where was this measured? On “four centimetres”. Edit". */
function nameOf({ kind, body, place: { selector } }: NoteView, where: string): string {
  const words = selector.type === 'text' || selector.type === 'passage' ? selector.quote.exact : '';
  return say('noteEdit', {
    kindWord: kindWord(kind),
    body: body.trim() === '' ? say('withoutRemarkYet') : body.trim(),
    where: where === '' ? 'none' : where,
    passage: words === '' ? 'none' : words.replace(/\s+/g, ' ').slice(0, 80),
  });
}
