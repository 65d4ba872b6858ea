import { noteLines, KIND_NAMES, type AnnotatedDraft, type AnnotatedNote, type AnnotatedReply } from '@salt-circle/core';
import {
  CommentRangeEnd,
  CommentRangeStart,
  CommentReference,
  DeletedTextRun,
  Document,
  HeadingLevel,
  InsertedTextRun,
  LevelFormat,
  Packer,
  PageBreak,
  Paragraph,
  TextRun,
  type ICommentOptions,
  type IRunOptions,
  type ParagraphChild,
} from 'docx';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { paragraphsOf, type Marks, type Piece, type Styled } from './paragraphs.js';
import { placedNotes, type PlacedNote } from './passages.js';
import type { DocumentTask } from './task.js';
import { say } from '../../../words/annotated-files.js';

/** A comment, and the one that it answers. */
interface Comment {
  readonly id: number;
  readonly by: string;
  readonly lines: readonly string[];
  readonly parent: number | null;
}

const HEADINGS = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
  HeadingLevel.HEADING_6,
] as const;

/** Times would tell how somebody works; where the format wants one, it is this. */
const NO_TIME = '2000-01-01T00:00:00Z';

/**
 * The texts of a draft with comments in their threads and proposed edits as tracked changes, all at their words, as ECMA-376 has them
 * (Part 1, 17.13); what stands on no words follows, and then the forms.
 */
export async function docx({ draft, texts }: DocumentTask): Promise<Uint8Array> {
  const comments: Comment[] = [];
  const shown = new Set<string>();
  const change = changes();
  const body = texts.flatMap(({ id, name, html }) => {
    const placed = placedNotes(
      html,
      notesOf(draft).filter(({ partId }) => partId === id),
    );
    for (const { note } of placed) shown.add(note.id);
    const marks = marksOf(placed, comments);
    return [
      ...(texts.length > 1 ? [new Paragraph({ text: legal(name), heading: HeadingLevel.HEADING_1 })] : []),
      ...paragraphsOf(html, marks).map((one) => asParagraph(one, change)),
    ];
  });
  const rest = notesOf(draft).filter(({ id }) => !shown.has(id));
  const made = new Document({
    creator: say('saltCircle'),
    title: legal(draft.title),
    description: legal(`${draft.course}: ${draft.exchange}`),
    comments: { children: comments.map(asComment) },
    numbering: { config: [{ reference: 'numbers', levels: numberLevels() }] },
    sections: [
      {
        children: [
          new Paragraph({ text: legal(draft.title), heading: HeadingLevel.TITLE }),
          ...body,
          ...pagesOf(draft, rest),
        ],
      },
    ],
  });
  return finished(new Uint8Array(await Packer.toBuffer(made)), comments);
}

function notesOf({ reviews }: AnnotatedDraft): AnnotatedNote[] {
  return reviews.flatMap(({ notes }) => notes);
}

/** What XML 1.0 (2.2) has no letter for, or discourages: control characters, halves of letters, and what is no letter at all. */
const ILLEGAL = /[^\P{Cc}\t\n\r]|\p{Cs}|[\uFFFE\uFFFF]/gu;

function legal(text: string): string {
  return text.replace(ILLEGAL, '');
}

/** What stands where, for the walk over the text; comments are numbered as they come. */
function marksOf(placed: readonly PlacedNote[], comments: Comment[]): Marks {
  const add = (by: string, lines: readonly string[], parent: number | null) => {
    const id = comments.length;
    comments.push({ id, by, lines, parent });
    return id;
  };
  return {
    ranges: placed.flatMap(({ note, start, end, splices }) => {
      // What is shown in the text need not be told as well.
      const lines = splices.length > 0 ? noteLines({ ...note, edit: null }) : noteLines(note);
      const id = add(note.by, lines, null);
      const thread = [id, ...note.replies.map(({ by, words }: AnnotatedReply) => add(by, [words], id))];
      return thread.map((comment) => ({ comment, start, end }));
    }),
    changes: placed.flatMap(({ note, splices }) => splices.map((splice) => ({ ...splice, by: note.by }))),
  };
}

function asParagraph({ pieces, heading, list, quote }: Styled, change: Change): Paragraph {
  return new Paragraph({
    children: pieces.flatMap((piece) => asRuns(piece, change)),
    ...(heading !== null && { heading: HEADINGS[heading - 1] ?? HeadingLevel.HEADING_6 }),
    ...(list?.ordered === false && { bullet: { level: list.level } }),
    ...(list?.ordered === true && { numbering: { reference: 'numbers', level: list.level, instance: list.instance } }),
    ...(quote && { indent: { left: 720 } }),
    spacing: { after: 160 },
  });
}

function asRuns(piece: Piece, change: Change): ParagraphChild[] {
  switch (piece.type) {
    case 'begin':
      return [new CommentRangeStart(piece.comment)];
    case 'end':
      return [new CommentRangeEnd(piece.comment), new TextRun({ children: [new CommentReference(piece.comment)] })];
    case 'insert':
      return [new InsertedTextRun({ text: legal(piece.text), ...change(piece.by) })];
    case 'break':
      return [new TextRun({ break: 1 })];
    case 'text':
      return piece.deletedBy === null
        ? [new TextRun({ text: legal(piece.text), ...styleOf(piece.style) })]
        : [new DeletedTextRun({ text: legal(piece.text), ...styleOf(piece.style), ...change(piece.deletedBy) })];
  }
}

type Change = (author: string) => { readonly id: number; readonly author: string; readonly date: string };

/** Each has a number of its own, apart from those of comments. */
function changes(): Change {
  let id = 100_000;
  return (author) => {
    id += 1;
    return { id, author: legal(author), date: NO_TIME };
  };
}

function styleOf(style: ReadonlySet<string>): IRunOptions {
  return {
    ...(style.has('bold') && { bold: true }),
    ...(style.has('italics') && { italics: true }),
    ...(style.has('underline') && { underline: {} }),
    ...(style.has('strike') && { strike: true }),
    ...(style.has('sub') && { subScript: true }),
    ...(style.has('sup') && { superScript: true }),
    ...(style.has('code') && { font: 'Courier New' }),
  };
}

function asComment({ id, by, lines }: Comment): ICommentOptions {
  return {
    ...{ id, author: legal(by), initials: legal(by).slice(0, 2), date: new Date(NO_TIME) },
    children: lines
      .flatMap((line) => line.split('\n'))
      .map((line) => new Paragraph({ children: [new TextRun(legal(line))] })),
  };
}

function numberLevels() {
  return Array.from({ length: 9 }, (_, level) => ({
    level,
    format: LevelFormat.DECIMAL,
    text: `%${level + 1}.`,
    style: { paragraph: { indent: { left: 720 * (level + 1), hanging: 360 } } },
  }));
}

/** On pages of their own: notes on no words, the forms, and what was answered to them. */
function pagesOf(draft: AnnotatedDraft, rest: readonly AnnotatedNote[]): Paragraph[] {
  const line = (words: string, bold = false) =>
    words
      .split('\n')
      .map((one) => new Paragraph({ children: [new TextRun({ text: legal(one), bold })], spacing: { after: 80 } }));
  const answered = (replies: readonly AnnotatedReply[]) =>
    replies.flatMap(({ by, words }) => line(say('answers', { by, words })));
  const name = (partId: string | null) =>
    partId === null ? say('wholeDraft') : (draft.parts.find(({ id }) => id === partId)?.name ?? say('anotherPart'));
  return [
    ...(rest.length > 0
      ? [
          new Paragraph({ children: [new PageBreak()] }),
          new Paragraph({ text: say('notesOnOtherPlaces'), heading: HeadingLevel.HEADING_1 }),
          ...rest.flatMap((note) => [
            ...line(`${note.by}, ${placeLine(name(note.partId), note)}`, true),
            ...noteLines(note).flatMap((one) => line(one)),
            ...answered(note.replies),
          ]),
        ]
      : []),
    ...draft.reviews.flatMap(({ by, score, answers, replies }, index) => [
      ...(index === 0 ? [new Paragraph({ children: [new PageBreak()] })] : []),
      new Paragraph({ text: legal(score === '' ? by : `${by}: ${score}`), heading: HeadingLevel.HEADING_1 }),
      ...answers.flatMap(({ title, lines, replies: own }) => [
        new Paragraph({ text: legal(title), heading: HeadingLevel.HEADING_2 }),
        ...(lines.length === 0 ? line(say('notAnswered')) : lines.flatMap((one) => line(one))),
        ...answered(own),
      ]),
      ...answered(replies),
    ]),
  ];
}

function placeLine(part: string, { selector, kind }: AnnotatedNote): string {
  switch (selector.type) {
    case 'page':
    case 'passage':
      return say('page', { part, page: selector.page });
    case 'region':
      return selector.page === null ? say('region', { part }) : say('regionOnPage', { part, page: selector.page });
    case 'moment': {
      const clock = (at: number) => `${Math.floor(at / 60)}:${String(Math.floor(at % 60)).padStart(2, '0')}`;
      const from = clock(selector.start);
      return selector.end === null ? say('at', { part, from }) : say('to', { part, from, until: clock(selector.end) });
    }
    case 'whole':
      return part;
    case 'text':
      return say('onWordsThatAreNot', { part, exact: selector.quote.exact, kindNames: KIND_NAMES[kind] });
  }
}

const W14 = 'http://schemas.microsoft.com/office/word/2010/wordml';
const W15 = 'http://schemas.microsoft.com/office/word/2012/wordml';

/** Of every file in it: when it was made says nothing, and the same notes make the same file. */
const MADE = new Date(2000, 0, 1);

/**
 * Without times, and with answers tied to what they answer: the package that makes the document writes comments one by one; threads
 * are a part beside them (ISO/IEC 29500 leaves them out; [MS-DOCX] 2.5.1, commentsExtended).
 */
function finished(bytes: Uint8Array, comments: readonly Comment[]): Uint8Array {
  // Folders are no parts of such a package (ECMA-376, Part 2, 10.1.3).
  const files = unzipSync(bytes, { filter: ({ name }) => !name.endsWith('/') });
  const change = (name: string, make: (xml: string) => string) => {
    const file = files[name];
    if (file !== undefined) files[name] = strToU8(make(strFromU8(file)));
  };
  change('docProps/core.xml', (xml) => xml.replace(/(<dcterms:(?:created|modified)[^<>]*>)[^<]*/g, `$1${NO_TIME}`));
  if (comments.some(({ parent }) => parent !== null)) {
    change('word/comments.xml', withParagraphIds);
    files['word/commentsExtended.xml'] = strToU8(threads(comments));
    change('[Content_Types].xml', (xml) =>
      xml.replace(
        '</Types>',
        `<Override PartName="/word/commentsExtended.xml" ContentType="${WORD}.commentsExtended+xml"/></Types>`,
      ),
    );
    change('word/_rels/document.xml.rels', (xml) =>
      xml.replace(
        '</Relationships>',
        `<Relationship Id="rIdThreads" Type="${EXTENDED}" Target="commentsExtended.xml"/></Relationships>`,
      ),
    );
  }
  return zipSync(files, { mtime: MADE });
}

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml';
const EXTENDED = 'http://schemas.microsoft.com/office/2011/relationships/commentsExtended';

const paragraphId = (id: number) => (0x1000_0000 + id).toString(16).toUpperCase();

/** The last paragraph of a comment stands for it. */
function withParagraphIds(xml: string): string {
  // regex: over XML that our own writer has made, in which each comment is closed
  const named = xml.replace(/<w:comment [^>]*w:id="(\d+)"[\s\S]*?<\/w:comment>/g, (whole, id: string) => {
    const at = Math.max(whole.lastIndexOf('<w:p>'), whole.lastIndexOf('<w:p '));
    return `${whole.slice(0, at)}<w:p w14:paraId="${paragraphId(Number(id))}"${whole.slice(at + 4)}`;
  });
  return named.includes('xmlns:w14=') ? named : named.replace('<w:comments', `<w:comments xmlns:w14="${W14}"`);
}

function threads(comments: readonly Comment[]): string {
  const lines = comments.map(({ id, parent }) => {
    const to = parent === null ? '' : ` w15:paraIdParent="${paragraphId(parent)}"`;
    return `<w15:commentEx w15:paraId="${paragraphId(id)}"${to} w15:done="0"/>`;
  });
  return `<?xml version="1.0" encoding="UTF-8" standalone="yes"?><w15:commentsEx xmlns:w15="${W15}">${lines.join('')}</w15:commentsEx>`;
}
