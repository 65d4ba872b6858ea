import type { DeskView } from '@salt-circle/contracts';
import { partAddress } from '../viewing/address.js';

/** All that the desk asks for, but for what says that something changed. */
export function addressesOf({
  id,
  exchange,
  draft,
  files,
  practice,
}: Pick<DeskView, 'id' | 'exchange' | 'draft' | 'files' | 'practice'>): string[] {
  const parts = draft.parts.flatMap(({ id: partId, copy, html, captions }) => {
    const at = partAddress({ exchangeId: exchange.id, draftId: draft.draftId, partId });
    const pictures = [...(html ?? '').matchAll(/<img[^<>]*\ssrc="(\/api\/[^"]+)"/g)].map((match) => match[1] ?? '');
    return [
      ...(copy?.state === 'ready' && html === null ? [`${at}/copy`] : []),
      ...(captions ? [`${at}/captions`] : []),
      ...pictures,
    ];
  });
  const remarks = files.flatMap(({ id: fileId, family }) => {
    const at = `/api/reviews/${id}/files/${fileId}`;
    // Documents are read as the page that they became.
    return family === 'document' || family === 'plain-text' ? [at] : [at, `${at}/copy`];
  });
  const about = `/api/exchanges/${practice?.forId ?? exchange.id}`;
  return ['/api/session', `/api/reviews/${id}`, about, '/api/own-remarks', ...new Set([...parts, ...remarks])];
}
