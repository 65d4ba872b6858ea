import { say } from '../words/form.js';
import { wordsBy } from '../words/wordsBy.js';
import type { Selector } from '../anchoring/place.js';
import type { ProposedEdit } from '../edits/proposedEdit.js';

/** What a note is for. */
export type AnnotatedKind = 'keep' | 'change' | 'ask' | 'fix';

export interface AnnotatedReply {
  readonly id: string;
  /** As whoever takes it along knows the one who wrote it. */
  readonly by: string;
  readonly words: string;
}

export interface AnnotatedNote {
  readonly id: string;
  readonly by: string;
  readonly kind: AnnotatedKind;
  readonly body: string;
  /** Null: on the whole draft. */
  readonly partId: string | null;
  readonly selector: Selector;
  readonly edit: ProposedEdit | null;
  readonly replies: readonly AnnotatedReply[];
}

export interface AnnotatedPart {
  readonly id: string;
  readonly name: string;
  /** The media type by which it is read; null for a link. */
  readonly format: string | null;
}

/** What somebody says of one item of the form. */
export interface AnnotatedAnswer {
  readonly itemId: string;
  readonly title: string;
  /** A line each. */
  readonly lines: readonly string[];
  readonly replies: readonly AnnotatedReply[];
}

export interface AnnotatedReview {
  readonly id: string;
  readonly by: string;
  /** "14 of 18 points"; empty for a form without points. */
  readonly score: string;
  readonly answers: readonly AnnotatedAnswer[];
  readonly notes: readonly AnnotatedNote[];
  /** To the review as a whole. */
  readonly replies: readonly AnnotatedReply[];
}

/** A draft with all that was written about it, as somebody may take it along: with names or aliases as that person knows them. */
export interface AnnotatedDraft {
  readonly draftId: string;
  /** Of the version. */
  readonly version: number;
  readonly title: string;
  readonly exchange: string;
  readonly course: string;
  readonly parts: readonly AnnotatedPart[];
  readonly reviews: readonly AnnotatedReview[];
}

export const KIND_NAMES: Readonly<Record<AnnotatedKind, string>> = wordsBy(say, {
  keep: 'keep',
  change: 'change',
  ask: 'ask',
  fix: 'fix',
});

/** What a proposed edit does, in words: for programs and papers that have no way to show it. */
export function editLine(edit: ProposedEdit, passage: string): string {
  switch (edit.type) {
    case 'insert':
      return edit.side === 'before' ? say('putBefore', { text: edit.text }) : say('putAfter', { text: edit.text });
    case 'delete':
      return say('takeOut', { passage });
    case 'replace':
      return say('replace', { passage, text: edit.text });
    case 'move': {
      const place = edit.to.quote.exact;
      return edit.side === 'before' ? say('moveBefore', { place }) : say('moveAfter', { place });
    }
    case 'split':
      return say('split');
    case 'join':
      return say('join');
  }
}

/** The words that a note is on; empty for a place that is none of words. */
export function passageOf(selector: Selector): string {
  return selector.type === 'text' || selector.type === 'passage' ? selector.quote.exact : '';
}

/** A note in lines: what it is for with what it says, and what it proposes. */
export function noteLines({
  kind,
  body,
  edit,
  selector,
}: Pick<AnnotatedNote, 'kind' | 'body' | 'edit' | 'selector'>): string[] {
  const said = body.trim();
  return [
    said === '' ? KIND_NAMES[kind] : say('labelled', { label: KIND_NAMES[kind], words: said }),
    ...(edit === null ? [] : [editLine(edit, passageOf(selector))]),
  ];
}
