import { expect } from '@playwright/test';
import { expectNoFaults, jumpTo, test } from './support/people.js';
import { withEmpty } from './support/servers.js';

/** A whole exchange is taken along, and read into another installation. */

const EXCHANGE = 'Salt-marsh restoration proposal';
const TITLE = 'Coastal Restoration, moved';
const ines = { name: 'Ines Marchetti', email: 'ines.marchetti@example.org', password: 'glasswort and thrift' };

test('an archive is read into a second, empty installation, and looks the same', async ({ browser, stepIn }, info) => {
  const here = await stepIn('Ines Marchetti');
  await jumpTo(here, EXCHANGE);
  const board = here.getByRole('table');
  await here.getByRole('link', { name: /^Reviews/ }).click();
  await expect(board).toContainText('submitted');
  // But for when somebody was last at work, which is told as time passes.
  const rows = (text: string) => text.replace(/(?:\d+ \w+ ago|just now|now) \(.*$/gm, '');
  const was = rows(await board.innerText());

  await here.getByRole('link', { name: /^Plan/ }).click();
  await here.getByRole('button', { name: 'Preview and more…' }).click();
  await here.getByRole('menuitem', { name: 'Export archive (ZIP)…' }).click();
  const [archive] = await Promise.all([
    here.waitForEvent('download'),
    here.getByRole('link', { name: 'Make the archive' }).click(),
  ]);
  const file = info.outputPath('archive.zip');
  await archive.saveAs(file);

  await withEmpty(info.parallelIndex, ines, async (url) => {
    const page = await (await browser.newContext({ baseURL: url, serviceWorkers: 'block' })).newPage();
    await page.goto('/sign-in');
    await page.getByLabel('Email').fill(ines.email);
    await page.getByLabel('Password').fill(ines.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('button', { name: 'From an archive…' }).click();
    await page.getByLabel('Choose the archive, or drop it here').setInputFiles(file);
    const dialog = page.getByRole('dialog', { name: 'Read an exchange from an archive' });
    // Other journeys of this world may have added somebody.
    await expect(dialog).toContainText(/2\d students, each with a place that waits/);
    await dialog.getByLabel('Title of the new course').fill(TITLE);
    await dialog.getByRole('button', { name: 'Read it' }).click();
    await expect(page.getByRole('heading', { name: EXCHANGE, level: 1 })).toBeVisible();
    await page.getByRole('link', { name: /^Reviews/ }).click();
    await expect(page.getByRole('table')).toContainText('submitted');
    expect(rows(await page.getByRole('table').innerText())).toBe(was);
    // A review is read there, beside the draft.
    await page
      .getByRole('table')
      .getByRole('link', { name: /submitted/ })
      .first()
      .click();
    await expect(page.getByRole('document', { name: /^Draft/ })).toBeVisible();
    await expect(
      page
        .getByRole('document', { name: /^Draft/ })
        .locator('mark')
        .first(),
    ).toBeVisible();
    await page.context().close();
  });
  expectNoFaults(here);
});
