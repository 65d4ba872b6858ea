import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { at, browserPath, built, installed, startServer } from './run.mjs';

// One current picture of each main view, from fresh demo data, for the README.
const PORT = '4612';
const SAMPLES = at('apps', 'server', 'src', 'platform', 'files', 'samples');
const base = `http://localhost:${PORT}`;
const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

await installed();
await built();
const folder = at('.cache', 'screenshots');
rmSync(folder, { recursive: true, force: true });
const server = await startServer({ SALT_CIRCLE_MODE: 'demo', SALT_CIRCLE_DATA: folder, PORT, NODE_ENV: 'development' });
const browser = await chromium.launch({ executablePath: browserPath() ?? undefined, args: FLAGS });

async function as(who, { width = 1280, height = 800 } = {}) {
  const context = await browser.newContext({
    viewport: { width, height },
    colorScheme: 'light',
    reducedMotion: 'reduce',
    timezoneId: 'Europe/Tallinn',
    locale: 'en-GB',
  });
  const page = await context.newPage();
  page.setDefaultTimeout(10_000);
  await page.goto(`${base}/demo`);
  if (who !== null) {
    await page.getByRole('button', { name: new RegExp(`^${who}`) }).click();
    await page.getByRole('heading', { name: 'Today', level: 1 }).waitFor();
  }
  return page;
}

const json = (page, path) => page.evaluate(async (url) => (await fetch(url)).json(), `/api${path}`);

async function exchangeId(page, title) {
  for (const { id } of await json(page, '/courses')) {
    const found = (await json(page, `/courses/${id}`)).exchanges.find((one) => one.title === title);
    if (found) return found.id;
  }
  throw new Error(`no exchange "${title}"`);
}

async function workspace(page, title, stage) {
  await page.goto(`${base}/exchanges/${await exchangeId(page, title)}/${stage}`);
}

async function take(page, name) {
  await page.getByRole('heading').first().waitFor();
  await page.waitForFunction(() => !/Loading /.test(document.body.innerText));
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(400);
  await page.screenshot({ path: at('docs', 'screenshots', `${name}.png`) });
  process.stdout.write(`${name}\n`);
}

/** Somebody with a review under way, and that review. */
async function underWay() {
  const ines = await as('Ines Marchetti');
  const id = await exchangeId(ines, 'Salt-marsh restoration proposal');
  const { rows } = await json(ines, `/exchanges/${id}/progress`);
  const all = rows.flatMap((row) => row.reviews.map((review) => ({ ...review, who: row.person.name })));
  const noted = all.filter(({ notes }) => notes >= 3);
  // Of a draft with pages, a picture and a sound, under way if there is one.
  for (const review of noted.sort((a, b) => Number(b.state === 'in-progress') - Number(a.state === 'in-progress'))) {
    const { draft } = await json(ines, `/reviews/${review.id}`);
    if (draft.parts.length > 1) return { who: review.who, id: review.id };
  }
  throw new Error('nobody reviews a draft of several parts');
}

async function takeAll() {
  const PROPOSAL = 'Salt-marsh restoration proposal';
  const review = await underWay();
  const ines = await as('Ines Marchetti');
  await take(ines, 'today-instructor');
  await ines.getByRole('link', { name: /^Coastal Restoration/ }).click();
  await take(ines, 'course');
  await workspace(ines, 'Creek survey report', 'plan');
  await take(ines, 'plan');
  await workspace(ines, 'Creek survey report', 'plan/form');
  await ines.getByRole('button', { name: 'From the library…' }).click();
  await ines.getByRole('button', { name: 'Use “Plan with figures”' }).click();
  await ines.getByRole('heading', { name: '10 points, 6 items' }).waitFor();
  await take(ines, 'form-builder');
  await workspace(ines, PROPOSAL, 'drafts');
  await take(ines, 'drafts');
  await workspace(ines, PROPOSAL, 'reviews');
  await take(ines, 'reviews');
  await workspace(ines, PROPOSAL, 'check');
  await take(ines, 'check');
  await workspace(ines, 'Monitoring plan', 'allocation');
  await ines.getByRole('button', { name: 'Preview an allocation' }).click();
  await ines.getByText('Preview, not applied').waitFor();
  await ines.getByRole('button', { name: 'Ring' }).click();
  await ines.getByRole('button', { name: 'Goran Ilić' }).focus();
  await take(ines, 'allocation');
  await workspace(ines, 'Site description', 'after');
  await take(ines, 'after');
  await workspace(ines, 'Site description', 'grades');
  const farida = ines.getByRole('row', { name: /^Farida Aziz/ });
  await farida.getByRole('button').last().click();
  await ines.getByRole('region', { name: 'The grade' }).waitFor();
  await take(ines, 'grades');
  await ines.keyboard.press('Escape');
  await farida.getByRole('rowheader').getByRole('link').click();
  await ines.getByRole('navigation', { name: 'Work of this person' }).getByRole('link').nth(1).click();
  await ines.getByRole('region', { name: 'The reviewed draft' }).waitFor();
  await take(ines, 'grading');
  await workspace(ines, 'Site description', 'insights');
  await ines.locator('canvas').first().waitFor();
  await ines.getByRole('heading', { name: /how sure is that/ }).evaluate((heading) => heading.scrollIntoView());
  await take(ines, 'insights');

  const reviewer = await as(review.who);
  await reviewer.goto(`${base}/reviews/${review.id}`);
  await reviewer.locator('mark.passage').first().click();
  await take(reviewer, 'review-desk');
  await reviewer.getByRole('button', { name: /^Figures 1/ }).click();
  await reviewer.locator('[data-place]').first().waitFor();
  await take(reviewer, 'desk-pdf');
  await reviewer.context().close();

  const practising = await as('Dagny Holm');
  await workspace(practising, 'Monitoring plan', 'practice');
  await practising.getByRole('link', { name: 'Compare with your instructor' }).click();
  await practising.getByRole('heading', { name: 'What is there' }).waitFor();
  await take(practising, 'practice');
  await practising.context().close();

  const revising = await as('Adjoa Mensah');
  await workspace(revising, 'Site description', 'revise');
  await revising.locator('ins').first().waitFor();
  await take(revising, 'revise');
  await revising.context().close();

  const author = await as('Noor Haddad');
  await workspace(author, 'Monitoring plan', 'draft');
  await author.getByPlaceholder('Title of your draft').fill('How we would watch the Ostra saltings');
  await author.getByRole('textbox', { name: 'Draft', exact: true }).click();
  await author.keyboard.type(
    'By Noor Haddad. Whether the fences work shows first in the mud, then in the plants. Each equinox we level the trial stretch and an untouched one, on the same marks.',
  );
  await author.getByText(/^Saved /).waitFor();
  const files = author.getByRole('region', { name: 'Readings and sketches' });
  await files
    .getByLabel('Choose files, or drop them here')
    .setInputFiles([join(SAMPLES, 'report.odt'), join(SAMPLES, 'talk.mp4'), join(SAMPLES, 'locked.pdf')]);
  await files.getByText('This PDF is protected').waitFor();
  await author.evaluate(() => window.scrollTo(0, 0));
  await take(author, 'hand-in');
  await workspace(author, 'Site description', 'feedback');
  await take(author, 'feedback');
  await author.context().close();
  const phone = await as('Noor Haddad', { width: 360, height: 720 });
  await workspace(phone, 'Monitoring plan', 'draft');
  await take(phone, 'hand-in-phone');
  await phone.context().close();
}

try {
  await takeAll();
} finally {
  await browser.close();
  server.removeAllListeners('exit');
  server.kill('SIGTERM');
}
