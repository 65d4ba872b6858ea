import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import type { CourseCard, CourseView } from '@salt-circle/contracts';
import { FROM_A_PAGE, jumpTo, localTime } from './people.js';

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

/**
 * An exchange of its own, with what the demo's has, open on its Plan page: other tests find that one as it was.
 * How one makes it by hand is the planning's test.
 *
 * @returns its id
 */
export async function copyOfMonitoringPlan(ines: Page, title: string): Promise<string> {
  const ask = ines.context().request;
  const courses = (await (await ask.get('/api/courses')).json()) as CourseCard[];
  const courseId = courses.find((course) => course.title.startsWith(COURSE))?.id;
  const course = (await (await ask.get(`/api/courses/${courseId}`)).json()) as CourseView;
  const sourceId = course.exchanges.find((exchange) => exchange.title === SOURCE)?.id;
  const firstAt = `${localTime(-1, 8)}:00.000Z`;
  const answer = await ask.post(`/api/courses/${courseId}/exchanges/copies`, {
    headers: FROM_A_PAGE,
    data: { from: 'exchange', sourceId, title, shift: 'first', days: 0, firstAt, keepWeekdays: true },
  });
  const { id } = (await answer.json()) as { id: string };
  await ines.goto(`/exchanges/${id}/plan`);
  await expect(ines.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  return id;
}

export async function publish(ines: Page, exchangeId: string): Promise<void> {
  const answer = await ines.context().request.post(`/api/exchanges/${exchangeId}/publish`, { headers: FROM_A_PAGE });
  expect(answer.status()).toBe(200);
}
