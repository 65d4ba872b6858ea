import { toWebSelectors, type WebSelector } from '../anchoring/webAnnotation.js';
import {
  editLine,
  KIND_NAMES,
  passageOf,
  type AnnotatedDraft,
  type AnnotatedKind,
  type AnnotatedNote,
  type AnnotatedReply,
} from './annotatedDraft.js';

/** The context by which all of it is read (W3C). It ships with the application as `anno.jsonld`; see docs/formats.md. */
export const ANNOTATION_CONTEXT = 'http://www.w3.org/ns/anno.jsonld';

type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
export type JsonObject = { readonly [key: string]: Json };

/** Motivations of the standard (section 3.3.5), by what a note is for; beside them its own name stands as a tag. */
const MOTIVATIONS: Readonly<Record<AnnotatedKind, readonly string[]>> = {
  keep: ['assessing', 'highlighting'],
  change: ['assessing', 'commenting'],
  ask: ['questioning'],
  fix: ['commenting', 'editing'],
};

const urn = (id: string) => `urn:uuid:${id}`;

/** Annotations on one page: all are at hand, and pages are for who fetches them one by one. */
export const PAGE_SIZE = 1_000;

/**
 * Notes, proposed edits, answers and replies as the Web Annotation Data Model has them (W3C Recommendation, 23 February 2017): a
 * collection with its pages inside (section 5). Whoever wrote something stands there as a person with a nickname, which is the name or the alias by
 * which they are known to whoever takes it along; nothing else is said of anybody, and no times.
 *
 * @param drafts with what was written about each
 */
export function annotationCollection(id: string, label: string, drafts: readonly AnnotatedDraft[]): JsonObject {
  const all = drafts.flatMap(annotationsOf);
  const pages = Math.max(1, Math.ceil(all.length / PAGE_SIZE));
  const pageId = (page: number) => `${urn(id)}#page=${page + 1}`;
  const page = (at: number): JsonObject => ({
    id: pageId(at),
    type: 'AnnotationPage',
    partOf: urn(id),
    startIndex: at * PAGE_SIZE,
    ...(at + 1 < pages && { next: page(at + 1) }),
    items: all.slice(at * PAGE_SIZE, (at + 1) * PAGE_SIZE),
  });
  return {
    '@context': ANNOTATION_CONTEXT,
    id: urn(id),
    type: 'AnnotationCollection',
    label,
    total: all.length,
    first: page(0),
    last: pageId(pages - 1),
  };
}

function annotationsOf(draft: AnnotatedDraft): JsonObject[] {
  return draft.reviews.flatMap((review) => [
    ...review.answers
      .filter(({ lines }) => lines.length > 0)
      .flatMap(({ itemId, title, lines, replies }) => {
        const id = `${urn(review.id)}#${encodeURIComponent(itemId)}`;
        const body = [text(lines.join('\n'), 'assessing'), text(title, 'tagging')];
        const answer = { ...written(id, review.by, ['assessing']), body, target: urn(draft.draftId) };
        return [answer, ...replies.map((reply) => replyOf(reply, id))];
      }),
    ...review.notes.flatMap((note) => [
      noteOf(note, draft),
      ...note.replies.map((reply) => replyOf(reply, urn(note.id))),
    ]),
    ...review.replies.map((reply) => replyOf(reply, urn(review.id))),
  ]);
}

function written(id: string, by: string, motivation: readonly string[]) {
  return {
    ...{ id, type: 'Annotation', motivation: motivation.length === 1 ? (motivation[0] as string) : motivation },
    creator: { type: 'Person', nickname: by },
  };
}

function text(value: string, purpose: string): JsonObject {
  return { type: 'TextualBody', value, format: 'text/plain', purpose };
}

function noteOf(
  { id, by, kind, body, partId, selector, edit }: AnnotatedNote,
  { draftId, parts }: AnnotatedDraft,
): JsonObject {
  const selectors = toWebSelectors(selector);
  const format = parts.find((part) => part.id === partId)?.format ?? null;
  const source = urn(partId ?? draftId);
  return {
    ...written(urn(id), by, edit === null ? MOTIVATIONS[kind] : [...new Set([...MOTIVATIONS[kind], 'editing'])]),
    body: [
      ...(body.trim() === '' ? [] : [text(body, 'commenting')]),
      ...(edit === null ? [] : [text(editLine(edit, passageOf(selector)), 'editing')]),
      text(KIND_NAMES[kind], 'tagging'),
    ],
    target:
      selectors.length === 0
        ? source
        : {
            ...{ type: 'SpecificResource', source: format === null ? source : { id: source, format } },
            selector: selectors.length === 1 ? asJson(selectors[0] as WebSelector) : selectors.map(asJson),
          },
  };
}

/** A selector is JSON already; the types do not know. */
function asJson(selector: WebSelector): JsonObject {
  return selector as unknown as JsonObject;
}

function replyOf({ id, by, words }: AnnotatedReply, to: string): JsonObject {
  return { ...written(urn(id), by, ['replying']), body: text(words, 'replying'), target: to };
}
