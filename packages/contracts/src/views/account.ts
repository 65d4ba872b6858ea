import type { Role } from '@salt-circle/core';
import type { OpenPlace } from './people.js';
import type { IsoInstant } from './person.js';

/** An account, as its person sees it. */
export interface AccountView {
  readonly name: string;
  readonly email: string;
  /** That mail to the address is known to arrive. */
  readonly confirmed: boolean;
  /** A new address that waits to be confirmed, and from which of the two it has been. */
  readonly newAddress: { readonly email: string; readonly fromOld: boolean; readonly fromNew: boolean } | null;
  readonly sessions: readonly SessionRow[];
  /** How courses list this person; an instructor of each can change it. */
  readonly places: ReadonlyArray<{
    readonly course: string;
    readonly name: string;
    readonly email: string;
    readonly role: Role;
  }>;
  /** Places given to the address, which wait to be taken. */
  readonly open: readonly OpenPlace[];
}

/** A browser that is signed in. */
export interface SessionRow {
  readonly id: string;
  /** E.g. `Firefox on Linux`. */
  readonly browser: string;
  readonly since: IsoInstant;
  readonly lastSeen: IsoInstant;
  readonly thisOne: boolean;
}

/** Whose password a link lets choose anew. */
export interface PasswordLinkView {
  readonly email: string;
}

/** What a link about a new address confirms. */
export interface AddressLinkView {
  readonly from: string;
  readonly to: string;
  /** The mailbox that this link went to. */
  readonly which: 'old' | 'new';
  /** Whether it is confirmed from the other one already, so that this link makes the change. */
  readonly last: boolean;
}
