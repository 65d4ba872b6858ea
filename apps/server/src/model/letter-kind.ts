/** What a letter, or an entry of an inbox, tells of. Stored: a kind that is no longer written stays in the list. */
export type LetterKind =
  | 'password-link'
  | 'password-changed'
  | 'address-change'
  | 'platform-proof'
  | 'invitation'
  | 'exchange-published'
  | 'rules-changed'
  | 'dates-moved'
  | 'receipt'
  | 'taken-back'
  | 'reminder'
  | 'allocation-outcome'
  | 'reviews-to-write'
  | 'review-reopened'
  | 'feedback-released'
  | 'staff-review-added'
  | 'reply'
  | 'look-asked'
  | 'look-answered'
  | 'grade'
  | 'next-round'
  | 'day-letter';

/** Of rows from before kinds were kept. */
export type StoredLetterKind = LetterKind | '';
