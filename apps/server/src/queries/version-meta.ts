import type { LateView, VersionMeta } from '@salt-circle/contracts';
import { endOf, lateness, resolveDates, withPersonalDates, type PersonalDates } from '@salt-circle/core';
import { createHash } from 'node:crypto';
import { datesOf } from '../permissions/exchange-facts.js';
import type { Exchange } from '../model/exchange.js';
import { iso } from '../platform/wire/instants.js';
import type { DraftPart, DraftVersion } from '../model/draft.js';

/** How late a hand-in is, and what that costs; null for one in time. */
export function lateView(exchange: Exchange, own: PersonalDates | null, handedInAt: number): LateView | null {
  const dates = resolveDates(datesOf(exchange));
  if (dates === null) return null;
  const { draftsDue } = withPersonalDates(dates, own);
  if (handedInAt < endOf(draftsDue)) return null;
  return { ...lateness(exchange.late, draftsDue, handedInAt), rule: exchange.late };
}

/** A version for lists: what it consists of, its digest (SHA-256, hexadecimal), and how late it was. */
export function versionMeta(
  exchange: Exchange,
  own: PersonalDates | null,
  version: DraftVersion,
  parts: readonly DraftPart[],
  by: string | null,
): VersionMeta {
  const titles = new Map(exchange.deliverables.map(({ id, title }) => [id, title]));
  const { number, title, words, digest, handedInAt, purpose, changes } = version;
  return {
    number,
    title,
    words,
    digest,
    handedInAt: iso(handedInAt),
    handedInBy: by,
    // A revision has a due time of its own, and after that there is none.
    late: purpose === 'revision' ? null : lateView(exchange, own, handedInAt),
    purpose,
    changes,
    withdrawn: version.withdrawnAt !== null,
    parts: parts
      .filter(({ kind, html }) => kind !== 'text' || html !== '')
      .map((part) => ({ what: whatOf(part, titles.get(part.deliverableId) ?? ''), digest: digestOf(part) })),
  };
}

function whatOf({ kind, name, url }: DraftPart, title: string): string {
  if (kind === 'text') return title;
  return kind === 'link' ? `${title}: ${url}` : `${title}: ${name}`;
}

/** Of a file its own digest; of text and links that of what was typed. */
export function digestOf({ kind, html, digest, url }: DraftPart): string {
  return (
    digest ??
    createHash('sha256')
      .update(kind === 'text' ? html : url)
      .digest('hex')
  );
}
