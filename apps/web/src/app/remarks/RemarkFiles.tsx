import type { PartView, ReviewFileCard } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Loading } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { PartViewer } from '../viewing/PartViewer.js';
import { say } from '../../words/app.js';
import { changedAnywhere } from '../changes/freshness.js';

const { useRemarkFileQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    remarkFile: build.query<PartView, { reviewId: string; id: string }>({
      query: ({ reviewId, id }) => `/reviews/${reviewId}/files/${id}`,
      providesTags: changedAnywhere(['Review'], 'own-review'),
    }),
  }),
});

/** Milliseconds between two looks while its copy is being made. */
const WHILE_MADE = 2_000;

export interface RemarkFilesProps {
  readonly reviewId: string;
  readonly files: readonly ReviewFileCard[];
  /** For the reviewer: takes one away. */
  readonly onRemove?: ((file: ReviewFileCard) => void) | undefined;
}

/** Files and spoken remarks of a note or an answer, played or opened in place. Nothing for none. */
export function RemarkFiles({ reviewId, files, onRemove }: RemarkFilesProps) {
  const [open, setOpen] = useState<ReviewFileCard | null>(null);
  if (files.length === 0) return null;
  return (
    <>
      <ul aria-label={say('attached')} className="mt-1 space-y-1">
        {files.map((file) => (
          <li key={file.id} className="flex flex-wrap items-center gap-x-2 gap-y-1">
            <span className="min-w-0 flex-1 text-sm break-words">{file.name}</span>
            <Button small aria-label={`${verbOf(file)} ${file.name}`} onClick={() => setOpen(file)}>
              {verbOf(file)}
            </Button>
            {onRemove !== undefined && (
              <Button small aria-label={say('remove', { name: file.name })} onClick={() => onRemove(file)}>
                {say('removeLabel')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Dialog open={open !== null} onClose={() => setOpen(null)} title={open?.name ?? ''} wide>
        {open !== null && <Reading reviewId={reviewId} id={open.id} />}
      </Dialog>
    </>
  );
}

function verbOf({ family }: ReviewFileCard): string {
  if (family === 'audio') return say('listen');
  return family === 'video' ? say('watch') : say('open');
}

function Reading({ reviewId, id }: { readonly reviewId: string; readonly id: string }) {
  const [settled, setSettled] = useState(false);
  const { data, error } = useRemarkFileQuery(
    { reviewId, id },
    { refetchOnMountOrArgChange: true, pollingInterval: settled ? 0 : WHILE_MADE },
  );
  const waiting = data?.copy?.state === 'waiting';
  if (data !== undefined && settled === waiting) setSettled(!waiting);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('attachment')} />;
  return (
    <div className="max-h-[70vh] overflow-auto">
      <PartViewer part={data} address={`/api/reviews/${reviewId}/files/${id}`} />
    </div>
  );
}
