import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, test } from './support/people.js';

/** The queue of submitted reviews: worked through by keys, and things of a review kept from its author. */

const OPEN = 'Salt-marsh restoration proposal';
const RELEASED = 'Site description';

async function toCheck(page: Page, title: string): Promise<void> {
  await jumpTo(page, title);
  await page.getByRole('link', { name: /^Check and release/ }).click();
  await expect(page.getByRole('heading', { name: /^Submitted reviews/ })).toBeVisible();
}

const shown = (page: Page, words: string) => page.getByRole('button', { name: new RegExp(`^${words} \\d+$`) });
async function count(page: Page, words: string): Promise<number> {
  return Number((await shown(page, words).innerText()).replace(/\D/g, ''));
}

test('the queue is worked through by keys alone', async ({ stepIn }) => {
  const tomasz = await stepIn('Tomasz Wilk');
  await toCheck(tomasz, OPEN);
  const open = await count(tomasz, 'To check');
  expect(open).toBeGreaterThan(3);
  const first = tomasz.getByRole('table', { name: 'Submitted reviews' }).getByRole('link').first();
  // From the head of the page on, by Tab alone.
  await tomasz.getByRole('button', { name: /^Withheld/ }).focus();
  for (let tabs = 0; tabs < 20 && !(await first.evaluate((one) => one === document.activeElement)); tabs += 1)
    await tomasz.keyboard.press('Tab');
  await expect(first).toBeFocused();
  await tomasz.keyboard.press('Enter');
  await expect(tomasz.getByText(`1 of ${open}`)).toBeVisible();
  await expect(tomasz.getByRole('heading', { name: 'Flags' })).toBeVisible();
  await expect(tomasz.getByText('not checked yet')).toBeVisible();
  await tomasz.keyboard.press('l');
  await expect(tomasz.getByText(`2 of ${open}`)).toBeVisible();
  await tomasz.keyboard.press('p');
  await expect(tomasz.getByText('checked by Tomasz Wilk')).toBeVisible();
  await tomasz.keyboard.press('n');
  await expect(tomasz.getByText(`2 of ${open}`)).toBeVisible();
  // All reasons said to be none: nothing is left to look at.
  const reasons = tomasz.getByRole('region', { name: 'Flags' });
  await expect(reasons.getByRole('listitem').first()).toBeVisible();
  const flags = reasons.getByRole('button', { name: 'Dismiss flag' });
  for (let left = await flags.count(); left > 0; left -= 1) {
    await flags.first().focus();
    await tomasz.keyboard.press('Enter');
    await expect(flags).toHaveCount(left - 1);
  }
  await tomasz.getByRole('navigation', { name: 'Where I am' }).getByRole('link', { name: OPEN }).click();
  await tomasz.getByRole('link', { name: /^Check and release/ }).click();
  await expect(shown(tomasz, 'To check')).toHaveText(`To check ${open - 2}`);
  await expect(shown(tomasz, 'Checked')).toHaveText('Checked 1');
  expectNoFaults(tomasz);
});

test('what is withheld is gone for its author, told to its reviewer, and given back', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await toCheck(ines, RELEASED);
  await ines
    .getByRole('link', { name: /^Adjoa Mensah/ })
    .first()
    .click();
  const author = (await ines.getByRole('heading', { level: 1, name: / on / }).innerText()).split(' on ').at(-1) ?? '';
  await ines.getByRole('tab', { name: /^Notes/ }).click();
  const notes = ines.getByRole('tabpanel', { name: /^Notes/ });
  await notes.getByRole('button', { name: 'Withhold…' }).first().click();
  const asked = ines.getByRole('dialog', { name: 'Withhold this note' });
  await asked.getByRole('button', { name: 'Withhold it' }).click();
  await expect(asked.getByText(/^Say why/)).toBeVisible();
  await asked.getByLabel('Reason (kept on record)').fill('It guesses at who wrote this.');
  await asked.getByRole('checkbox', { name: /^The reviewer sees/ }).check();
  await asked.getByRole('button', { name: 'Withhold it' }).click();
  await expect(notes.getByText('Hidden from the author: It guesses at who wrote this.')).toBeVisible();

  const writer = await stepIn(author);
  await jumpTo(writer, RELEASED);
  await writer.getByRole('tab', { name: /^Notes/ }).click();
  const received = writer.getByRole('tabpanel', { name: /^Notes/ });
  await expect(received.locator('[role=comment]').first()).toBeVisible();
  const kept = await received.locator('[role=comment]').count();
  await expect(writer.getByText(/guesses/)).toHaveCount(0);

  const adjoa = await stepIn('Adjoa Mensah');
  await adjoa.goto(new URL(ines.url()).pathname);
  await adjoa.getByRole('tab', { name: /^Notes/ }).click();
  await expect(adjoa.getByText(/hid this note from the author: It guesses/)).toBeVisible();

  // Its author asks about another one; the instructor answers beside the review.
  await received.getByRole('button', { name: 'Ask the instructor to look…' }).first().click();
  const asking = writer.getByRole('dialog', { name: 'Ask your instructor to look at this note' });
  await asking.getByLabel('What should be looked at, and why?').fill('Is this meant for my draft?');
  await asking.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(received.getByText(/Not answered yet/)).toBeVisible();
  const withheldIn = ines.url();
  await toCheck(ines, RELEASED);
  await expect(ines.getByText('the author asks you to look: “Is this meant for my draft?”')).toBeVisible();
  await ines.getByRole('table', { name: 'Submitted reviews' }).getByRole('link').first().click();
  const looks = ines.getByRole('region', { name: 'You are asked to look' });
  await looks.getByLabel('Your answer').fill('It is: see your second paragraph.');
  await looks.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(looks.getByText('Answered: It is: see your second paragraph.')).toBeVisible();
  await writer.reload();
  await writer.getByRole('tab', { name: /^Notes/ }).click();
  await expect(received.getByText('It is: see your second paragraph.')).toBeVisible();

  await ines.goto(withheldIn);
  await ines.getByRole('tab', { name: /^Notes/ }).click();
  await notes.getByRole('button', { name: 'Show again' }).click();
  await expect(notes.getByText(/Hidden from the author/)).toHaveCount(0);
  await writer.reload();
  await writer.getByRole('tab', { name: /^Notes/ }).click();
  await expect(received.locator('[role=comment]')).toHaveCount(kept + 1);
  expectNoFaults(ines, writer, adjoa);
});
