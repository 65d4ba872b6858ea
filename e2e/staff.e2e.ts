import { expect } from '@playwright/test';
import { expectNoFaults, jumpTo, moveTime, test } from './support/people.js';

test('an assistant looks at everything and allocates, but plans and releases nothing', async ({ stepIn }) => {
  const page = await stepIn('Tomasz Wilk');
  await jumpTo(page, 'Salt-marsh restoration proposal');
  await page.getByRole('link', { name: /^Plan/ }).click();
  await page.getByRole('button', { name: /^Assignment instructions/ }).click();
  await expect(page.getByLabel('Title')).toBeDisabled();
  await page.getByRole('button', { name: /^Activity log/ }).click();
  await page.getByRole('link', { name: 'Open the activity log' }).click();
  const log = page.getByRole('table', { name: 'Activity, newest first' });
  await page.getByLabel('Kind').selectOption('Plan and dates');
  await page.getByLabel('Search').fill('published');
  await expect(log.getByRole('row')).toHaveCount(2);
  await expect(log.getByText('Ines Marchetti published')).toBeVisible();
  await page.getByLabel('Person').selectOption('Adjoa Mensah');
  await expect(page.getByText('Nothing matches.')).toBeVisible();
  await page.getByRole('link', { name: /^Reviews/ }).click();
  await page.getByRole('link', { name: 'submitted' }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/ on /);
  await expect(page.getByRole('button', { name: /^Submit/ })).toHaveCount(0);
  await jumpTo(page, 'Salt-marsh restoration proposal');
  await page.getByRole('link', { name: /^Check and release/ }).click();
  await expect(page.getByRole('heading', { name: /^Submitted reviews/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Release/ })).toHaveCount(0);
  expectNoFaults(page);
});

test('an allocation is looked at, tried again, dropped, applied, and replaced until a review has begun', async ({
  stepIn,
}) => {
  const page = await stepIn('Ines Marchetti');
  await jumpTo(page, 'Monitoring plan');
  await page.getByRole('link', { name: /^Allocation/ }).click();
  await page.getByRole('button', { name: 'Preview an allocation' }).click();
  await expect(page.getByText('Drafts can still come in.')).toBeVisible();
  await expect(page.getByText('not handed in').first()).toBeVisible();
  const pairs = page.getByRole('list', { name: 'Reviewers and their drafts' });
  const first = await pairs.innerText();
  await page.getByRole('button', { name: 'Try another' }).click();
  await expect(async () => expect(await pairs.innerText()).not.toBe(first)).toPass();
  await page.getByRole('button', { name: 'Discard preview' }).click();
  await expect(page.getByText('No drafts have been allocated yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Preview an allocation' }).click();
  await page.getByRole('button', { name: /^Apply \d+ reviews/ }).click();
  await expect(page.getByText(/reviews allocated\./)).toBeVisible();
  await page.getByRole('button', { name: 'Preview another' }).click();
  await page.getByRole('button', { name: /^Apply \d+ reviews…/ }).click();
  await page.getByRole('dialog', { name: 'Replace the allocation?' }).getByRole('button', { name: 'Apply' }).click();
  await expect(page.getByText(/reviews allocated\./)).toBeVisible();
  await jumpTo(page, 'Salt-marsh restoration proposal');
  await page.getByRole('link', { name: /^Allocation/ }).click();
  await expect(page.getByText(/^Reviewing has begun, so pairs stay/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Preview an/ })).toHaveCount(0);
  expectNoFaults(page);
});

test('time goes on a day and back, and Today follows', async ({ stepIn }) => {
  const page = await stepIn('Ines Marchetti');
  const needs = page.getByRole('list', { name: 'What needs you' });
  await expect(needs.getByText('12 of 24 students have not handed in')).toBeVisible();
  await moveTime(page, 'One day on');
  await moveTime(page, 'One day on');
  await expect(needs.getByText(/reviews are not submitted/).first()).toBeVisible();
  await moveTime(page, 'Back to the real time');
  await expect(needs.getByText('12 of 24 students have not handed in')).toBeVisible();
  expectNoFaults(page);
});
