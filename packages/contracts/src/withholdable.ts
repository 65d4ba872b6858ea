/** What of a review can be kept from its author. */
export const WITHHOLDABLE = ['review', 'note', 'answer', 'file'] as const;
export type Withholdable = (typeof WITHHOLDABLE)[number];
