import type { AnswerView, NoteView } from '@salt-circle/contracts';
import {
  OVERALL_ID,
  type Answer,
  type Completeness,
  type FormItem,
  type Missing,
  type ReviewForm,
} from '@salt-circle/core';
import { memo, type ReactNode } from 'react';
import { AnswerWords } from '../../app/form/AnswerWords.js';
import { AnswerText, ItemInput } from '../../app/form/ItemInput.js';
import { itemState, textState } from '../../app/form/itemState.js';
import { KIND_TEXT, kindWord } from '../../app/reading/noteKinds.js';
import { SaveTrouble } from '../../app/form/SaveTrouble.js';
import type { AnswersState } from '../../app/form/useAnswers.js';
import { DeskThread } from './DeskThread.js';
import { PeersUnder } from '../../app/moderation/PeersUnder.js';
import { Withholding } from './moderation/Withholding.js';
import { AddRemarkFile, type AddRemarkFileProps } from './notes/AddRemarkFile.js';
import { saysSomething } from './notes/useNotes.js';
import { say } from '../../words/desk.js';

export interface FormPanelProps {
  readonly form: ReviewForm;
  readonly answers: AnswersState['answers'];
  readonly state: Completeness;
  /** Notes on the draft so far. */
  readonly notes: readonly NoteView[];
  /** Shows a note in its place. */
  readonly onNote: (id: string) => void;
  /** Files of the review, and where they go. */
  readonly files: Pick<AddRemarkFileProps, 'reviewId' | 'exchangeId' | 'files' | 'taken'>;
  readonly editable: boolean;
  readonly savePrefix: string;
  readonly onChange: AnswersState['change'];
  readonly onReplace: AnswersState['replace'];
}

/** The id of an item's heading, to jump to. */
export function itemAnchor(itemId: string): string {
  return `item-${itemId}`;
}

/** What the builder's preview and the desk have in common is in `app/form`; here is what is saved as it is typed. */
export function FormPanel({
  form,
  answers,
  state,
  notes,
  editable,
  savePrefix,
  onNote,
  files,
  onChange,
  onReplace,
}: FormPanelProps) {
  const field = (id: string, item: FormItem | undefined) => (
    <Field
      key={id}
      id={id}
      item={item}
      form={form}
      answer={answers[id]}
      missing={state.missing.filter(({ itemId }) => itemId === id)}
      saveKey={savePrefix + id}
      editable={editable}
      notes={notes.filter(({ itemId }) => itemId === id)}
      onNote={onNote}
      files={files}
      onChange={onChange}
      onReplace={onReplace}
    />
  );
  return (
    <>
      <ol className="space-y-6 py-3">{form.items.map((item) => field(item.id, item))}</ol>
      {form.overall !== 'none' && <div className="py-3">{field(OVERALL_ID, undefined)}</div>}
      <NotesAsked form={form} notes={notes.filter(saysSomething).length} />
    </>
  );
}

interface FieldProps {
  readonly id: string;
  readonly item: FormItem | undefined;
  readonly form: ReviewForm;
  readonly answer: Answer | undefined;
  readonly missing: readonly Missing[];
  readonly saveKey: string;
  readonly editable: boolean;
  /** Filed under it. */
  readonly notes: readonly NoteView[];
  readonly onNote: (id: string) => void;
  readonly files: FormPanelProps['files'];
  readonly onChange: AnswersState['change'];
  readonly onReplace: AnswersState['replace'];
}

/** Drawn anew only when something of its own has changed: a letter typed into one of forty is no business of the others. */
const Field = memo(OneField, (before, now) => {
  const { missing, notes, files, onNote: _, ...same } = before;
  const names = Object.keys(same) as Array<keyof typeof same>;
  return (
    names.every((name) => before[name] === now[name]) &&
    JSON.stringify(missing) === JSON.stringify(now.missing) &&
    files.files === now.files.files &&
    notes.length === now.notes.length &&
    notes.every((note, at) => note === now.notes[at])
  );
});

function OneField({
  id,
  item,
  form,
  answer,
  missing,
  saveKey,
  editable,
  notes,
  onNote,
  files,
  onChange: changeOf,
  onReplace: replaceOf,
}: FieldProps) {
  const onChange = (part: Answer) => changeOf(id, part);
  const onReplace = (theirs: AnswerView | null) => replaceOf(id, theirs);
  const [short] = missing;
  const [remark, colour] =
    item !== undefined
      ? itemState(item, answer, missing)
      : short !== undefined
        ? [short.need > 1 ? say('ofWords', { have: short.have, need: short.need }) : say('notAnswered'), 'text-copper']
        : textState(answer?.text, form.overall === 'required');
  return (
    <FieldFrame
      id={id}
      title={item?.title ?? say('overallComment')}
      guidance={item?.guidance ?? ''}
      remark={remark}
      colour={colour}
    >
      {!editable ? (
        <>
          <AnswerWords item={item} answer={answer} />
          {answer !== undefined && <Withholding kind="answer" targetId={id} />}
          {answer !== undefined && <DeskThread itemId={id} />}
        </>
      ) : item === undefined ? (
        <AnswerText label={say('overallComment')} field="text" answer={answer} onChange={onChange} />
      ) : (
        <>
          <ItemInput item={item} answer={answer} onChange={onChange} />
          <PeersUnder item={item} onTake={onChange} />
        </>
      )}
      <AddRemarkFile {...files} itemId={id} editable={editable} />
      <NotesUnder notes={notes} onNote={onNote} />
      <SaveTrouble item={item} saveKey={saveKey} onReplace={onReplace} />
    </FieldFrame>
  );
}

/** Notes on the draft that speak to an item, each leading to its place. */
function NotesUnder({ notes, onNote }: Pick<FieldProps, 'notes' | 'onNote'>) {
  if (notes.length === 0) return null;
  return (
    <ul aria-label={say('notesOnThis')} className="mt-1.5 space-y-0.5 text-sm">
      {notes.map(({ id, kind, body, place: { selector } }) => (
        <li key={id}>
          <button type="button" className="min-h-6 text-left hover:underline" onClick={() => onNote(id)}>
            <span className={`font-semibold ${KIND_TEXT[kind]}`}>{kindWord(kind)}</span>{' '}
            {body.trim() !== ''
              ? body
              : 'quote' in selector
                ? `“${selector.quote.exact.slice(0, 60)}”`
                : say('withoutRemark')}
          </button>
        </li>
      ))}
    </ul>
  );
}

interface FrameProps {
  readonly id: string;
  readonly title: string;
  readonly guidance: string;
  readonly remark: string;
  readonly colour: string;
  readonly children: ReactNode;
}

function FieldFrame({ id, title, guidance, remark, colour, children }: FrameProps) {
  // Items are a list; the overall comment stands after it.
  const Tag = id === OVERALL_ID ? 'section' : 'li';
  return (
    <Tag className="@container scroll-mt-4" id={itemAnchor(id)}>
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-semibold">{title}</h3>
        <span className={`text-sm whitespace-nowrap ${colour}`}>{remark}</span>
      </div>
      {guidance !== '' && <p className="mb-1.5 text-sm text-ink-soft">{guidance}</p>}
      {children}
    </Tag>
  );
}

function NotesAsked({ form, notes }: { readonly form: ReviewForm; readonly notes: number }) {
  const { minimumNotes, targetNotes } = form;
  if (minimumNotes === 0 && targetNotes === 0) return <div className="pb-8" />;
  const enough = notes >= minimumNotes;
  return (
    <p className={`border-t border-line pt-3 pb-8 ${enough ? 'text-ink-soft' : 'text-copper'}`}>
      {say('notesOnDraft', { notes, least: minimumNotes, target: targetNotes })}
    </p>
  );
}
