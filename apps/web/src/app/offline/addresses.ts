import type { DeskView } from '@salt-circle/contracts';
import { partAddress } from '../viewing/address.js';

/** All that the desk asks for, but for what says that something changed. */
export function addressesOf({ id, exchange, draft }: Pick<DeskView, 'id' | 'exchange' | 'draft'>): string[] {
  const parts = draft.parts.flatMap(({ id: partId, copy, html, captions }) => {
    const at = partAddress({ exchangeId: exchange.id, draftId: draft.draftId, partId });
    const pictures = [...(html ?? '').matchAll(/<img[^>]*\ssrc="(\/api\/[^"]+)"/g)].map((match) => match[1] ?? '');
    return [
      ...(copy?.state === 'ready' && html === null ? [`${at}/copy`] : []),
      ...(captions ? [`${at}/captions`] : []),
      ...pictures,
    ];
  });
  return ['/api/session', `/api/reviews/${id}`, `/api/exchanges/${exchange.id}`, '/api/own-remarks', ...new Set(parts)];
}
