/** Where a part of a draft is read in the browser. */
export interface PartPlace {
  readonly exchangeId: string;
  readonly draftId: string;
  readonly partId: string;
}

export function partAddress({ exchangeId, draftId, partId }: PartPlace): string {
  return `/api/exchanges/${exchangeId}/drafts/${draftId}/parts/${partId}`;
}

/** Of a file given with the brief or the guide. */
export function attachmentAddress(exchangeId: string, id: string): string {
  return `/api/exchanges/${exchangeId}/attachments/${id}`;
}

/** As it was handed in, to be kept. @param address of the part or attachment */
export function originalAddress(address: string): string {
  return `${address}/original`;
}
