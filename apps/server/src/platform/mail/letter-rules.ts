import type { LetterKind } from '../../model/letter-kind.js';

interface LetterRule {
  /** As long as it has not been read in the inbox it is told once, however often it happens. */
  readonly once?: boolean;
  /** Mailed whatever the person wishes: a receipt. */
  readonly always?: boolean;
  /** Milliseconds for which it waits before it leaves, so that another one can take its place. */
  readonly waits?: number;
  /** A link in it is for the addressee alone, also where mail stays here: see `Mail.sealed`. */
  readonly sealed?: boolean;
}

/** Within so many milliseconds changes of dates are told in one letter. */
export const TOGETHER = 10 * 60_000;

/** How each letter is told, beside its text. */
export const LETTER_RULES: Readonly<Record<LetterKind, LetterRule>> = {
  'password-link': { sealed: true },
  'password-changed': { sealed: true },
  'address-change': { sealed: true },
  'platform-proof': { sealed: true },
  // Without a mail server staff pass the link on; whether they may read it depends on the person.
  invitation: {},
  'exchange-published': {},
  'rules-changed': {},
  'dates-moved': { waits: TOGETHER },
  receipt: { always: true },
  'taken-back': { always: true },
  reminder: {},
  'allocation-outcome': {},
  'reviews-to-write': {},
  'review-reopened': {},
  'feedback-released': {},
  'staff-review-added': { once: true },
  reply: { once: true },
  'look-asked': { once: true },
  'look-answered': {},
  grade: {},
  'next-round': {},
  'day-letter': {},
};
