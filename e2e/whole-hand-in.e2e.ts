import { expect, type Page, type Response } from '@playwright/test';
import { copyOfMonitoringPlan, publish, sample } from './support/exchanges.js';
import { expectNoFaults, jumpTo, moveTime, selectWords, test } from './support/people.js';

const EXCHANGE = 'Every kind of draft';
const FILES = [
  'report.pdf',
  'report.docx',
  'report.odt',
  'picture.jpg',
  'picture.webp',
  'talk.mp4',
  'talk.mp3',
  'talk-sound.webm',
];
const AUTHOR = 'Tereza Nováková';
const REVIEWER = 'Rasa Jonė';

/** Everything that a page is sent, to look for names in it. */
function listen(page: Page): { readonly text: () => Promise<string> } {
  const seen: Array<Promise<string>> = [];
  page.on('response', (response: Response) => {
    // The stream of changes has no end, and no contents: what it says is the server's test.
    if (!response.url().includes('/api/') || response.url().endsWith('/api/changes')) return;
    const read = response.body().then(
      (body) => `${response.url()} ${JSON.stringify(response.headers())} ${body.toString('latin1')}`,
      () => '',
    );
    seen.push(read);
  });
  return { text: async () => (await Promise.all(seen)).join('\n') };
}

/** Somebody else, whose draft makes an allocation possible. */
async function other(page: Page): Promise<void> {
  await jumpTo(page, EXCHANGE);
  await page.getByRole('link', { name: /^Draft/ }).click();
  await page.getByPlaceholder('Title of your draft').fill('Another draft');
  await page.getByRole('textbox', { name: 'Draft', exact: true }).click();
  await page.keyboard.type('The other gauge is read every month.');
  await page.getByRole('button', { name: 'Hand in…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByRole('button', { name: 'Close the receipt' }).click();
}

async function writeAndAdd(page: Page): Promise<void> {
  await page.getByPlaceholder('Title of your draft').fill('How we would read the gauge');
  await page.getByPlaceholder(/A few words for your reviewers/).fill('I am not sure of the intervals.');
  const editor = page.getByRole('textbox', { name: 'Draft', exact: true });
  await editor.click();
  await page.keyboard.type('By Tereza Nováková. The gauge is read every week.');
  await page.getByLabel('Add a picture').setInputFiles(sample('picture.png'));
  await expect(editor.getByRole('img')).toBeVisible();
  await page.keyboard.press('ArrowRight');

  const files = page.getByRole('region', { name: 'Readings and sketches' });
  const choose = files.getByLabel('Choose files, or drop them here');
  await choose.setInputFiles(FILES.map(sample));
  for (const name of FILES) await expect(files.getByRole('link', { name })).toBeVisible();
  await choose.setInputFiles({
    name: 'notes.md',
    mimeType: 'text/markdown',
    buffer: Buffer.from('# Notes\n\nRead *at low water*.'),
  });
  await expect(files.getByRole('link', { name: 'notes.md' })).toBeVisible();
  // What cannot be read is refused with the reason, and the rest stays.
  await choose.setInputFiles(sample('locked.pdf'));
  await expect(files.getByText('This PDF is protected by a password, so nobody could read it.')).toBeVisible();
  await files.getByRole('button', { name: 'Put aside' }).click();
  await expect(files.getByRole('button', { name: /^Remove/ })).toHaveCount(FILES.length + 1);

  const talk = page.getByRole('region', { name: 'Two minutes at the site' });
  await talk.getByRole('button', { name: 'Record sound' }).click();
  await expect(talk.getByText(/^Recording 0:0[2-9]/)).toBeVisible();
  await talk.getByRole('button', { name: 'Stop' }).click();
  await expect(talk.getByText('This recording is only in this browser so far.')).toBeVisible();
  // A closed tab does not lose it.
  await page.reload();
  await expect(talk.getByText('This recording is only in this browser so far.')).toBeVisible();
  await talk.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(talk.getByRole('link', { name: 'Two minutes at the site.webm' })).toBeVisible();

  const map = page.getByRole('region', { name: 'Map', exact: true });
  await map.getByRole('button', { name: 'Add a link' }).click();
  await map.getByLabel('Address').fill('javascript:alert(1)');
  await map.getByLabel('What it is').fill('Map of the basin');
  await map.getByRole('button', { name: 'Add the link' }).click();
  await expect(map.getByText('An address begins with https:// or http://')).toBeVisible();
  await map.getByLabel('Address').fill('https://maps.example.org/basin');
  await map.getByRole('button', { name: 'Add the link' }).click();
  await expect(map.getByRole('link', { name: 'Map of the basin' })).toBeVisible();
}

async function handIn(page: Page): Promise<void> {
  await expect(page.getByText('Not handed in yet').last()).toBeVisible();
  await page.getByRole('button', { name: 'Hand in…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Hand in this draft?' });
  await expect(dialog.getByText('One place may tell reviewers who you are')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Hand in', exact: true })).toBeDisabled();
  await dialog.getByRole('button', { name: 'Hide Tereza Nováková' }).click();
  await expect(dialog.getByText('By [hidden]. The gauge is read every week.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Hand in', exact: true }).click();
  const receipt = page.getByRole('dialog', { name: 'Handed in' });
  await expect(receipt).toContainText('Readings and sketches: report.pdf');
  await receipt.getByRole('button', { name: 'Close the receipt' }).click();
  await expect(page.getByText('Handed in, version 1').last()).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Draft', exact: true })).toContainText('By [hidden]. The gauge');
}

/** Opens each part on the review desk, and looks that it is really there. */
async function readEach(page: Page): Promise<void> {
  const parts = page.getByRole('group', { name: 'Parts of this draft' });
  await expect(page.getByText('I am not sure of the intervals.')).toBeVisible();
  await expect(page.getByRole('document', { name: /^Draft/ })).toContainText('By [hidden]. The gauge');
  await expect
    .poll(() =>
      page
        .getByRole('document', { name: /^Draft/ })
        .locator('img')
        .evaluate((img: HTMLImageElement) => img.naturalWidth),
    )
    .toBe(64);
  const open = (number: number) =>
    parts.getByRole('button', { name: new RegExp(`^Readings and sketches ${number}\\b`) }).click();
  await open(1);
  await expect(page.getByText('page 1 of 1')).toBeVisible();
  await expect(page.locator('.pdf-words')).toContainText('The eastern basin');
  await page.getByRole('searchbox', { name: /^Find in/ }).fill('centimetres');
  await page.keyboard.press('Enter');
  await expect(page.getByText('on page 1')).toBeVisible();
  await expect(page.locator('.pdf-words .found').first()).toContainText('centimetres');
  for (const number of [2, 3]) {
    await open(number);
    await expect(page.getByRole('heading', { name: 'The eastern basin' })).toBeVisible();
    await expect(page.getByText('Read from the gauge at the sluice.')).toBeVisible();
  }
  for (const number of [4, 5]) {
    await open(number);
    await page.getByRole('button', { name: 'Larger' }).click();
    await expect.poll(() => page.getByRole('img').evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(64);
  }
  for (const [number, kind] of [
    [6, 'video'],
    [7, 'audio'],
    [8, 'audio'],
  ] as const) {
    await open(number);
    await expect.poll(() => page.locator(kind).evaluate((media: HTMLMediaElement) => media.duration > 1)).toBe(true);
    await page.getByRole('button', { name: '1.5×' }).click();
    expect(await page.locator(kind).evaluate((media: HTMLMediaElement) => media.playbackRate)).toBe(1.5);
  }
  await open(9);
  await expect(page.getByRole('heading', { name: 'Notes' })).toBeVisible();
  await parts.getByRole('button', { name: /^Two minutes/ }).click();
  await expect(page.locator('audio')).toBeVisible();
  await parts.getByRole('button', { name: /^Map of the basin/ }).click();
  const link = page.getByRole('link', { name: 'Map of the basin' });
  expect([await link.getAttribute('target'), await link.getAttribute('rel')]).toEqual([
    '_blank',
    'noopener noreferrer',
  ]);
}

/** Notes on the typed text and on two documents: each is counted at its part, and listed in the order of the parts. */
async function noteEachText(page: Page): Promise<void> {
  const parts = page.getByRole('group', { name: 'Parts of this draft' });
  const leave = async (part: RegExp, words: string, body: string) => {
    await parts.getByRole('button', { name: part }).click();
    await expect(page.getByRole('document', { name: /^Draft/ })).toContainText(words);
    await selectWords(page, words);
    await page.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: /Ask/ }).click();
    await page.keyboard.type(body);
    await page.keyboard.press('Escape');
    await expect(page.getByText(/^Saved /)).toBeVisible();
  };
  await leave(/^Readings and sketches 3\b/, 'Read from the gauge', 'Which gauge, in the second?');
  await leave(/^Readings and sketches 2\b/, 'The eastern basin', 'Why this basin?');
  await leave(/^Draft/, 'read every week', 'Also in winter?');
  for (const part of [/^Draft/, /^Readings and sketches 2\b/, /^Readings and sketches 3\b/])
    await expect(parts.getByRole('button', { name: part })).toContainText('1 note');
  await expect(parts.getByRole('button', { name: /^Readings and sketches 1\b/ })).not.toContainText('note');
  await page.reload();
  await page.getByRole('tab', { name: /^Notes/ }).click();
  const listed = page.getByRole('tabpanel').getByText(/^(Also in winter|Why this basin|Which gauge)/);
  await expect(listed).toHaveText(['Also in winter?', 'Why this basin?', 'Which gauge, in the second?']);
  // Pressed in the list, a note leads to its part.
  await listed.nth(1).click();
  await expect(page.getByRole('document', { name: /^Draft/ })).toContainText('The eastern basin');
  await expect(page.locator('mark.passage').first()).toHaveText('The eastern basin');
}

test('every kind of thing is handed in, and read by a reviewer who does not learn whose it is', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await publish(ines, await copyOfMonitoringPlan(ines, EXCHANGE));
  const author = await stepIn(AUTHOR, { permissions: ['microphone'] });
  await jumpTo(author, EXCHANGE);
  await author.getByRole('link', { name: /^Draft/ }).click();
  await writeAndAdd(author);
  await handIn(author);

  const page = await stepIn(REVIEWER);
  await other(page);
  await jumpTo(ines, EXCHANGE);
  await ines.getByRole('link', { name: /^Drafts/ }).click();
  await expect(ines.getByRole('row', { name: new RegExp(AUTHOR) })).toContainText('version 1');
  await moveTime(ines, 'Go to when reviewing opens');
  await ines.getByRole('link', { name: /^Allocation/ }).click();
  await ines.getByRole('button', { name: 'Preview an allocation' }).click();
  await ines.getByRole('button', { name: /^Apply \d+ reviews/ }).click();
  await expect(ines.getByText(/\d+ reviews allocated\./)).toBeVisible();
  const told = listen(page);
  await page.goto('/');
  await jumpTo(page, EXCHANGE);
  await page
    .getByRole('link', { name: /^Review/ })
    .first()
    .click();
  await page
    .getByRole('main')
    .getByRole('listitem')
    .filter({ hasText: 'How we would read the gauge' })
    .getByRole('link', { name: /Begin|Review|Continue/ })
    .click();
  await readEach(page);
  await noteEachText(page);
  const all = await told.text();
  expect(all).toContain('The gauge is read every week');
  expect(all).not.toMatch(/Tereza|Nov\u00c3\u00a1kov|novakov/i);
  expectNoFaults(author, ines, page);
});
