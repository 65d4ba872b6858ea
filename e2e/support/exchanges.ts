import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { jumpTo, localTime } from './people.js';

const SOURCE = 'Monitoring plan';
export const COURSE = 'Coastal Restoration';

/** A file that the server's tests send too. */
export const sample = (name: string): string =>
  join(import.meta.dirname, '../../apps/server/src/platform/files/samples', name);

/** Goes to the course by the way back that an exchange shows. */
export async function toCourse(page: Page): Promise<void> {
  await jumpTo(page, SOURCE);
  await page.getByRole('navigation', { name: 'Where I am' }).getByRole('link', { name: COURSE }).click();
}

/** An exchange of its own, with what the demo's has, on its Plan page: other tests find that one as it was. */
export async function copyOfMonitoringPlan(ines: Page, title: string): Promise<void> {
  await toCourse(ines);
  await ines.getByRole('button', { name: 'New exchange…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'New exchange' });
  await dialog.getByLabel('Begin with').selectOption('A copy of an earlier exchange');
  await dialog.getByLabel('Exchange', { exact: true }).selectOption(SOURCE);
  await dialog.getByLabel('Title').fill(title);
  await dialog.getByLabel('Dates').selectOption('first');
  await dialog.getByLabel('First day').fill(localTime(-1, 8).slice(0, 10));
  await expect(dialog.getByText(/^Drafts open: /)).toBeVisible();
  await dialog.getByRole('button', { name: 'Create and plan it' }).click();
}

export async function publish(ines: Page): Promise<void> {
  await ines.getByRole('button', { name: 'Publish…' }).click();
  await ines.getByRole('button', { name: /^Publish to \d+ students/ }).click();
  await expect(ines.getByText('Published.')).toBeVisible();
}
