import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, test } from './support/people.js';

interface View {
  readonly name: string;
  readonly open: (page: Page) => Promise<unknown>;
}

const workspace =
  (exchange: string, stage: RegExp): View['open'] =>
  async (page) => {
    await jumpTo(page, exchange);
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
    await expect(page.getByText('Loading')).toHaveCount(0);
  };

const STAFF_VIEWS: readonly View[] = [
  { name: 'today', open: (page) => page.goto('/') },
  { name: 'course', open: (page) => page.getByRole('link', { name: /^Coastal Restoration/ }).click() },
  ...['People', 'Groups', 'Library', 'Outbox', 'Settings'].map((words): View => ({
    name: words,
    open: (page) =>
      page.getByRole('navigation', { name: 'Pages of the course' }).getByRole('link', { name: words }).click(),
  })),
  {
    name: 'roster dialog',
    open: async (page) => {
      await page.getByRole('link', { name: 'People' }).click();
      await page.getByRole('button', { name: 'Import roster…' }).click();
      await page.getByLabel('Or pasted rows').fill('name,email,year\nMina Holt,mina at home,2');
      await page.getByRole('button', { name: 'Preview', exact: true }).click();
      await expect(page.getByText(/is not an email address/)).toBeVisible();
    },
  },
  {
    name: 'plan, unfinished',
    open: async (page) => {
      await page.keyboard.press('Escape');
      await workspace('Creek survey report', /^Plan/)(page);
    },
  },
  {
    name: 'form builder',
    open: async (page) => {
      await page.getByRole('link', { name: 'Build it' }).click();
      for (const words of [/^C Criterion/, /^R Range/, /^L Checklist/, /^W Pair/, /^N Number/, /^O Choice/])
        await page.getByRole('button', { name: words }).click();
    },
  },
  { name: 'drafts', open: workspace('Salt-marsh restoration proposal', /^Drafts/) },
  { name: 'allocation', open: workspace('Salt-marsh restoration proposal', /^Allocation/) },
  { name: 'allocation, as a matrix', open: (page) => page.getByRole('button', { name: 'Matrix' }).click() },
  { name: 'reviews', open: workspace('Salt-marsh restoration proposal', /^Reviews/) },
  { name: 'check', open: workspace('Salt-marsh restoration proposal', /^Check/) },
  {
    name: 'a review, read',
    open: async (page) => {
      await page.getByRole('table', { name: 'Submitted reviews' }).getByRole('link').first().click();
      await expect(page.getByRole('heading', { name: 'Flags' })).toBeVisible();
    },
  },
  {
    name: 'reviews side by side',
    open: async (page) => {
      await page.getByRole('link', { name: 'All reviews of this draft side by side' }).click();
      await expect(page.getByRole('table', { name: /^Reviews of this draft/ })).toBeVisible();
    },
  },
  { name: 'after the release', open: workspace('Site description', /^After/) },
  {
    name: 'a revision, read',
    open: async (page) => {
      await page
        .getByRole('row', { name: /Adjoa Mensah/ })
        .getByRole('link')
        .click();
      await expect(page.locator('ins').first()).toBeVisible();
    },
  },
  {
    name: 'grades, one opened',
    open: async (page) => {
      await workspace('Site description', /^Grades/)(page);
      await page
        .getByRole('row', { name: /^Adjoa Mensah/ })
        .getByRole('button')
        .last()
        .click();
      await expect(page.getByRole('region', { name: 'The grade' })).toBeVisible();
    },
  },
  {
    name: 'grading desk, the draft',
    open: async (page) => {
      await page.getByRole('link', { name: 'Grade with draft and reviews beside' }).click();
      await expect(page.getByRole('region', { name: 'The draft with all notes' })).toBeVisible();
    },
  },
  {
    name: 'grading desk, a review given',
    open: async (page) => {
      await page.getByRole('navigation', { name: 'Work of this person' }).getByRole('link').nth(1).click();
      await expect(page.getByRole('region', { name: 'The reviewed draft' })).toBeVisible();
    },
  },
  {
    name: 'insights',
    open: async (page) => {
      await page.getByRole('link', { name: 'All grades' }).click();
      await page.getByRole('link', { name: 'Insights' }).click();
      await expect(page.locator('canvas').first()).toBeVisible();
    },
  },
  {
    name: 'insights of a course',
    open: async (page) => {
      await page.getByRole('link', { name: 'Coastal Restoration' }).click();
      await page.getByRole('link', { name: 'Insights' }).click();
      await expect(page.locator('canvas').first()).toBeVisible();
    },
  },
  { name: 'inbox', open: (page) => page.goto('/inbox') },
  { name: 'account', open: (page) => page.goto('/account') },
  { name: 'kit', open: (page) => page.goto('/kit') },
];

const STUDENT_VIEWS: readonly View[] = [
  { name: 'today', open: (page) => page.goto('/') },
  { name: 'practice', open: workspace('Monitoring plan', /^Practice/) },
  { name: 'draft', open: workspace('Monitoring plan', /^Draft/) },
  {
    name: 'hand-in dialog',
    open: async (page) => {
      await page.getByRole('button', { name: 'See it as a reviewer' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
    },
  },
  {
    name: 'reviews to write',
    open: async (page) => {
      await page.keyboard.press('Escape');
      await workspace('Salt-marsh restoration proposal', /^Review/)(page);
    },
  },
  {
    name: 'desk',
    open: async (page) => {
      await page
        .getByRole('main')
        .getByRole('link', { name: /Begin|Continue|Read/ })
        .first()
        .click();
      await expect(page.getByRole('tab', { name: 'Form' })).toBeVisible();
    },
  },
  { name: 'feedback', open: workspace('Site description', /^Feedback/) },
  { name: 'what is to be decided', open: (page) => page.getByRole('tab', { name: /^To decide/ }).click() },
  { name: 'revising', open: workspace('Site description', /^Revise/) },
  { name: 'reflection', open: workspace('Site description', /^Reflection/) },
];

/** What a view shows is there: a heading, and nothing that is still on its way, but for the kit's example of that. */
async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('heading').first()).toBeVisible();
  await expect(page.getByText(/^Loading (?!nothing…)/)).toHaveCount(0);
}

/** By all rules in the light theme; what the dark one can change is the colours. */
async function expectAccessible(page: Page, name: string): Promise<void> {
  const all = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
  await page.emulateMedia({ colorScheme: 'dark' });
  // Painted in its colours.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const dark = await new AxeBuilder({ page }).setLegacyMode(true).withRules(['color-contrast']).analyze();
  await page.emulateMedia({ colorScheme: 'light' });
  expect(all.passes.length).toBeGreaterThan(5);
  expect(dark.passes.length).toBe(1);
  const told = [all, dark].map(({ violations }) =>
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
  );
  expect.soft({ name, violations: told }).toEqual({ name, violations: [[], []] });
}

test('no accessibility violations on the main views, light and dark', async ({ stepIn, browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, reducedMotion: 'reduce' });
  const start = await context.newPage();
  await start.goto('/demo');
  await expect(start.getByRole('heading', { name: 'Instructors' })).toBeVisible();
  await expectAccessible(start, 'demo');
  await start.goto('/sign-in');
  await expect(start.getByLabel('Email')).toBeVisible();
  await expectAccessible(start, 'sign-in');
  await start.getByRole('link', { name: 'Forgotten your password?' }).click();
  await expect(start.getByRole('heading', { name: 'A new password' })).toBeVisible();
  await expectAccessible(start, 'forgotten');
  await context.close();
  for (const [who, views] of [
    ['Ines Marchetti', STAFF_VIEWS],
    ['Viktor Lund', STUDENT_VIEWS],
  ] as const) {
    const page = await stepIn(who, { reducedMotion: 'reduce' });
    for (const { name, open } of views) {
      await open(page);
      await settled(page);
      await expectAccessible(page, `${who}: ${name}`);
    }
    expectNoFaults(page);
  }
});

test('a review by the keyboard alone: choose a passage, leave a note, answer, move the split', async ({ stepIn }) => {
  const page = await stepIn('Wanja Kamau');
  await workspace('Salt-marsh restoration proposal', /^Review/)(page);
  await page
    .getByRole('main')
    .getByRole('link', { name: /Begin|Continue|Read/ })
    .first()
    .click();
  const reopen = page.getByRole('button', { name: 'Reopen to change it' });
  await expect(page.getByRole('tab', { name: 'Form' })).toBeVisible();
  if (await reopen.isVisible()) await reopen.click();
  const draft = page.getByRole('document', { name: /^Draft/ });
  await expect(draft).toHaveAccessibleName(/Arrow up and down/);
  const before = await page.locator('mark.passage').count();
  await draft.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('2');
  await page.keyboard.type('Say it in one sentence.');
  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('textbox', { name: 'Ask note' }).first()).toHaveValue('Say it in one sentence.');
  await page.keyboard.press('Escape');
  expect(await page.locator('mark.passage').count()).toBeGreaterThan(before);
  await page.getByRole('tab', { name: /^Notes/ }).click();
  const listed = page.getByRole('tabpanel').getByText('Say it in one sentence.');
  await listed.click();
  await page.getByRole('tabpanel').getByRole('button', { name: 'Remove this note' }).click();
  await expect(listed).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(listed).toBeVisible();
  const strip = page.getByRole('separator', { name: 'Between draft and form' });
  await strip.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(strip).toHaveAttribute('aria-valuenow', '57');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.reload();
  await expect(page.getByText('Say it in one sentence.').first()).toBeVisible();
  expectNoFaults(page);
});

for (const width of [1000, 400]) {
  test(`at ${width} pixels there is no margin: a new note opens in the list, ready to be written`, async ({
    stepIn,
  }) => {
    const page = await stepIn('Yara Costa', { viewport: { width, height: 760 } });
    await page.goto(`${await exchangeUrl(page, 'Salt-marsh restoration proposal')}/review`);
    await page
      .getByRole('main')
      .getByRole('link', { name: /Begin|Continue|Read/ })
      .first()
      .click();
    const draft = page.getByRole('document', { name: /^Draft/ });
    await expect(draft).toBeVisible();
    const reopen = page.getByRole('button', { name: 'Reopen to change it' });
    if (await reopen.isVisible()) await reopen.click();
    await expect(draft).toHaveAccessibleName(/Arrow up and down/);
    await draft.focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('1');
    await expect(page.getByRole('textbox', { name: 'Keep note' })).toBeFocused();
    await page.keyboard.type(`Written at ${width} pixels.`);
    await expect(page.getByText(/^Saved /)).toBeVisible();
    expectNoFaults(page);
  });
}

test('students can work at 360 pixels, without scrolling sideways', async ({ stepIn }) => {
  const page = await stepIn('Viktor Lund', { viewport: { width: 360, height: 720 } });
  const expectToFit = async (name: string) => {
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect({ name, width }).toEqual({ name, width: 360 });
  };
  await expectToFit('today');
  for (const [exchange, stage] of [
    ['Monitoring plan', 'draft'],
    ['Salt-marsh restoration proposal', 'review'],
    ['Site description', 'feedback'],
    ['Site description', 'revise'],
    ['Site description', 'reflection'],
  ] as const) {
    const url = await exchangeUrl(page, exchange);
    await page.goto(`${url}/${stage}`);
    await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible();
    await settled(page);
    await expectToFit(stage);
  }
  await page.goto(`${await exchangeUrl(page, 'Salt-marsh restoration proposal')}/review`);
  await page
    .getByRole('main')
    .getByRole('link', { name: /Begin|Continue|Read/ })
    .first()
    .click();
  await expect(page.getByRole('tab', { name: /^Notes \d/ })).toBeVisible();
  await expectToFit('desk');
  await page.getByRole('tab', { name: 'Form', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'The argument' })).toBeVisible();
});

async function exchangeUrl(page: Page, title: string): Promise<string> {
  await page.goto('/');
  await page.getByRole('link', { name: /^Coastal Restoration/ }).click();
  const href = await page.getByRole('link', { name: title }).last().getAttribute('href');
  return href ?? '';
}
