import { randomBytes } from 'node:crypto';
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { browserPath } from '../scripts/run.mjs';

const MEGA = 1_000_000;
const PIECE = 5 * MEGA;
const base64 = (text) => Buffer.from(text).toString('base64');

/** Text of random letters: it cannot be packed, and is no more than a text to those who read it. */
const letters = (bytes) =>
  Buffer.from(
    randomBytes(Math.ceil((bytes * 3) / 4))
      .toString('base64')
      .slice(0, bytes),
  );

async function pdfOf(pages) {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.TimesRoman);
  for (let page = 1; page <= pages; page += 1) {
    const sheet = pdf.addPage([595, 842]);
    for (let row = 0; row < 40; row += 1) {
      const text = `Page ${page}, line ${row}: the bed rose by four centimetres a decade, and the gauge was read every week.`;
      sheet.drawText(text, { x: 40, y: 800 - row * 18, size: 10, font });
    }
  }
  return Buffer.from(await pdf.save());
}

/** Resident memory of a process, in megabytes (Linux). */
function memory(pid) {
  const [, kilobytes = '0'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
  return Number(kilobytes) / 1024;
}

export async function fileFigures({ server, call, cookieOf, base, ids, line, round, median }) {
  const { exchangeId, studentIds } = ids;

  async function upload(cookie, name, bytes) {
    const pairs = { exchange: exchangeId, deliverable: 'files', name, use: 'part' };
    const metadata = Object.entries(pairs).map(([key, value]) => `${key} ${base64(value)}`);
    const headers = { 'x-salt-circle': '1', cookie, 'tus-resumable': '1.0.0' };
    const begun = await fetch(`${base}/api/uploads`, {
      method: 'POST',
      headers: { ...headers, 'upload-length': String(bytes.length), 'upload-metadata': metadata.join(',') },
    });
    if (!begun.ok) throw new Error(await begun.text());
    const id = begun.headers.get('location').split('/').at(-1);
    for (let from = 0; from < bytes.length; from += PIECE) {
      const answer = await fetch(`${base}/api/uploads/${id}`, {
        method: 'PATCH',
        headers: { ...headers, 'upload-offset': String(from), 'content-type': 'application/offset+octet-stream' },
        body: bytes.subarray(from, from + PIECE),
      });
      if (!answer.ok) throw new Error(await answer.text());
    }
    return id;
  }
  const attach = (cookie, uploadId) => call(`/exchanges/${exchangeId}/draft/files`, 'POST', { uploadId }, cookie);
  const partsOf = async (cookie) => (await call(`/exchanges/${exchangeId}/draft`, 'GET', undefined, cookie)).parts;

  process.stdout.write('\nFiles\n');
  const folder = mkdtempSync(join(tmpdir(), 'salt-circle-bench-'));
  const student = await cookieOf(studentIds[1]);
  const film = letters(50 * MEGA);
  writeFileSync(join(folder, 'film'), film);
  const times = { copy: [], upload: [] };
  for (let turn = 0; turn < 3; turn += 1) {
    let begun = performance.now();
    copyFileSync(join(folder, 'film'), join(folder, `copy-${turn}`));
    times.copy.push(performance.now() - begun);
    begun = performance.now();
    await upload(student, `film-${turn}`, film);
    times.upload.push(performance.now() - begun);
  }
  const [copied, sent] = [median(times.copy), median(times.upload)];
  line('upload of 50 MB / plain copy on the same disk', round(sent / copied), `${round(50_000 / sent, 0)} MB/s here`);

  const book = await pdfOf(300);
  let begun = performance.now();
  const { id: partId } = await attach(student, await upload(student, 'book.pdf', book));
  const taken = performance.now() - begun;
  begun = performance.now();
  for (;;) {
    const part = (await partsOf(student)).find(({ id }) => id === partId);
    if (part.copy.state !== 'waiting') break;
    await new Promise((done) => setTimeout(done, 50));
  }
  const made = performance.now() - begun;
  line(
    '300-page PDF: copy made / uploaded and looked at',
    round(made / taken),
    `${round(made / 300, 1)} ms a page here`,
  );

  const idle = memory(server.pid);
  let peak = idle;
  const watching = setInterval(() => (peak = Math.max(peak, memory(server.pid))), 50);
  const archive = async () => {
    const cookie = await cookieOf(ids.instructorId);
    const response = await fetch(`${base}/api/exchanges/${exchangeId}/archive`, { headers: { cookie } });
    let bytes = 0;
    for await (const chunk of response.body) bytes += chunk.length;
    return bytes;
  };
  const twenty = studentIds.slice(10, 30).map(async (id, index) => upload(await cookieOf(id), `film-${index}`, film));
  await Promise.all([...twenty, archive(), archive()]);
  clearInterval(watching);
  line(
    'memory: 20 students send 50 MB each, 2 take the archive / idle',
    round(peak / idle),
    `${round(peak, 0)} of ${round(idle, 0)} MB; all that was sent is ${(20 * film.length) / MEGA} MB`,
  );
  rmSync(folder, { recursive: true });
  await firstPages({ base, student, exchangeId, upload, attach, partsOf, line, round, median, book });
}

/** From the press to the first page drawn, for a long and a short PDF; and how many pages are drawn at once. */
async function firstPages({ base, student, exchangeId, upload, attach, partsOf, line, round, median }) {
  await attach(student, await upload(student, 'sheet.pdf', await pdfOf(3)));
  for (;;) {
    if ((await partsOf(student)).every(({ copy }) => copy.state !== 'waiting')) break;
    await new Promise((done) => setTimeout(done, 50));
  }
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({
    executablePath: browserPath() ?? undefined,
    args: '--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking'.split(' '),
  });
  const context = await browser.newContext();
  const [name, value] = student.split('=');
  await context.addCookies([{ name, value, url: base }]);
  const page = await context.newPage();
  await page.goto(`${base}/exchanges/${exchangeId}/draft`);
  const times = { 'book.pdf': [], 'sheet.pdf': [] };
  let drawn = 0;
  for (let turn = 0; turn < 4; turn += 1) {
    for (const file of Object.keys(times)) {
      const press = page.getByRole('button', { name: `See ${file} as reviewers do` });
      await press.waitFor();
      const begun = performance.now();
      await press.click();
      await page.locator('[data-page="1"] .pdf-words span').first().waitFor({ state: 'attached' });
      // The first turn also loads the reader itself.
      if (turn > 0) times[file].push(performance.now() - begun);
      if (file === 'book.pdf') {
        const pages = page.locator('[data-scroll="pdf"]');
        for (let step = 0; step < 30; step += 1) {
          await pages.evaluate((box) => box.scrollBy(0, 2_000));
          await page.waitForTimeout(20);
          drawn = Math.max(drawn, await page.locator('[data-page] canvas').count());
        }
      }
      await page.keyboard.press('Escape');
    }
  }
  await browser.close();
  const [book, sheet] = [median(times['book.pdf']), median(times['sheet.pdf'])];
  line('first page of 300 / first page of 3', round(book / sheet), `${round(book, 0)} ms here`);
  line('pages of 300 drawn at once, at the most', drawn);
}
