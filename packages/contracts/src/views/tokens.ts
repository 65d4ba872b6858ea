import type { IsoInstant } from './person.js';

/** `read`: all that its person may read of courses, exchanges and reviews; `grades`: grades, insights and results alone. */
export const TOKEN_SCOPES = ['read', 'grades'] as const;
export type TokenScope = (typeof TOKEN_SCOPES)[number];

export interface TokenRow {
  readonly id: string;
  readonly name: string;
  readonly scope: TokenScope;
  readonly created: IsoInstant;
  readonly ends: IsoInstant;
  /** To the hour; null before it was used. */
  readonly used: IsoInstant | null;
}

export interface TokensView {
  /** Whoever is of the staff of a course can make some. */
  readonly may: boolean;
  readonly tokens: readonly TokenRow[];
}

/** Shown once. */
export interface MadeTokenView {
  readonly token: string;
}
