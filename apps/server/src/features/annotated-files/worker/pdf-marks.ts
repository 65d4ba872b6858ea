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
import type { PDFPageProxy } from 'pdfjs-dist';
import { Refused } from '../../../platform/bytes/refused.js';
import { annotatedPages, saidIn, type AnnotatedPage, type Annotation } from './page-annotations.js';
import { caretAt, wordsUnder, type Box } from './page-words.js';
import { opened, Texts, type Run } from './runs.js';
import { copyOf, type OpenCopy, type PageCopy } from './which-copy.js';
import { say } from '../../../words/annotated-files.js';

export interface PageMarks {
  readonly marks: readonly PlacedMark[];
  readonly unplaced: readonly Unplaced[];
  /** Some page reads otherwise than in the reading copy. */
  readonly otherText: boolean;
}

const ON_WORDS: ReadonlySet<string> = new Set(['Highlight', 'Underline', 'Squiggly', 'StrikeOut']);
const ON_REGIONS: ReadonlySet<string> = new Set(['Square', 'Circle', 'Polygon', 'PolyLine', 'Line', 'Ink', 'FreeText']);

/** Characters of a word before a mark that are looked at. */
const LONGEST_WORD = 300;
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
      ? new Refused(say('thisPdfIsLockedWith'), say('saveItWithoutOneAnd'))
      : new Refused(say('thisIsNotPdfThat'), say('saveItInYourPdf'));
  });
  try {
    const pages = await annotatedPages(file);
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
      .map((annotation): Mark => ({ annotation, words: saidIn(annotation, annotations) }));
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
    const line = at === null ? '' : text.slice(Math.max(text.lastIndexOf('\n', at - 1) + 1, at - LONGEST_WORD), at);
    // regex: over so many characters at the most
    const before = at === null ? null : /\S+\s*$/.exec(line);
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
