import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, test } from './support/people.js';

/** Grading the reviewing and the drafts, by keyboard; an override, other weights, the release, and what a student reads. */

const GRADED = 'Site description';

async function toGrades(page: Page): Promise<void> {
  await jumpTo(page, GRADED);
  await page.getByRole('link', { name: /^Grades/ }).click();
  await expect(page.getByRole('table', { name: 'Grades' })).toBeVisible();
}

const sheet = (page: Page) => page.getByRole('dialog').first();

test('reviewing of six people is marked by keys, and a grade is overridden, weighed anew and released', async ({
  stepIn,
}) => {
  const ines = await stepIn('Ines Marchetti');
  await toGrades(ines);
  await ines.getByRole('button', { name: /^Reviewing not marked/ }).press('Enter');
  const unmarked = Number(
    (await ines.getByRole('button', { name: /^Reviewing not marked/ }).innerText()).replace(/\D/g, ''),
  );
  expect(unmarked).toBeGreaterThan(6);
  await ines.getByRole('table', { name: 'Grades' }).getByRole('row').nth(1).getByRole('button').first().press('Enter');
  const reviewing = sheet(ines).getByRole('region', { name: 'Reviewing' });
  const names: string[] = [];
  for (let person = 0; person < 6; person += 1) {
    names.push(await sheet(ines).getByRole('heading', { level: 2 }).innerText());
    const levels = reviewing.getByRole('radiogroup');
    await expect(levels).toHaveCount(3);
    for (let item = 0; item < 3; item += 1) {
      const radio = levels.nth(item).getByRole('radio').nth(2);
      await radio.focus();
      await ines.keyboard.press('Space');
      await expect(radio).toBeChecked();
    }
    await expect(reviewing.getByText(/^Saved/)).toBeVisible();
    await expect(reviewing.getByText(/Last marked by Ines Marchetti/)).toBeVisible();
    // Out of the fields, on to the next one.
    await sheet(ines).getByRole('button', { name: /^Next/ }).focus();
    await ines.keyboard.press('n');
    await expect(sheet(ines).getByRole('heading', { level: 2 })).not.toHaveText(names.at(-1) ?? '');
  }
  expect(new Set(names).size).toBe(6);

  const given = sheet(ines).getByRole('region', { name: 'The grade' });
  await given.getByRole('button', { name: 'Give another grade as a whole' }).press('Enter');
  await given.getByLabel(/^Percent/).fill('92');
  await expect(given.getByRole('button', { name: 'Give it' })).toBeDisabled();
  await given.getByLabel('Why').fill('Ninety by a peer; the second map is worth the rest.');
  await given.getByRole('button', { name: 'Give it' }).press('Enter');
  await expect(given.getByText('92 percent is given instead', { exact: false })).toBeVisible();
  const who = (await sheet(ines).getByRole('heading', { level: 2 }).innerText()).split('\n')[0] ?? '';
  await ines.keyboard.press('Escape');
  await ines.getByRole('button', { name: /^Reviewing not marked/ }).click();

  await ines.getByRole('button', { name: 'Weights and rules…' }).click();
  const rules = ines.getByRole('dialog', { name: 'Weights and rules' });
  await rules.getByLabel('Weight of reviews done').fill('40');
  await expect(rules.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await rules.getByRole('button', { name: 'Show who moves' }).click();
  await expect(rules.getByText(/grades? moves?\.$/)).toBeVisible();
  await rules.getByRole('button', { name: 'Keep' }).click();
  await expect(rules).toBeHidden();

  await ines.getByRole('button', { name: 'Release…' }).click();
  const release = ines.getByRole('dialog', { name: 'Release grades' });
  await release.getByRole('button', { name: 'Release' }).click();
  await expect(release).toBeHidden();
  await expect(ines.getByText('24 of 24 students see theirs')).toBeVisible();
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
  return row.getByRole('button').first().innerText();
}
