import {
  describeTextAnchor,
  KIND_NAMES,
  matchTextAnchor,
  pageText,
  placedEdit,
  type KnownNote,
  type PlacedMark,
  type ProposedEdit,
  type Selector,
  type TextRange,
  type Unplaced,
} from '@salt-circle/core';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { Refused } from '../../../platform/bytes/refused.js';
import { caretAt, wordsUnder, type Box, type Drawn } from './page-words.js';
import { opened, Texts, type Run } from './runs.js';

/** The reading copy of a part of the draft that is a PDF. */
export interface PageCopy {
  readonly id: string;
  readonly bytes: Uint8Array;
}

export interface PageMarks {
  readonly marks: readonly PlacedMark[];
  readonly unplaced: readonly Unplaced[];
  /** Some page reads otherwise than in the reading copy. */
  readonly otherText: boolean;
}

/** What PDF.js tells of an annotation, as far as it is asked for here. */
interface Annotation extends Drawn {
  readonly id: string;
  readonly subtype: string;
  readonly contentsObj?: { readonly str: string };
  readonly richText?: { readonly str: string } | null;
  readonly inReplyTo?: string;
  readonly replyType?: 'R' | 'Group';
}

/** More than anybody reads. */
const MOST_MARKS = 5_000;
/** So many pages are compared to tell of which part a file is. */
const COMPARED = 12;
const ON_WORDS: ReadonlySet<string> = new Set(['Highlight', 'Underline', 'Squiggly', 'StrikeOut']);
const ON_REGIONS: ReadonlySet<string> = new Set(['Square', 'Circle', 'Polygon', 'PolyLine', 'Line', 'Ink', 'FreeText']);
/** Of the page’s own, or a window of another one. */
const NO_MARKS: ReadonlySet<string> = new Set(['Link', 'Widget', 'Popup']);

/**
 * What was annotated on pages (ISO 32000-2, 12.5.6), found again in the reading copy: words under highlights, what was struck out and put
 * in, regions, and remarks beside.
 *
 * @throws Refused for what is no PDF, is locked, or is of nothing that the draft holds
 */
export async function pdfMarks(
  bytes: Uint8Array,
  copies: readonly PageCopy[],
  already: readonly KnownNote[],
): Promise<PageMarks> {
  const file = await opened(bytes).catch((error: Error): never => {
    throw error.name === 'PasswordException'
      ? new Refused('This PDF is locked with a password.', 'Save it without one, and bring that.')
      : new Refused('This is not a PDF that can be read.', 'Save it in your PDF reader once more, and bring that.');
  });
  try {
    const pages = await annotated(file);
    const texts = new Texts(file);
    const copy = await copyOf(file, texts, pages, copies);
    try {
      return await new Finder(copy, texts, already).all(pages);
    } finally {
      await copy.reading.loadingTask.destroy();
    }
  } finally {
    await file.loadingTask.destroy();
  }
}

interface AnnotatedPage {
  readonly number: number;
  readonly annotations: readonly Annotation[];
}

async function annotated(file: PDFDocumentProxy): Promise<AnnotatedPage[]> {
  const pages: AnnotatedPage[] = [];
  let count = 0;
  for (let number = 1; number <= file.numPages; number += 1) {
    const page = await file.getPage(number);
    const all = (await page.getAnnotations()) as unknown as readonly Annotation[];
    const annotations = all.filter(({ subtype }) => !NO_MARKS.has(subtype));
    if (annotations.length > 0) pages.push({ number, annotations });
    count += annotations.length;
    if (count > MOST_MARKS) {
      throw new Refused(
        `This PDF holds more than ${MOST_MARKS} annotations, more than can be looked through.`,
        'Bring the pages that the author should read in a file of their own.',
      );
    }
  }
  return pages;
}

interface OpenCopy {
  readonly id: string;
  readonly reading: PDFDocumentProxy;
  readonly texts: Texts;
  readonly otherText: boolean;
}

/** The part whose pages read most like those of the file. */
async function copyOf(
  file: PDFDocumentProxy,
  texts: Texts,
  pages: readonly AnnotatedPage[],
  copies: readonly PageCopy[],
): Promise<OpenCopy> {
  const numbers = [...new Set([1, ...pages.map(({ number }) => number)])].slice(0, COMPARED);
  let best: (OpenCopy & { readonly alike: number }) | null = null;
  for (const { id, bytes } of copies) {
    const reading = await opened(bytes);
    const own = new Texts(reading);
    let alike = 0;
    for (const number of numbers) {
      if (number > reading.numPages) continue;
      const [here, there] = [await wordsOn(texts, number), await wordsOn(own, number)];
      // Pages without words, as of a scan, are told by how many there are.
      if (here === there) alike += here === '' ? Number(reading.numPages === file.numPages) : 1;
      else if (here !== '' && there !== '' && similar(here, there)) alike += 0.5;
    }
    if (alike > (best?.alike ?? 0)) {
      await best?.reading.loadingTask.destroy();
      best = { id, reading, texts: own, alike, otherText: alike < numbers.length };
    } else await reading.loadingTask.destroy();
  }
  if (best === null) {
    throw new Refused(
      'These are not pages of this draft.',
      'Bring the file that you took along from here, with what you marked in it.',
    );
  }
  return best;
}

async function wordsOn(texts: Texts, number: number): Promise<string> {
  return pageText([await texts.runs(number)]).text;
}

/** Half of the words of one are on the other. */
function similar(here: string, there: string): boolean {
  const own = new Set(here.split(/\s+/));
  const words = there.split(/\s+/);
  return words.filter((word) => own.has(word)).length >= words.length / 2;
}

interface Mark {
  readonly annotation: Annotation;
  readonly words: string[];
}

class Finder {
  readonly #marks: PlacedMark[] = [];
  readonly #unplaced: Unplaced[] = [];

  constructor(
    private readonly copy: OpenCopy,
    private readonly texts: Texts,
    private readonly already: readonly KnownNote[],
  ) {}

  async all(pages: readonly AnnotatedPage[]): Promise<PageMarks> {
    for (const page of pages) await this.#page(page);
    return { marks: this.#marks, unplaced: this.#unplaced, otherText: this.copy.otherText };
  }

  async #page({ number, annotations }: AnnotatedPage): Promise<void> {
    const ids = new Set(annotations.map(({ id }) => id));
    const isAnswer = ({ inReplyTo, replyType }: Annotation) =>
      inReplyTo !== undefined && ids.has(inReplyTo) && replyType !== 'Group';
    const marks = annotations
      .filter((one) => !isAnswer(one))
      .map((annotation): Mark => ({ annotation, words: [wordsOf(annotation), ...answersTo(annotation, annotations)] }));
    const runs = await this.texts.runs(number);
    const { text } = pageText([runs]);
    const carets = marks.filter(({ annotation }) => annotation.subtype === 'Caret');
    const used = new Set<Mark>();
    for (const mark of marks) {
      const { subtype } = mark.annotation;
      if (subtype === 'Caret') continue;
      if (!ON_WORDS.has(subtype)) {
        await this.#beside(number, mark);
        continue;
      }
      const range = wordsUnder(runs, text, mark.annotation);
      if (range === null) {
        await this.#beside(number, mark);
        continue;
      }
      const caret = subtype === 'StrikeOut' ? caretOf(mark, marks, used, runs, range) : undefined;
      if (caret !== undefined) used.add(caret);
      const edit: ProposedEdit | null =
        subtype !== 'StrikeOut'
          ? null
          : caret === undefined
            ? { type: 'delete' }
            : { type: 'replace', text: caret.words[0] ?? '' };
      await this.#on(number, text, range, mark, edit);
    }
    for (const caret of carets) if (!used.has(caret)) await this.#insertion(number, text, runs, caret);
  }

  async #insertion(number: number, text: string, runs: readonly Run[], mark: Mark): Promise<void> {
    const [put = '', ...answers] = mark.words;
    const at = caretAt(runs, text, mark.annotation);
    const before = at === null ? null : /\S+\s*$/.exec(text.slice(text.lastIndexOf('\n', at - 1) + 1, at));
    if (at === null || before === null || put === '') {
      await this.#beside(number, mark);
      return;
    }
    const range = { start: at - before[0].length, end: at };
    const edit: ProposedEdit = { type: 'insert', side: 'after', text: put };
    await this.#on(number, text, range, { ...mark, words: ['', ...answers] }, edit);
  }

  /** On words of a page, found again in the reading copy, where they may run over the edge of the page. */
  async #on(number: number, text: string, range: TextRange, { words }: Mark, edit: ProposedEdit | null): Promise<void> {
    const passage = text.slice(range.start, range.end);
    if (this.#goesOn(number, passage, words)) return;
    const next = number < this.copy.texts.count ? [await this.copy.texts.runs(number + 1)] : [];
    const there = number <= this.copy.texts.count ? pageText([await this.copy.texts.runs(number), ...next]).text : '';
    const match = matchTextAnchor(there, describeTextAnchor(text, range));
    if (match.found === 'gone') {
      this.#unplaced.push({ why: 'gone', passage: passage.slice(0, 200), words: words.join('\n\n') });
      return;
    }
    if (edit !== null && placedEdit(there, match.range, edit) === null) {
      this.#unplaced.push({ why: 'edit', passage: passage.slice(0, 200), words: words.join('\n\n') });
      return;
    }
    const selector: Selector = { type: 'passage', page: number, ...describeTextAnchor(there, match.range) };
    this.#marks.push({ partId: this.copy.id, selector, edit, words, drawn: true, certainty: match.certainty });
  }

  /** The rest, on its page, of a note that begins on an earlier one: it says nothing but its kind. */
  #goesOn(number: number, passage: string, [words = '']: readonly string[]): boolean {
    if (words !== '' && !Object.values(KIND_NAMES).includes(words)) return false;
    return this.already.some(
      ({ selector }) =>
        selector.type === 'passage' && selector.page < number && selector.quote.exact.includes(passage.slice(0, 40)),
    );
  }

  /** A region, or a remark beside the words. */
  async #beside(number: number, { annotation, words }: Mark): Promise<void> {
    const { subtype, rect } = annotation;
    const isRemark = subtype === 'Text';
    if (number > this.copy.texts.count || (!isRemark && !ON_REGIONS.has(subtype) && !ON_WORDS.has(subtype))) {
      this.#unplaced.push({ why: 'other', passage: subtype, words: words.join('\n\n').trim() });
      return;
    }
    const page = await this.copy.reading.getPage(number);
    const region = regionOf(page, rect);
    const selector: Selector = isRemark
      ? { type: 'region', page: number, x: region.x, y: region.y, width: 0, height: 0 }
      : { type: 'region', page: number, ...region };
    this.#marks.push({ partId: this.copy.id, selector, edit: null, words, drawn: !isRemark, certainty: 'sure' });
  }
}

function wordsOf({ subtype, contentsObj, richText }: Annotation): string {
  const said = contentsObj?.str ?? '';
  const words = (said === '' ? (richText?.str ?? '') : said).replace(/\r\n?/g, '\n');
  // What is put in keeps its blanks.
  return subtype === 'Caret' ? words : words.trim();
}

/** In the order of the file, answers to answers among them. */
function answersTo({ id }: Annotation, all: readonly Annotation[]): string[] {
  return all
    .filter(({ inReplyTo, replyType }) => inReplyTo === id && replyType !== 'Group')
    .flatMap((one) => [wordsOf(one), ...(one.id === id ? [] : answersTo(one, all))]);
}

/** The caret that goes with what is struck out: of those that may, the one that comes next in the file. */
function caretOf(
  mark: Mark,
  marks: readonly Mark[],
  used: ReadonlySet<Mark>,
  runs: readonly Run[],
  range: TextRange,
): Mark | undefined {
  const at = marks.indexOf(mark);
  return [...marks.slice(at), ...marks.slice(0, at)].find(
    (one) => one.annotation.subtype === 'Caret' && !used.has(one) && belongs(one, mark, marks, runs, range),
  );
}

/** Grouped with it, or at its end; one that stands behind another strike-out in the file is that one’s. */
function belongs(
  caret: Mark,
  mark: Mark,
  marks: readonly Mark[],
  runs: readonly Run[],
  { start, end }: TextRange,
): boolean {
  const { inReplyTo } = caret.annotation;
  if (inReplyTo !== undefined) return inReplyTo === mark.annotation.id;
  if (mark.annotation.inReplyTo !== undefined) return mark.annotation.inReplyTo === caret.annotation.id;
  const before = marks[marks.indexOf(caret) - 1];
  if (before !== undefined && before !== mark && before.annotation.subtype === 'StrikeOut') return false;
  const { text } = pageText([runs]);
  const at = caretAt(runs, text, caret.annotation);
  return at !== null && at >= start && at <= end + 1;
}

/** In shares of the page as it is shown, turned pages included. */
function regionOf(page: PDFPageProxy, [x1, y1, x2, y2]: Box) {
  const view = page.getViewport({ scale: 1 });
  const share = (value: number, of: number) => Math.round(Math.min(1, Math.max(0, value / of)) * 10_000) / 10_000;
  const corners = [view.convertToViewportPoint(x1, y1), view.convertToViewportPoint(x2, y2)] as number[][];
  const xs = corners.map(([x = 0]) => share(x, view.width));
  const ys = corners.map(([, y = 0]) => share(y, view.height));
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}
