import type { BringInRequest, BroughtInView, BroughtView, DeskView, NoteKind } from '@salt-circle/contracts';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { EditWords } from '../../app/reading/EditWords.js';
import { KIND_EDGE, kindsOfNotes } from '../../app/reading/noteKinds.js';
import { placeWords } from '../../app/reading/places/whereabouts.js';
import { FirstLook } from '../../app/uploading/FirstLook.js';
import { Button, Checkbox, Dialog, Select } from '../../kit/index.js';
import { say } from '../../words/desk.js';

const { usePreviewBroughtMutation, useBringInMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    previewBrought: build.mutation<BroughtView, { reviewId: string; uploadId: string }>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/marked/preview`, method: 'POST', body }),
    }),
    bringIn: build.mutation<BroughtInView, { reviewId: string } & BringInRequest>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/marked`, method: 'POST', body }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress'],
    }),
  }),
});

interface BringBackProps {
  readonly desk: DeskView;
  readonly onClose: () => void;
}

/** A draft that was marked in another program comes back: all is shown before anything is added. */
export function BringBack({ desk, onClose }: BringBackProps) {
  const [preview] = usePreviewBroughtMutation();
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={say('bringMarkedFileBack')}
      description={say('commentsBecomeNotesTrackedChanges')}
    >
      <FirstLook
        label={say('chooseFileOrDropIt')}
        accept=".docx,.pdf"
        hint={say('documentDocxOrPdfThat')}
        purpose={{ exchangeId: desk.exchange.id, deliverableId: desk.id, use: 'marked' }}
        look={(uploadId) => preview({ reviewId: desk.id, uploadId }).unwrap()}
      >
        {(uploadId, view, again) => (
          <Found desk={desk} uploadId={uploadId} view={view} onAgain={again} onClose={onClose} />
        )}
      </FirstLook>
    </Dialog>
  );
}

/** So many are chosen or left out one by one. */
const MANY = 5;

interface FoundProps extends BringBackProps {
  readonly uploadId: string;
  readonly view: BroughtView;
  readonly onAgain: () => void;
}

type Brought = BroughtView['notes'][number];

function Found({ desk, uploadId, view, onAgain, onClose }: FoundProps) {
  const [kinds, setKinds] = useState<Readonly<Record<string, NoteKind>>>({});
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [bring, { error, isLoading }] = useBringInMutation();
  const chosen = view.notes.filter(({ id }) => !left.has(id));
  const go = async () => {
    const notes = chosen.map(({ id, kind }) => ({ id, kind: kinds[id] ?? kind }));
    const done = await bring({ reviewId: desk.id, uploadId, notes });
    if (done.error === undefined) onClose();
  };
  const toggle = (id: string) =>
    setLeft((all) => (all.has(id) ? new Set([...all].filter((one) => one !== id)) : new Set([...all, id])));
  return (
    <div className="space-y-4">
      <p role="status">
        {view.notes.length === 0 ? say('thereIsNothingNewIn') : say('notesAreInThisFile', { notes: view.notes.length })}{' '}
        {view.known > 0 && say('moreAreInThisReview', { known: view.known })}
      </p>
      {view.remarks.map((remark) => (
        <p key={remark} className="text-copper">
          {remark}
        </p>
      ))}
      {view.notes.length > MANY && (
        <p>
          <Button small onClick={() => setLeft(new Set(chosen.length === 0 ? [] : view.notes.map(({ id }) => id)))}>
            {chosen.length === 0 ? say('takeAll') : say('leaveAllOut')}
          </Button>
        </p>
      )}
      {view.notes.length > 0 && (
        <ul aria-label={say('toBeAdded')} className="divide-y divide-line border-y border-line">
          {view.notes.map((note) => (
            <One
              key={note.id}
              desk={desk}
              note={note}
              kind={kinds[note.id] ?? note.kind}
              taken={!left.has(note.id)}
              onKind={(kind) => setKinds((all) => ({ ...all, [note.id]: kind }))}
              onTaken={() => toggle(note.id)}
            />
          ))}
        </ul>
      )}
      {view.unplaced.length > 0 && (
        <section aria-label={say('notBroughtIn')}>
          <h3 className="font-semibold">{say('notBroughtIn')}</h3>
          <ul className="divide-y divide-line text-sm">
            {view.unplaced.map(({ passage, words, reason }, index) => (
              <li key={index} className="py-2">
                {passage !== '' && <span className="font-reading">{say('quoted', { words: passage })}</span>} {words}
                <span className="block text-ink-soft">{reason}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-3">
        {view.notes.length > 0 && (
          <Button
            look="primary"
            busy={isLoading}
            disabled={chosen.length === 0 || chosen.length > view.room}
            onClick={() => void go()}
          >
            {chosen.length === 0 ? say('addNotes') : say('addNotesCounted', { chosen: chosen.length })}
          </Button>
        )}
        <Button onClick={onAgain}>{say('anotherFile')}</Button>
      </div>
    </div>
  );
}

interface OneProps {
  readonly desk: DeskView;
  readonly note: Brought;
  readonly kind: NoteKind;
  readonly taken: boolean;
  readonly onKind: (kind: NoteKind) => void;
  readonly onTaken: () => void;
}

function One({ desk, note, kind, taken, onKind, onTaken }: OneProps) {
  const { selector, partId, body, edit, certainty } = note;
  const passage = selector.type === 'text' || selector.type === 'passage' ? selector.quote.exact : '';
  const where = placeWords({ partId, selector }, desk.draft.parts);
  const named = passage === '' ? where : `“${passage.slice(0, 60)}”`;
  // With an edit goes what changes something.
  const offered = kindsOfNotes().filter((one) => edit === null || one.kind === 'change' || one.kind === 'fix');
  return (
    <li className={`flex flex-wrap items-start gap-x-4 gap-y-2 py-3 ${taken ? '' : 'text-ink-soft'}`}>
      <div className={`min-w-60 flex-1 border-l-[3px] pl-3 ${KIND_EDGE[kind]}`}>
        {where !== '' && <p className="text-sm text-ink-soft">{where}</p>}
        {passage !== '' && edit?.type !== 'replace' && edit?.type !== 'delete' && (
          <p className="line-clamp-3 font-reading">{say('quoted', { words: passage })}</p>
        )}
        {edit !== null && <EditWords edit={edit} selector={selector} />}
        {body !== '' && <p className="whitespace-pre-wrap">{body}</p>}
        {body === '' && edit === null && <p className="text-sm text-copper">{say('markedWithoutWordSayOn')}</p>}
        {certainty === 'perhaps' && <p className="text-sm text-copper">{say('perhapsAnotherPlaceWasMeant')}</p>}
      </div>
      <div className="w-32">
        <Select
          label={say('kindOfNoteOn', { named })}
          labelHidden
          value={kind}
          options={offered.map((one) => [one.kind, one.word] as const)}
          onChange={(value) => onKind(value as NoteKind)}
        />
      </div>
      <Checkbox
        label={<>{say('addNoteOn', { named, span: (words) => <span className="sr-only">{words}</span> })}</>}
        checked={taken}
        onChange={onTaken}
      />
    </li>
  );
}
