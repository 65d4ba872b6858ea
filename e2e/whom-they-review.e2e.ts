import { expect, type Locator, type Page } from '@playwright/test';
import { largeCourse } from './support/largeCourse.js';
import { expectNoFaults, jumpTo, test } from './support/people.js';

const board = (page: Page) => page.getByRole('list', { name: 'Reviewers and their drafts' });
const rowOf = (page: Page, name: string) => board(page).getByRole('listitem', { name, exact: true });
const said = (page: Page) =>
  page.getByRole('status').filter({ hasText: /Now reviews per draft|Held|Let go|Kept apart|Allowed|Not possible/ });
const matrix = (page: Page) => page.getByRole('application', { name: /^Matrix of reviewers/ });

async function openAllocation(page: Page, exchangeId: string): Promise<void> {
  await page.goto(`/exchanges/${exchangeId}/allocation`);
  await expect(page.getByRole('heading', { name: 'Who reviews whom' })).toBeVisible();
}

/** The names on the chips of a row. */
async function draftsOf(row: Locator): Promise<string[]> {
  const labels = await row
    .getByRole('button', { name: / reviews / })
    .evaluateAll((buttons) => buttons.map((button) => button.getAttribute('aria-label') ?? ''));
  return labels.map((label) => label.replace(/^.* reviews ([^,]*).*$/, '$1'));
}

test('the board by mouse: preview, wishes, apply, undo, drag, swap, hold, keep apart, repair, file, schedule', async ({
  stepIn,
  world,
}) => {
  const page = await stepIn('Ines Marchetti');
  const id = largeCourse(world, 24, 'Tidal gardens');
  await openAllocation(page, id);
  await expect(page.getByText('24 of 24 students have handed in.')).toBeVisible();

  // A preview, and what another wish makes of it.
  await page.getByRole('button', { name: 'Preview an allocation' }).click();
  await expect(page.getByText('72 of 72')).toBeVisible();
  await expect(page.getByText('3 for each')).toBeVisible();
  await page.getByLabel('Reviews each').selectOption('2');
  await expect(page.getByText('48 of 48')).toBeVisible();
  await page.getByLabel('At most per draft').selectOption('1');
  await expect(page.getByText('24 of 48', { exact: true })).toBeVisible();
  await expect(
    page.getByText('At most 1 a draft leaves room for 24 of 48 reviews asked: raise it to 2.'),
  ).toBeVisible();
  await page.getByLabel('At most per draft').selectOption('no limit');
  await expect(page.getByText('48 of 48')).toBeVisible();
  await page.getByRole('button', { name: 'Apply 48 reviews' }).click();
  await expect(page.getByText('48 reviews allocated.')).toBeVisible();

  // Undone, and applied again.
  await page.getByRole('button', { name: 'Undo applying' }).click();
  await expect(page.getByText('No drafts have been allocated yet.')).toBeVisible();
  await page.getByLabel('Reviews each').selectOption('2');
  await page.getByRole('button', { name: 'Apply 48 reviews' }).click();
  await expect(page.getByText('48 reviews allocated.')).toBeVisible();

  // Dragged from one row to another, with what that does.
  const from = rowOf(page, 'Ada Aalto');
  const [moved = ''] = await draftsOf(from);
  const names = ['Bo Aalto', 'Cleo Aalto', 'Dan Aalto', 'Eda Aalto'];
  let to = '';
  for (const name of names) {
    if (to === '' && name !== moved && !(await draftsOf(rowOf(page, name))).includes(moved)) to = name;
  }
  const chip = from.getByRole('button', { name: `Ada Aalto reviews ${moved}` });
  const target = await rowOf(page, to).boundingBox();
  await chip.hover();
  await page.mouse.down();
  await page.mouse.move((target?.x ?? 0) + 240, (target?.y ?? 0) + 20, { steps: 12 });
  await page.mouse.up();
  await expect(said(page)).toContainText(`Moved: ${to} and the draft by ${moved}, instead of Ada Aalto`);
  await expect(said(page)).toContainText('reviews per draft 2 for each');
  await expect(rowOf(page, to)).toContainText('3 of 2');
  await page.getByRole('button', { name: 'Undo the last change' }).click();
  await expect(rowOf(page, to)).toContainText('2 of 2');

  // Swapped, locked, never paired; the fix mends that.
  await chip.click();
  await page.getByRole('menuitem', { name: /^Swap with/ }).click();
  const choice = page.getByRole('dialog').getByRole('listitem').first().getByRole('button');
  await choice.click();
  await expect(said(page)).toContainText('Swapped: ');
  await page.getByRole('button', { name: 'Undo the last change' }).click();
  await expect(chip).toBeVisible();
  await chip.click();
  await page.getByRole('menuitem', { name: /^Lock/ }).click();
  await expect(from.getByRole('button', { name: `Ada Aalto reviews ${moved}, held` })).toBeVisible();
  await from.getByRole('button', { name: /, held$/ }).click();
  await page.getByRole('menuitem', { name: /^Let go/ }).click();
  await expect(said(page)).toContainText('Let go');
  await chip.click();
  await page.getByRole('menuitem', { name: /^Never pair/ }).click();
  await expect(page.getByText('1 pair that you keep apart is allocated')).toBeVisible();
  await page.getByRole('button', { name: 'Review the fix' }).click();
  await expect(page.getByText('Fix, not applied')).toBeVisible();
  await expect(page.getByText('you set the two never to be paired')).toBeVisible();
  await page.getByRole('button', { name: 'Apply the fix' }).click();
  await expect(page.getByText('Preview: nothing has been applied yet.')).toHaveCount(0);
  await expect(page.getByText('Changes since allocation')).toHaveCount(0);
  expect(await draftsOf(from)).not.toContain(moved);
  await expect(page.getByText('2 for each')).toBeVisible();

  // In the matrix a mark is dragged; the ring shows whose arcs are whose.
  await page.getByRole('button', { name: 'Matrix' }).click();
  await expect(matrix(page)).toBeVisible();
  const [given, free] = await oneOfEach(page);
  await page.mouse.move(given.x, given.y);
  await page.mouse.down();
  await page.mouse.move(free.x, free.y, { steps: 12 });
  await page.mouse.up();
  await expect(said(page)).toContainText('Moved: Ada Aalto and the draft by');
  await page.getByRole('button', { name: 'Undo the last change' }).click();
  await expect(said(page)).toHaveCount(0);
  await expect(page.getByText('2 for each')).toBeVisible();
  await page.getByRole('button', { name: 'Ring' }).click();
  await page.getByRole('button', { name: 'Ada Aalto', exact: true }).hover();
  await expect(page.getByRole('status').filter({ hasText: /Ada Aalto reviews .* and / })).toBeVisible();
  await page.getByRole('button', { name: 'List' }).click();

  // Out as a file, and in again without one row.
  await page.getByRole('button', { name: 'More' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Download as CSV' }).click();
  const stream = await (await download).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(chunk as Buffer);
  const lines = Buffer.concat(chunks).toString('utf8').replace('\uFEFF', '').trim().split('\r\n');
  expect(lines).toHaveLength(49);
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'From a CSV file…' }).click();
  const dialog = page.getByRole('dialog', { name: 'An allocation from a file' });
  await dialog.getByLabel('Or pasted rows').fill([...lines.slice(0, -1), 'nobody,nothing,maybe'].join('\n'));
  await dialog.getByRole('button', { name: 'See what it would do' }).click();
  await expect(dialog.getByText(/^Row 49: “nobody” is nobody who can review here/)).toBeVisible();
  await dialog.getByLabel('Or pasted rows').fill(lines.slice(0, -1).join('\n'));
  await dialog.getByRole('button', { name: 'See what it would do' }).click();
  await expect(dialog.getByText('Go: 1 pair')).toBeVisible();
  await dialog.getByRole('button', { name: 'Apply' }).click();
  await expect(page.getByText('47 reviews allocated.')).toBeVisible();

  // Staff review as well, and a plan for when.
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Add staff reviewers…' }).click();
  await page.getByLabel('Reviews by Ines Marchetti').selectOption('2 reviews');
  await page.keyboard.press('Escape');
  await expect(rowOf(page, 'you')).toContainText('of the staff');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'When drafts are allocated…' }).click();
  await page.getByRole('radio', { name: /^Every night/ }).check();
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/^Every night among those who wait, 3 or more/)).toBeVisible();
  expectNoFaults(page);
});

interface Point {
  readonly x: number;
  readonly y: number;
}

/** Where in the first row of the matrix a pair is allocated, and where one could be: by pressing cell after cell. */
async function oneOfEach(page: Page): Promise<[given: Point, free: Point]> {
  const box = await matrix(page).boundingBox();
  if (box === null) throw new Error('there is no matrix');
  const cell = page.locator('#matrix-cell');
  let given: Point | null = null;
  let free: Point | null = null;
  // Past the names at the left and at the top; cells of 24 pixels for 24 people.
  for (let col = 0; col < 24 && (given === null || free === null); col += 1) {
    const point = { x: box.x + 172 + col * 24 + 12, y: box.y + 128 + 12 };
    await page.mouse.click(point.x, point.y);
    const words = await cell.innerText();
    if (words.includes(': allocated')) given ??= point;
    if (words.includes(': not allocated')) free ??= point;
  }
  if (given === null || free === null) throw new Error('the first row has not both');
  return [given, free];
}

/** Goes on with an arrow key until there is a pair that could be. */
async function toFree(page: Page, key: string): Promise<void> {
  const cell = page.locator('#matrix-cell');
  for (let step = 0; step < 30 && !(await cell.innerText()).includes('not allocated'); step += 1) {
    await page.keyboard.press(key);
  }
  await expect(cell).toContainText('not allocated');
}

/** Presses Tab until the focus is where it should be. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  for (let pressed = 0; pressed < 60; pressed += 1) {
    if (await target.evaluate((element) => element === document.activeElement).catch(() => false)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('the focus never came there');
}

test('the board by keyboard alone', async ({ stepIn, world }) => {
  const page = await stepIn('Ines Marchetti');
  const id = largeCourse(world, 24, 'Kelp survey');
  await page.goto('/');
  await openAllocation(page, id);
  const button = (name: string | RegExp) => page.getByRole('button', { name }).first();
  await tabTo(page, button('Preview an allocation'));
  await page.keyboard.press('Enter');
  await expect(page.getByText('72 of 72')).toBeVisible();
  await tabTo(page, button('Apply 72 reviews'));
  await page.keyboard.press('Enter');
  await expect(page.getByText('72 reviews allocated.')).toBeVisible();

  // The list: one stop for Tab, arrows from draft to draft.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await tabTo(page, page.locator('[data-at="0:0"]'));
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-at="1:1"]')).toBeFocused();
  await expect(page.getByRole('menu')).toHaveCount(0);
  const label = (await page.locator('[data-at="1:1"]').getAttribute('aria-label')) ?? '';
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: `${label}, held` })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  const picker = page.getByRole('dialog', { name: /^Who reviews .* instead of/ });
  await expect(picker).toBeVisible();
  await tabTo(page, picker.getByRole('listitem').first().getByRole('button'));
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Moved: ');
  await tabTo(page, button('Undo the last change'));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: `${label}, held` })).toBeVisible();

  // The matrix: a cell is found, filled, moved, set never to be paired.
  await tabTo(page, button('Matrix'));
  await page.keyboard.press('Enter');
  await tabTo(page, matrix(page));
  const cell = page.locator('#matrix-cell');
  await expect(cell).toContainText('Ada Aalto and the draft by Bo Aalto');
  await toFree(page, 'ArrowRight');
  await expect(cell).toContainText('not allocated');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Added: Ada Aalto and the draft by');
  await expect(said(page)).toContainText('reviews per draft 3 to 4 (before: 3 for each)');
  await expect(cell).toContainText('allocated, held');
  await page.keyboard.press('m');
  await expect(cell).toContainText('Carrying Ada Aalto');
  await page.keyboard.press('ArrowDown');
  await toFree(page, 'ArrowDown');
  await page.keyboard.press('m');
  await expect(said(page)).toContainText('Moved: ');
  await expect(cell).toContainText('allocated, held');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Taken away: ');
  await expect(cell).toContainText('not allocated');
  await page.keyboard.press('k');
  await expect(cell).toContainText('never paired');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Not possible: ');

  // The ring: round by arrows.
  await tabTo(page, button('Ring'));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('button', { name: 'Ada Aalto', exact: true }));
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('status').filter({ hasText: 'Bo Aalto reviews' })).toBeVisible();
  expectNoFaults(page);
});

test('what one of the staff does is seen by the other within a moment, while that one looks at the same board', async ({
  stepIn,
  world,
}) => {
  const id = largeCourse(world, 6, 'Rock pools');
  const [ines, second] = [await stepIn('Ines Marchetti'), await stepIn('Ines Marchetti')];
  await openAllocation(ines, id);
  await openAllocation(second, id);
  await expect(second.getByText('No drafts have been allocated yet.')).toBeVisible();
  await ines.getByRole('button', { name: 'Preview an allocation' }).click();
  await ines.getByRole('button', { name: 'Apply 18 reviews' }).click();
  // Far sooner than a page asks by itself.
  await expect(second.getByText('18 reviews allocated.')).toBeVisible();
  await ines.getByRole('button', { name: 'Undo applying' }).click();
  await expect(second.getByText('No drafts have been allocated yet.')).toBeVisible();
  expectNoFaults(ines, second);
});

test('what has begun is taken away only after a second yes, and comes back with its work', async ({ stepIn }) => {
  const page = await stepIn('Ines Marchetti');
  await jumpTo(page, 'Salt-marsh restoration proposal');
  await page.getByRole('link', { name: /^Allocation/ }).click();
  const chip = board(page)
    .getByRole('button', { name: /, submitted$/ })
    .first();
  const [reviewer = '', author = ''] = ((await chip.getAttribute('aria-label')) ?? '')
    .replace(', submitted', '')
    .split(' reviews ');
  const row = rowOf(page, reviewer);
  await chip.click();
  await page.getByRole('menuitem', { name: /^Remove/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Remove what has begun?' });
  await expect(
    dialog.getByText(new RegExp(`${reviewer}’s review of the draft by ${author} has been submitted`)),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Remove it, keep the work' }).click();
  await expect(said(page)).toContainText('Taken away; the work is kept.');
  await expect(row).toContainText('1 of 2');
  await row.getByRole('button', { name: /^Add a draft for/ }).click();
  await page.getByLabel('Find by name').fill(author);
  await page
    .getByRole('dialog')
    .getByRole('listitem')
    .getByRole('button', { name: new RegExp(author) })
    .click();
  await expect(row.getByRole('button', { name: `${reviewer} reviews ${author}, held, submitted` })).toBeVisible();
  // It is as it was for all the tests that come after.
  await row.getByRole('button', { name: `${reviewer} reviews ${author}, held, submitted` }).click();
  await page.getByRole('menuitem', { name: /^Let go/ }).click();
  await expect(said(page)).toContainText('Let go');
  expectNoFaults(page);
});

test('six hundred people: worked out beside, drawn as far as one sees', async ({ stepIn, world }) => {
  const page = await stepIn('Ines Marchetti');
  const id = largeCourse(world, 600, 'All sections');
  await openAllocation(page, id);
  await page.getByRole('button', { name: 'Preview an allocation' }).click();
  await expect(page.getByText('1800 of 1800')).toBeVisible();
  await page.getByRole('button', { name: 'Apply 1,800 reviews' }).click();
  await expect(page.getByText('1,800 reviews allocated.')).toBeVisible();
  // Of six hundred rows only those in sight are there, wherever one is.
  expect(await board(page).getByRole('listitem').count()).toBeLessThan(60);
  await page.getByLabel('Find a reviewer').fill('Yuri Zink');
  await expect(board(page).getByRole('listitem')).toHaveCount(1);
  await page.getByLabel('Find a reviewer').fill('');
  await page.getByRole('button', { name: 'Matrix' }).click();
  await matrix(page).focus();
  for (let press = 0; press < 60; press += 1) await page.keyboard.press('PageDown');
  await page.keyboard.press('End');
  await expect(page.locator('#matrix-cell')).toContainText('Yuri Zink and the draft by Yuri Zink: own draft');
  expect(await matrix(page).locator('svg').count()).toBeLessThan(400);
  await toFree(page, 'ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Added: Yuri Zink');
  await page.getByRole('button', { name: 'Undo the last change' }).click();
  await page.getByRole('button', { name: 'Ring' }).click();
  await expect(page.getByText('600 people are too many for a ring.')).toBeVisible();
  await page.getByRole('button', { name: 'Show the matrix' }).click();
  await expect(matrix(page)).toBeVisible();
  // Tables draw as far as one sees as well, their heads stay, and reading goes by their order.
  await page.getByRole('link', { name: /^Drafts/ }).click();
  const drafts = page.getByRole('table', { name: 'Drafts' });
  await expect(drafts).toHaveAttribute('aria-rowcount', '601');
  expect(await drafts.getByRole('row').count()).toBeLessThan(80);
  await drafts.getByRole('button', { name: 'Person' }).click();
  const drafted = page.getByRole('region', { name: 'Drafts' });
  /** Pixels between the top of the board and its heads. */
  const headAt = async () => {
    const [head, frame] = [await drafts.getByRole('columnheader').first().boundingBox(), await drafted.boundingBox()];
    return Math.round((head?.y ?? -1) - (frame?.y ?? 0));
  };
  await expect(async () => {
    await drafted.press('End');
    await expect(drafts.getByRole('row').last()).toHaveAttribute('aria-rowindex', '601', { timeout: 1000 });
  }).toPass();
  expect(await headAt()).toBe(0);
  await drafted.press('Home');
  await expect(drafts.getByRole('rowheader').first()).toHaveText(/ Z/);
  const [, second] = await drafts.getByRole('rowheader').allInnerTexts();
  await drafts.getByRole('link', { name: 'version 1' }).first().click();
  await expect(page.getByText('1 of 600', { exact: true })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByText('2 of 600', { exact: true })).toBeVisible();
  await expect(page.getByRole('article')).toContainText(second ?? 'nobody');
  expectNoFaults(page);
});
