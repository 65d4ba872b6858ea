import { TextCollector } from '@salt-circle/core';
import { Parser } from 'htmlparser2';
import { say } from '../../../words/annotated-files.js';

/** What is to be shown at places of a text, in UTF-16 code units of its plain text. */
export interface Marks {
  readonly ranges: ReadonlyArray<{ readonly comment: number; readonly start: number; readonly end: number }>;
  /** Apart from each other. */
  readonly changes: ReadonlyArray<{
    readonly start: number;
    readonly end: number;
    readonly text: string;
    readonly by: string;
  }>;
}

export type Piece =
  | { readonly type: 'begin' | 'end'; readonly comment: number }
  | { readonly type: 'insert'; readonly text: string; readonly by: string }
  | { readonly type: 'break' }
  | {
      readonly type: 'text';
      readonly text: string;
      readonly style: ReadonlySet<string>;
      readonly deletedBy: string | null;
    };

/** A paragraph with its pieces in order. */
export interface Styled {
  readonly pieces: readonly Piece[];
  /** 1 to 6. */
  readonly heading: number | null;
  readonly list: { readonly ordered: boolean; readonly level: number; readonly instance: number } | null;
  readonly quote: boolean;
}

const STYLES: Readonly<Record<string, string>> = {
  ...{ b: 'bold', strong: 'bold', th: 'bold', dt: 'bold', i: 'italics', em: 'italics', cite: 'italics' },
  ...{
    u: 'underline',
    ins: 'underline',
    s: 'strike',
    del: 'strike',
    sub: 'sub',
    sup: 'sup',
    code: 'code',
    pre: 'code',
  },
};

const PARAGRAPHS: ReadonlySet<string> = new Set(
  'address article blockquote caption dd div dl dt figcaption figure h1 h2 h3 h4 h5 h6 hr li ol p pre section table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

/** Cleaned HTML as paragraphs, cut where something begins or ends. Positions are those of `htmlToText`. */
export function paragraphsOf(html: string, marks: Marks): Styled[] {
  const collector = new TextCollector();
  const due = new Due(marks);
  const done: Styled[] = [];
  let pieces: Piece[] = [];
  const open: string[] = [];
  const lists: Array<{ readonly ordered: boolean; readonly instance: number }> = [];
  let instances = 0;
  const close = () => {
    if (pieces.some(({ type }) => type !== 'begin' && type !== 'end')) {
      const heading = open.findLast((tag) => /^h[1-6]$/.test(tag));
      const list = lists.at(-1);
      done.push({
        pieces,
        heading: heading === undefined ? null : Number(heading[1]),
        list: list === undefined ? null : { ...list, level: Math.min(8, lists.length - 1) },
        quote: open.includes('blockquote'),
      });
      pieces = [];
    }
  };
  const parser = new Parser({
    onopentag: (name, { alt }) => {
      collector.boundary(name);
      if (PARAGRAPHS.has(name)) close();
      if (name === 'br') pieces.push({ type: 'break' });
      if (name === 'ul' || name === 'ol') {
        instances += 1;
        lists.push({ ordered: name === 'ol', instance: instances });
      }
      if (name === 'img') pieces.push(picture(alt ?? ''));
      open.push(name);
    },
    ontext: (text) => {
      const placed = collector.text(text);
      if (placed === null) return;
      const style = new Set(open.flatMap((tag) => STYLES[tag] ?? []));
      const made = due.over(text.slice(placed.skip), placed.start, style);
      pieces.push(...(open.includes('pre') ? made.flatMap(inLines) : made));
    },
    onclosetag: (name) => {
      collector.boundary(name);
      if (PARAGRAPHS.has(name)) close();
      open.splice(open.lastIndexOf(name), 1);
      if (name === 'ul' || name === 'ol') lists.pop();
    },
  });
  parser.write(html);
  parser.end();
  const last = due.rest();
  pieces.push(...last);
  close();
  // What ends where no text is left ends with the last paragraph.
  const end = done.at(-1);
  if (pieces.length > 0 && end !== undefined) done[done.length - 1] = { ...end, pieces: [...end.pieces, ...pieces] };
  return done;
}

/** Where lines are kept as they are, each is one; elsewhere the end of a line is a space. */
function inLines(piece: Piece): Piece[] {
  if (piece.type !== 'text') return [piece];
  return piece.text
    .split('\n')
    .flatMap((text, line): Piece[] => [
      ...(line > 0 ? [{ type: 'break' } as const] : []),
      ...(text === '' ? [] : [{ ...piece, text }]),
    ]);
}

function picture(alt: string): Piece {
  return {
    type: 'text',
    text: alt === '' ? '[picture]' : say('picture', { alt }),
    style: new Set(['italics']),
    deletedBy: null,
  };
}

/** What is still to come, in order. */
class Due {
  readonly #begins: Marks['ranges'];
  readonly #ends: Marks['ranges'];
  readonly #changes: Marks['changes'];
  readonly #open = new Set<number>();
  #begun = 0;
  #ended = 0;
  /** Of the changes, how many have put in what they put in. */
  #put = 0;

  constructor({ ranges, changes }: Marks) {
    this.#begins = ranges.toSorted((a, b) => a.start - b.start);
    this.#ends = ranges.toSorted((a, b) => a.end - b.end);
    this.#changes = changes.toSorted((a, b) => a.start - b.start || a.end - b.end);
  }

  /** A run of text from `start` on, cut up. */
  over(text: string, start: number, style: ReadonlySet<string>): Piece[] {
    const end = start + text.length;
    const cuts = new Set([start, end]);
    const cut = (at: number) => at > start && at < end && cuts.add(at);
    for (const range of this.#begins) {
      cut(range.start);
      cut(range.end);
    }
    for (const change of this.#changes) {
      cut(change.start);
      cut(change.end);
    }
    const places = [...cuts].sort((a, b) => a - b);
    return places.slice(0, -1).flatMap((from, index): Piece[] => {
      const to = places[index + 1] as number;
      const gone = this.#changes.find((change) => change.start <= from && to <= change.end);
      return [
        ...this.#until(from),
        { type: 'text', text: text.slice(from - start, to - start), style, deletedBy: gone?.by ?? null },
        ...this.#endsBy(to),
      ];
    });
  }

  rest(): Piece[] {
    return [...this.#until(Infinity), ...this.#endsBy(Infinity)];
  }

  /** What is put in at or before a place, what has ended before it, and what begins there. */
  #until(at: number): Piece[] {
    const pieces = this.#endsBy(at);
    for (
      let range = this.#begins[this.#begun];
      range !== undefined && range.start <= at;
      range = this.#begins[this.#begun]
    ) {
      pieces.push({ type: 'begin', comment: range.comment });
      this.#open.add(range.comment);
      this.#begun += 1;
    }
    // What is between two paragraphs alone has ended where it begins.
    return [...pieces, ...this.#over(at)];
  }

  /** What ends with a place; what is put in there comes first, so that it is inside of the comment on it. */
  #endsBy(at: number): Piece[] {
    return [...this.#inserted(at), ...this.#over(at)];
  }

  #inserted(at: number): Piece[] {
    const pieces: Piece[] = [];
    for (
      let change = this.#changes[this.#put];
      change !== undefined && change.end <= at;
      change = this.#changes[this.#put]
    ) {
      if (change.text !== '') pieces.push({ type: 'insert', text: change.text, by: change.by });
      this.#put += 1;
    }
    return pieces;
  }

  #over(at: number): Piece[] {
    const pieces: Piece[] = [];
    for (let range = this.#ends[this.#ended]; range !== undefined && range.end <= at; range = this.#ends[this.#ended]) {
      // It never ends before it has begun.
      if (!this.#open.has(range.comment)) break;
      pieces.push({ type: 'end', comment: range.comment });
      this.#ended += 1;
    }
    return pieces;
  }
}
