import { expect, type Browser, type Page } from '@playwright/test';
import type { CourseCard, PlanView } from '@salt-circle/contracts';
import { expectNoFaults, FROM_A_PAGE, localTime, selectWords, setTime, test as base, watch } from './support/people.js';
import { withPlatform } from './support/servers.js';

/** From the stand-in platform, by its own pages and ours: an instructor, two students, and a gradebook at the end. */

const test = base.extend<{ platform: string }>({
  platform: async ({ world: _ }, use, { parallelIndex }) => withPlatform(parallelIndex, use),
});

const TITLE = 'Flood marks';

/** Somebody at the platform, in a browser of their own. */
async function at(browser: Browser, platform: string, name: string): Promise<Page> {
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  watch(page);
  await page.goto(platform);
  await page.getByRole('button', { name }).click();
  await expect(page.getByRole('heading', { name: 'RIV 210 Reading Rivers' })).toBeVisible();
  return page;
}

/** Presses a link on the page of the platform, which opens a window. */
async function press(page: Page, link: string): Promise<Page> {
  const item = page.getByRole('listitem').filter({ hasText: link });
  const [opened] = await Promise.all([
    page.context().waitForEvent('page'),
    item.getByRole('link', { name: 'open in a window' }).click(),
  ]);
  watch(opened);
  return opened;
}

/** The exchange of the journey, with dates around today; how one plans by hand is the planning's test. */
async function exchangeOf(odile: Page): Promise<string> {
  const ask = odile.context().request;
  const origin = new URL(odile.url()).origin;
  const [course] = (await (await ask.get(`${origin}/api/courses`)).json()) as CourseCard[];
  const post = async (path: string, data?: object) =>
    (await ask.post(`${origin}/api${path}`, { headers: FROM_A_PAGE, ...(data && { data }) })).json() as Promise<{
      id: string;
    }>;
  const { id } = await post(`/courses/${course?.id}/exchanges`, { title: TITLE });
  const plan = (await (await ask.get(`${origin}/api/exchanges/${id}/plan`)).json()) as PlanView;
  const day = (days: number, hour: number) => `${localTime(days, hour)}:00.000Z`;
  const { published: _1, students: _2, missing: _3, remarks: _4, fixed: _5, own: _6, ...more } = plan;
  const { lateHandIns: _7, allocation: _8, choices: _9, ...settings } = more;
  const dates = {
    ...{ ...settings.dates, draftsOpen: day(-1, 8), draftsDue: day(2, 20) },
    ...{ reviewsDue: day(5, 20), release: day(6, 8) },
  };
  const briefHtml = '<p>Describe one mark of a flood.</p>';
  const gradeParts = [{ part: 'reviews-done', weight: 1 }];
  const data = { ...settings, dates, briefHtml, reviewsPerStudent: 1, gradeParts };
  expect((await ask.put(`${origin}/api/exchanges/${id}/plan`, { headers: FROM_A_PAGE, data })).status()).toBe(200);
  const form = {
    items: [],
    weighting: 'points',
    overall: 'required',
    overallWords: 5,
    minimumNotes: 1,
    targetNotes: 0,
  };
  const saved = await ask.put(`${origin}/api/exchanges/${id}/form`, {
    ...{ headers: FROM_A_PAGE, data: { ...form, revision: 1 } },
  });
  expect(saved.status()).toBe(200);
  await odile.goto(`${origin}/exchanges/${id}/plan`);
  await odile.getByRole('button', { name: 'Publish…' }).click();
  await odile.getByRole('button', { name: /^Publish to/ }).click();
  await expect(odile.getByText('Published.')).toBeVisible();
  return id;
}

async function handIn(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Hand in' }).first().click();
  await page.getByPlaceholder('Title of your draft').fill('Marks on the mill');
  await page.getByRole('textbox', { name: 'Your draft', exact: true }).click();
  await page.keyboard.insertText('The water of 1926 stood at the third step. We found its line under the paint.');
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.getByRole('button', { name: 'Hand in…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByRole('button', { name: 'Close the receipt' }).click();
}

async function review(page: Page, home: string): Promise<void> {
  await page.goto(home);
  await page.getByRole('link', { name: 'Review', exact: true }).first().click();
  await selectWords(page, 'third step');
  await page.getByRole('toolbar', { name: 'Leave a note' }).getByRole('button', { name: /Ask/ }).click();
  await page.keyboard.insertText('Counted from the water, or from the door?');
  await page.keyboard.press('Escape');
  const overall = page.getByRole('textbox', { name: /overall/i });
  if (await overall.isVisible()) await overall.fill('Say how you dated the line, and how far you trust the paint.');
  await page.getByRole('button', { name: 'Submit review…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Submit review' }).click();
  await expect(page.getByText('Submitted', { exact: true })).toBeVisible();
}

test('an instructor links a course, students come by the platform, and their grades stand in its gradebook', async ({
  browser,
  platform,
}) => {
  // The first press makes the course.
  const teacher = await at(browser, platform, 'Odile Brandt');
  const odile = await press(teacher, 'Salt Circle');
  await expect(odile.getByRole('heading', { name: 'Welcome, Odile Brandt' })).toBeVisible();
  await odile.getByRole('button', { name: 'Continue' }).click();
  await expect(odile.getByRole('heading', { name: 'Which course is “Reading Rivers”?' })).toBeVisible();
  await odile.getByRole('button', { name: 'Make the course' }).click();
  await odile.getByRole('link', { name: 'People', exact: true }).click();
  await odile.getByRole('button', { name: 'From Northmere…' }).click();
  const people = odile.getByRole('dialog');
  await people.getByRole('button', { name: 'Ask now' }).click();
  await expect(people.getByText('9 to add, 0 to update, 1 unchanged, 0 missing from this file')).toBeVisible();
  await people.getByRole('button', { name: 'Apply' }).click();
  await expect(people.getByText('9 added, 0 updated, 0 dropped.')).toBeVisible();
  await people.getByRole('button', { name: 'Close' }).last().click();
  await expect(odile.getByRole('row', { name: /Giulia Renzi/ })).toContainText('none');
  const exchangeId = await exchangeOf(odile);
  const home = new URL(odile.url()).origin;

  // A link on the platform's page that leads to the exchange.
  await teacher.getByRole('link', { name: /^Choose something of/ }).click();
  await expect(teacher.getByRole('heading', { name: 'What shall the link lead to?' })).toBeVisible();
  await expect(teacher.getByRole('radio', { name: TITLE })).toBeChecked();
  await teacher.getByRole('button', { name: 'Put it on the page' }).click();
  await expect(teacher.getByRole('listitem').filter({ hasText: TITLE })).toBeVisible();

  // Students come by it: one in a window, one inside of the platform's page.
  const students: Page[] = [];
  for (const name of ['Anouk Vermeer', 'Bashir Noorzai']) {
    const page = await at(browser, platform, name);
    const window = await press(page, TITLE);
    await expect(window.getByRole('heading', { name: `Welcome, ${name}` })).toBeVisible();
    await window.getByRole('button', { name: 'Continue' }).click();
    await expect(window.getByRole('heading', { name: TITLE, level: 1 })).toBeVisible();
    await window.goto(home);
    await handIn(window);
    students.push(window);
  }
  const inside = await at(browser, platform, 'Célia Duarte');
  await inside
    .getByRole('listitem')
    .filter({ hasText: TITLE })
    .getByRole('link', { name: 'open inside this page' })
    .click();
  const frame = inside.frameLocator('iframe');
  await frame.getByRole('button', { name: 'Continue' }).click();
  await expect(frame.getByRole('heading', { name: TITLE, level: 1 })).toBeVisible();

  await setTime(odile, `${localTime(3, 9)}:00.000Z`);
  await odile.goto(`${home}/exchanges/${exchangeId}/allocation`);
  await odile.getByRole('button', { name: 'Preview an allocation' }).click();
  await odile.getByRole('button', { name: /^Apply 2 reviews/ }).click();
  await expect(odile.getByText('2 reviews allocated.')).toBeVisible();
  for (const page of students) await review(page, home);

  // Grades are released, stand in the gradebook, one is corrected and follows.
  await odile.goto(`${home}/exchanges/${exchangeId}/grades`);
  await odile.getByRole('button', { name: 'Gradebook…' }).click();
  const gradebook = odile.getByRole('dialog', { name: 'Gradebook of Northmere' });
  await gradebook.getByLabel('What goes there').selectOption('one column: the grade');
  await gradebook.getByRole('button', { name: 'Apply' }).click();
  await expect(gradebook.getByRole('button', { name: /^not released 8/ })).toBeVisible();
  await odile.keyboard.press('Escape');
  await odile.getByRole('button', { name: 'Release…' }).click();
  await odile.getByRole('dialog', { name: 'Release grades' }).getByRole('button', { name: 'Release' }).click();
  const score = (name: string) =>
    teacher
      .getByRole('row', { name: new RegExp(name) })
      .locator('[data-score]')
      .first();
  const send = async () => {
    await odile.getByRole('button', { name: /^Gradebook/ }).click();
    await gradebook.getByRole('button', { name: 'Send now, and compare' }).click();
  };
  await send();
  await expect(gradebook.getByRole('row', { name: /Anouk Vermeer/ })).toContainText('sent');
  await odile.keyboard.press('Escape');
  await teacher.getByRole('link', { name: 'Gradebook' }).click();
  await expect(score('Anouk Vermeer')).toHaveText('100');
  await expect(score('Bashir Noorzai')).toHaveText('100');

  await odile
    .getByRole('table', { name: 'Grades' })
    .getByRole('row', { name: /Anouk Vermeer/ })
    .getByRole('button')
    .last()
    .click();
  const given = odile.getByRole('dialog').first().getByRole('region', { name: 'The grade' });
  await given.getByRole('button', { name: 'Override final grade' }).click();
  await given.getByLabel(/^Percent/).fill('91');
  await given.getByLabel('Why').fill('One review counts less than the other.');
  await given.getByRole('button', { name: 'Save override' }).click();
  await expect(given.getByText('Overridden to 91%', { exact: false })).toBeVisible();
  await odile.keyboard.press('Escape');
  // Somebody changes another one at the platform meanwhile: that is shown, and not written over.
  const row = teacher.getByRole('row', { name: /Bashir Noorzai/ });
  await row.getByRole('textbox').fill('77');
  await row.getByRole('button', { name: 'set' }).click();
  await send();
  await expect(gradebook.getByRole('row', { name: /Anouk Vermeer/ })).toContainText('91%');
  await expect(gradebook.getByRole('row', { name: /Bashir Noorzai/ })).toContainText('77%');
  await expect(gradebook.getByRole('row', { name: /Bashir Noorzai/ })).toContainText('changed there');
  await teacher.reload();
  await expect(score('Anouk Vermeer')).toHaveText('91');
  await expect(score('Bashir Noorzai')).toHaveText('77');
  await gradebook.getByRole('button', { name: 'Overwrite the grade of Bashir Noorzai' }).click();
  await expect(gradebook.getByRole('row', { name: /Bashir Noorzai/ })).toContainText('sent');
  await teacher.reload();
  await expect(score('Bashir Noorzai')).toHaveText('100');
  expectNoFaults(odile, ...students);
  await setTime(odile, null);
});

test('a platform that does something wrong lets nobody in, and the page says what it is', async ({
  browser,
  platform,
  stepIn,
}) => {
  const teacher = await at(browser, platform, 'Odile Brandt');
  await teacher.getByRole('link', { name: 'Settings and faults' }).click();
  await teacher.getByLabel('Signs with another key than it says').check();
  await teacher.getByRole('button', { name: 'Behave like this' }).click();
  await teacher.getByRole('link', { name: 'Course' }).click();
  const odile = await press(teacher, 'Salt Circle');
  await expect(odile.getByText('The platform’s signature is wrong, so nothing it sent was accepted.')).toBeVisible();
  await odile.goto(new URL('/', odile.url()).href);
  await expect(odile).toHaveURL(/\/demo$/);

  // Whoever sees to the platforms connects one more: this same one, by its own registration.
  const ines = await stepIn('Ines Marchetti');
  await ines.getByRole('button', { name: /account and theme/ }).click();
  await ines.getByRole('menuitem', { name: 'Learning platforms' }).click();
  await ines.getByRole('button', { name: 'Connect a learning platform…' }).click();
  await ines.getByLabel('Name').fill('Northmere, once more');
  await ines.getByRole('button', { name: 'Make the link' }).click();
  const address = await ines.getByRole('dialog').locator('code').innerText();
  await teacher.goto(`${platform}/settings`);
  await teacher.getByRole('textbox').first().fill(address);
  await teacher.getByRole('button', { name: 'Connect' }).click();
  await expect(teacher.getByRole('heading', { name: 'Northmere, once more is connected' })).toBeVisible();
  await ines.keyboard.press('Escape');
  await ines.reload();
  await expect(ines.getByRole('heading', { name: /Northmere, once more/ })).toContainText('connected');
  expectNoFaults(ines);
});
