import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, localTime, moveTime, selectWords, test } from './support/people.js';

/** The whole way of one exchange, from nothing to released feedback, by the interface alone. */

const TITLE = 'Shingle bar survey';
const STUDENTS = ['Amaru Quispe', 'Brigid Nolan', 'Chenoa Reyes', 'Dimitar Petkov'] as const;

async function plan(ines: Page): Promise<void> {
  await ines.getByRole('link', { name: /Field Methods Seminar/ }).click();
  await ines.getByRole('button', { name: 'New exchange…' }).click();
  await ines.getByLabel('Title').fill(TITLE);
  await ines.getByLabel('Review form').selectOption({ label: 'None yet' });
  await ines.getByRole('button', { name: 'Create', exact: true }).click();
  await expect(ines.getByRole('heading', { name: 'Before you publish' })).toBeVisible();
  await expect(ines.getByRole('button', { name: 'Publish…' })).toBeDisabled();

  await ines.getByRole('textbox', { name: 'Brief' }).fill('Describe the bar as you measured it.');
  await ines.getByLabel('Drafts open', { exact: true }).fill(localTime(1, 8));
  await ines.getByLabel('Drafts due').fill(localTime(8, 23));
  // A slip: due before drafts are.
  await ines.getByLabel('Reviews due').fill(localTime(5, 23));
  await expect(ines.getByRole('alert').filter({ hasText: 'must be after “Drafts due”' })).toBeVisible();
  // It keeps nothing else from being saved, and is not lost by leaving without a question.
  await ines.getByRole('textbox', { name: 'Brief' }).press('End');
  await ines.keyboard.type(' Give the numbers.');
  await expect(ines.getByText('One setting is not saved')).toBeVisible();
  await expect(ines.getByText(/^Saved /)).toBeVisible();
  await ines.getByRole('link', { name: /^Drafts/ }).click();
  await ines.getByRole('dialog', { name: 'Leave, with something not saved?' }).getByText('Stay').click();
  await ines.getByLabel('Reviews due').fill(localTime(15, 23));
  await expect(ines.getByText('One setting is not saved')).toBeHidden();
  await ines.getByLabel('Release feedback').fill(localTime(18, 12));
  await expect(ines.getByText(/^Saved /)).toBeVisible();
  await expect(ines.getByText('4 students hand in a typed draft by')).toBeVisible();
  await expect(
    ines.getByText('The form asks for nothing. Add an item, require an overall comment, or ask for notes.'),
  ).toBeVisible();
}

async function buildForm(ines: Page): Promise<void> {
  await ines.getByRole('link', { name: 'Build it' }).click();
  await ines.getByRole('button', { name: /^C Criterion/ }).click();
  const first = ines.getByRole('listitem').filter({ has: ines.getByLabel('Name of level 1') });
  await first.getByLabel('What it asks').fill('Evidence');
  for (const [level, name] of ['claims only', 'some backed', 'all backed'].entries()) {
    await first.getByLabel(`Name of level ${level + 1}`).fill(name);
  }
  // The keyboard's way to add: P, when not typing.
  await ines.getByRole('heading', { name: 'Review form' }).click();
  await ines.keyboard.press('p');
  const prompt = ines.getByRole('listitem').filter({ has: ines.getByText('At least') });
  await prompt.getByLabel('What it asks').fill('What should come first?');
  await prompt.getByLabel('Minimum number of words').fill('6');
  await expect(ines.getByRole('heading', { name: '4 points, 2 items' })).toBeVisible();
  // Moved up and back, removed and brought back: nothing is lost.
  await ines.getByRole('button', { name: 'Move “What should come first?” up' }).click();
  await ines.getByRole('button', { name: 'Move “What should come first?” down' }).click();
  await ines.getByRole('button', { name: 'Remove “Evidence”' }).click();
  await expect(ines.getByRole('heading', { name: 'No points, 1 item' })).toBeVisible();
  await ines.getByRole('button', { name: 'Undo' }).click();
  await expect(ines.getByRole('heading', { name: '4 points, 2 items' })).toBeVisible();
  await expect(ines.getByText(/^Saved /)).toBeVisible();
  await ines.getByRole('link', { name: 'Back to the plan' }).click();
  await expect(
    ines.getByRole('main').getByText('1 criterion and 1 prompt, 4 points, an overall comment if they like').first(),
  ).toBeVisible();
}

async function handIn(page: Page, name: string): Promise<void> {
  await page.reload();
  await page.getByRole('listitem').filter({ hasText: TITLE }).getByRole('link', { name: 'Hand in' }).click();
  await expect(page.getByText('Not handed in yet').last()).toBeVisible();
  await page
    .getByPlaceholder('Title of your draft')
    .fill(`The bar, by number ${STUDENTS.indexOf(name as (typeof STUDENTS)[number])}`);
  const editor = page.getByRole('textbox', { name: 'Your draft', exact: true });
  await editor.click();
  // Typed as far as it takes to see that it can be; the rest as one stroke.
  await page.keyboard.type('The storm ');
  await page.keyboard.insertText('threw a bar across the mouth. Salinity fell from 31 to 9 parts in a thousand. ');
  await page.keyboard.insertText('We would wait three more years before cutting it.');
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.getByRole('button', { name: 'Hand in…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Handed in' })).toContainText('SHA-256');
  await page.getByRole('button', { name: 'Close the receipt' }).click();
  await expect(page.getByText('Handed in, version 1').last()).toBeVisible();
}

async function review(page: Page, number: number): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`Review ${number} of 2: draft by`);
  await selectWords(page, 'Salinity fell from 31 to 9');
  await page.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: /Ask/ }).click();
  await page.keyboard.insertText(`Who read the instrument? (${number})`);
  await page.keyboard.press('Escape');
  // Not everything is there yet: it says what, and jumps there.
  await page.getByRole('button', { name: 'Submit review…' }).click();
  await page
    .getByRole('dialog', { name: 'Not submitted yet' })
    .getByRole('button', { name: '“What should come first?”' })
    .click();
  await expect(page.getByRole('textbox', { name: 'What should come first?' })).toBeFocused();
  await page.keyboard.type('Say how far');
  await expect(page.getByText('3 of 6 words')).toBeVisible();
  await page.keyboard.type(' the bar reaches today.');
  await page.getByRole('radio', { name: /some backed/ }).click();
  await expect(page.getByText('2 of 2 done')).toBeVisible();
  await page.getByRole('button', { name: 'Submit review…' }).click();
  const facts = page.getByRole('dialog', { name: 'Before you submit' });
  // The note is a question, so nothing says yet what to do; that is said, and keeps from nothing.
  await expect(facts.getByText('Notes that tell the author what to change: 0 of 1.', { exact: false })).toBeVisible();
  await expect(facts.getByText('Neither your name nor an address or a student number was found in it.')).toBeVisible();
  await facts.getByRole('button', { name: 'Submit review' }).click();
  await expect(page.getByText('Submitted', { exact: true })).toBeVisible();
}

test('one exchange, from set-up to released feedback', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await plan(ines);
  await buildForm(ines);
  await ines.getByRole('button', { name: 'Publish…' }).click();
  await ines.getByRole('button', { name: 'Publish to 4 students' }).click();
  await expect(ines.getByText('Published.')).toBeVisible();

  await moveTime(ines, 'Go to when drafts open');
  const students: Page[] = [];
  for (const name of STUDENTS) {
    const page = await stepIn(name);
    await handIn(page, name);
    students.push(page);
  }

  await ines.getByRole('link', { name: /^Drafts/ }).click();
  await expect(ines.getByText('4 of 4 handed in').first()).toBeVisible();
  await moveTime(ines, 'Go to when reviewing opens');
  await ines.getByRole('link', { name: /^Allocation/ }).click();
  await ines.getByRole('button', { name: 'Preview an allocation' }).click();
  await expect(ines.getByText('8 of 8')).toBeVisible();
  await expect(ines.getByText('2 for each')).toBeVisible();
  await ines.getByRole('button', { name: 'Apply 8 reviews' }).click();
  await expect(ines.getByText('8 reviews allocated.')).toBeVisible();

  for (const page of students) {
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Review', exact: true })).toHaveCount(2);
    await page.getByRole('link', { name: 'Review', exact: true }).first().click();
    await review(page, 1);
    await page.getByRole('link', { name: 'Next draft' }).click();
    await review(page, 2);
    // No name of a classmate has come up anywhere.
    for (const name of STUDENTS) await expect(page.locator('body')).not.toContainText(name);
  }

  await ines.getByRole('link', { name: /^Reviews/ }).click();
  await expect(ines.getByRole('row', { name: /Amaru Quispe/ })).toContainText('2 of 2');
  await ines
    .getByRole('row', { name: /Amaru Quispe/ })
    .getByRole('link', { name: 'submitted' })
    .first()
    .click();
  await expect(ines.getByRole('heading', { level: 1 })).toContainText('Amaru Quispe on');
  await expect(ines.getByText('Who read the instrument?').first()).toBeVisible();

  await jumpTo(ines, TITLE);
  await ines.getByRole('link', { name: /^Check and release/ }).click();
  await expect(ines.getByRole('button', { name: 'Release now…' })).toBeDisabled();
  await moveTime(ines, 'Go to when reviews are due');
  await ines.getByRole('button', { name: 'Release now…' }).click();
  await ines.getByRole('button', { name: 'Release to the authors' }).click();
  await expect(ines.getByText('Feedback is released.')).toBeVisible();

  for (const page of students) {
    await page.goto('/');
    await page.getByRole('listitem').filter({ hasText: TITLE }).getByRole('link', { name: 'Read' }).click();
    await expect(page.getByText('2 reviewers, 2 notes')).toBeVisible();
    await expect(page.locator('mark.passage').first()).toHaveText('Salinity fell from 31 to 9');
    await expect(page.getByText('Say how far the bar reaches today.')).toHaveCount(2);
    await page.getByRole('tab', { name: 'By criterion' }).click();
    await expect(page.getByRole('tabpanel', { name: 'By criterion' }).getByText('some backed')).toHaveCount(2);
    for (const name of STUDENTS) await expect(page.locator('body')).not.toContainText(name);
  }
  await moveTime(ines, 'Back to the real time');
  expectNoFaults(ines, ...students);
});
