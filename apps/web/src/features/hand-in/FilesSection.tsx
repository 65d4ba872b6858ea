import type { MyDraftView, PartView } from '@salt-circle/contracts';
import { MAX_FILES, type Deliverable } from '@salt-circle/core';
import { useState } from 'react';
import { Button, Dialog, FilePick, FileButton } from '../../kit/index.js';
import { FAMILY_WORDS } from '@salt-circle/core';
import { useExchange } from '../../app/useExchange.js';
import { endingsOf } from '../../app/uploading/endings.js';
import { Unfinished } from '../../app/uploading/Unfinished.js';
import { UploadRows } from '../../app/uploading/UploadRows.js';
import { useUploads } from '../../app/uploading/useUploads.js';
import { originalAddress, partAddress } from '../../app/viewing/address.js';
import { CopyState, PartViewer } from '../../app/viewing/PartViewer.js';
import { partWords } from '../../app/viewing/partWords.js';
import { useCopyAgainMutation, useOrderPartsMutation, useRemovePartMutation } from './handInApi.js';
import { Recorder } from '../../app/recording/Recorder.js';
import { SectionHead } from './SectionHead.js';
import { say } from '../../words/hand-in.js';

export interface FilesSectionProps {
  readonly deliverable: Deliverable;
  readonly draft: MyDraftView;
  readonly number: number;
  readonly editable: boolean;
}

/** Files and recordings of one deliverable: dropped, chosen or recorded, each with its state. */
export function FilesSection({ deliverable, draft, number, editable }: FilesSectionProps) {
  const exchange = useExchange();
  const uploads = useUploads({ exchangeId: exchange.id, deliverableId: deliverable.id });
  const parts = draft.parts.filter(({ deliverableId }) => deliverableId === deliverable.id);
  const recording = deliverable.kind === 'recording';
  const families = recording ? (['audio', 'video'] as const) : deliverable.families;
  const room = editable && parts.length + uploads.rows.length < MAX_FILES;
  return (
    <section aria-label={deliverable.title} className="mb-6 border-t border-line pt-4">
      <SectionHead deliverable={deliverable} number={number} filled={parts.length > 0} />
      <ol className="max-w-[68ch]">
        {parts.map((part, index) => (
          <PartRow key={part.id} part={part} parts={parts} index={index} draftId={draft.id ?? ''} editable={editable} />
        ))}
      </ol>
      <UploadRows uploads={uploads} />
      {editable && (
        <Unfinished
          exchangeId={exchange.id}
          deliverableId={deliverable.id}
          running={uploads.rows.map(({ name }) => name)}
        />
      )}
      {room && (
        <div className="mt-3 max-w-[68ch] space-y-3">
          {recording && (
            <Recorder
              into={say('draft')}
              name={deliverable.title}
              storeKey={`${exchange.id}:${deliverable.id}`}
              onRecording={(file) => uploads.add([file])}
            />
          )}
          <FilePick
            multiple
            label={recording ? say('orChooseRecordingOrDrop') : say('chooseFilesOrDropThem')}
            accept={endingsOf(families)}
            hint={say('upToMbEach', {
              families: families.map((family) => FAMILY_WORDS[family]).join(', '),
              maxMegabytes: deliverable.maxMegabytes,
            })}
            onFiles={(files) => void uploads.add(files)}
          />
        </div>
      )}
    </section>
  );
}

interface PartRowProps {
  readonly part: PartView;
  readonly parts: readonly PartView[];
  readonly index: number;
  readonly draftId: string;
  readonly editable: boolean;
}

function PartRow({ part, parts, index, draftId, editable }: PartRowProps) {
  const exchange = useExchange();
  const [looking, setLooking] = useState(false);
  const [remove] = useRemovePartMutation();
  const [order] = useOrderPartsMutation();
  const [again] = useCopyAgainMutation();
  const address = partAddress({ exchangeId: exchange.id, draftId, partId: part.id });
  const media = part.show === 'video' || part.show === 'sound';
  const move = (by: 1 | -1) => {
    const ids = parts.map(({ id }) => id);
    const [id] = ids.splice(index, 1);
    if (id !== undefined) ids.splice(index + by, 0, id);
    void order({ exchangeId: exchange.id, deliverableId: part.deliverableId, partIds: ids });
  };
  return (
    <li className="border-b border-line py-2">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <p className="min-w-0 flex-1">
          <a
            href={originalAddress(address)}
            className="font-medium break-words text-ink underline decoration-line"
            title={say('downloadItAsYouHanded')}
          >
            {part.name}
          </a>
          <span className="ml-2 text-sm text-ink-soft">{partWords(part)}</span>
        </p>
        <span className="flex flex-wrap gap-1">
          <Button small aria-label={say('seeAsReviewersDo', { name: part.name })} onClick={() => setLooking(true)}>
            {say('seeIt')}
          </Button>
          {editable && parts.length > 1 && (
            <>
              <Button
                small
                aria-label={say('moveUp', { name: part.name })}
                disabled={index === 0}
                onClick={() => move(-1)}
              >
                ↑
              </Button>
              <Button
                small
                aria-label={say('moveDown', { name: part.name })}
                disabled={index === parts.length - 1}
                onClick={() => move(1)}
              >
                ↓
              </Button>
            </>
          )}
          {editable && (
            <Button
              small
              aria-label={say('remove', { name: part.name })}
              onClick={() => void remove({ exchangeId: exchange.id, partId: part.id })}
            >
              {say('removeLabel')}
            </Button>
          )}
        </span>
      </div>
      {part.copy !== null && part.copy.state !== 'ready' && (
        <div className="mt-1 text-sm">
          <CopyState copy={part.copy} />
          {part.copy.state === 'failed' && editable && (
            <Button small onClick={() => void again({ exchangeId: exchange.id, draftId, partId: part.id })}>
              {say('tryAgain')}
            </Button>
          )}
        </div>
      )}
      {media && editable && <Captions part={part} />}
      <Dialog open={looking} onClose={() => setLooking(false)} title={part.name} wide>
        <div className="h-[70vh] overflow-auto">
          <PartViewer part={part} address={address} />
        </div>
      </Dialog>
    </li>
  );
}

/** Captions for those who cannot hear, or cannot listen right now. */
function Captions({ part }: { readonly part: PartView }) {
  const exchange = useExchange();
  const uploads = useUploads({ exchangeId: exchange.id, deliverableId: part.deliverableId, captionsFor: part.id });
  return (
    <div className="mt-1 text-sm text-ink-soft">
      <p className="flex flex-wrap items-center gap-x-2">
        {part.captions ? say('captionsAreThere') : say('captionsWebvttIfYouHave')}
        <FileButton
          label={say('captionsFor', { name: part.name })}
          words={part.captions ? say('chooseOthers') : say('choose')}
          accept=".vtt"
          onFiles={(files) => void uploads.add([...files])}
        />
      </p>
      <UploadRows uploads={uploads} />
    </div>
  );
}
