import { performance } from 'node:perf_hooks';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { at, built, installed } from '../scripts/run.mjs';
import { line, round } from './calls.mjs';

// A PDF of 300 pages with 400 notes written into it, against reading and writing it as it is; the same notes as a document.

const PAGES = 300;
const NOTES = 400;

async function pagesOf() {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let page = 0; page < PAGES; page += 1) {
    const sheet = document.addPage([595, 842]);
    for (let row = 0; row < 45; row += 1) {
      sheet.drawText(`Line ${row} of page ${page} says what was found at the spot.`, {
        x: 50,
        y: 790 - row * 16,
        size: 10,
        font,
      });
    }
  }
  return document.save();
}

const anchored = (exact, start) => ({
  quote: { type: 'TextQuoteSelector', exact, prefix: '', suffix: ' says' },
  position: { type: 'TextPositionSelector', start, end: start + exact.length },
});

async function timed(work) {
  await work();
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}

export async function markedFigures({ line, round }) {
  await installed();
  await built();
  const { pdf, docx, bringDocument, bringPages } = await import(
    at('apps', 'server', 'dist', 'features', 'annotated-files', 'worker', 'marked.js')
  );
  const bytes = await pagesOf();
  const note = (index, selector) => ({
    ...{ id: `n${index}`, by: 'Skua', kind: ['keep', 'change', 'ask', 'fix'][index % 4], body: 'Say who measured it.' },
    ...{ partId: 'p', selector, edit: index % 5 === 0 ? { type: 'delete' } : null, replies: [] },
  });
  const draft = (notes) => ({
    ...{
      draftId: 'd',
      version: 1,
      title: 'T',
      exchange: 'E',
      course: 'C',
      parts: [{ id: 'p', name: 'P', format: null }],
    },
    reviews: [{ id: 'r', by: 'Skua', score: '', answers: [], replies: [], notes }],
  });
  const onPages = Array.from({ length: NOTES }, (_, index) => {
    const [page, row] = [index % PAGES, (index * 7) % 45];
    return note(index, { type: 'passage', page: page + 1, ...anchored(`Line ${row} of page ${page}`, row * 50) });
  });
  const copied = await timed(async () => (await PDFDocument.load(bytes)).save());
  const marked = await timed(() => pdf({ draft: draft(onPages), partId: 'p', bytes }));
  line(`PDF of ${PAGES} pages with ${NOTES} notes : read and written`, round(marked / copied), `${round(marked)} ms`);
  const sentences = Array.from({ length: 3_000 }, (_, index) => `Sentence ${index} says what was found at the spot.`);
  const html = sentences.map((one) => `<p>${one}</p>`).join('');
  const onText = Array.from({ length: NOTES }, (_, index) =>
    note(index, {
      type: 'text',
      ...anchored(`Sentence ${index * 7}`, sentences.slice(0, index * 7).join('\n').length),
    }),
  );
  const texts = [{ id: 'p', name: 'P', html }];
  const bare = await timed(() => docx({ draft: draft([]), texts }));
  const full = await timed(() => docx({ draft: draft(onText), texts }));
  line(`document of 25,000 words with ${NOTES} notes : without`, round(full / bare), `${round(full)} ms`);
  const text = sentences.join('\n');
  const limits = { body: 5_000, passage: 10_000 };
  const asked = { texts: [{ id: 'p', text }], copies: [{ id: 'p', bytes }], already: [], limits };
  const taken = await docx({ draft: draft(onText), texts });
  const brought = await timed(() => bringDocument({ ...asked, bytes: taken }));
  line('  brought back : made', round(brought / full), `${round(brought)} ms`);
  const pages = await pdf({ draft: draft(onPages), partId: 'p', bytes });
  const onPaper = await timed(() => bringPages({ ...asked, bytes: pages }));
  line('the PDF brought back : made', round(onPaper / marked), `${round(onPaper)} ms`);
}

if (process.argv[1]?.endsWith('marked.mjs')) await markedFigures({ line, round });
