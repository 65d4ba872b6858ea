import type { NameFindView } from '@salt-circle/contracts';
import { findIdentities, type Identity, type IdentityFind, type TextRange } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Enrolment } from '../courses/entities.js';
import type { Exchange } from '../exchanges/entities.js';
import { Participant } from '../exchanges/entities.js';
import type { StoredFile } from '../files/entities.js';
import { footnotesIn } from '../html/footnotes.js';
import { htmlToText } from '../html/html-to-text.js';
import { Authors } from './authors.js';
import type { Draft, DraftPart } from './entities.js';

/** Enough to act on; a text that has more is about its author. */
const MOST_FINDS = 200;
/** UTF-16 code units shown on either side. */
const AROUND = 40;

/** Whether reviewers are not to learn who the authors are. */
export function hidesAuthors({ names }: Pick<Exchange, 'names'>): boolean {
  return names === 'both-ways' || names === 'authors-only';
}

/** The authors of a draft, with all that could give them away. */
export async function identitiesOf(manager: EntityManager, exchange: Exchange, draft: Draft): Promise<Identity[]> {
  const ids = (await Authors.load(manager, exchange)).of(draft);
  const participants = ids.length === 0 ? [] : await manager.findBy(Participant, { id: In([...ids]) });
  const personIds = participants.map(({ personId }) => personId);
  const people = personIds.length === 0 ? [] : await manager.findBy(Person, { id: In(personIds) });
  const enrolments = await manager.findBy(Enrolment, { courseId: exchange.courseId, personId: In(personIds) });
  const campus = new Map(enrolments.map(({ personId, campusId }) => [personId, campusId]));
  return people.map(({ id, name, email }) => ({ name, email, campusId: campus.get(id) ?? null }));
}

interface Text {
  readonly text: string;
  readonly where: NameFindView['where'];
  readonly whereWords: string;
  readonly part: DraftPart | null;
  readonly hideable: boolean;
  readonly removed: boolean;
  readonly as: 'prose' | 'label';
  /** Hidden from reviewers already. */
  readonly hidden: readonly TextRange[];
}

/** Every place in a draft that may tell reviewers who wrote it, in the order of the hand-in. */
export function nameFinds(
  draft: Pick<Draft, 'title' | 'context'>,
  parts: readonly DraftPart[],
  files: ReadonlyMap<string, StoredFile>,
  titles: ReadonlyMap<string, string>,
  people: readonly Identity[],
): NameFindView[] {
  const texts: Text[] = [
    plain('title', 'Title', draft.title, true),
    plain('context', 'Words for your reviewers', draft.context, true),
    ...parts.flatMap((part) =>
      textsOf(part, files.get(part.digest ?? '') ?? null, titles.get(part.deliverableId) ?? ''),
    ),
  ];
  return texts.flatMap((one) => findsIn(one, people)).slice(0, MOST_FINDS);
}

function plain(where: Text['where'], whereWords: string, text: string, hideable: boolean): Text {
  return { text, where, whereWords, part: null, hideable, removed: false, as: 'prose', hidden: [] };
}

function textsOf(part: DraftPart, file: StoredFile | null, title: string): Text[] {
  const about = (where: Text['where'], words: string, text: string, how: Partial<Text> = {}): Text => ({
    ...plain(where, words, text, false),
    part,
    ...how,
  });
  switch (part.kind) {
    case 'text':
      return [
        about('text', title, htmlToText(part.html), { hideable: true }),
        ...footnotesIn(part.html).map((words, index) =>
          about('footnote', `footnote ${index + 1} of “${title}”`, words, { hideable: true }),
        ),
      ];
    case 'link':
      return [part.title, part.about, part.url].map((text) => about('link', `${title} (link)`, text, { as: 'label' }));
    case 'file':
    case 'recording': {
      const copy = file?.copyHtml == null ? (file?.copyText ?? '') : htmlToText(file.copyHtml);
      return [
        about('copy', title, copy, { hideable: file?.copyHtml != null, hidden: part.hidden }),
        about('file-name', `name of the file for “${title}”`, part.name, { as: 'label', removed: true }),
        ...(file?.metadata ?? []).map(({ where, value }) =>
          about('metadata', where, value, { as: 'label', removed: true }),
        ),
      ];
    }
  }
}

function findsIn({ text, part, hidden, as, ...how }: Text, people: readonly Identity[]): NameFindView[] {
  return findIdentities(text, people, { as })
    .filter(({ start, end }) => !hidden.some((range) => range.start <= start && range.end >= end))
    .map((find: IdentityFind): NameFindView => ({
      key: [how.where, part?.id ?? '', how.whereWords, find.start, find.end].join('|'),
      where: how.where,
      whereWords: how.whereWords,
      partId: part?.id ?? null,
      deliverableId: part?.deliverableId ?? null,
      before: text.slice(Math.max(0, find.start - AROUND), find.start),
      exact: find.exact,
      after: text.slice(find.end, find.end + AROUND),
      start: find.start,
      end: find.end,
      what: find.what,
      certainty: find.certainty,
      hideable: how.hideable,
      removed: how.removed,
    }));
}
