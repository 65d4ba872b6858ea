import type { AttachmentCard, AttachmentPlace, PartView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Loading } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { attachmentAddress, originalAddress } from '../viewing/address.js';
import { PartViewer } from '../viewing/PartViewer.js';
import { bytesInWords } from '../viewing/sizes.js';
import { say } from '../../words/app.js';
import { changedHere } from '../changes/freshness.js';

const { useAttachmentQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    attachment: build.query<PartView, { exchangeId: string; id: string }>({
      query: ({ exchangeId, id }) => `/exchanges/${exchangeId}/attachments/${id}`,
      // While its copy is being made.
      providesTags: changedHere(['Exchange'], 'plan'),
    }),
  }),
});

/** Milliseconds between two looks while its copy is being made: with borrowed eyes nothing is heard of it. */
const WHILE_MADE = 2_000;

export interface AttachmentsProps {
  readonly exchangeId: string;
  readonly attachments: readonly AttachmentCard[];
  readonly place: AttachmentPlace;
  /** For those who plan: takes one away. */
  readonly onRemove?: (card: AttachmentCard) => void;
}

/** What is given with the brief or the guide: read here, or taken along as it came. Nothing for none. */
export function Attachments({ exchangeId, attachments, place, onRemove }: AttachmentsProps) {
  const [reading, setReading] = useState<AttachmentCard | null>(null);
  const here = attachments.filter((card) => card.place === place);
  if (here.length === 0) return null;
  return (
    <>
      <ul aria-label={say('attachedTo', { place })} className="mt-3 max-w-[68ch] border-t border-line">
        {here.map((card) => (
          <li
            key={card.id}
            className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b border-line py-1.5"
          >
            <p className="min-w-0 flex-1">
              <a
                href={originalAddress(attachmentAddress(exchangeId, card.id))}
                className="font-medium break-words text-ink underline decoration-line"
                title={say('downloadIt')}
              >
                {card.name}
              </a>
              <span className="ml-2 text-sm whitespace-nowrap text-ink-soft">{bytesInWords(card.size)}</span>
            </p>
            <span className="flex gap-1">
              <Button small aria-label={say('read', { name: card.name })} onClick={() => setReading(card)}>
                {say('readLabel')}
              </Button>
              {onRemove !== undefined && (
                <Button small aria-label={say('remove', { name: card.name })} onClick={() => onRemove(card)}>
                  {say('removeLabel')}
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      <Dialog open={reading !== null} onClose={() => setReading(null)} title={reading?.name ?? ''} wide>
        {reading !== null && <Reading exchangeId={exchangeId} id={reading.id} />}
      </Dialog>
    </>
  );
}

function Reading({ exchangeId, id }: { readonly exchangeId: string; readonly id: string }) {
  const [settled, setSettled] = useState(false);
  const { data, error } = useAttachmentQuery(
    { exchangeId, id },
    { refetchOnMountOrArgChange: true, pollingInterval: settled ? 0 : WHILE_MADE },
  );
  const waiting = data?.copy?.state === 'waiting';
  if (data !== undefined && settled === waiting) setSettled(!waiting);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('attachment')} />;
  return (
    <div className="h-[70vh] overflow-auto">
      <PartViewer part={data} address={attachmentAddress(exchangeId, id)} />
    </div>
  );
}
