import type { ReviewFileCard } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { api } from '../../../app/api.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { Recorder } from '../../../app/recording/Recorder.js';
import { useUnattached } from '../../../app/recording/useUnattached.js';
import { RemarkFiles } from '../../../app/remarks/RemarkFiles.js';
import { endingsOf } from '../../../app/uploading/endings.js';
import { UploadRows } from '../../../app/uploading/UploadRows.js';
import { useSending } from '../../../app/uploading/useUploads.js';
import { Dialog, FilePick } from '../../../kit/index.js';
import { say as appSay } from '../../../words/app.js';
import { say } from '../../../words/desk.js';

interface Target {
  readonly itemId: string | null;
  readonly noteId: string | null;
}

const { useAddRemarkFileMutation, useRemoveRemarkFileMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    addRemarkFile: build.mutation<ReviewFileCard[], { reviewId: string; uploadId: string } & Target>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/files`, method: 'POST', body }),
      invalidatesTags: ['Review', 'Uploads'],
    }),
    removeRemarkFile: build.mutation<null, { reviewId: string; id: string }>({
      query: ({ reviewId, id }) => ({ url: `/reviews/${reviewId}/files/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Review'],
    }),
  }),
});

const FAMILIES = ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'] as const;

export interface AddRemarkFileProps {
  readonly reviewId: string;
  readonly exchangeId: string;
  /** Of the whole review. */
  readonly files: readonly ReviewFileCard[];
  readonly itemId?: string;
  readonly noteId?: string;
  readonly editable: boolean;
  /** Whether this review takes files at all: practice does not. */
  readonly taken: boolean;
}

/** The files of a note or an answer; while it is written, more can be attached, or a remark spoken. */
export function AddRemarkFile({ taken, ...props }: AddRemarkFileProps) {
  return taken ? <RemarkFilesField {...props} /> : null;
}

function RemarkFilesField({
  reviewId,
  exchangeId,
  files,
  editable,
  itemId,
  noteId,
}: Omit<AddRemarkFileProps, 'taken'>) {
  const target: Target = { itemId: itemId ?? null, noteId: noteId ?? null };
  const here = files.filter((file) => file.itemId === target.itemId && file.noteId === target.noteId);
  const [open, setOpen] = useState(false);
  const [add] = useAddRemarkFileMutation();
  const [remove, removing] = useRemoveRemarkFileMutation();
  const purpose = { exchangeId, deliverableId: reviewId, use: 'remark' } as const;
  const uploads = useSending(purpose, (uploadId) => add({ reviewId, uploadId, ...target }).unwrap());
  const into = noteId === undefined ? say('answer') : say('note');
  /** How far they are is seen beside the note or answer. */
  const take = (chosen: readonly File[]) => {
    setOpen(false);
    return uploads.add(chosen);
  };
  const storeKey = `remark:${reviewId}:${noteId ?? itemId ?? ''}`;
  // A recording that is being made goes on to be put aside for a moment after the dialog has closed.
  const [closed, setClosed] = useState(0);
  const unattached = useUnattached(`${storeKey}#`, `${open} ${closed} ${here.length}`);
  const close = () => {
    setOpen(false);
    setTimeout(() => setClosed((times) => times + 1), 1_500);
  };
  const room = here.length + uploads.rows.length < LIMITS.remarkFiles;
  return (
    <div className="text-sm">
      <RemarkFiles
        reviewId={reviewId}
        files={here}
        onRemove={editable ? ({ id }) => void remove({ reviewId, id }) : undefined}
      />
      {removing.error !== undefined && <ProblemNotice error={removing.error} />}
      <UploadRows uploads={uploads} />
      {editable && unattached > 0 && !open && (
        <p className="flex flex-wrap items-center gap-2 text-copper">
          {appSay('recordingUnattached')}
          <button type="button" className="min-h-6 underline" onClick={() => setOpen(true)}>
            {appSay('recordingUnattachedOpen')}
          </button>
        </p>
      )}
      {editable && room && (
        <button type="button" className="min-h-6 text-ink-soft underline" onClick={() => setOpen(true)}>
          {say('attachOrRecord')}
        </button>
      )}
      <Dialog open={open} onClose={close} title={say('attachOrRecordFor', { into })}>
        <div className="space-y-3">
          <FilePick
            multiple
            label={say('attachFilesOrDropThem')}
            accept={endingsOf(FAMILIES)}
            hint={say('upToOfMbEach', { remarkFiles: LIMITS.remarkFiles, remarkMegabytes: LIMITS.remarkMegabytes })}
            onFiles={(chosen) => void take(chosen)}
          />
          <Recorder name={say('spokenRemark')} into={into} storeKey={storeKey} onRecording={(file) => take([file])} />
        </div>
      </Dialog>
    </div>
  );
}
