import { expect, type Locator, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, test } from './support/people.js';

/** Grading the reviewing and the drafts, by keyboard; an override, other weights, the release, and what a student reads. */

const GRADED = 'Site description';

async function toGrades(page: Page): Promise<void> {
  await jumpTo(page, GRADED);
  await page.getByRole('link', { name: /^Grades/ }).click();
  await expect(page.getByRole('table', { name: 'Grades' })).toBeVisible();
}

const sheet = (page: Page) => page.getByRole('dialog').first();

/** A radio of a group, by its place, with the keyboard. */
async function chooseLevel(page: Page, group: Locator, at: number): Promise<void> {
  const radio = group.getByRole('radio').nth(at);
  await radio.focus();
  await page.keyboard.press('Space');
  await expect(radio).toBeChecked();
}

test('drafts and reviewing of six people are graded by keys, and a grade is overridden, weighed anew and released', async ({
  stepIn,
}) => {
  const ines = await stepIn('Ines Marchetti');
  await toGrades(ines);
  const board = ines.getByRole('table', { name: 'Grades' });
  await ines.getByRole('button', { name: /^Reviewing not marked/ }).press('Enter');
  await board.getByRole('rowheader').first().getByRole('link').press('Enter');
  const marks = ines.getByRole('complementary', { name: 'Marks and grade' });
  await ines.getByLabel('Order').selectOption('incomplete first');
  await ines.getByRole('link', { name: 'All grades' }).focus();
  const names: string[] = [];
  for (let person = 0; person < 6; person += 1) {
    names.push(await ines.getByRole('heading', { level: 2 }).first().innerText());
    // The draft, which stands beside, by the form of the exchange: what peers say is taken over.
    const draft = marks.getByRole('region', { name: 'The draft' });
    await draft.getByRole('button', { name: 'Mark the draft' }).press('Enter');
    const items = draft.getByRole('radiogroup');
    await expect(items).toHaveCount(2);
    await draft.getByText('Other reviews').first().press('Enter');
    await draft.getByRole('button', { name: 'Take over' }).first().press('Enter');
    await expect(items.first().getByRole('radio', { checked: true })).toHaveCount(1);
    await chooseLevel(ines, items.nth(1), 1);
    await draft.getByRole('button', { name: 'Submit the marks' }).press('Enter');
    await expect(draft.getByText('Submitted: it counts')).toBeVisible();
    // The reviewing, each review on its draft.
    await ines.getByRole('navigation', { name: 'Work of this person' }).getByRole('link').nth(1).press('Enter');
    await expect(ines.getByRole('region', { name: 'The reviewed draft' })).toBeVisible();
    const reviewing = marks.getByRole('region', { name: 'Reviewing' });
    const levels = reviewing.getByRole('radiogroup');
    await expect(levels).toHaveCount(3);
    for (let item = 0; item < 3; item += 1) await chooseLevel(ines, levels.nth(item), 2);
    await expect(reviewing.getByText(/^Saved/)).toBeVisible();
    await expect(reviewing.getByText(/Last marked by Ines Marchetti/)).toBeVisible();
    await expect(marks.getByText(/Reviewing: graded by Ines Marchetti/)).toBeVisible();
    // On something that is chosen, letters are keys as anywhere.
    await ines.keyboard.press('n');
    await expect(ines.getByRole('heading', { level: 2 }).first()).not.toContainText(names.at(-1)?.split('\n')[0] ?? '');
  }
  expect(new Set(names).size).toBe(6);

  await ines.getByRole('link', { name: 'All grades' }).press('Enter');
  await board.getByRole('row').nth(1).getByRole('button').last().press('Enter');
  const given = sheet(ines).getByRole('region', { name: 'The grade' });
  await given.getByRole('button', { name: 'Override final grade' }).press('Enter');
  await given.getByLabel(/^Percent/).fill('92');
  await expect(given.getByRole('button', { name: 'Save override' })).toBeDisabled();
  await given.getByLabel('Why').fill('Ninety by a peer; the second map is worth the rest.');
  await given.getByRole('button', { name: 'Save override' }).press('Enter');
  await expect(given.getByText('Overridden to 92%', { exact: false })).toBeVisible();
  const who = (await sheet(ines).getByRole('heading', { level: 2 }).innerText()).split('\n')[0] ?? '';
  await ines.keyboard.press('Escape');

  await ines.getByRole('button', { name: 'Weights and rules…' }).click();
  const rules = ines.getByRole('dialog', { name: 'Weights and rules' });
  await rules.getByLabel('Weight of reviews done').fill('40');
  await expect(rules.getByRole('button', { name: 'Save' })).toBeDisabled();
  await rules.getByRole('button', { name: 'Preview changes' }).click();
  await expect(rules.getByText(/grades? will change\.$/)).toBeVisible();
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules).toBeHidden();

  await ines.getByRole('button', { name: 'Release…' }).click();
  const release = ines.getByRole('dialog', { name: 'Release grades' });
  await release.getByRole('button', { name: 'Release' }).click();
  await expect(release).toBeHidden();
  await expect(ines.getByText('Released to 24 of 24')).toBeVisible();
  expectNoFaults(ines);

  const name = who.replace(/ \S+$/, '');
  const student = await stepIn(await fullName(ines, name));
  await jumpTo(student, GRADED);
  await student.getByRole('link', { name: /^Grade/ }).click();
  await expect(student.getByText('92%', { exact: true })).toBeVisible();
  await expect(student.getByText('the second map is worth the rest', { exact: false })).toBeVisible();
  await expect(student.getByText(/÷ \d+ = .* percent/)).toBeVisible();
  expectNoFaults(student);
});

/** As the board has it: the heading of the sheet has the alias behind the name. */
async function fullName(page: Page, begins: string): Promise<string> {
  const row = page.getByRole('row', { name: new RegExp(`^${begins}`) }).first();
  return row.getByRole('rowheader').innerText();
}
