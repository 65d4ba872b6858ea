import { expect, type Locator, type Page } from '@playwright/test';
import { sample } from './support/exchanges.js';
import { expectNoFaults, localTime, moveTime, test } from './support/people.js';

/** A course from nothing, and six clearly different exchanges planned in it, by the interface alone. */

const NAMES = [
  'Ada Orr',
  'Bo Lind',
  'Cem Ates',
  'Dua Reza',
  'Elo Rand',
  'Fia Munk',
  'Gil Sousa',
  'Hal Vik',
  'Ivo Petr',
  'Jun Aoki',
  'Kai Nilo',
  'Lea Marr',
] as const;
const ROSTER = [
  'Full name,E-mail,Student ID,Section',
  ...NAMES.map((name, index) => {
    const [given = '', family = ''] = name.split(' ');
    return `"${family}, ${given}",${given.toLowerCase()}@students.example.org,db-${index + 1},${index % 2 === 0 ? 'Morning' : 'Evening'}`;
  }),
].join('\n');

async function newCourse(ines: Page): Promise<void> {
  await ines.getByRole('button', { name: 'New course…' }).click();
  const dialog = ines.getByRole('dialog');
  await dialog.getByLabel('Title').fill('Dune Botany');
  await dialog.getByLabel('Time zone').selectOption('Europe/Tallinn');
  await dialog.getByRole('button', { name: 'Create the course' }).click();
  await expect(ines.getByText('The course has no students yet.')).toBeVisible();
}

async function addPeople(ines: Page): Promise<void> {
  await coursePage(ines, 'People');
  await ines.getByRole('button', { name: 'Import roster…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Import roster' });
  // A slip in one row: it is named, and nothing can be applied until it is mended on the spot.
  await dialog.getByLabel('Or pasted rows').fill(ROSTER.replace('bo@students.example.org', 'bo at students'));
  await dialog.getByRole('button', { name: 'Preview', exact: true }).click();
  await expect(dialog.getByText('Row 3: “bo at students” is not an email address. Correct it.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Fix the errors listed first' })).toBeDisabled();
  await dialog.getByLabel('Fix the rows here').fill(ROSTER);
  await dialog.getByRole('button', { name: 'Read again' }).click();
  await expect(dialog.getByText('12 to add, 0 to update, 0 unchanged, 0 missing from this file')).toBeVisible();
  await dialog.getByLabel('Invite the people who are added').check();
  await dialog.getByRole('button', { name: 'Apply' }).click();
  await expect(ines.getByText('12 added, 0 updated, 0 dropped.')).toBeVisible();
  await ines.getByRole('button', { name: 'Close' }).last().click();
  await expect(ines.getByRole('rowheader', { name: 'Ada Orr' })).toBeVisible();
}

/** Two group sets, divided at random, and one move by the menu. */
async function addGroups(ines: Page): Promise<void> {
  await coursePage(ines, 'Groups');
  for (const [title, size] of [
    ['Partners', 2],
    ['Circles', 3],
  ] as const) {
    await ines.getByRole('button', { name: 'New group set…' }).click();
    await ines.getByRole('dialog').getByLabel('Name').fill(title);
    await ines.getByRole('button', { name: 'Make it' }).click();
    await expect(ines.getByRole('heading', { name: new RegExp(`^${title} `) })).toBeVisible();
    await ines.getByRole('button', { name: 'Divide…' }).click();
    const dialog = ines.getByRole('dialog', { name: `Divide “${title}”` });
    await dialog.getByLabel('People in a group').fill(String(size));
    await expect(dialog.getByText(`${12 / size} groups of ${size}.`)).toBeVisible();
    await dialog.getByRole('button', { name: 'Divide' }).click();
    await expect(
      ines.getByRole('heading', { name: `${title} ${12 / size} groups of ${size}; everybody is in one` }),
    ).toBeVisible();
  }
  await ines.getByRole('button', { name: 'Move Ada Orr to another group' }).click();
  await ines.getByRole('menuitem', { name: 'No group' }).click();
  await expect(ines.getByText('1 of 12 students are in none')).toBeVisible();
  // The focus goes along with whom it moved.
  await expect(ines.getByRole('button', { name: 'Move Ada Orr to another group' })).toBeFocused();
  // Dragged back, with the mouse.
  const target = ines.locator('section').filter({ has: ines.getByText('2', { exact: true }) });
  await drag(ines, ines.getByRole('listitem').filter({ hasText: 'Ada Orr' }), target.last());
  await expect(ines.getByRole('heading', { name: /everybody is in one/ })).toBeVisible();
}

async function drag(page: Page, from: Locator, to: Locator): Promise<void> {
  const [start, end] = [await from.boundingBox(), await to.boundingBox()];
  if (start === null || end === null) throw new Error('there is nothing to drag');
  await page.mouse.move(start.x + 20, start.y + 8);
  await page.mouse.down();
  await page.mouse.move(start.x + 40, start.y + 30, { steps: 4 });
  await page.mouse.move(end.x + end.width / 2, end.y + end.height / 2, { steps: 8 });
  await page.mouse.up();
}

async function coursePage(page: Page, words: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Pages of the course' }).getByRole('link', { name: words }).click();
}

/** The exchanges of a course, from one of its pages or from one of its exchanges. */
async function toCourse(page: Page, title: string): Promise<void> {
  const pages = page.getByRole('navigation', { name: 'Pages of the course' });
  if (await pages.isVisible()) await coursePage(page, 'Exchanges');
  else await page.getByRole('link', { name: title }).first().click();
}

/** A new exchange with brief and dates, on its Plan page. */
async function begin(ines: Page, title: string): Promise<void> {
  await toCourse(ines, 'Dune Botany');
  await ines.getByRole('button', { name: 'New exchange…' }).click();
  await ines.getByRole('dialog').getByLabel('Title').fill(title);
  await ines.getByRole('dialog').getByLabel('Review form').selectOption({ label: 'None yet' });
  await ines.getByRole('button', { name: 'Create', exact: true }).click();
  await ines.getByRole('textbox', { name: 'Brief' }).fill('One page on a plant of the dunes.');
  await ines.getByLabel('Drafts open').fill(localTime(1, 8));
  await ines.getByLabel('Drafts due').fill(localTime(8, 23));
  await ines.getByLabel('Reviews due').fill(localTime(15, 23));
}

async function open(ines: Page, group: string): Promise<void> {
  const head = ines.getByRole('button', { name: new RegExp(`^${group}`) });
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
}

async function whom(ines: Page, words: string, groups?: string): Promise<void> {
  await open(ines, 'Who reviews whom');
  await ines.getByLabel('Who may review whom').selectOption({ label: words });
  if (groups !== undefined) {
    const choice = ines.getByRole('combobox', { name: 'Groups' });
    await choice.selectOption({ label: await choice.locator('option', { hasText: groups }).innerText() });
  }
}

/** Adds an item by its letter, and gives it its title. */
async function addItem(ines: Page, key: string, title: string): Promise<Locator> {
  await ines.getByRole('heading', { name: 'Review form' }).click();
  const items = ines.locator('main ol > li');
  const item = items.nth(await items.count());
  await ines.keyboard.press(key);
  await item.getByLabel('What it asks').fill(title);
  return item;
}

async function buildForm(ines: Page, build: () => Promise<void>): Promise<void> {
  await ines.getByRole('link', { name: 'Build it' }).click();
  await build();
  await expect(ines.getByText(/^Saved /)).toBeVisible();
  await ines.getByRole('link', { name: 'Back to the plan' }).click();
}

/** What the account at the side says, and that nothing is missing. */
async function expectAccount(ines: Page, ...parts: Array<string | RegExp>): Promise<void> {
  const account = ines
    .getByRole('complementary')
    .filter({ has: ines.getByRole('heading', { name: 'In plain words' }) });
  for (const part of parts) await expect(account).toContainText(part);
  await expect(account.getByText('Nothing is missing.')).toBeVisible();
  await expect(account.getByRole('button', { name: 'Publish…' })).toBeEnabled();
}

test('six different exchanges are planned from nothing, and told in plain words', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await newCourse(ines);
  await addPeople(ines);
  await addGroups(ines);

  await test.step('one partner each, comments only', async () => {
    await begin(ines, 'Letters to a partner');
    await whom(ines, 'Standing partners: all others of the own group', 'Partners');
    await open(ines, 'Names');
    await ines.getByRole('combobox', { name: 'Names' }).selectOption('open');
    await buildForm(ines, async () => {
      await ines.getByLabel('Overall comment', { exact: true }).selectOption('required');
      await ines.getByLabel('Minimum number of notes').fill('3');
    });
    await expectAccount(
      ines,
      '12 students hand in a typed draft by',
      'everyone who handed in reviews the drafts of all others in their own group of “Partners”.',
      'The form: comments only, no points, an overall comment, at least 3 notes on the draft.',
      'Authors and reviewers see each other’s names.',
    );
    await ines.getByRole('button', { name: 'Publish…' }).click();
    await ines.getByRole('button', { name: 'Publish to 12 students' }).click();
    await expect(ines.getByText('Published.')).toBeVisible();
  });

  await test.step('groups of three, each reviewing the two others', async () => {
    await begin(ines, 'Circle reading');
    await whom(ines, 'Only drafts from the own group', 'Circles');
    await ines.getByLabel('Reviews each student gives').fill('3');
    await expect(
      ines.getByText(/there are only 2 drafts by others to review\. Ask for at most 2\.$/).first(),
    ).toBeVisible();
    await ines.getByLabel('Reviews each student gives').fill('2');
    await buildForm(ines, async () => {
      const item = await addItem(ines, 'c', 'The plant in its place');
      for (const [index, level] of ['hard to see', 'seen', 'before one’s eyes'].entries())
        await item.getByLabel(`Name of level ${index + 1}`).fill(level);
    });
    await expectAccount(ines, 'reviews 2 drafts from their own group in “Circles”.', 'The form: 1 criterion, 4 points');
  });

  await test.step('group hand-in of two deliverables, reviewed by single students of other groups', async () => {
    await begin(ines, 'Transect and talk');
    await open(ines, 'Submission format');
    await ines.getByRole('combobox', { name: 'Hand in' }).selectOption('group');
    await ines.getByLabel('Title of deliverable 1').fill('Report');
    await ines.getByRole('button', { name: 'Add a deliverable' }).click();
    await ines.getByLabel('Kind of deliverable 2').selectOption('recording');
    await ines.getByLabel('Title of deliverable 2').fill('Talk');
    await whom(ines, 'Only drafts from other groups', 'Circles');
    await buildForm(ines, async () => {
      const item = await addItem(ines, 'p', 'What would you ask the group?');
      await item.getByLabel('Minimum number of words').fill('10');
    });
    await expectAccount(
      ines,
      '12 students hand in together, in their groups of “Circles”, one hand-in for each: Report (typed text) and Talk (recording) by',
      'each student alone reviews 2 drafts from other groups of “Circles”.',
    );
  });

  await test.step('self-review first, then two blind reviews with prompts of minimum length', async () => {
    await begin(ines, 'Herbarium sheet');
    await open(ines, 'Who reviews whom');
    await ines.getByLabel('Self-review').selectOption('first');
    await buildForm(ines, async () => {
      for (const title of ['What is described best?', 'What could not be told from the sheet?']) {
        const item = await addItem(ines, 'p', title);
        await item.getByLabel('Minimum number of words').fill('15');
      }
      await expect(ines.getByText('2 of 2 items required, at least 30 words in all')).toBeVisible();
    });
    await expectAccount(
      ines,
      'Everybody reviews their own draft first, with the same form; the drafts of others open after that.',
      'everyone who handed in reviews 2 drafts by classmates, and gets about as many reviews.',
      'The form: 2 prompts, comments only, no points',
      'authors and reviewers know each other by an alias that stays the same.',
    );
  });

  await test.step('a strengths-and-next-step form with five aspects', async () => {
    await begin(ines, 'Field notes');
    await buildForm(ines, async () => {
      await addItem(ines, 'w', 'Place');
      // The others by the button that duplicates, each with a title of its own.
      for (const title of ['Plant', 'Soil', 'Season', 'Drawing']) {
        await ines
          .getByRole('button', { name: /^Duplicate / })
          .last()
          .click();
        await ines.locator('main ol > li').last().getByLabel('What it asks').fill(title);
      }
      await ines.keyboard.press('Control+z');
      await expect(ines.locator('main ol > li').last().getByLabel('What it asks')).toHaveValue('Season');
      await ines.keyboard.press('Control+Shift+z');
      await expect(ines.locator('main ol > li').last().getByLabel('What it asks')).toHaveValue('Drawing');
    });
    await expectAccount(ines, 'The form: 5 strengths and next steps questions, comments only, no points');
  });

  await test.step('a checklist plus a holistic range', async () => {
    await begin(ines, 'Key to the grasses');
    await buildForm(ines, async () => {
      const list = await addItem(ines, 'l', 'What is there');
      await list.getByRole('textbox', { name: 'Entry 1' }).fill('Every step has two ways');
      await list.getByRole('textbox', { name: 'Entry 2' }).fill('Every grass comes out once');
      await list.getByRole('checkbox', { name: 'Points' }).check();
      const range = await addItem(ines, 'r', 'Would you find your way with it?');
      for (const [index, band] of ['hardly', 'with a hand lens', 'at once'].entries())
        await range.getByLabel(`Name of band ${index + 1}`).fill(band);
      await range.getByLabel('in steps of').selectOption('0.5');
      await ines.getByLabel('The score goes by').selectOption('weights');
      await list.getByLabel('Weight of What is there').fill('40');
      await range.getByLabel('Weight of Would you find your way with it?').fill('60');
      await expect(ines.getByRole('heading', { name: 'Weights add up to 100, 2 items' })).toBeVisible();
      // Tried as a reviewer would.
      await ines.getByRole('button', { name: 'Preview', exact: true }).click();
      await ines.getByRole('spinbutton', { name: /points$/ }).fill('6.5');
      await expect(ines.getByRole('listitem').filter({ hasText: '5 to 7 with a hand lens' })).toContainText('(chosen)');
      await ines.getByRole('button', { name: 'Back to building' }).click();
    });
    await open(ines, 'Grade');
    await ines.getByLabel('score from peers', { exact: true }).check();
    await expectAccount(
      ines,
      'The form: 1 checklist and 1 range, a score in percent, by weights',
      'The grade: score from peers 100%.',
    );
  });

  // All six on one calendar, and the mail that they made.
  await toCourse(ines, 'Dune Botany');
  await expect(ines.getByRole('figure', { name: 'Exchanges on one calendar' }).getByRole('link')).toHaveCount(6);
  await coursePage(ines, 'Outbox');
  await expect(ines.getByText('24 mails')).toBeVisible();
  // What one act sent stands together.
  await ines.getByText(/^Join Dune Botany.* to 12 people: 12 not sent \(no mail server\)/).click();
  await ines
    .getByRole('button', { name: /Join Dune Botany/ })
    .first()
    .click();
  await expect(ines.getByRole('article')).toContainText('/join/');
  expectNoFaults(ines);
});

test('an exchange is seen with a student’s eyes, before and after it is published', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await ines.getByRole('link', { name: /^Coastal Restoration/ }).click();
  await ines.getByRole('link', { name: 'Creek survey report' }).last().click();
  await ines.getByRole('button', { name: 'Preview and more…' }).click();
  await ines.getByRole('menuitem', { name: 'As an example student' }).first().click();
  await expect(ines.getByText(/You see this exchange as an example student would/)).toBeVisible();
  await expect(ines.getByRole('link', { name: /^Plan/ })).toHaveCount(0);
  await ines.getByRole('button', { name: 'Back to your own view' }).click();
  await expect(ines.getByRole('heading', { name: 'Before you publish' })).toBeVisible();

  await ines.getByRole('link', { name: 'Coastal Restoration' }).click();
  await ines.getByRole('link', { name: 'Monitoring plan' }).last().click();
  const stage = (words: RegExp) =>
    ines.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: words }).click();
  await stage(/^Plan/);
  await open(ines, 'Assignment instructions');
  await ines.getByLabel('Attach files to the brief, or drop them here').setInputFiles(sample('report.docx'));
  await expect(ines.getByRole('button', { name: 'Remove report.docx' })).toBeVisible();
  await stage(/^Drafts/);
  await ines.getByRole('button', { name: 'See the exchange as Chiara Fonti' }).click();
  await expect(
    ines.getByText('You see this exchange as Chiara Fonti would. You can look, but nothing can be done.'),
  ).toBeVisible();
  await expect(ines.getByRole('button', { name: /^Hand in/ })).toBeDisabled();
  // What was just attached, as the student reads it.
  await ines.getByRole('button', { name: 'Read report.docx' }).click();
  await expect(ines.getByRole('dialog').getByRole('heading', { name: 'The eastern basin' })).toBeVisible();
  const picture = ines.getByRole('dialog').locator('img');
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  await ines.keyboard.press('Escape');
  await expect(ines.getByRole('button', { name: 'Read report.docx' })).toBeFocused();
  await expect(ines.getByRole('textbox', { name: 'Title of your draft' })).not.toBeEditable();
  await stage(/^Feedback/);
  await expect(ines.getByText('Feedback has not been released yet.')).toBeVisible();
  await ines.getByRole('button', { name: 'Back to your own view' }).click();
  await stage(/^Plan/);
  await open(ines, 'Assignment instructions');
  await ines.getByRole('button', { name: 'Remove report.docx' }).click();
  await expect(ines.getByText('“report.docx” is not attached any more.')).toBeVisible();
  expectNoFaults(ines);
});

test('what was planned is used again: library, template and copy', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await ines.getByRole('link', { name: /^Coastal Restoration/ }).click();
  await coursePage(ines, 'Library');
  const download = ines.waitForEvent('download');
  await ines.getByRole('button', { name: 'What can be done with “Plan with figures”' }).click();
  await ines.getByRole('menuitem', { name: 'Save as a form file (JSON)' }).click();
  const path = await (await download).path();
  await ines.getByRole('button', { name: 'Read a form from a file…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Read a form from a file' });
  await dialog.getByLabel('A file').setInputFiles({
    name: 'grasses.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('criterion,level,points\nOrder,lost,many'),
  });
  await expect(dialog.getByText('Row 2: the points “many” are not a number.')).toBeVisible();
  await dialog.getByLabel('A file').setInputFiles(path);
  await expect(dialog.getByText('A form file of Salt Circle.')).toBeVisible();
  await expect(dialog.getByRole('heading', { name: 'Would it tell whether it worked?' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Add it to the library' }).click();
  await expect(ines.getByLabel('Title of the form')).toHaveValue('Plan with figures');
  await ines.getByLabel('Title of the form').fill('Plan with figures, again');
  await expect(ines.getByText(/^Saved /)).toBeVisible();

  await toCourse(ines, 'Coastal Restoration');
  await ines.getByRole('link', { name: 'Site description' }).last().click();
  await ines.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Plan/ }).click();
  await ines.getByRole('button', { name: 'Preview and more…' }).click();
  await ines.getByRole('menuitem', { name: 'Save as template…' }).click();
  await ines.getByRole('dialog').getByLabel('Title').fill('Description round');
  await ines.getByRole('button', { name: 'Keep it' }).click();
  await expect(ines.getByRole('dialog')).toHaveCount(0);

  await toCourse(ines, 'Coastal Restoration');
  await ines.getByRole('button', { name: 'New exchange…' }).click();
  const fresh = ines.getByRole('dialog', { name: 'New exchange' });
  await fresh.getByLabel('Begin with').selectOption('template');
  await fresh.getByRole('combobox', { name: 'Template' }).selectOption({ index: 1 });
  await fresh.getByLabel('Title').fill('Second description');
  await fresh.getByLabel('Dates').selectOption('first');
  await fresh.getByLabel('First day').fill(localTime(60, 8).slice(0, 10));
  await expect(fresh.getByText(/^Drafts open: /)).toBeVisible();
  await fresh.getByRole('button', { name: 'Create', exact: true }).click();
  await expect(ines.getByRole('heading', { name: 'Second description', level: 1 })).toBeVisible();
  await expect(ines.getByText('Nothing is missing.')).toBeVisible();
  await ines.getByRole('link', { name: 'Build it' }).click();
  await ines.getByRole('button', { name: 'From the library…' }).click();
  await ines.getByRole('button', { name: 'Use “Plan with figures, again”' }).click();
  await expect(ines.getByRole('heading', { name: '10 points, 6 items' })).toBeVisible();
  expectNoFaults(ines);
});

test('somebody is invited, takes the place, and has due times in a calendar', async ({ stepIn, browser, baseURL }) => {
  const ines = await stepIn('Ines Marchetti');
  await ines.getByRole('link', { name: /Field Methods Seminar/ }).click();
  await coursePage(ines, 'People');
  await ines.getByRole('button', { name: 'Add a person…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Add a person' });
  await dialog.getByLabel('Name').fill('Mina Holt');
  await dialog.getByLabel('Email address').fill('mina.holt@students.example.org');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(ines.getByRole('row', { name: /Mina Holt/ })).toContainText('invited');
  await coursePage(ines, 'Outbox');
  await ines
    .getByRole('button', { name: /Join Field Methods Seminar/ })
    .first()
    .click();
  const text = await ines.getByRole('article').innerText();
  const link = /\/join\/[\w-]+/.exec(text)?.[0] ?? '';

  const context = await browser.newContext({ baseURL });
  const mina = await context.newPage();
  await mina.goto(link);
  await mina.getByLabel('New password').fill('short');
  await mina.getByRole('button', { name: 'Join the course' }).click();
  await expect(mina.getByText('A password needs at least 10 characters.')).toBeVisible();
  await mina.getByLabel('New password').fill('salt and water and wind');
  await mina.getByRole('button', { name: 'Join the course' }).click();
  await expect(mina.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await mina.getByRole('button', { name: 'Mina Holt: account and theme' }).click();
  await mina.getByRole('menuitem', { name: 'Due times in your calendar…' }).click();
  await mina.getByRole('button', { name: 'Make an address' }).click();
  const address = new URL(await mina.getByLabel('Your address').inputValue()).pathname;
  expect(await (await mina.request.get(address)).text()).toContain('BEGIN:VCALENDAR');
  await mina.getByRole('button', { name: 'Remove address' }).click();
  await expect(mina.getByText('You have no address yet.')).toBeVisible();
  expect((await mina.request.get(address)).status()).toBe(404);
  await context.close();
  expectNoFaults(ines);
});

test('dates of a published exchange move with a notice, and one student gets more time', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await ines.getByRole('link', { name: /^Coastal Restoration/ }).click();
  await ines.getByRole('link', { name: 'Monitoring plan' }).last().click();
  await ines.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Plan/ }).click();
  await open(ines, 'When');
  await ines.getByLabel('Reviews due').fill(localTime(9, 20));
  await expect(ines.getByText('One date is not moved yet.')).toBeVisible();
  await ines.getByRole('button', { name: 'Move dates' }).click();
  await expect(ines.getByText('One date is not moved yet.')).toHaveCount(0);
  await open(ines, 'Extensions');
  await ines.getByRole('button', { name: 'Add extension or exemption…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Add extension or exemption' });
  await dialog.getByLabel('Whose').selectOption({ label: 'Chiara Fonti' });
  await dialog.getByLabel('Drafts due').fill(localTime(3, 20));
  await dialog.getByLabel('Reason').fill('Field week');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(ines.getByText(/drafts due .* \(Field week\)/)).toBeVisible();
  await ines.getByRole('link', { name: 'Coastal Restoration' }).click();
  await coursePage(ines, 'Outbox');
  await expect(
    ines.getByText(/dates of “Monitoring plan” have moved to 24 people: 24 not sent \(no mail server\)/),
  ).toBeVisible();
  // Past the common due time, the one with more time can still hand in, and nobody else.
  await moveTime(ines, 'One day on');
  await moveTime(ines, 'One day on');
  const chiara = await stepIn('Chiara Fonti');
  await expect(chiara.getByRole('listitem').filter({ hasText: 'Monitoring plan' })).toBeVisible();
  const noor = await stepIn('Wanja Kamau');
  await expect(noor.getByRole('link', { name: 'Hand in' })).toHaveCount(0);
  await moveTime(ines, 'Back to the real time');
  expectNoFaults(ines, chiara, noor);
});
