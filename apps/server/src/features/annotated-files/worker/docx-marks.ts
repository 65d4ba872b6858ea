import { TextCollector, type AnnotatedText, type TextMark } from '@salt-circle/core';
import { readZip } from '../../../platform/bytes/read-zip.js';
import { Refused } from '../../../platform/bytes/refused.js';
import { scanXml } from '../../../platform/bytes/xml.js';
import { commentThreads } from './comment-threads.js';
import { say } from '../../../words/annotated-files.js';

const broken = () => [say('thisIsNotDocumentThat'), say('saveItInYourWord')] as const;
const tooMuch = () => [say('thisDocumentUnpacksToFar'), say('saveItAgainWithoutPictures')] as const;
/** Bytes, unpacked: the text of a thousand pages is half of it. */
const MOST = 40_000_000;
const WANTED = /^(?:\[Content_Types\]\.xml|word\/(?:document|comments|commentsExtended)\.xml)$/;
/** Comments and tracked changes of one file: more than anybody reads. */
const MOST_MARKS = 5_000;

/**
 * What was commented on and changed in a document (ECMA-376 Part 1, 17.13): its text as it was before tracked changes, and the marks.
 *
 * @throws Refused for what is no such document, holds macros, or is damaged
 */
export async function docxMarks(bytes: Uint8Array): Promise<AnnotatedText> {
  let macros = false;
  const members = await readZip(Buffer.from(bytes), {
    wanted: (name) => {
      macros ||= /vbaProject\.bin$/i.test(name);
      return WANTED.test(name);
    },
    ...{ most: 300_000_000, mostOf: (name) => (/\.(xml|rels)$/.test(name) ? MOST : 300_000_000) },
    ...{ members: 5_000, broken: broken(), tooMuch: tooMuch() },
  });
  const types = members.get('[Content_Types].xml')?.toString('latin1') ?? '';
  if (macros || types.includes('macroEnabled')) {
    throw new Refused(say('thisDocumentHoldsMacrosSo'), say('saveItAsDocumentWithout'));
  }
  const document = members.get('word/document.xml');
  if (document === undefined) throw new Refused(...broken());
  for (const [name, member] of members)
    if (name.endsWith('.xml') && /<!(DOCTYPE|ENTITY)/i.test(member.toString('latin1'))) throw new Refused(...broken());
  const walk = new Walk();
  scanXml(document, { onopentag: walk.open, onclosetag: walk.close, ontext: walk.words });
  const threads = commentThreads(members.get('word/comments.xml'), members.get('word/commentsExtended.xml'));
  const comments = threads.flatMap(({ id, words }): TextMark[] => {
    const range = walk.rangeOf(id);
    return range === null || words.every((line) => line.trim() === '') ? [] : [{ ...range, words, edit: null }];
  });
  const marks = [...comments, ...walk.changes()];
  if (marks.length > MOST_MARKS) {
    throw new Refused(say('thisDocumentHoldsCommentsAnd', { marks: marks.length }), say('takeOverSmallChangesIn'));
  }
  return { text: walk.text, marks: marks.sort((a, b) => a.start - b.start || a.end - b.end) };
}

/** A place in the text that is being collected: its end so far, and how many runs came before. */
interface Here {
  readonly length: number;
  readonly runs: number;
}

/** A tracked change of letters, or of the end of a paragraph, in the order in which they come. */
type Change =
  | { readonly type: 'out'; readonly start: number; readonly end: number }
  | { readonly type: 'in'; readonly at: Here; readonly begun: boolean; readonly text: string }
  /** The end of the paragraph before this place goes. */
  | { readonly type: 'join'; readonly at: number };

/** Reads a body from its beginning to its end. */
class Walk {
  readonly #collector = new TextCollector();
  /** Where each run begins, without what a block drops at its start. */
  readonly #starts: number[] = [];
  readonly #from = new Map<string, Here>();
  readonly #to = new Map<string, number>();
  readonly #changes: Change[] = [];
  readonly #open: string[] = [];
  #inserted = 0;
  #deleted = 0;
  /** Inside of what is there for older readers a second time. */
  #skipped = 0;
  #letters = '';
  #markInserted = false;
  #markDeleted = false;
  /** The line has letters of the text as it was. */
  #begun = false;
  /** The end of the paragraph before was put in: the text as it was goes on. */
  #goesOn = false;

  get text(): string {
    return this.#collector.toString();
  }

  readonly open = (name: string, attributes: Record<string, string>): void => {
    this.#open.push(name);
    if (name === 'mc:Fallback') this.#skipped += 1;
    if (this.#skipped > 0) return;
    const id = attributes['w:id'] ?? '';
    switch (name) {
      case 'w:p':
        if (!this.#goesOn) {
          this.#collector.boundary('p');
          this.#begun = false;
        }
        [this.#markInserted, this.#markDeleted] = [false, false];
        break;
      case 'w:ins':
      case 'w:moveTo':
        if (this.#ofParagraphMark()) this.#markInserted = true;
        else this.#inserted += 1;
        break;
      case 'w:del':
      case 'w:moveFrom':
        if (this.#ofParagraphMark()) this.#markDeleted = true;
        else this.#deleted += 1;
        break;
      case 'w:t':
      case 'w:delText':
        this.#letters = '';
        break;
      case 'w:tab':
        if (this.#open.at(-2) === 'w:r') this.#run('\t');
        break;
      case 'w:noBreakHyphen':
        this.#run('\u2011');
        break;
      case 'w:br':
      case 'w:cr':
        if (this.#inserted > 0) this.#run('\n');
        else {
          this.#collector.boundary('br');
          this.#begun = false;
        }
        break;
      case 'w:commentRangeStart':
        this.#from.set(id, this.#here());
        break;
      case 'w:commentRangeEnd':
        this.#to.set(id, this.#collector.length);
        break;
      case 'w:commentReference':
        if (!this.#from.has(id)) this.#from.set(id, this.#here());
        if (!this.#to.has(id)) this.#to.set(id, this.#collector.length);
        break;
      default:
    }
  };

  readonly words = (some: string): void => {
    const at = this.#open.at(-1);
    if (at === 'w:t' || at === 'w:delText') this.#letters += some;
  };

  readonly close = (name: string): void => {
    this.#open.pop();
    if (name === 'mc:Fallback') this.#skipped -= 1;
    if (this.#skipped > 0) return;
    switch (name) {
      case 'w:t':
      case 'w:delText':
        this.#run(this.#letters);
        break;
      case 'w:ins':
      case 'w:moveTo':
        if (!this.#ofParagraphMark()) this.#inserted -= 1;
        break;
      case 'w:del':
      case 'w:moveFrom':
        if (!this.#ofParagraphMark()) this.#deleted -= 1;
        break;
      case 'w:p':
        this.#paragraphEnds();
        break;
      default:
    }
  };

  /** Where a comment stands, `start <= end`. */
  rangeOf(id: string): { readonly start: number; readonly end: number } | null {
    const [from, to] = [this.#from.get(id), this.#to.get(id)];
    if (from === undefined) return null;
    const start = this.#next(from);
    const end = to ?? from.length;
    // On nothing but a place, or on what was put in.
    return start < end ? { start, end } : { start: from.length, end: from.length };
  }

  /** Tracked changes, those that touch each other as one. */
  changes(): TextMark[] {
    const groups: Group[] = [];
    for (const change of this.#changes) {
      const last = groups.at(-1);
      const at = this.#span(change);
      if (last !== undefined && (at.start === last.end || (at.start === last.end + 1 && last.joins))) {
        last.end = Math.max(last.end, at.end);
        last.joins = change.type === 'join';
        last.changes.push(change);
      } else groups.push({ ...at, joins: change.type === 'join', changes: [change] });
    }
    return groups.map(asMark);
  }

  /** A paragraph mark’s own properties say whether it was put in or taken out (17.13.5.15 and 17.13.5.19). */
  #ofParagraphMark(): boolean {
    const inside = this.#open.at(-1) === 'w:rPr' ? this.#open : this.#open.slice(0, -1);
    return inside.at(-1) === 'w:rPr' && inside.at(-2) === 'w:pPr';
  }

  #here(): Here {
    return { length: this.#collector.length, runs: this.#starts.length };
  }

  /** Where the run after a place begins. */
  #next({ length, runs }: Here): number {
    return this.#starts[runs] ?? length;
  }

  #run(letters: string): void {
    if (letters === '' || this.#skipped > 0) return;
    if (this.#inserted > 0) {
      // Put in and taken out again: nobody’s wish.
      if (this.#deleted === 0) {
        this.#changes.push({ type: 'in', at: this.#here(), begun: this.#begun, text: letters });
      }
      return;
    }
    const placed = this.#collector.text(letters);
    if (placed === null) return;
    this.#begun = true;
    this.#starts.push(placed.start);
    if (this.#deleted > 0) this.#changes.push({ type: 'out', start: placed.start, end: this.#collector.length });
  }

  #paragraphEnds(): void {
    this.#goesOn = this.#markInserted;
    if (this.#markInserted) {
      this.#changes.push({ type: 'in', at: this.#here(), begun: this.#begun, text: '\n' });
      return;
    }
    if (this.#markDeleted && this.#begun) this.#changes.push({ type: 'join', at: this.#collector.length });
    this.#collector.boundary('p');
  }

  #span(change: Change): { readonly start: number; readonly end: number } {
    if (change.type === 'out') return change;
    if (change.type === 'join') return { start: change.at, end: change.at };
    // At the beginning of a line, before its first letters; else after those before.
    const at = change.begun ? change.at.length : this.#next(change.at);
    return { start: at, end: at };
  }
}

interface Group {
  start: number;
  end: number;
  joins: boolean;
  readonly changes: Change[];
}

function asMark({ start, end, changes }: Group): TextMark {
  const text = changes.map((change) => (change.type === 'in' ? change.text : '')).join('');
  const goes = changes.some(({ type }) => type === 'out');
  const edit: TextMark['edit'] = goes
    ? text === ''
      ? { type: 'delete', start, end }
      : { type: 'replace', start, end, text }
    : text === '\n'
      ? { type: 'split', at: start }
      : text === ''
        ? { type: 'join', at: start }
        : { type: 'insert', at: start, text };
  return { start, end, words: [], edit };
}
