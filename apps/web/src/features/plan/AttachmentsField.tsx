import type { AttachmentCard, AttachmentPlace } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { Attachments } from '../../app/attachments/Attachments.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { endingsOf } from '../../app/uploading/endings.js';
import { Unfinished } from '../../app/uploading/Unfinished.js';
import { UploadRows } from '../../app/uploading/UploadRows.js';
import { useSending } from '../../app/uploading/useUploads.js';
import { useExchange } from '../../app/useExchange.js';
import { FilePick, Notice } from '../../kit/index.js';
import { say } from '../../words/plan.js';

const { useAddAttachmentMutation, useRemoveAttachmentMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    addAttachment: build.mutation<AttachmentCard[], { exchangeId: string; uploadId: string }>({
      query: ({ exchangeId, uploadId }) => ({
        url: `/exchanges/${exchangeId}/attachments`,
        method: 'POST',
        body: { uploadId },
      }),
      invalidatesTags: ['Exchange', 'Uploads'],
    }),
    removeAttachment: build.mutation<null, { exchangeId: string; id: string }>({
      query: ({ exchangeId, id }) => ({ url: `/exchanges/${exchangeId}/attachments/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Exchange'],
    }),
  }),
});

const FAMILIES = ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'] as const;

interface AttachmentsFieldProps {
  readonly place: AttachmentPlace;
  readonly readOnly: boolean;
}

/** Files given with the brief or the guide: added, read, taken away. */
export function AttachmentsField({ place, readOnly }: AttachmentsFieldProps) {
  const { id: exchangeId, attachments } = useExchange();
  const [add] = useAddAttachmentMutation();
  const [remove, { error }] = useRemoveAttachmentMutation();
  const [removed, setRemoved] = useState<string | null>(null);
  const purpose = { exchangeId, deliverableId: place, use: 'attachment' } as const;
  const uploads = useSending(purpose, (uploadId) => add({ exchangeId, uploadId }).unwrap());
  const take = async ({ id, name }: AttachmentCard) => {
    await remove({ exchangeId, id }).unwrap();
    setRemoved(name);
  };
  const room = attachments.length + uploads.rows.length < LIMITS.attachments;
  return (
    <div>
      <Attachments
        exchangeId={exchangeId}
        attachments={attachments}
        place={place}
        {...(!readOnly && { onRemove: (card) => void take(card).catch(() => {}) })}
      />
      {error !== undefined && <ProblemNotice error={error} />}
      <p role="status" className="text-sm text-ink-soft">
        {removed === null ? '' : say('isNotAttachedAnyMore', { removed })}
      </p>
      <UploadRows uploads={uploads} />
      {!readOnly && (
        <Unfinished exchangeId={exchangeId} deliverableId={place} running={uploads.rows.map(({ name }) => name)} />
      )}
      {!readOnly && room && (
        <div className="mt-2 max-w-[68ch]">
          <FilePick
            multiple
            label={say('attachFilesToOrDrop', { place })}
            accept={endingsOf(FAMILIES)}
            hint={say('readInBrowserOrTaken', { attachmentMegabytes: LIMITS.attachmentMegabytes })}
            onFiles={(files) => void uploads.add(files)}
          />
        </div>
      )}
      {!readOnly && !room && (
        <Notice title={say('thereAreAttachmentsAsMany', { attachments: LIMITS.attachments })}>
          {say('takeOneAwayBeforeYou')}
        </Notice>
      )}
    </div>
  );
}
