import { readFileSync } from 'node:fs';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import type { DeskView, ExchangeView, HandInCheck, JobView, MyDraftView, ReviewCard } from '@salt-circle/contracts';
import type { FormItem } from '@salt-circle/core';
import { copyOfMonitoringPlan, publish, sample } from './support/exchanges.js';
import { expectNoFaults, FROM_A_PAGE, jumpTo, moveTime, selectWords, test } from './support/people.js';

/** The review desk: a draft of words, pages and a film, with notes left by mouse, by keys, and without a connection. */

const EXCHANGE = 'A draft of three parts';
const AUTHOR = 'Farida Aziz';
const REVIEWER = 'Chiara Fonti';
const TEXT =
  'The gauge at the sluice is read on Mondays. Spring tides fall on other days as well. Who reads it in August is not settled.';
/** Stands in the samples that a word processor has marked. */
const MARKED_TEXT = 'Geese have grazed the islands bare since 2009.';

async function ask<T>(request: APIRequestContext, method: string, path: string, data?: object): Promise<T> {
  const answer = await request.fetch(`/api${path}`, { method, headers: FROM_A_PAGE, ...(data && { data }) });
  expect([path, answer.status() < 300]).toEqual([path, true]);
  return (await answer.text().then((text) => (text === '' ? null : JSON.parse(text)))) as T;
}

/** A file, sent by the protocol of uploads as the page does it. */
async function attach(request: APIRequestContext, exchange: string, deliverable: string, name: string): Promise<void> {
  const bytes = readFileSync(sample(name));
  const named = { exchange, deliverable, name, use: 'part' };
  const base64 = (text: string) => Buffer.from(text).toString('base64');
  const begun = await request.post('/api/uploads', {
    headers: {
      ...FROM_A_PAGE,
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes.length),
      'upload-metadata': Object.entries(named)
        .map(([key, value]) => `${key} ${base64(value)}`)
        .join(','),
    },
  });
  const where = begun.headers()['location'] ?? '';
  await request.patch(where, {
    headers: {
      ...FROM_A_PAGE,
      'tus-resumable': '1.0.0',
      'content-type': 'application/offset+octet-stream',
      'upload-offset': '0',
    },
    data: bytes,
  });
  await ask(request, 'POST', `/exchanges/${exchange}/draft/files`, { uploadId: where.split('/').at(-1) });
}

async function handIn(
  request: APIRequestContext,
  id: string,
  files: readonly (readonly [string, string])[],
): Promise<void> {
  const draft = await ask<MyDraftView>(request, 'GET', `/exchanges/${id}/draft`);
  const { deliverables } = await ask<ExchangeView>(request, 'GET', `/exchanges/${id}`);
  const of = (kind: string) => deliverables.find((one) => one.kind === kind)?.id ?? '';
  const text = of('text');
  await ask(request, 'PUT', `/exchanges/${id}/draft`, { revision: draft.revision, title: 'The gauge', context: '' });
  await ask(request, 'PUT', `/exchanges/${id}/draft/texts/${text}`, {
    revision: draft.texts[text]?.revision ?? 0,
    html: `<p>${TEXT}</p><p>${MARKED_TEXT}</p>`,
  });
  for (const [kind, name] of files) await attach(request, id, of(kind), name);
  const { fingerprint } = await ask<HandInCheck>(request, 'GET', `/exchanges/${id}/draft/check`);
  await ask(request, 'POST', `/exchanges/${id}/draft/hand-in`, { fingerprint, namesSeen: true });
}

/** Both have handed in and review each other; reviewing is open. @returns the review that is played */
async function prepared(
  ines: Page,
  author: Page,
  reviewer: Page,
  title = EXCHANGE,
): Promise<{ id: string; reviewId: string }> {
  const id = await copyOfMonitoringPlan(ines, title);
  await publish(ines, id);
  await handIn(author.context().request, id, [
    ['file', 'report.pdf'],
    ['recording', 'talk.mp4'],
  ]);
  await handIn(reviewer.context().request, id, []);
  await jumpTo(ines, title);
  await moveTime(ines, 'Go to when reviewing opens');
  const request = ines.context().request;
  const at = `/exchanges/${id}/allocation`;
  let job = await ask<JobView>(request, 'POST', `${at}/previews`, { kind: 'new', seed: 1, wishes: null });
  while (job.state === 'running') job = await ask<JobView>(request, 'GET', `${at}/jobs/${job.id}`);
  await ask(request, 'POST', at, { previewId: job.preview?.id });
  const [review] = await ask<ReviewCard[]>(reviewer.context().request, 'GET', `/exchanges/${id}/reviews`);
  return { id, reviewId: review?.id ?? '' };
}

const parts = (page: Page) => page.getByRole('group', { name: 'Parts of this draft' });
const open = (page: Page, name: RegExp) => parts(page).getByRole('button', { name }).click();
const SHEETS = /^Readings and sketches/;
const TALK = /^Two minutes/;

/** The note that has just been opened gets its words. */
async function say(page: Page, words: string): Promise<void> {
  await expect(page.getByRole('textbox', { name: /^(Keep|Change|Ask|Fix) note$/ }).first()).toBeFocused();
  await page.keyboard.insertText(words);
  await page.keyboard.press('Escape');
}

async function byMouse(page: Page): Promise<void> {
  await selectWords(page, 'read on Mondays');
  await page
    .getByRole('toolbar', { name: 'Leave a note' })
    .getByRole('button', { name: /^Change/ })
    .click();
  // A file goes with the note: the author will open it here, under another name.
  await page.getByRole('textbox', { name: 'Change note' }).first().fill('As in this report.');
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.getByRole('button', { name: 'Attach or record…' }).first().click();
  await page.getByLabel('Attach files, or drop them here').first().setInputFiles(sample('picture.png'));
  await expect(page.getByRole('button', { name: 'Open picture.png' }).first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Change note' }).first().fill('');
  await page.getByRole('button', { name: 'Propose an edit…' }).first().click();
  await page.getByLabel('How it should read').first().fill('read at each spring tide');
  await page.getByRole('textbox', { name: 'Change note' }).first().click();
  await say(page, 'So that none is missed.');
  await expect(page.locator('ins.proposed')).toHaveAttribute('data-text', 'read at each spring tide');
  await expect(page.getByText('1 edit is proposed.')).toBeVisible();

  await open(page, SHEETS);
  const run = page.locator('.pdf-words span', { hasText: 'Survey the bank' }).first();
  await run.dblclick({ position: { x: 8, y: 6 } });
  await page.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: /^Ask/ }).click();
  await say(page, 'With which instrument?');
  await page.getByRole('button', { name: 'Mark a region' }).click();
  const sheet = page.getByRole('application', { name: /^Mark a region on page 1/ });
  const box = (await sheet.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.1);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.2, { steps: 4 });
  await page.mouse.up();
  await page
    .getByRole('toolbar', { name: /marked region/ })
    .getByRole('button', { name: /^Keep/ })
    .click();
  await say(page, 'Clear at a glance.');
  await expect(parts(page).getByRole('button', { name: SHEETS })).toContainText('2 notes');

  await open(page, TALK);
  const film = page.locator('video');
  await expect.poll(() => film.evaluate((media: HTMLVideoElement) => media.readyState)).toBeGreaterThan(0);
  await film.evaluate((media: HTMLVideoElement) => void (media.currentTime = 0.2));
  await page.getByRole('group', { name: 'Note on this moment' }).getByRole('button', { name: /^Ask/ }).click();
  await say(page, 'What is this noise?');
  await page.getByRole('button', { name: /^Ask note at/ }).click();
  await film.evaluate((media: HTMLVideoElement) => void (media.currentTime = 0.8));
  await page.getByRole('button', { name: /^End the chosen note’s span/ }).click();
  await expect(page.getByRole('button', { name: /^Ask note from 0:00 to 0:01/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'What the note is on' }).selectOption('the whole draft');
  await page.getByRole('group', { name: 'Note on a whole' }).getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('region', { name: 'On the whole draft' })).toBeVisible();
  await say(page, 'One question, well put.');
}

async function byKeys(page: Page): Promise<void> {
  const focusOn = (name: RegExp) => parts(page).getByRole('button', { name }).focus();
  await focusOn(/^Draft/);
  await page.keyboard.press('Enter');
  await page.getByRole('document', { name: /^Draft/ }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('1');
  await say(page, 'A fact that decides it.');

  await focusOn(SHEETS);
  await page.keyboard.press('Enter');
  await expect(page.locator('.pdf-words')).toContainText('The eastern basin');
  await page.getByRole('button', { name: 'Mark a region' }).focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('application', { name: /^Mark a region on page 1/ });
  await expect(sheet).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(sheet).toHaveAccessibleName(/begins 30 percent from the left and 32 from the top, is 27 wide/);
  await page.keyboard.press('4');
  await say(page, 'This column has no unit.');

  await focusOn(TALK);
  await page.keyboard.press('Enter');
  const time = page.getByRole('slider', { name: /^Time\./ });
  await time.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('2');
  await say(page, 'Begin with the gauge, not with the road.');
  await expect(parts(page).getByRole('button', { name: TALK })).toContainText('2 notes');
}

/** Whatever an item asks, answered. */
function answerTo(item: FormItem): object {
  const text = `Of “${item.title}” I would say who reads the gauge in August, what it is compared with, and when you stop reading it.`;
  switch (item.kind) {
    case 'criterion':
      return { levelId: item.levels[0]?.id, text };
    case 'range':
      return { value: item.bands[0]?.from, text };
    case 'checklist':
      return { checks: Object.fromEntries(item.entries.map(({ id }) => [id, 'no'])), text };
    case 'choice':
      return { choices: [item.options[0]?.id], text };
    case 'number':
      return { value: item.minimum ?? 1 };
    case 'pair':
      return { text, next: `${text} Begin with the first of these, which is missed most in every summer month.` };
    case 'prompt':
      return { text };
  }
}

test('a draft of three parts: notes by mouse, by keys and without a connection, all read in their places', async ({
  stepIn,
}) => {
  const ines = await stepIn('Ines Marchetti');
  const author = await stepIn(AUTHOR);
  const page = await stepIn(REVIEWER, { serviceWorkers: 'allow' });
  const { id, reviewId } = await prepared(ines, author, page);
  await page.goto(`/reviews/${reviewId}`);
  await expect(page.getByRole('document', { name: /^Draft/ })).toContainText('read on Mondays');
  await byMouse(page);
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Notes 5' })).toBeVisible();

  // What is opened is kept: without a connection the page can be loaded anew, with all its parts.
  await expect(page.getByRole('button', { name: 'Available offline' })).toBeVisible();
  await page.context().setOffline(true);
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Notes 5' })).toBeVisible();
  await byKeys(page);
  await expect(page.getByText('No connection: kept in this browser').first()).toBeVisible();
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Notes 8' })).toBeVisible();
  await page.getByRole('button', { name: 'Available offline' }).click();
  await expect(page.getByText('3 changes wait to be sent.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.context().setOffline(false);
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Notes 8' })).toBeVisible();

  const { form, notes } = await ask<DeskView>(page.context().request, 'GET', `/reviews/${reviewId}`);
  expect(notes).toHaveLength(8);
  for (const item of form.items)
    await ask(page.context().request, 'PUT', `/reviews/${reviewId}/answers/${item.id}`, {
      revision: 0,
      ...answerTo(item),
    });
  await page.reload();
  await page.getByRole('button', { name: 'Submit review…' }).click();
  await page.getByRole('dialog', { name: 'Before you submit' }).getByRole('button', { name: 'Submit review' }).click();
  await expect(page.getByText('Submitted', { exact: true })).toBeVisible();

  await jumpTo(ines, EXCHANGE);
  await moveTime(ines, 'Go to when feedback is released');
  await author.goto(`/exchanges/${id}/feedback`);
  await expect(author.getByText('1 reviewer, 8 notes')).toBeVisible();
  await expect(author.getByRole('region', { name: 'On the whole draft' })).toContainText('One question, well put.');
  await expect(author.locator('ins.proposed')).toHaveAttribute('data-text', 'read at each spring tide');
  await author.getByRole('button', { name: 'Open Attachment 1.png' }).first().click();
  await expect(author.getByRole('dialog').getByRole('img', { name: 'Attachment 1.png' })).toBeVisible();
  await author.keyboard.press('Escape');
  await author.getByRole('button', { name: 'as written' }).click();
  await expect(author.locator('ins.proposed')).toBeHidden();
  await open(author, SHEETS);
  for (const kind of ['Ask', 'Keep', 'Fix'])
    await expect(author.getByRole('button', { name: `${kind} note, on page 1` })).toBeVisible();
  await author.getByRole('button', { name: 'Fix note, on page 1' }).press('Enter');
  await expect(author.getByRole('complementary', { name: 'Notes beside your draft' })).toContainText(
    'This column has no unit.',
  );
  await open(author, TALK);
  await author.getByRole('button', { name: /^Ask note from 0:00 to 0:01/ }).click();
  await expect
    .poll(() => author.locator('video').evaluate((media: HTMLVideoElement) => media.currentTime))
    .toBeGreaterThan(0.1);
  expectNoFaults(author, ines, page);
});

test('the draft in a second window follows the desk, and what is written there shows here', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  const author = await stepIn('Hana Sato');
  const page = await stepIn('Sunil Rao');
  const { reviewId } = await prepared(ines, author, page, 'A draft in two windows');
  await page.goto(`/reviews/${reviewId}`);
  const [second] = await Promise.all([
    page.context().waitForEvent('page'),
    page.getByRole('button', { name: 'Open draft in a new window' }).click(),
  ]);
  await expect(second.getByRole('document', { name: /^Draft/ })).toContainText('read on Mondays');
  await expect(second.getByRole('heading', { name: 'Missing' })).toHaveCount(0);
  await selectWords(second, 'read on Mondays');
  await second.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: /^Ask/ }).click();
  await second.keyboard.insertText('Also in winter?');
  await second.keyboard.press('Escape');
  // By the server, as between any two tabs; and chosen there, it is chosen here.
  await page.getByRole('tab', { name: 'Notes 1' }).click();
  const here = page.getByRole('tabpanel', { name: 'Notes 1' });
  await expect(here.getByRole('textbox', { name: 'Ask note' })).toHaveValue('Also in winter?');
  await here.getByRole('textbox', { name: 'Ask note' }).press('Escape');
  await open(second, SHEETS);
  await expect(second.getByText('page 1 of 1')).toBeVisible();
  await here.getByText('Also in winter?').click();
  await expect(second.getByRole('document', { name: /^Draft/ })).toContainText('read on Mondays');
  expectNoFaults(page, ines, author);
});

test('a draft is taken along, marked in other programs, and comes back as notes', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  const author = await stepIn('Dagny Holm');
  const page = await stepIn('Goran Ilić');
  const { reviewId } = await prepared(ines, author, page, 'A draft that is taken along');
  await page.goto(`/reviews/${reviewId}`);
  await page.getByRole('button', { name: 'Download…' }).click();
  const [document] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^Text with comments/ }).click(),
  ]);
  expect(document.suggestedFilename()).toBe('The gauge.docx');

  const bring = async (name: string) => {
    await page.getByRole('button', { name: 'Download…' }).click();
    await page.getByRole('menuitem', { name: 'Import annotated file…' }).click();
    await page.getByLabel('Choose the file, or drop it here').setInputFiles(sample(name));
  };
  // As LibreOffice Writer saved it, with comments and tracked changes.
  await bring('marked.docx');
  const dialog = page.getByRole('dialog', { name: 'Import annotated file' });
  await expect(dialog.getByText('5 notes are in this file.')).toBeVisible();
  await expect(dialog.getByRole('region', { name: 'Not brought in' })).toContainText('First the grass');
  await dialog.getByRole('combobox', { name: 'Kind of the note on “2009.”' }).selectOption('Ask');
  await dialog.getByRole('checkbox', { name: 'Add the note on “islands bare”' }).press('Space');
  await dialog.getByRole('button', { name: 'Add 4 notes' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('tab', { name: 'Notes 4' })).toBeVisible();
  await expect(page.getByText('Who counted them?').first()).toBeVisible();
  await expect(page.locator('ins.proposed')).toHaveCount(2);

  // As poppler saved it, with highlights, a strike-out, a box and a remark; then once more.
  await bring('marked.pdf');
  await dialog.getByRole('button', { name: 'Add 5 notes' }).click();
  await expect(page.getByRole('tab', { name: 'Notes 9' })).toBeVisible();
  await bring('marked.pdf');
  await expect(dialog.getByText('There is nothing new in this file. 5 more are in this review already.')).toBeVisible();
  await page.keyboard.press('Escape');
  await open(page, SHEETS);
  await expect(page.getByRole('button', { name: /^Ask note/ }).first()).toBeVisible();
  await bring('picture.png');
  await expect(dialog.getByText('This is neither a Word document (.docx) nor a PDF.')).toBeVisible();
  expectNoFaults(page, ines, author);
});
