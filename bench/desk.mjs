import { randomUUID } from 'node:crypto';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { describeTextAnchor, matchTextAnchor, seededRandom } from '@salt-circle/core';
import { signedInBrowser } from './browser.mjs';

const SEED = 1713;
const WORDS =
  'tide gauge spit marsh sluice silt heron reading level channel bank grazing fence turf core pole survey brackish'.split(
    ' ',
  );

/** Sentences of made-up words, each with a number of its own. */
function sentences(count, random, from = 0) {
  return Array.from({ length: count }, (_, at) => {
    const words = Array.from(
      { length: 8 + Math.floor(random() * 8) },
      () => WORDS[Math.floor(random() * WORDS.length)],
    );
    return `${words.join(' ')} ${from + at}.`;
  });
}

/**
 * Passages found again after a third of the sentences was rewritten: a few words of each sentence that stays are to be found in
 * it, those of a sentence that went are to be gone.
 */
function foundAgain({ line, round }) {
  process.stdout.write('\nPassages found again after 30 % of the sentences of a text were rewritten\n');
  const random = seededRandom(SEED);
  const old = sentences(1_000, random);
  const fresh = sentences(1_000, random, 5_000);
  const gone = old.map(() => random() < 0.3);
  const before = old.join(' ');
  const after = old.map((one, at) => (gone[at] ? fresh[at] : one)).join(' ');
  const starts = (list) => list.reduce((all, one) => [...all, (all.at(-1) ?? -1) + one.length + 1], [0]).slice(0, -1);
  const [was, is] = [starts(old), starts(old.map((one, at) => (gone[at] ? fresh[at] : one)))];
  const counts = { right: 0, wrong: 0, perhaps: 0, strayed: 0, lost: 0 };
  const begun = performance.now();
  for (const [at, sentence] of old.entries()) {
    const words = sentence.split(' ').slice(1, 5).join(' ');
    const start = was[at] + sentence.indexOf(words);
    const match = matchTextAnchor(after, describeTextAnchor(before, { start, end: start + words.length }));
    if (match.found === 'gone') counts[gone[at] ? 'right' : 'lost'] += 1;
    else if (!gone[at] && match.range.start === is[at] + sentence.indexOf(words)) counts.right += 1;
    else if (match.certainty === 'sure') counts.wrong += 1;
    else counts[gone[at] ? 'perhaps' : 'strayed'] += 1;
  }
  const took = performance.now() - begun;
  line(
    'found, or told to be gone, rightly',
    round(counts.right / old.length, 3),
    `${old.length} passages of four words`,
  );
  line('found in the wrong place, as if for sure', round(counts.wrong / old.length, 3));
  line('called perhaps: of a sentence that went', round(counts.perhaps / old.length, 3));
  line('called perhaps: elsewhere than it is', round(counts.strayed / old.length, 3));
  line('there, and not found', round(counts.lost / old.length, 3), `${round(took / old.length, 2)} ms each here`);
}

const part = (more) => ({
  deliverableId: 'd',
  deliverable: 'Draft',
  kind: 'text',
  show: 'html',
  name: '',
  html: null,
  url: '',
  title: '',
  about: '',
  words: 0,
  size: null,
  digest: null,
  copy: null,
  facts: {},
  captions: false,
  original: false,
  ...more,
});

function textOf(words, random) {
  const paragraphs = [];
  for (let left = words; left > 0; left -= 100) paragraphs.push(sentences(9, random, left).join(' '));
  return { html: paragraphs.map((one) => `<p>${one}</p>`).join(''), text: paragraphs.join('\n') };
}

function notesOn(text, count, random) {
  return Array.from({ length: count }, () => {
    let start = Math.floor(random() * (text.length - 80));
    while (/\s/.test(text[start])) start += 1;
    const selector = { type: 'text', ...describeTextAnchor(text, { start, end: text.indexOf(' ', start + 20) }) };
    return {
      id: randomUUID(),
      kind: ['keep', 'change', 'ask', 'fix'][Math.floor(random() * 4)],
      body: 'Say how deep.',
      place: { version: 1, partId: 'text', selector },
      edit: null,
      itemId: null,
      revision: 1,
    };
  });
}

async function pdfOf(pages) {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const random = seededRandom(SEED);
  for (let page = 0; page < pages; page += 1) {
    const sheet = pdf.addPage([595, 842]);
    sentences(40, random, page * 40).forEach((words, row) =>
      sheet.drawText(words.slice(0, 90), { x: 50, y: 790 - row * 18, size: 10, font }),
    );
  }
  return Buffer.from(await pdf.save());
}

/** Milliseconds from opening a desk that answers with `desk`, until `ready` and two more frames. */
async function opened(context, base, desk, ready, act = async () => undefined) {
  const page = await context.newPage();
  const json = JSON.stringify(desk);
  await page.route(`**/api/reviews/${desk.id}`, (route) =>
    route.fulfill({ contentType: 'application/json', body: json }),
  );
  await page.goto(`${base}/reviews/${desk.id}`);
  await page.getByRole('group', { name: 'Parts of this draft' }).waitFor();
  const begun = performance.now();
  await act(page);
  await ready(page);
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  return { page, took: performance.now() - begun };
}

async function letters(page, field, median) {
  await field.click();
  const taken = [];
  for (let letter = 0; letter < 25; letter += 1) {
    await page.evaluate(() => {
      const begun = { at: 0 };
      window.addEventListener('keydown', () => (begun.at = performance.now()), { once: true, capture: true });
      window.typed = new Promise((done) => {
        window.addEventListener(
          'input',
          () => requestAnimationFrame(() => setTimeout(() => done(performance.now() - begun.at))),
          { once: true },
        );
      });
    });
    await page.keyboard.press('x');
    taken.push(await page.evaluate(() => window.typed));
  }
  return median(taken);
}

const criterion = (n) => ({
  kind: 'criterion',
  id: `c${n}`,
  title: `Criterion ${n}`,
  guidance: 'Look closely.',
  required: true,
  weight: 1,
  comment: 'optional',
  levels: [0, 1, 2].map((points) => ({ id: `c${n}-${points}`, title: `Level ${points}`, description: '', points })),
});

/** The review desk with more than anybody has: long texts, many notes, many pages. */
export async function deskFigures({ base, cookie, reviewId, call, line, round, median }) {
  foundAgain({ line, round });
  process.stdout.write('\nThe review desk with much on it\n');
  const random = seededRandom(SEED);
  const desk = await call(`/reviews/${reviewId}`, 'GET', undefined, cookie);
  const { browser, context } = await signedInBrowser(base, cookie, { serviceWorkers: 'block' });
  const small = part({ id: 'small', deliverable: 'Remarks', html: '<p>Nothing here.</p>' });
  const withDraft = (more) => ({
    ...desk,
    draft: { ...desk.draft, version: 1, ...more.draft },
    notes: more.notes ?? [],
  });

  // A long text, opened from another part, with and without notes.
  const long = textOf(50_000, random);
  const text = part({ id: 'text', html: long.html });
  const times = {};
  for (const count of [0, 2_000]) {
    const shown = withDraft({ draft: { parts: [small, text] }, notes: notesOn(long.text, count, seededRandom(SEED)) });
    const { page, took } = await opened(
      context,
      base,
      shown,
      (one) => one.waitForFunction((wanted) => document.querySelectorAll('mark[tabindex]').length >= wanted, count),
      async (one) => {
        await one.getByRole('button', { name: /^Draft/ }).click();
        await one
          .getByRole('document', { name: /^Draft/ })
          .getByText('tide', { exact: false })
          .first()
          .waitFor();
      },
    );
    times[count] = took;
    await page.close();
  }
  line(
    'a text of 50,000 words with 2,000 notes / without',
    round(times[2_000] / times[0]),
    `${round(times[2_000], 0)} ms here, layout of both included`,
  );

  // Pages, with and without notes.
  const bytes = await pdfOf(300);
  await context.route('**/parts/pdf/copy', (route) => route.fulfill({ contentType: 'application/pdf', body: bytes }));
  const ready = { state: 'ready', progress: 1, problem: null };
  const pages = part({ id: 'pdf', kind: 'file', show: 'pdf', deliverable: 'Book', copy: ready, facts: { pages: 300 } });
  const onPages = Array.from({ length: 200 }, (_, n) => ({
    ...notesOn(long.text, 1, random)[0],
    place: {
      version: 1,
      partId: 'pdf',
      selector: { type: 'region', page: 1 + ((n * 7) % 300), x: 0.1, y: 0.1 + (n % 8) / 10, width: 0.3, height: 0.05 },
    },
  }));
  for (const count of [0, 200]) {
    const taken = [];
    for (let round = 0; round < 5; round += 1) {
      const shown = withDraft({ draft: { parts: [small, pages] }, notes: onPages.slice(0, count) });
      const { page, took } = await opened(
        context,
        base,
        shown,
        (one) => one.locator('[data-page="1"] .pdf-words span').first().waitFor({ state: 'attached' }),
        (one) => one.getByRole('button', { name: /^Book/ }).click(),
      );
      taken.push(took);
      await page.close();
    }
    times[count] = median(taken);
  }
  line(
    'first of 300 pages, with 200 notes / without',
    round(times[200] / times[0], 2),
    `${round(times[200], 0)} ms here`,
  );

  // A letter typed into the form.
  for (const [key, notes, items] of [
    ['few', 5, 4],
    ['many', 200, 40],
  ]) {
    const draft = textOf(3_000, seededRandom(SEED));
    const shown = withDraft({
      draft: { parts: [small, part({ id: 'text', html: draft.html })] },
      notes: notesOn(draft.text, notes, random),
    });
    const form = { ...desk.form, items: Array.from({ length: items }, (_, n) => criterion(n)) };
    await context.route('**/api/reviews/*/answers/*', (route) => route.abort());
    const { page } = await opened(
      context,
      base,
      { ...shown, form, answers: {} },
      (one) => one.waitForFunction((wanted) => document.querySelectorAll('mark[tabindex]').length >= wanted, notes),
      (one) => one.getByRole('button', { name: /^Draft/ }).click(),
    );
    times[key] = await letters(page, page.getByRole('textbox', { name: /Criterion 2/ }).first(), median);
    await page.close();
  }
  line(
    'a letter typed, 200 notes and 40 items / 5 and 4',
    round(times.many / times.few),
    `${round(times.many, 0)} ms to the next frame here (with few: ${round(times.few, 0)} ms)`,
  );
  await browser.close();
  await withoutConnection({ base, cookie, reviewId, line, round, median });
}

async function withoutConnection({ base, cookie, reviewId, line, round, median }) {
  const { browser, context } = await signedInBrowser(base, cookie);
  const page = await context.newPage();
  const load = async (go) => {
    const begun = performance.now();
    await go();
    await page.getByRole('document', { name: /^Draft/ }).waitFor();
    return performance.now() - begun;
  };
  await load(() => page.goto(`${base}/reviews/${reviewId}`));
  await page.getByRole('button', { name: 'Kept here' }).waitFor({ timeout: 60_000 });
  const taken = { on: [], off: [] };
  for (let round = 0; round < 7; round += 1) taken.on.push(await load(() => page.reload()));
  await context.setOffline(true);
  for (let round = 0; round < 7; round += 1) taken.off.push(await load(() => page.reload()));
  line(
    'the desk without a connection / with one',
    round(median(taken.off) / median(taken.on), 2),
    `${round(median(taken.off), 0)} ms here to the draft in sight`,
  );
  await browser.close();
}
