import {
  importMarks,
  placedEdit,
  splicesOf,
  type ImportedNote,
  type KnownNote,
  type AnnotatedDraft,
  type AnnotatedNote,
} from '@salt-circle/core';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { htmlToText } from '../../../platform/html/html-to-text.js';
import { ANY_HTML, ANY_NOTES, notesOn, spliced } from '../../../testing/marked.js';
import { sample } from '../../../testing/uploads.js';
import { docx } from './docx.js';
import { docxMarks } from './docx-marks.js';
import { bringDocument, bringPages } from './marked.js';
import { pdf } from './pdf.js';
import { placedNotes } from './passages.js';
import type { BringTask } from './task.js';

const LIMITS = { body: 5_000, passage: 10_000 };
const HTML =
  '<h2>What can be seen</h2><p>Geese have grazed the <em>islands</em> bare since 2009.</p><ul><li>First the grass</li><li>then the sedge</li></ul><table><tbody><tr><td>2009</td><td>bare</td></tr></tbody></table>';
const TEXT = htmlToText(HTML);
const draftWith = (notes: readonly AnnotatedNote[]): AnnotatedDraft => ({
  ...{ draftId: 'd', version: 1, title: 'On the basin', exchange: 'Field report', course: 'Coastal Restoration' },
  parts: [{ id: 'p', name: 'Report', format: 'text/html' }],
  reviews: [{ id: 'r', by: 'Skua', score: '', notes, replies: [], answers: [] }],
});
const texts = (text = TEXT) => [{ id: 'p', text }];
const task = (bytes: Uint8Array, part: Partial<BringTask> = {}): BringTask => ({
  ...{ bytes, texts: texts(), copies: [{ id: 'x', bytes: sample('report.pdf') }], already: [], limits: LIMITS },
  ...part,
});
/** "fix “grazed” + slowly: words" */
function line({ kind, body, selector, edit }: ImportedNote): string {
  const where =
    selector.type === 'text' || selector.type === 'passage'
      ? `“${selector.quote.exact}”`
      : selector.type === 'region'
        ? `${selector.width === 0 ? 'point' : 'region'} on ${selector.page}`
        : selector.type;
  const does = edit === null ? '' : ` ${edit.type}${'text' in edit ? ` “${edit.text}”` : ''}`;
  return `${kind} ${where}${does}${body === '' ? '' : `: ${body}`}`;
}
const done = async (answer: ReturnType<typeof bringDocument>) => {
  const given = await answer;
  if ('refused' in given) throw new Error(given.refused.sentence);
  return given.done;
};
const refusal = async (answer: ReturnType<typeof bringDocument>) => {
  const given = await answer;
  return 'refused' in given ? given.refused.sentence : null;
};

describe('a document that LibreOffice 7.4 has marked', () => {
  // Taken along with two notes, commented on and changed in LibreOffice Writer, and saved there as DOCX.
  const file = () => new Uint8Array(sample('marked.docx'));

  it('gives its comments and changes as notes at their words', async () => {
    const { notes, unplaced, otherText } = await done(bringDocument(task(file())));
    expect(notes.map(line)).toEqual([
      'ask “Geese have”: Who counted them?',
      'fix “grazed” insert “ slowly”',
      'change “islands bare”: About islands bare.',
      'fix “since 2009” replace “from the spring of 2009 on”',
      'fix “2009.”: There is a typo here.',
      'keep “First the grass”: A nice order, keep it.',
      'fix “the grass” delete',
      'fix “then the sedge” replace “then the rush”',
    ]);
    expect([unplaced, otherText]).toEqual([[], false]);
    expect(new Set(notes.map(({ certainty }) => certainty))).toEqual(new Set(['sure']));
    expect(JSON.stringify(notes)).not.toContain('Mensah');
  });

  it('finds places again in a text that has changed since, and lists what it does not find', async () => {
    const text = TEXT.replace('Geese have', 'Today geese have').replace('First the grass\n', '');
    const { notes, unplaced, otherText } = await done(bringDocument(task(file(), { texts: texts(text) })));
    expect(otherText).toBe(true);
    expect(notes.map(line)).toContain('fix “since 2009” replace “from the spring of 2009 on”');
    expect(unplaced.map(({ passage, why }) => [passage, why])).toContainEqual(['First the grass', 'gone']);
    expect(notes.every(({ selector }) => selector.type === 'text' && text.includes(selector.quote.exact))).toBe(true);
  });

  it('is refused where it is of another draft', async () => {
    const text = 'Sluices were opened twice in every week of that year.\nNobody wrote down for how long they were.';
    expect(await refusal(bringDocument(task(file(), { texts: texts(text) })))).toBe(
      'This is not the text of this draft.',
    );
  });
});

describe('any draft with any notes', () => {
  const bare = (text: string) => text.replace(/\s/g, '');
  const WITH_WORDS = ANY_NOTES.map((all) => all.map(([share, length, edit]) => [share, length + 4, edit] as const));

  it('comes back as it was taken along: nothing new where all is known, and all where nothing is', async () => {
    await fc.assert(
      fc.asyncProperty(ANY_HTML, WITH_WORDS, async (html, given) => {
        const text = htmlToText(html);
        const notes = notesOn(text, given).filter(
          ({ selector }) => 'quote' in selector && /\p{L}/u.test(selector.quote.exact),
        );
        const bytes = await docx({ draft: draftWith(notes), texts: [{ id: 'p', name: 'Report', html }] });
        const document = await docxMarks(bytes);
        const again = importMarks(document, texts(text), notes, LIMITS);
        expect([again.notes.map(line), again.unplaced, again.otherText]).toEqual([[], [], false]);
        const first = importMarks(document, texts(text), [], LIMITS);
        const said = (all: readonly KnownNote[]) => new Set(all.flatMap(({ body }) => (body === '' ? [] : [body])));
        expect([...said(first.notes)].map((words) => words.slice(0, 12)).sort()).toEqual(
          [...said(notes)].map((words) => words.slice(0, 12)).sort(),
        );
        const would = first.notes.flatMap(({ selector, edit }) => {
          const made = selector.type === 'text' && edit !== null ? placedEdit(text, selector.position, edit) : null;
          return made === null ? [] : splicesOf(text, made);
        });
        const shown = placedNotes(html, notes).flatMap(({ splices }) => splices);
        expect(bare(spliced(text, would))).toBe(bare(spliced(text, shown)));
      }),
      { seed: 1962, numRuns: 60 },
    );
  });
});

describe('what a word processor can write', () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const W14 = 'xmlns:w14="http://schemas.microsoft.com/office/word/2010/wordml"';
  const pack = (body: string, comments = '', more: Readonly<Record<string, string>> = {}) =>
    zipSync({
      '[Content_Types].xml': strToU8('<Types/>'),
      'word/document.xml': strToU8(`<w:document ${W}><w:body>${body}</w:body></w:document>`),
      'word/comments.xml': strToU8(`<w:comments ${W} ${W14}>${comments}</w:comments>`),
      ...Object.fromEntries(Object.entries(more).map(([name, text]) => [name, strToU8(text)])),
    });
  const run = (text: string) => `<w:r><w:t xml:space="preserve">${text}</w:t></w:r>`;
  const out = (text: string) => `<w:del w:id="9" w:author="A"><w:r><w:delText>${text}</w:delText></w:r></w:del>`;
  const put = (text: string) => `<w:ins w:id="8" w:author="A">${run(text)}</w:ins>`;
  const mark = (change: 'ins' | 'del') => `<w:pPr><w:rPr><w:${change} w:id="7" w:author="A"/></w:rPr></w:pPr>`;
  const p = (inside: string, properties = '') => `<w:p>${properties}${inside}</w:p>`;
  const brought = (body: string, text: string, comments = '', more = {}) =>
    done(bringDocument(task(pack(body, comments, more), { texts: texts(text) })));
  const lines = async (body: string, text: string) => (await brought(body, text)).notes.map(line);

  it('tells paragraphs that are put in, begun, joined and taken out from words that are', async () => {
    const [one, two] = ['Geese have grazed the islands.', 'Nobody counted them then.'];
    const text = `${one}\n${two}`;
    expect(await lines(p(run(one)) + p(run(two)), text)).toEqual([]);
    // ECMA-376 Part 1, 17.13.5.19: the mark of the paragraph that was there goes with the new words.
    expect(await lines(p(run(one), mark('ins')) + p(put('Then the sedge.')) + p(run(two)), text)).toEqual([
      'fix “islands.” insert “\nThen the sedge.”',
    ]);
    expect(await lines(p(run('Geese have '), mark('ins')) + p(run('grazed the islands.')) + p(run(two)), text)).toEqual(
      ['fix “grazed” split'],
    );
    // 17.13.5.15: the mark that goes is that of the first.
    expect(await lines(p(run(one), mark('del')) + p(run(two)), text)).toEqual(['fix “islands.” join']);
    expect(
      await lines(
        p(run('Geese have grazed') + out(' the islands.'), mark('del')) + p(out('Nobody') + run(' counted them then.')),
        text,
      ),
    ).toEqual(['fix “ the islands.\nNobody” delete']);
    expect(await lines(p(put('So: ') + run(one)) + p(run(two)), text)).toEqual(['fix “Geese” insert “So: ”']);
    expect(
      await lines(p(run(one)) + p(run('Nobody') + out(' counted') + put(' saw') + run(' them then.')), text),
    ).toEqual(['fix “ counted” replace “ saw”']);
  });

  it('keeps answers with what they answer, and passes by what is shown a second time for older readers', async () => {
    const text = 'Geese have grazed the islands.';
    const ranged = `<w:commentRangeStart w:id="1"/>${run('Geese')}<w:commentRangeEnd w:id="1"/>${run(' have grazed the islands.')}`;
    const twice = `<mc:AlternateContent><mc:Fallback>${run('Again')}</mc:Fallback></mc:AlternateContent>`;
    const comment = (id: string, paragraph: string, words: string) =>
      `<w:comment w:id="${id}" w:author="A"><w:p w14:paraId="${paragraph}">${run(words)}</w:p></w:comment>`;
    const more = {
      'word/commentsExtended.xml':
        '<w15:commentsEx xmlns:w15="x"><w15:commentEx w15:paraId="A1"/><w15:commentEx w15:paraId="A2" w15:paraIdParent="A1"/></w15:commentsEx>',
    };
    const comments = comment('1', 'A1', 'Which geese?') + comment('2', 'A2', 'Greylags, I think.');
    const { notes } = await brought(p(ranged + twice), text, comments, more);
    expect(notes.map(line)).toEqual(['change “Geese”: Which geese?\n\nGreylags, I think.']);
    // On no words: the one before it.
    const point = await brought(
      p(run('Geese have') + '<w:r><w:commentReference w:id="1"/></w:r>' + run(' grazed the islands.')),
      text,
      comment('1', 'B', 'Ask: since when'),
    );
    expect(point.notes.map(line)).toEqual(['ask “have”: since when']);
  });

  it('is refused with macros, definitions, endless nesting, too many marks, or where it is something else', async () => {
    const text = 'Geese have grazed the islands.';
    const plain = p(run(text));
    const say = (bytes: Uint8Array) => refusal(bringDocument(task(bytes, { texts: texts(text) })));
    expect(await say(pack(plain, '', { 'word/vbaProject.bin': 'x' }))).toContain('holds macros');
    expect(await say(pack(plain, '', { 'word/x.xml': '' }).slice(0, 200))).toContain('not a document that can be read');
    expect(await say(pack(`<!DOCTYPE x [<!ENTITY a "b">]>${plain}`))).toContain('not a document that can be read');
    expect(await say(pack('<w:p>'.repeat(2_000)))).toContain('nested too deeply');
    expect(await say(zipSync({ 'a.txt': strToU8('a') }))).toContain('not a document that can be read');
    const many = Array.from(
      { length: 5_001 },
      (_, id) => `<w:comment w:id="${id}"><w:p>${run('Why?')}</w:p></w:comment>`,
    );
    const at = many.map((_, id) => `<w:r><w:commentReference w:id="${id}"/></w:r>`).join('');
    expect(await say(pack(p(run(text) + at), many.join('')))).toContain('5001 comments and changes');
    const files = unzipSync(sample('marked.docx'));
    const typed = strFromU8(files['[Content_Types].xml'] as Uint8Array).replace(
      'document.main',
      'document.macroEnabled.main',
    );
    expect(await say(zipSync({ ...files, '[Content_Types].xml': strToU8(typed) }))).toContain('holds macros');
  });
});

describe('a PDF that poppler 22.12 has marked', () => {
  it('gives highlights, strike-outs, boxes and remarks as notes at their places', async () => {
    const { notes, unplaced, otherText } = await done(bringPages(task(sample('marked.pdf'))));
    expect(notes.map(line)).toEqual([
      'ask “eastern basin”: Which of the two?',
      'fix “by boat” delete',
      'keep “in later”: A good idea, keep it.',
      'change region on 1: Make this table wider.',
      'ask point on 1: And what came after?',
    ]);
    expect([unplaced, otherText]).toEqual([[], false]);
    // Whose they are is dropped; the text of the draft is as it was.
    expect(notes.map(({ body }) => body).join()).not.toContain('Mensah');
  });

  it('is refused where it is locked, damaged, or of no part of the draft', async () => {
    expect(await refusal(bringPages(task(sample('locked.pdf'))))).toBe('This PDF is locked with a password.');
    expect(await refusal(bringPages(task(new Uint8Array(Buffer.from('%PDF-1.7\nnothing')))))).toContain('not a PDF');
    const { docx: _, ...other } = { docx, copies: [{ id: 'x', bytes: await blank() }] };
    expect(await refusal(bringPages(task(sample('marked.pdf'), other)))).toBe('These are not pages of this draft.');
  });

  it('comes back as it was taken along, with what was put in, struck out, and answered', async () => {
    const marks = await done(bringPages(task(sample('marked.pdf'))));
    const notes = marks.notes.map((note, index): AnnotatedNote => ({
      ...note,
      id: `n${index}`,
      by: 'Skua',
      replies: [],
    }));
    const [first, second] = notes as [AnnotatedNote, AnnotatedNote, ...AnnotatedNote[]];
    const all = [
      ...notes,
      {
        ...second,
        id: 'r',
        kind: 'change' as const,
        edit: { type: 'replace' as const, text: 'by car' },
        body: 'Why boats?',
      },
      {
        ...first,
        id: 'i',
        kind: 'fix' as const,
        body: '',
        edit: { type: 'insert' as const, side: 'after' as const, text: ' now' },
      },
      {
        ...first,
        id: 'w',
        kind: 'keep' as const,
        body: 'Good.',
        edit: null,
        partId: 'x',
        selector: { type: 'page' as const, page: 1 },
      },
    ];
    const bytes = await pdf({ draft: draftWith(all), partId: 'x', bytes: sample('report.pdf') });
    const again = await done(bringPages(task(bytes, { already: all })));
    expect([again.notes.map(line), again.unplaced]).toEqual([[], []]);
    const anew = await done(bringPages(task(bytes)));
    expect(anew.notes.map(line)).toEqual(expect.arrayContaining(['change “by boat” replace “by car”: Why boats?']));
  });
});

async function blank(): Promise<Uint8Array> {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const document = await PDFDocument.create();
  document.addPage([300, 300]).drawText('Quite something else');
  return document.save();
}
