import type { PartView, RemarkView, RevisionView } from '@salt-circle/contracts';
import { becameOf, matchTextAnchor, type Became, type VersionPart } from '@salt-circle/core';
import { readDom } from '../../app/reading/domText.js';

/** A part of the draft before and after, by its deliverable; null where it is not there. */
export interface PartPair {
  readonly key: string;
  readonly title: string;
  readonly before: PartView | null;
  readonly after: PartView | null;
  /** Of two texts; null of everything else. */
  readonly texts: readonly [before: string, after: string] | null;
}

/** Parts of both versions beside each other: the n-th of a deliverable with the n-th. */
export function pairsOf({ reviewed, revision }: Pick<RevisionView, 'reviewed' | 'revision'>): readonly PartPair[] {
  const keyed = (parts: readonly PartView[]) => {
    const seen = new Map<string, number>();
    return new Map(
      parts.map((part) => {
        const at = seen.get(part.deliverableId) ?? 0;
        seen.set(part.deliverableId, at + 1);
        return [`${part.deliverableId} ${at}`, part] as const;
      }),
    );
  };
  const [before, after] = [keyed(reviewed.parts), keyed(revision?.parts ?? [])];
  return [...new Set([...before.keys(), ...after.keys()])].map((key): PartPair => {
    const [was, is] = [before.get(key) ?? null, after.get(key) ?? null];
    const readable = (was?.html ?? null) !== null || (is?.html ?? null) !== null;
    const title = (was ?? is)?.deliverable ?? '';
    return { key, title, before: was, after: is, texts: readable ? [plain(was?.html), plain(is?.html)] : null };
  });
}

/** The text of a part, position for position as notes are anchored in it. */
function plain(html: string | null | undefined): string {
  if (html == null) return '';
  // A document of its own: nothing in it is fetched or run.
  return readDom(new DOMParser().parseFromString(html, 'text/html').body).text;
}

/** What became of the passage that a note is on; null for a note on something else, or on another version. */
export function becameOfRemark(
  { note }: Pick<RemarkView, 'note'>,
  pairs: readonly PartPair[],
  compared: ReadonlyArray<readonly VersionPart[]>,
): { readonly became: Became; readonly pair: number } | null {
  const texts = pairs.filter((one) => one.texts !== null);
  const index = texts.findIndex(({ before }) => before !== null && before.id === note?.place.partId);
  const selector = note?.place.selector;
  const parts = compared[index];
  if (selector?.type !== 'text' || parts === undefined) return null;
  const match = matchTextAnchor(texts[index]?.texts?.[0] ?? '', selector);
  return match.found === 'gone' ? null : { became: becameOf(parts, match.range), pair: index };
}
