import { expect, type Page } from '@playwright/test';
import { copyOfMonitoringPlan, publish } from './support/exchanges.js';
import { expectNoFaults, jumpTo, test } from './support/people.js';

/** Practice: a sample draft with the instructor's own review as its key, tried by a student until it comes near enough. */

const EXCHANGE = 'With practice first';

async function answer(page: Page, how: { readonly points: string; readonly days: string }): Promise<void> {
  await page
    .getByLabel('What works')
    .fill('The twelve places are fixed, so that somebody else could count them again.');
  await page.getByLabel('Next step').fill('Name a second pond that stays shut, to have something to compare it with.');
  for (const entry of await page.getByRole('radiogroup').all()) {
    const yes = entry.getByRole('radio', { name: 'yes' });
    if ((await yes.count()) > 0) await yes.check();
  }
  await page.getByLabel('Would it tell whether it worked?: points', { exact: true }).fill(how.points);
  await page.getByLabel('Days of field work a year').fill(how.days);
  await page.getByRole('checkbox', { name: 'Summer' }).check();
  await page
    .getByLabel('What would you doubt first?')
    .fill('I would doubt that eelgrass was there before: the text says so and names nobody who measured it at all.');
}

async function submit(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Submit/ }).click();
  const asked = page.getByRole('dialog', { name: 'Before you submit' });
  await asked.getByRole('button', { name: 'Submit review' }).click();
  await expect(asked).toBeHidden();
}

test('an instructor has students practise before they review', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  const id = await copyOfMonitoringPlan(ines, EXCHANGE);
  await ines.getByRole('button', { name: /^Practice/ }).click();
  await expect(ines.getByText('key submitted')).toBeVisible();
  await ines.getByRole('combobox', { name: 'Practice', exact: true }).selectOption('first');
  await ines.getByLabel('Attempts per practice draft').selectOption('2');
  await ines.getByLabel('Passing agreement, in percent of the items').fill('100');
  await expect(ines.getByText(/until 100% of the items are close to your review/)).toBeVisible();

  // A second one, which students do not see before its key is there.
  await ines.getByRole('button', { name: 'Add a practice draft…' }).click();
  const adding = ines.getByRole('dialog', { name: 'Add a practice draft' });
  await adding.getByLabel('Title').fill('A page on the sea wall');
  await adding.getByRole('textbox', { name: 'Text of the practice draft' }).fill('The wall stands since 1962.');
  await adding.getByRole('button', { name: 'Add it' }).click();
  await expect(adding).toBeHidden();
  await expect(ines.getByText('no key yet: students do not see it')).toBeVisible();
  await expect(ines.getByText('“A page on the sea wall” has no key yet').first()).toBeVisible();
  await ines.getByRole('button', { name: 'Remove…' }).last().click();
  await ines.getByRole('dialog').getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(ines.getByText('A page on the sea wall')).toHaveCount(0);
  await publish(ines, id);

  const dagny = await stepIn('Dagny Holm');
  await dagny
    .getByRole('link', { name: /Practise/ })
    .first()
    .click();
  await expect(dagny.getByRole('heading', { name: 'Practice', level: 2 })).toBeVisible();
  await dagny.getByRole('button', { name: 'Begin' }).click();
  await expect(dagny.getByText('This is practice: no other student reads what you write here')).toBeVisible();
  await answer(dagny, { points: '6', days: '90' });
  await submit(dagny);
  await dagny.getByRole('link', { name: 'Compare with your instructor' }).click();
  await expect(
    dagny.getByText('3 of the 4 items that can be compared are close to your instructor’s review (75%).'),
  ).toBeVisible();
  await expect(dagny.getByText('not near: 84 more than your instructor')).toBeVisible();
  await expect(dagny.getByText('Say who, and since when. The whole plan rests on this.').first()).toBeVisible();

  await dagny.getByRole('link', { name: 'Back to practice, to try again' }).click();
  await dagny.getByRole('button', { name: 'Try again' }).click();
  await expect(dagny.getByText('0 of 6 done')).toBeVisible();
  await answer(dagny, { points: '3', days: '6' });
  await submit(dagny);
  await dagny.getByRole('link', { name: 'Compare with your instructor' }).click();
  await expect(
    dagny.getByText('All 4 items that can be compared are close to your instructor’s review.'),
  ).toBeVisible();
  await dagny.goto('/');
  await expect(dagny.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await expect(dagny.getByText('Practice comes before reviewing')).toHaveCount(0);

  await ines.reload();
  await ines.getByRole('button', { name: /^Practice/ }).click();
  await expect(
    ines.getByText('1 student has tried it, on average 100% of the items close to your review'),
  ).toBeVisible();
  await jumpTo(ines, EXCHANGE);
  expectNoFaults(ines, dagny);
});
