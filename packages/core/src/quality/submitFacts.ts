import { countWords } from '../text/words.js';
import type { Place } from '../anchoring/place.js';
import type { ProposedEdit } from '../edits/proposedEdit.js';
import { OVERALL_ID, type Answer, type FormItem, type ReviewForm } from '../form/form.js';

/** A note as far as it is looked at before a review is submitted. */
export interface FactNote {
  readonly kind: 'keep' | 'change' | 'ask' | 'fix';
  readonly body: string;
  readonly edit: ProposedEdit | null;
  readonly itemId: string | null;
  readonly place: Place;
}

/** A part of the draft. What it does not have is null. */
export interface FactPart {
  readonly id: string;
  /** UTF-16 code units of its text. */
  readonly textLength: number | null;
  readonly pages: number | null;
  readonly seconds: number | null;
}

/** What a reviewer may want to know before submitting. No grade, and nothing that keeps from it. */
export interface SubmitFacts {
  /** Notes that say something. */
  readonly notes: number;
  /** Those that say what to do next. */
  readonly telling: number;
  /** Items that take words and have none, and under which no note is filed. */
  readonly silentItems: readonly string[];
  /** Parts without a note, where others have one or there are several. */
  readonly silentParts: readonly string[];
  /** Parts whose second half has no note, while their first half has. */
  readonly halfSilentParts: readonly string[];
}

/** Fewer words than this name something and do not say what to do with it: “Unclear.”, “Source?”. Ours; there is no standard. */
export const TELLING_WORDS = 5;

/**
 * Three facts about a review: how many notes say what to do (a Change or Fix with a proposed edit or at least
 * {@link TELLING_WORDS} words: told by its kind and length, in every language), which items and parts have no word, and which
 * parts fall silent half-way.
 */
export function submitFacts(
  form: ReviewForm,
  answers: Readonly<Record<string, Answer | undefined>>,
  notes: readonly FactNote[],
  parts: readonly FactPart[],
): SubmitFacts {
  const said = notes.filter(({ body, edit }) => body.trim() !== '' || edit !== null);
  const filed = new Set(said.map(({ itemId }) => itemId));
  const on = (id: string) => said.filter(({ place }) => place.partId === id);
  const noted = said.filter(({ place }) => place.partId !== null);
  return {
    notes: said.length,
    telling: said.filter(saysWhatToDo).length,
    silentItems: [
      ...form.items.filter((item) => takesWords(item) && !filed.has(item.id) && !hasWords(answers[item.id])),
      ...(form.overall !== 'none' && !hasWords(answers[OVERALL_ID]) ? [{ id: OVERALL_ID }] : []),
    ].map(({ id }) => id),
    silentParts:
      parts.length > 1 && noted.length > 0 ? parts.filter(({ id }) => on(id).length === 0).map(({ id }) => id) : [],
    halfSilentParts: parts.filter((part) => onlyFirstHalf(on(part.id), part)).map(({ id }) => id),
  };
}

/** Whether a note says what to do next. */
export function saysWhatToDo({ kind, body, edit }: Pick<FactNote, 'kind' | 'body' | 'edit'>): boolean {
  return edit !== null || ((kind === 'change' || kind === 'fix') && countWords(body) >= TELLING_WORDS);
}

function takesWords(item: FormItem): boolean {
  return item.kind === 'prompt' || item.kind === 'pair' || ('comment' in item && item.comment !== 'none');
}

function hasWords(answer: Answer | undefined): boolean {
  return (answer?.text ?? '').trim() !== '' || (answer?.next ?? '').trim() !== '';
}

/** A page of text; in less, half of it is a few lines. UTF-16 code units. */
const WORTH_HALVING = 1_500;

function onlyFirstHalf(notes: readonly FactNote[], part: FactPart): boolean {
  const ways = notes.flatMap(({ place }) => wayThrough(place, part) ?? []);
  return ways.length > 0 && ways.every((way) => way < 0.5);
}

/** How far through its part a place is, 0 to 1; null where halves mean nothing. */
function wayThrough({ selector }: Place, { textLength, pages, seconds }: FactPart): number | null {
  switch (selector.type) {
    case 'text':
      return textLength !== null && textLength >= WORTH_HALVING ? selector.position.start / textLength : null;
    case 'page':
    case 'passage':
      return pages !== null && pages > 1 ? (selector.page - 1) / (pages - 1) : null;
    case 'region':
      return selector.page !== null && pages !== null && pages > 1 ? (selector.page - 1) / (pages - 1) : null;
    case 'moment':
      return seconds !== null && seconds > 0 ? (selector.end ?? selector.start) / seconds : null;
    case 'whole':
      return null;
  }
}
