/** Where a part of a draft is read in the browser. */
export interface PartPlace {
  readonly exchangeId: string;
  readonly draftId: string;
  readonly partId: string;
}

const base = ({ exchangeId, draftId, partId }: PartPlace) =>
  `/api/exchanges/${exchangeId}/drafts/${draftId}/parts/${partId}`;

export function copyAddress(place: PartPlace): string {
  return `${base(place)}/copy`;
}

export function originalAddress(place: PartPlace): string {
  return `${base(place)}/original`;
}

export function captionsAddress(place: PartPlace): string {
  return `${base(place)}/captions`;
}
