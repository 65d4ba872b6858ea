/** Something that happened and is worth knowing later. Handlers are listed in `handlers.ts`. */
export interface Happening {
  readonly action:
    | 'signed-in'
    | 'password-changed'
    | 'address-changed'
    | 'stepped-in'
    | 'clock-moved'
    | 'course-created'
    | 'course-changed'
    | 'person-joined'
    | 'roster-applied'
    | 'person-added'
    | 'person-changed'
    | 'person-dropped'
    | 'person-taken-back'
    | 'invited'
    | 'password-link-sent'
    | 'groups-changed'
    | 'library-changed'
    | 'exchange-created'
    | 'exchange-copied'
    | 'plan-changed'
    | 'dates-changed'
    | 'rules-changed'
    | 'own-times-set'
    | 'own-times-removed'
    | 'attachment-added'
    | 'attachment-removed'
    | 'form-changed'
    | 'exchange-published'
    | 'draft-handed-in'
    | 'draft-withdrawn'
    | 'draft-handed-in-for'
    | 'reminded'
    | 'allocation-applied'
    | 'allocation-repaired'
    | 'allocation-undone'
    | 'allocation-by-hand'
    | 'allocation-imported'
    | 'allocation-planned'
    | 'allocation-run'
    | 'extra-reviewer-set'
    | 'review-begun'
    | 'review-submitted'
    | 'review-reopened'
    | 'feedback-released';
  /** Null for the application itself. */
  readonly actorId: string | null;
  readonly courseId?: string;
  readonly exchangeId?: string;
  /** Small facts: numbers, dates, ids. Never what somebody wrote. */
  readonly details?: Readonly<Record<string, string | number | boolean | null>>;
}
