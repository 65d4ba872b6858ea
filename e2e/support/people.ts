import type { DemoPerson } from '@salt-circle/contracts';
import { expect, test as base, type APIRequestContext, type Browser, type Page } from '@playwright/test';
import { withWorld, type World } from './servers.js';

const faults = new WeakMap<Page, string[]>();

type StepIn = (name: string, options?: Parameters<Browser['newContext']>[0]) => Promise<Page>;

/** Says what a page says as well, so that the server takes it for one of its own. */
export const FROM_A_PAGE = { 'x-salt-circle': '1' };

async function stepInto(request: APIRequestContext, name: string): Promise<void> {
  const people = (await (await request.get('/api/demo/people')).json()) as DemoPerson[];
  const personId = people.find((person) => person.name.startsWith(name))?.id;
  if (personId === undefined) throw new Error(`the demo has nobody called ${name}`);
  const answer = await request.post('/api/demo/step-in', { headers: FROM_A_PAGE, data: { personId } });
  expect(answer.status()).toBe(204);
}

interface Shared {
  readonly world: World;
}

/** Gives each test people to act as, each in a browser of their own; afterwards the demo's time is the real one again. */
export const test = base.extend<{ stepIn: StepIn }, Shared>({
  // Playwright reads from the first parameter what a fixture needs: this one needs nothing of the others.
  world: [
    ({ browserName: _ }, use, { parallelIndex }) => withWorld(parallelIndex, use),
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: ({ world }, use) => use(world.url),
  stepIn: async ({ browser, baseURL }, use) => {
    const pages: Page[] = [];
    await use(async (name, options = {}) => {
      // Copies the whole application into each browser; whoever tests just that lets it.
      const context = await browser.newContext({ baseURL, serviceWorkers: 'block', ...options });
      const page = await context.newPage();
      pages.push(page);
      watch(page);
      await stepInto(context.request, name);
      await page.goto('/');
      await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
      return page;
    });
    const [first] = pages;
    if (first !== undefined) await setTime(first, null);
    for (const page of pages) await page.context().close();
  },
});

export function watch(page: Page): void {
  const seen: string[] = [];
  faults.set(page, seen);
  page.on('pageerror', (error) => seen.push(error.message));
  // A blocked script or style is a mistake of ours.
  page.on('console', (message) => {
    if (message.type() === 'error' && /Content Security Policy|Maximum update depth/.test(message.text()))
      seen.push(message.text());
  });
}

/** Moves the demo's time from outside the page, to an instant in ISO 8601, or back with null. */
export async function setTime(page: Page, to: string | null): Promise<void> {
  await page.context().request.post('/api/demo/clock', { headers: FROM_A_PAGE, data: { to } });
}

/** Nothing broke and nothing was blocked while this page was used. */
export function expectNoFaults(...pages: readonly Page[]): void {
  for (const page of pages) expect(faults.get(page)).toEqual([]);
}

/** Opens an exchange by the quick jump. */
export async function jumpTo(page: Page, title: string): Promise<void> {
  await expect(page.getByRole('button', { name: /^Go to/ })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill(title);
  await expect(page.getByRole('option', { name: new RegExp(title) })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
}

/** Moves the demo's time by the control in the bar. */
export async function moveTime(page: Page, words: string): Promise<void> {
  await page.getByRole('button', { name: /^Demo,/ }).click();
  const moved = page.waitForResponse((response) => response.url().endsWith('/api/demo/clock'));
  await page.getByRole('menuitem', { name: words }).click();
  await moved;
}

/** For an input of date and time: so many days from now, at an hour, as it reads in the course's time zone. */
export function localTime(days: number, hour: number): string {
  const day = new Date(Date.now() + days * 24 * 3_600_000);
  const date = new Intl.DateTimeFormat('sv-SE', { timeZone: 'Europe/Tallinn', dateStyle: 'short' }).format(day);
  return `${date}T${String(hour).padStart(2, '0')}:00`;
}

/** Selects words of the draft as a mouse would leave them selected. */
export async function selectWords(page: Page, words: string): Promise<void> {
  await page.getByRole('document', { name: /^Draft/ }).evaluate((root, wanted) => {
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
      const at = (node as Text).data.indexOf(wanted);
      if (at === -1) continue;
      const range = document.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + wanted.length);
      document.getSelection()?.removeAllRanges();
      document.getSelection()?.addRange(range);
      return;
    }
    throw new Error(`the draft has no "${wanted}" in one piece`);
  }, words);
}
