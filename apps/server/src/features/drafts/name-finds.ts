import { createHash } from 'node:crypto';
import type { NameFindView } from '@salt-circle/contracts';
import type { IdentityFind, SearchOptions, TextRange } from '@salt-circle/core';
import type { StoredFile } from '../../model/stored-file.js';
import { footnotesIn } from '../../platform/html/footnotes.js';
import { behindText } from '../../platform/html/bare-attributes.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import type { Draft, DraftPart } from '../../model/draft.js';
import { say } from '../../words/drafts.js';

/** UTF-16 code units shown on either side. */
const AROUND = 40;

/** A text of a draft in which names are looked for, and what can be done about a find in it. */
export interface SearchedText {
  /** Unique among the texts of a draft. */
  readonly id: string;
  readonly text: string;
  readonly as: SearchOptions['as'];
  readonly where: NameFindView['where'];
  readonly whereWords: string;
  readonly part: DraftPart | null;
  /** Of footnotes: which one, from 0. */
  readonly footnote: number | null;
  readonly hideable: boolean;
  readonly removed: boolean;
  /** Hidden from reviewers already. */
  readonly hidden: readonly TextRange[];
}

/** A find, with the text that it stands in. */
export interface LocatedFind {
  readonly view: NameFindView;
  readonly within: SearchedText;
}

/** Every text of a draft that may tell reviewers who wrote it, in the order of the hand-in. */
export function searchedTexts(
  draft: Pick<Draft, 'title' | 'context'>,
  parts: readonly DraftPart[],
  files: ReadonlyMap<string, StoredFile>,
  titles: ReadonlyMap<string, string>,
): SearchedText[] {
  return [
    text('title', say('title'), draft.title, { hideable: true }),
    text('context', say('wordsForYourReviewers'), draft.context, { hideable: true }),
    ...parts.flatMap((part) =>
      textsOf(
        part,
        files.get(part.digest ?? '') ?? null,
        files.get(part.captions ?? '') ?? null,
        titles.get(part.deliverableId) ?? '',
      ),
    ),
  ];
}

/** Where links lead and what stands for pictures: what tells a name is taken out of what reviewers get. */
function behind(part: DraftPart, html: string, title: string): SearchedText[] {
  return behindText(html).map(({ kind, words }, index) =>
    text('behind', BEHIND[kind](title), words, { part, id: `${part.id}:behind:${index}`, as: 'label', removed: true }),
  );
}

const BEHIND = {
  link: (title: string) => say('addressOfLinkIn', { title }),
  picture: (title: string) => say('descriptionOfPictureIn', { title }),
} as const;

/** What a file says of itself beside what it shows: some of it is in the copy, the most is not. */
function beside(part: DraftPart, file: StoredFile | null, id: string): SearchedText[] {
  return (file?.metadata ?? []).map(({ where, value, inCopy = false }, index) =>
    text('metadata', where, value, { part, id: `${part.id}:${id}:${index}`, as: 'label', removed: !inCopy }),
  );
}

function text(
  where: SearchedText['where'],
  whereWords: string,
  words: string,
  how: Partial<SearchedText> = {},
): SearchedText {
  const base = { part: null, footnote: null, hideable: false, removed: false, as: 'prose', hidden: [] } as const;
  return { id: where, text: words, where, whereWords, ...base, ...how };
}

function textsOf(part: DraftPart, file: StoredFile | null, captions: StoredFile | null, title: string): SearchedText[] {
  const of = (where: SearchedText['where'], words: string, said: string, index: number, how: Partial<SearchedText>) =>
    text(where, words, said, { part, id: `${part.id}:${where}:${index}`, ...how });
  switch (part.kind) {
    case 'text':
      return [
        of('text', title, htmlToText(part.html), 0, { hideable: true }),
        ...behind(part, part.html, title),
        ...footnotesIn(part.html).map((words, index) =>
          of('footnote', say('footnoteOf', { number: index + 1, title }), words, index, {
            hideable: true,
            footnote: index,
          }),
        ),
      ];
    case 'link':
      return [
        of('link', say('linkNamed', { title }), part.title, 0, {}),
        of('link', say('linkNamed', { title }), part.about, 1, {}),
        of('link', say('linkAddress', { title }), part.url, 2, { as: 'label' }),
      ];
    case 'file':
    case 'recording': {
      const copy = file?.copyHtml == null ? (file?.copyText ?? '') : htmlToText(file.copyHtml);
      const label = { as: 'label', removed: true } as const;
      return [
        of('copy', title, copy, 0, { hideable: file?.copyHtml != null, hidden: part.hidden }),
        ...behind(part, file?.copyHtml ?? '', title),
        of('file-name', say('fileNameFor', { title }), part.name, 0, label),
        ...beside(part, file, 'metadata'),
        ...(captions === null ? [] : [of('captions', say('captionsOf', { title }), captions.copyText ?? '', 0, {})]),
        ...beside(part, captions, 'captions-data'),
      ];
    }
  }
}

/** @param finds of each text, in the order of the texts */
export function locatedFinds(
  texts: readonly SearchedText[],
  finds: ReadonlyArray<readonly IdentityFind[]>,
): LocatedFind[] {
  return texts.flatMap((within, index) => findsIn(within, finds[index] ?? []));
}

function findsIn(within: SearchedText, finds: readonly IdentityFind[]): LocatedFind[] {
  const { part, where, whereWords, hideable, removed, hidden } = within;
  const seen = new Map<string, number>();
  return finds
    .filter(({ start, end }) => !hidden.some((range) => range.start <= start && range.end >= end))
    .map(({ start, end, exact, what, certainty }) => {
      const before = within.text.slice(Math.max(0, start - AROUND), start);
      const after = within.text.slice(end, end + AROUND);
      const key = keyOf(within.id, before, exact, after);
      const nth = seen.get(key) ?? 0;
      seen.set(key, nth + 1);
      return {
        within,
        view: {
          key: `${key}-${nth}`,
          where,
          whereWords,
          partId: part?.id ?? null,
          deliverableId: part?.deliverableId ?? null,
          before,
          exact,
          after,
          start,
          end,
          what,
          certainty,
          hideable,
          removed,
        },
      };
    });
}

/** From the words around and not from the place: what was decided holds when something before it is hidden. */
function keyOf(...parts: readonly string[]): string {
  return createHash('sha256').update(parts.join('\n')).digest('base64url').slice(0, 22);
}
