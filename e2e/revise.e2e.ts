import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, selectWords, setTime, test } from './support/people.js';

/** From a half-done reviewing stage to a revision: remarks, a withheld one, answers under aliases, edits adopted and declined. */

const TITLE = 'Sampling question';
const HARSH = 'This reads as if nobody had been there at all.';
const QUESTION = 'Who remembers it, and from which year?';
/** What has been said before does not count towards a minimum. */
const TEXTS = [
  'It begins with a cause and a year, and so I knew at once why all of the rest is told, and could follow every figure to its end.',
  'I would go back once more at high water and describe the same spot again, because now this draft knows one tide only, and neighbours know both.',
];
const DAY = 24 * 3_600_000;

/** Everything that the server answers to this page, for as long as it is used. */
function heardBy(page: Page): string[] {
  const heard: string[] = [];
  page.on('response', (response) => {
    if (response.url().includes('/api/') && !response.url().includes('/api/changes'))
      void response.text().then(
        (text) => heard.push(text),
        () => undefined,
      );
  });
  return heard;
}

const changed = (page: Page) => page.getByRole('region', { name: 'What changed since it was reviewed' }).locator('ins');

async function leaveNote(page: Page, words: string, kind: RegExp, body: string): Promise<void> {
  await selectWords(page, words);
  await page.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: kind }).click();
  await page.keyboard.insertText(body);
  await page.keyboard.press('Escape');
}

async function fillForm(page: Page): Promise<void> {
  for (const group of await page.getByRole('radiogroup').all()) await group.getByRole('radio').nth(1).check();
  const boxes = await page.getByRole('tabpanel', { name: 'Form' }).getByRole('textbox').all();
  for (const [index, box] of boxes.slice(-TEXTS.length).entries()) await box.fill(TEXTS[index] ?? '');
}

test('a class goes from half-done reviews to a revision', async ({ stepIn }) => {
  const dimitar = await stepIn('Dimitar Petkov');
  await setTime(dimitar, new Date(Date.now() - 2 * DAY).toISOString());
  await dimitar.reload();
  await jumpTo(dimitar, TITLE);
  await dimitar.getByRole('link', { name: /^Review/ }).click();
  await dimitar.getByRole('link', { name: 'Begin' }).first().click();
  await expect(dimitar.getByRole('heading', { level: 1 })).toContainText('Review 1 of 2: draft by');
  await leaveNote(dimitar, 'Older people in the village', /Ask/, QUESTION);
  await leaveNote(dimitar, 'How it came about', /Change/, HARSH);
  await leaveNote(dimitar, 'another shore', /Fix/, 'Say which.');
  await dimitar.getByRole('tab', { name: /^Notes/ }).click();
  const fix = dimitar
    .getByRole('tabpanel', { name: /^Notes/ })
    .getByRole('button', { name: /Fix/ })
    .last();
  await fix.click();
  await dimitar.getByRole('button', { name: 'Propose an edit…' }).first().click();
  await dimitar.getByLabel('How it should read').fill('a shore with two more creeks');
  await dimitar.keyboard.press('Escape');
  await dimitar.getByRole('tab', { name: /^Form/ }).click();
  await fillForm(dimitar);
  await dimitar.getByRole('button', { name: /^Submit/ }).click();
  const facts = dimitar.getByRole('dialog', { name: 'Before you submit' });
  await facts.getByRole('button', { name: 'Submit review' }).click();
  await expect(dimitar.getByText('Submitted', { exact: true })).toBeVisible();
  const desk = new URL(dimitar.url()).pathname;

  // An assistant keeps the harsh one from its author, and adds a word of the staff’s own.
  await setTime(dimitar, null);
  const tomasz = await stepIn('Tomasz Wilk');
  await tomasz.goto(desk);
  const author = (await tomasz.getByRole('heading', { level: 1, name: / on / }).innerText()).split(' on ').at(-1) ?? '';
  await tomasz.getByRole('tab', { name: /^Notes/ }).click();
  const beside = tomasz.getByRole('tabpanel', { name: /^Notes/ }).getByRole('listitem');
  const harsh = beside.filter({ hasText: HARSH });
  await harsh.getByRole('button', { name: 'Withhold…' }).click();
  const asked = tomasz.getByRole('dialog', { name: 'Withhold this note' });
  await asked.getByLabel('Reason (kept on record)').fill('It helps nobody.');
  await asked.getByRole('button', { name: 'Withhold it' }).click();
  await expect(harsh.getByText('Hidden from the author: It helps nobody.')).toBeVisible();
  const question = beside.filter({ hasText: QUESTION });
  await question.getByRole('button', { name: 'Answer…' }).click();
  await question.getByLabel('Your answer').fill('Well asked.');
  await question.getByRole('button', { name: 'Send the answer' }).click();
  await expect(question.getByText('Well asked.')).toBeVisible();

  const ines = await stepIn('Ines Marchetti');
  await jumpTo(ines, TITLE);
  await ines.getByRole('link', { name: /^Check and release/ }).click();
  await ines.getByRole('button', { name: 'Release now…' }).click();
  await ines.getByRole('button', { name: 'Release to the authors' }).click();
  await expect(ines.getByText('Feedback is released.')).toBeVisible();

  // Its author reads, answers under an alias, decides, and adopts what was proposed.
  const writer = await stepIn(author);
  const heard = heardBy(writer);
  await jumpTo(writer, TITLE);
  await writer.getByRole('tab', { name: /^Notes/ }).click();
  const received = writer.getByRole('tabpanel', { name: /^Notes/ }).getByRole('listitem');
  const about = received.filter({ hasText: QUESTION });
  await expect(about.getByText('Well asked.')).toBeVisible();
  await about.getByRole('button', { name: 'Answer…' }).click();
  await about.getByLabel('Your answer').fill('The miller, who was born there in 1931.');
  await about.getByRole('button', { name: 'Send the answer' }).click();
  await expect(about.getByText('The miller, who was born there in 1931.')).toBeVisible();
  await about.getByRole('button', { name: 'will not', exact: true }).click();
  await expect(about.getByLabel('Why')).toBeVisible();
  const proposed = received.filter({ hasText: 'a shore with two more creeks' });
  await proposed.getByRole('button', { name: 'Adopt the edit' }).click();
  await expect(proposed.getByText('adopted')).toBeVisible();
  await expect(proposed.getByRole('button', { name: 'will change' })).toHaveAttribute('aria-pressed', 'true');
  // By keys alone: the next one is decided with the focus on it.
  await writer.getByRole('tab', { name: /^To decide/ }).click();
  const open = writer.getByRole('tabpanel', { name: /^To decide/ }).getByRole('listitem');
  const left = await open.count();
  if (left > 0) {
    await open.first().getByRole('button', { name: 'already there' }).focus();
    await writer.keyboard.press('2');
    await expect(writer.getByRole('tab', { name: `To decide ${left - 1}` })).toBeVisible();
  }
  await expect(writer.locator('body')).not.toContainText('Dimitar');

  // The revision: what was adopted is in the text, and more is written.
  await writer.getByRole('link', { name: /^Revise/ }).click();
  await expect(writer.getByRole('heading', { name: /^Plan of changes/ })).toBeVisible();
  await expect(changed(writer).filter({ hasText: 'two more creeks' })).toBeVisible();
  await writer.getByRole('link', { name: 'Write and hand in the revision' }).click();
  await expect(writer.getByText('Revision not handed in yet').last()).toBeVisible();
  await writer.getByRole('textbox', { name: 'Your draft', exact: true }).click();
  await writer.keyboard.press('Control+End');
  await writer.keyboard.insertText(' The miller showed us where they were.');
  await writer.getByRole('button', { name: 'Hand in the revision…' }).click();
  const last = writer.getByRole('dialog');
  await last.getByLabel('What changed, for your instructor').fill('I named the miller.');
  await last.getByRole('button', { name: 'Hand in the revision', exact: true }).click();
  await writer.getByRole('button', { name: 'Close the receipt' }).click();
  await expect(writer.getByText('Revision handed in, version 2').last()).toBeVisible();
  await writer.getByRole('link', { name: /^Revise/ }).click();
  await expect(changed(writer).filter({ hasText: 'The miller showed us' })).toBeVisible();

  // Its reviewer answers back, and sees what became of it; the instructor reads all of it beside each other.
  await dimitar.goto('/inbox');
  await dimitar.getByRole('link', { name: /an answer in a review of yours, “Sampling question”/ }).click();
  await dimitar.getByRole('tab', { name: /^Notes/ }).click();
  const back = dimitar
    .getByRole('tabpanel', { name: /^Notes/ })
    .getByRole('listitem')
    .filter({ hasText: QUESTION });
  await expect(back.getByText('The miller, who was born there in 1931.')).toBeVisible();
  await back.getByRole('button', { name: 'Answer…' }).click();
  await back.getByLabel('Your answer').fill('Then name him in the text.');
  await back.getByRole('button', { name: 'Send the answer' }).click();
  await expect(back.getByText('Then name him in the text.')).toBeVisible();
  await expect(dimitar.locator('body')).not.toContainText(author);

  await jumpTo(ines, TITLE);
  await ines.getByRole('link', { name: /^After/ }).click();
  const row = ines.getByRole('row', { name: new RegExp(author) });
  await expect(row.getByText('handed in', { exact: true })).toBeAttached();
  await row.getByRole('link').click();
  await expect(ines.getByText('I named the miller.')).toBeVisible();
  await expect(changed(ines).filter({ hasText: 'The miller showed us' })).toBeVisible();
  const remark = ines.getByRole('listitem').filter({ hasText: 'a shore with two more creeks' });
  await expect(remark.getByText(/will change, done/)).toBeVisible();
  await expect(remark.getByText('3 words in', { exact: false }).or(remark.getByText('changed'))).not.toHaveCount(0);

  // Whatever the server said to its author, the withheld note was nowhere in it.
  expect(heard.length).toBeGreaterThan(10);
  for (const text of heard) expect(text).not.toContain(HARSH);
  expectNoFaults(dimitar, tomasz, ines, writer);
});
