import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, posix } from 'node:path';
import type { AnnotatedDraft, AnnotatedNote } from '@salt-circle/core';
import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import mammoth from 'mammoth';
import { htmlToText } from '../../../platform/html/html-to-text.js';
import { ANY_HTML, ANY_NOTES, notesOn, spliced } from '../../../testing/marked.js';
import { sample } from '../../../testing/uploads.js';
import { docx } from './docx.js';
import { paragraphsOf } from './paragraphs.js';
import { placedNotes } from './passages.js';
import { pdf } from './pdf.js';

const HTML =
  '<h2>What can be seen</h2><p>Geese have grazed the <em>islands</em> bare since 2009.</p><ul><li>First the grass</li><li>then the sedge</li></ul><table><tbody><tr><td>2009</td><td>bare</td></tr></tbody></table>';
const TEXT = htmlToText(HTML);

/** At these words. */
function at(exact: string, text = TEXT) {
  const start = text.indexOf(exact);
  if (start < 0) throw new Error(`“${exact}” is not in the text`);
  return {
    quote: {
      type: 'TextQuoteSelector' as const,
      exact,
      prefix: text.slice(Math.max(0, start - 20), start),
      suffix: text.slice(start + exact.length, start + exact.length + 20),
    },
    position: { type: 'TextPositionSelector' as const, start, end: start + exact.length },
  };
}

const note = (id: string, exact: string, part: Partial<AnnotatedNote> = {}): AnnotatedNote => ({
  ...{ id, by: 'Skua', kind: 'change', body: `About ${exact}.`, partId: 'p', edit: null, replies: [] },
  selector: { type: 'text', ...at(exact) },
  ...part,
});
const draftWith = (notes: readonly AnnotatedNote[]): AnnotatedDraft => ({
  ...{ draftId: 'd', version: 1, title: 'On the basin', exchange: 'Field report', course: 'Coastal Restoration' },
  parts: [{ id: 'p', name: 'Report', format: 'text/html' }],
  reviews: [
    {
      ...{ id: 'r', by: 'Skua', score: '3 of 4 points', notes, replies: [] },
      answers: [
        {
          itemId: 'i',
          title: 'Evidence',
          lines: ['3 of 4: Most of it'],
          replies: [{ id: 'y', by: 'Heron', words: 'Which?' }],
        },
      ],
    },
  ],
});
const made = async (notes: readonly AnnotatedNote[]) => {
  const bytes = await docx({ draft: draftWith(notes), texts: [{ id: 'p', name: 'Report', html: HTML }] });
  const files = unzipSync(bytes);
  return { bytes, xml: (name: string) => strFromU8(files[name] ?? new Uint8Array()) };
};
/** What stands in runs of these elements, in order. */
const runs = (xml: string, tag: string) =>
  [...xml.matchAll(new RegExp(`<w:${tag}(?: [^>]*)?>([^<]*)</w:${tag}>`, 'g'))].map(([, text]) => text);

describe('a document with comments', () => {
  it('holds the text as it was, and each comment around its words, with its answers', async () => {
    const { bytes, xml } = await made([
      note('n1', 'islands bare', { replies: [{ id: 'y1', by: 'Heron', words: 'Since when?' }] }),
      note('n2', 'First the grass', { kind: 'keep' }),
    ]);
    const document = xml('word/document.xml');
    // Another reader of such documents finds the same words.
    const { value } = await mammoth.extractRawText({ buffer: Buffer.from(bytes) });
    expect(value.replace(/\s+/g, ' ')).toContain(TEXT.replace(/\s+/g, ' '));
    const between = (id: number) =>
      runs(
        document.slice(
          document.indexOf(`<w:commentRangeStart w:id="${id}"`),
          document.indexOf(`<w:commentRangeEnd w:id="${id}"`),
        ),
        't',
      ).join('');
    expect([between(0), between(1), between(2)]).toEqual(['islands bare', 'islands bare', 'First the grass']);
    expect(runs(xml('word/comments.xml'), 't')).toEqual([
      'Change: About islands bare.',
      'Since when?',
      'Keep: About First the grass.',
    ]);
    expect([...xml('word/comments.xml').matchAll(/w:author="([^"]*)"/g)].map(([, by]) => by)).toEqual([
      'Skua',
      'Heron',
      'Skua',
    ]);
    // The answer is tied to what it answers, and the part with the threads is known to the package (ECMA-376, Part 2).
    const [first, second] = [
      ...xml('word/commentsExtended.xml').matchAll(/paraId="(\w+)"(?: w15:paraIdParent="(\w+)")?/g),
    ];
    expect([first?.[2], second?.[2]]).toEqual([undefined, first?.[1]]);
    expect(xml('word/comments.xml')).toContain(`w14:paraId="${second?.[1]}"`);
    expect(xml('[Content_Types].xml')).toContain('/word/commentsExtended.xml');
    expect(xml('word/_rels/document.xml.rels')).toContain('Target="commentsExtended.xml"');
    // The form stands at the end.
    expect(value).toMatch(/Skua: 3 of 4 points\s+Evidence\s+3 of 4: Most of it\s+Heron answers: Which\?/);
  });

  it('holds proposed edits as changes that can be taken or refused, each by whom', async () => {
    const { xml } = await made([
      note('n1', 'bare', { edit: { type: 'replace', text: 'to the ground' } }),
      note('n2', 'Geese', { by: 'Heron', edit: { type: 'insert', side: 'before', text: 'Since 2009, ' } }),
      note('n3', 'sedge', { edit: { type: 'delete' } }),
      // It touches what another one changes already, so it is told in words.
      note('n4', 'bare since', { edit: { type: 'delete' } }),
    ]);
    const document = xml('word/document.xml');
    expect(runs(document, 'delText').sort()).toEqual(['bare', 'sedge']);
    const inserted = [...document.matchAll(/<w:ins [^>]*w:author="([^"]*)"[\s\S]*?<w:t[^>]*>([^<]*)</g)].map(
      ([, by, text]) => [by, text],
    );
    expect(inserted).toEqual(
      expect.arrayContaining([
        ['Heron', 'Since 2009, '],
        ['Skua', 'to the ground'],
      ]),
    );
    expect(runs(xml('word/comments.xml'), 't')).toContain('Take out: “bare since”');
    // Taken all, the text reads as it would with the edits; refused all, as it was.
    expect(runs(document.replace(/<w:ins [\s\S]*?<\/w:ins>/g, ''), '(?:t|delText)').join('')).toContain('islands');
  });

  it('says of what stands on no words where it is, and tells no time', async () => {
    const { xml } = await made([
      note('n1', 'Geese', { partId: null, selector: { type: 'whole' } }),
      note('n2', 'Geese', {
        selector: {
          type: 'text',
          quote: { type: 'TextQuoteSelector', exact: 'Penguins of the south', prefix: '', suffix: '' },
          position: { type: 'TextPositionSelector', start: 0, end: 21 },
        },
      }),
    ]);
    const words = runs(xml('word/document.xml'), 't').join('|');
    expect(words).toContain('Notes on other places|Skua, The whole draft|Change: About Geese.');
    expect(words).toContain('on words that are not there any more: “Penguins of the south”');
    expect(xml('docProps/core.xml')).not.toMatch(/20[12]\d-/);
    expect(Buffer.from((await made([])).bytes)).toEqual(Buffer.from((await made([])).bytes));
  });

  it('is read by others whatever letters somebody wrote', async () => {
    const { bytes, xml } = await made([
      note('n1', 'Geese', {
        by: 'A & B <i>"',
        body: 'bell \u0007, half \uD83D, <w:p/> & ]]>',
        edit: { type: 'replace', text: 'Gänse \u0000🪿' },
      }),
    ]);
    const { value } = await mammoth.extractRawText({ buffer: Buffer.from(bytes) });
    expect(value).toContain('Gänse 🪿');
    expect(runs(xml('word/comments.xml'), 't')).toEqual(['Change: bell , half , &lt;w:p/&gt; &amp; ]]&gt;']);
    expect(xml('word/comments.xml')).toContain('w:author="A &amp; B &lt;i&gt;&quot;"');
  });

  it('is a package whose parts all have a type and are all led to', async () => {
    const { bytes } = await made([note('n1', 'Geese', { replies: [{ id: 'y1', by: 'Heron', words: 'Yes.' }] })]);
    const files = unzipSync(bytes);
    const xml = (name: string) => strFromU8(files[name] as Uint8Array);
    const attributes = (text: string, tag: string) =>
      [...text.matchAll(new RegExp(`<${tag}\\s([^>]*)>`, 'g'))].map(([, inside = '']) =>
        Object.fromEntries(
          [...inside.matchAll(/([\w:]+)="([^"]*)"/g)].map(([, name = '', value = '']) => [name, value]),
        ),
      );
    const parts = Object.keys(files).filter((name) => name !== '[Content_Types].xml' && !name.endsWith('/'));
    expect(parts.length).toBeGreaterThan(6);
    // ECMA-376 part 2, section 6.2.3 (10.1.2 in earlier editions; from memory): by its own name, or by its ending.
    const types = xml('[Content_Types].xml');
    const endings = new Set(attributes(types, 'Default').map(({ Extension = '' }) => Extension.toLowerCase()));
    const named = new Map(
      attributes(types, 'Override').map(({ PartName = '', ContentType = '' }) => [PartName, ContentType]),
    );
    for (const part of parts) {
      const ending = part.split('.').at(-1)?.toLowerCase() ?? '';
      expect([part, named.has(`/${part}`) || endings.has(ending)]).toEqual([part, true]);
    }
    for (const [part] of named) expect([part, parts.includes(part.slice(1))]).toEqual([part, true]);
    expect(named.get('/word/document.xml')).toBe(
      'application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml',
    );
    // Section 6.5 (9.3): relationships lead to parts that are there, each by an id of its own; all parts are reached.
    const reached = new Set<string>();
    for (const part of parts.filter((name) => name.endsWith('.rels'))) {
      const base = part.replace(/_rels\/[^/]+$/, '');
      const all = attributes(xml(part), 'Relationship');
      expect(new Set(all.map(({ Id }) => Id)).size).toBe(all.length);
      for (const { Target = '', TargetMode } of all) {
        if (TargetMode === 'External') continue;
        const target = Target.startsWith('/') ? Target.slice(1) : posix.join(base, Target);
        expect([part, target, parts.includes(target)]).toEqual([part, target, true]);
        reached.add(target);
      }
    }
    expect(parts.filter((name) => !name.endsWith('.rels') && !reached.has(name))).toEqual([]);
    const ids = new Set(attributes(xml('word/_rels/document.xml.rels'), 'Relationship').map(({ Id }) => Id));
    const used = [...xml('word/document.xml').matchAll(/\br:(?:id|embed)="([^"]+)"/g)].map(([, id]) => id);
    expect(used.filter((id) => !ids.has(id ?? ''))).toEqual([]);
  });

  const office = spawnSync('soffice', ['--version']).error === undefined;
  (office ? it : it.skip)('is opened by LibreOffice, with each comment, answer and tracked change', async () => {
    const { bytes } = await made([
      note('n1', 'Geese', { replies: [{ id: 'y1', by: 'Heron', words: 'Yes.' }] }),
      note('n2', 'islands', { kind: 'fix', edit: { type: 'replace', text: 'islets' } }),
      note('n3', 'bare', { kind: 'fix', edit: { type: 'delete' } }),
      note('n4', 'then the sedge', { kind: 'ask' }),
    ]);
    const folder = mkdtempSync(join(tmpdir(), 'salt-circle-office-'));
    try {
      const path = join(folder, 'draft.docx');
      writeFileSync(path, bytes);
      // With a profile of its own: one that is open keeps others waiting.
      const profile = `-env:UserInstallation=file://${folder}/profile`;
      spawnSync('soffice', [profile, '--headless', '--convert-to', 'fodt', '--outdir', folder, path]);
      const xml = readFileSync(join(folder, 'draft.fodt'), 'utf8');
      const count = (pattern: RegExp) => [...xml.matchAll(pattern)].length;
      // Four notes and an answer; those on the form stand on the pages at the end.
      const comments = [
        ...xml.matchAll(/<office:annotation [\s\S]*?<dc:creator>([^<]*)<[\s\S]*?<\/office:annotation>/g),
      ];
      expect(comments.map(([, by]) => by).sort()).toEqual(['Heron', 'Skua', 'Skua', 'Skua', 'Skua']);
      expect([count(/<text:insertion>/g), count(/<text:deletion>/g)]).toEqual([1, 2]);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it('keeps positions over headings, lists and tables, wherever comments begin and end', () => {
    const words = TEXT.split(/\s+/);
    const ranges = words.map((word, comment) => ({
      comment,
      start: TEXT.indexOf(word),
      end: TEXT.indexOf(word) + word.length,
    }));
    const whole = { comment: 99, start: 0, end: TEXT.length };
    const paragraphs = paragraphsOf(HTML, { ranges: [...ranges, whole], changes: [] });
    const pieces = paragraphs.flatMap((one) => one.pieces);
    const open = new Set<number>();
    const inside = new Map<number, string>();
    for (const piece of pieces) {
      if (piece.type === 'begin') open.add(piece.comment);
      else if (piece.type === 'end') open.delete(piece.comment);
      else if (piece.type === 'text') for (const id of open) inside.set(id, (inside.get(id) ?? '') + piece.text);
    }
    expect(open.size).toBe(0);
    expect(ranges.map(({ comment }) => inside.get(comment))).toEqual(words);
    expect(inside.get(99)?.replace(/\s/g, '')).toBe(TEXT.replace(/\s/g, ''));
    expect(paragraphs.map(({ heading, list }) => [heading, list?.ordered ?? null])).toEqual([
      [2, null],
      [null, null],
      [null, false],
      [null, false],
      [null, null],
      [null, null],
    ]);
  });
});

describe('any text with any notes', () => {
  const bare = (text: string) => text.replace(/\s/g, '');

  it('is the text when all changes are refused, the text as it would be when all are taken, and comments on their words', () => {
    fc.assert(
      fc.property(ANY_HTML, ANY_NOTES, (of, given) => {
        const text = htmlToText(of);
        const notes = notesOn(text, given);
        const placed = placedNotes(of, notes);
        const ranges = placed.map(({ start, end }, comment) => ({ comment, start, end }));
        const splices = placed.flatMap((one) => one.splices);
        const pieces = paragraphsOf(of, { ranges, changes: splices.map((one) => ({ ...one, by: 'Skua' })) }).flatMap(
          (one) => one.pieces,
        );
        const refused = pieces.map((piece) => (piece.type === 'text' ? piece.text : '')).join('');
        expect(bare(refused)).toBe(bare(text));
        const taken = pieces
          .map((piece) =>
            piece.type === 'insert' || (piece.type === 'text' && piece.deletedBy === null) ? piece.text : '',
          )
          .join('');
        expect(bare(taken)).toBe(bare(spliced(text, splices)));
        for (const { comment, start, end } of ranges) {
          const [begin, over] = (['begin', 'end'] as const).map((type) =>
            pieces.findIndex((piece) => piece.type === type && piece.comment === comment),
          ) as [number, number];
          const inside = pieces.slice(begin, over).map((piece) => (piece.type === 'text' ? piece.text : ''));
          expect(bare(inside.join(''))).toBe(bare(text.slice(start, end)));
        }
      }),
    );
  });

  it('keeps lines where they are kept on the page', () => {
    const [one] = paragraphsOf('<pre>a = 1\n\n  b = 2</pre>', { ranges: [], changes: [] });
    expect(one?.pieces.map((piece) => (piece.type === 'text' ? piece.text : piece.type))).toEqual([
      'a = 1',
      'break',
      'break',
      '  b = 2',
    ]);
  });
});

describe('a PDF with annotations', () => {
  const bytes = () => new Uint8Array(sample('report.pdf'));
  const read = async (data: Uint8Array) => {
    const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    const document = await getDocument({ data: new Uint8Array(data), useSystemFonts: false, verbosity: 0 }).promise;
    const page = await document.getPage(1);
    const { items } = await page.getTextContent();
    const annotations = (await page.getAnnotations()) as Array<Record<string, unknown>>;
    return {
      text: items.flatMap((item) => ('str' in item ? [item.str + (item.hasEOL ? '\n' : '')] : [])).join(''),
      annotations,
      pages: document.numPages,
    };
  };
  const passage = (text: string, exact: string) => ({ type: 'passage' as const, page: 1, ...at(exact, text) });

  it('has highlights on the words, squares on regions, changes struck out, and replies, and is the same otherwise', async () => {
    const before = await read(bytes());
    const [, word = ''] = /(\w{6,})/.exec(before.text) ?? [];
    const draft = draftWith([
      note('n1', 'Geese', {
        selector: passage(before.text, word),
        replies: [{ id: 'y1', by: 'Heron', words: 'Yes.' }],
      }),
      note('n2', 'Geese', {
        kind: 'fix',
        selector: passage(before.text, word),
        edit: { type: 'replace', text: 'Ørsted' },
      }),
      note('n3', 'Geese', {
        kind: 'ask',
        selector: { type: 'region', page: 1, x: 0.1, y: 0.2, width: 0.3, height: 0.1 },
      }),
      note('n4', 'Geese', { kind: 'keep', selector: { type: 'page', page: 1 } }),
      note('n5', 'Geese', { partId: 'other' }),
    ]);
    const out = await pdf({ draft, partId: 'p', bytes: bytes() });
    const after = await read(out);
    expect([after.text, after.pages]).toEqual([before.text, before.pages]);
    const found = after.annotations.map(({ subtype, titleObj, contentsObj }) => [
      subtype,
      (titleObj as { str: string } | undefined)?.str,
      (contentsObj as { str: string } | undefined)?.str,
    ]);
    expect(found).toEqual(
      expect.arrayContaining([
        ['Highlight', 'Skua', 'Change: About Geese.'],
        ['Text', 'Heron', 'Yes.'],
        ['StrikeOut', 'Skua', `Fix: About Geese.\n“${word}” → “Ørsted”`],
        ['Caret', 'Skua', 'Ørsted'],
        ['Square', 'Skua', 'Ask: About Geese.'],
        ['Text', 'Skua', 'Keep: About Geese.'],
      ]),
    );
    expect(after.annotations).toHaveLength(before.annotations.length + 6);
    const highlight = after.annotations.find(({ subtype }) => subtype === 'Highlight');
    const reply = after.annotations.find(({ inReplyTo }) => inReplyTo !== undefined);
    expect(reply?.['inReplyTo']).toBe(highlight?.['id']);
    // Around the words: as wide as they are, and about as high as a line.
    const [left = 0, bottom = 0, right = 0, top = 0] = highlight?.['rect'] as number[];
    expect(right - left).toBeGreaterThan(10);
    expect(top - bottom).toBeGreaterThan(4);
    expect(top - bottom).toBeLessThan(40);
  });

  const there = ['qpdf', 'pdftotext'].every((tool) => spawnSync(tool, ['--version']).error === undefined);
  (there ? it : it.skip)('is sound to qpdf, and the same text to poppler', async () => {
    const before = await read(bytes());
    const [, word = ''] = /(\w{6,})/.exec(before.text) ?? [];
    const draft = draftWith([
      note('n1', 'Geese', {
        selector: passage(before.text, word),
        edit: { type: 'replace', text: 'Ørsted' },
        kind: 'fix',
      }),
      note('n2', 'Geese', { selector: { type: 'region', page: 1, x: 0.1, y: 0.2, width: 0.3, height: 0.1 } }),
    ]);
    const folder = mkdtempSync(join(tmpdir(), 'salt-circle-marked-'));
    try {
      const [plain, marked] = [join(folder, 'plain.pdf'), join(folder, 'marked.pdf')];
      writeFileSync(plain, bytes());
      writeFileSync(marked, await pdf({ draft, partId: 'p', bytes: bytes() }));
      const { status, stdout } = spawnSync('qpdf', ['--check', marked], { encoding: 'utf8' });
      expect([status, stdout]).toEqual([0, expect.stringContaining('No syntax or stream encoding errors')]);
      const words = (path: string) => spawnSync('pdftotext', [path, '-'], { encoding: 'utf8' }).stdout;
      expect(words(plain)).toContain(word);
      expect(words(marked)).toBe(words(plain));
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it('puts words that are not found, and pages that are not there, where they do no harm', async () => {
    const lost = { type: 'passage' as const, page: 1, ...at('x', 'x') };
    const gone = { ...lost, quote: { ...lost.quote, exact: 'Words that nobody wrote in there' } };
    const draft = draftWith([
      note('n1', 'Geese', { selector: gone }),
      note('n2', 'Geese', { selector: { type: 'page', page: 99 } }),
    ]);
    const { annotations } = await read(await pdf({ draft, partId: 'p', bytes: bytes() }));
    expect(annotations.filter(({ subtype }) => subtype === 'Text')).toHaveLength(1);
  });
});
