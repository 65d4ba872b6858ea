import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { copyOfMonitoringPlan, publish, sample, toCourse } from './support/exchanges.js';
import { expectNoFaults, jumpTo, test } from './support/people.js';

/** A hand-in by a group, with all that goes wrong on the way; then what staff do about those who are missing. */

const EXCHANGE = 'Plan of a team';
const TEAM = ['Quyên Trần', 'Sunil Rao'] as const;
const FILE = 'A file';

/** Two of the course in one group, everybody else in groups of their own. */
async function teams(ines: Page): Promise<void> {
  await toCourse(ines);
  const pages = ines.getByRole('navigation', { name: 'Pages of the course' });
  await pages.getByRole('link', { name: 'Groups' }).click();
  await ines.getByRole('button', { name: 'New group set…' }).click();
  await ines.getByRole('dialog').getByLabel('Name').fill('Pairs at the gauge');
  await ines.getByRole('button', { name: 'Make it' }).click();
  // The new set is the one that is shown by then.
  await expect(ines.getByRole('heading', { name: /^Pairs at the gauge 0 groups/ })).toBeVisible();
  await ines.getByRole('button', { name: 'Divide…' }).click();
  const dialog = ines.getByRole('dialog', { name: 'Divide “Pairs at the gauge”' });
  await dialog.getByLabel('People in a group').fill('2');
  await dialog.getByRole('button', { name: 'Divide' }).click();
  await expect(ines.getByRole('heading', { name: /^Pairs at the gauge 12 groups/ })).toBeVisible();
  await ines.getByRole('button', { name: 'Add a group' }).click();
  for (const name of TEAM) {
    await ines.getByRole('button', { name: `Move ${name} to another group` }).click();
    await ines.getByRole('menuitem', { name: 'Group 13' }).click();
    await expect(inGroup(ines, name)).toBeVisible();
  }
}

// The second goes on where the first ends.
test.describe.configure({ mode: 'serial' });

const inGroup = (ines: Page, name: string) =>
  ines
    .locator('section')
    .filter({ has: ines.getByRole('textbox', { name: 'Name of Group 13' }) })
    .last()
    .getByRole('listitem')
    .filter({ hasText: name });

async function planned(ines: Page): Promise<void> {
  const id = await copyOfMonitoringPlan(ines, EXCHANGE);
  await ines.getByRole('button', { name: /^Submission format/ }).click();
  await ines.getByRole('combobox', { name: 'Hand in' }).selectOption('group');
  await ines.getByRole('button', { name: /^Who reviews whom/ }).click();
  const groups = ines.getByRole('combobox', { name: 'Groups' });
  await groups.selectOption({ label: await groups.locator('option', { hasText: 'Pairs at the gauge' }).innerText() });
  await expect(ines.getByText(/^Saved /)).toBeVisible();
  await publish(ines, id);
}

async function atDraft(page: Page): Promise<void> {
  await jumpTo(page, EXCHANGE);
  await page.getByRole('link', { name: /^Draft/ }).click();
  await expect(page.getByText(TEAM.join(', '))).toBeVisible();
}

async function type(page: Page, words: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Draft', exact: true }).click();
  await page.keyboard.type(words);
}

/** The connection goes while a file is on its way; it goes on from where it was, on its own or when chosen again. */
async function interrupted(page: Page): Promise<void> {
  const files = page.getByRole('region', { name: 'Readings and sketches' });
  const choose = files.getByLabel('Choose files, or drop them here');
  const offsets: number[] = [];
  let broken = true;
  // The first bytes arrive, then the connection is gone.
  await page.route('**/api/uploads/**', async (route) => {
    const request = route.request();
    if (request.method() !== 'PATCH') return route.continue();
    offsets.push(Number(request.headers()['upload-offset']));
    if (!broken) return route.continue();
    broken = false;
    const whole = request.postDataBuffer() ?? Buffer.alloc(0);
    await page.context().request.fetch(request.url(), {
      method: 'PATCH',
      headers: { ...request.headers(), 'content-length': '1000' },
      data: whole.subarray(0, 1000),
    });
    await route.abort('connectionreset');
  });
  await choose.setInputFiles(sample('report.pdf'));
  await expect(files.getByRole('link', { name: 'report.pdf' })).toBeVisible();
  expect(offsets).toEqual([0, 1000]);
  await page.unroute('**/api/uploads/**');
}

test('a group writes one draft, and what two write at once is not lost', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await teams(ines);
  await planned(ines);
  const [one, other] = [await stepIn(TEAM[0]), await stepIn(TEAM[1])];
  await atDraft(one);
  await atDraft(other);
  // Without a connection the other one does not hear what is written meanwhile.
  await other.context().setOffline(true);
  await one.getByPlaceholder('Title of your draft').fill('How the team reads the gauge');
  await type(one, 'Read every week.');
  await expect(one.getByText(/^Saved /)).toBeVisible();
  await type(other, 'Read at low water.');
  await other.context().setOffline(false);
  await expect(other.getByText('in another tab or by somebody of your group')).toBeVisible();
  await other.getByRole('button', { name: 'Keep both, the other one below' }).click();
  const text = other.getByRole('textbox', { name: 'Draft', exact: true });
  await expect(text).toContainText('Read at low water.');
  await expect(text).toContainText('Read every week.');
  await expect(other.getByText(/^Saved /)).toBeVisible();
  // What the other wrote comes by itself.
  await expect(one.getByRole('textbox', { name: 'Draft', exact: true })).toContainText('Read at low water.');

  await interrupted(other);
  const talk = other.getByRole('region', { name: 'Two minutes at the site' });
  await talk.getByRole('button', { name: 'Record with the camera' }).click();
  await expect(talk.getByText(/^Recording 0:0[2-9]/)).toBeVisible();
  await talk.getByRole('button', { name: 'Pause' }).click();
  await expect(talk.getByText(/^Paused/)).toBeVisible();
  await talk.getByRole('button', { name: 'Continue' }).click();
  await talk.getByRole('button', { name: 'Stop' }).click();
  await talk.getByRole('button', { name: 'Put it into the draft' }).click();
  await expect(talk.getByRole('link', { name: 'Two minutes at the site.webm' })).toBeVisible();

  const map = other.getByRole('region', { name: 'Map', exact: true });
  await map.getByRole('button', { name: 'Add a link' }).click();
  await map.getByLabel('Address').fill('https://maps.example.org/basin');
  await map.getByLabel('What it is').fill('Map of the basin');
  await map.getByRole('button', { name: 'Add the link' }).click();
  await expect(map.getByRole('link', { name: 'Map of the basin' })).toBeVisible();

  await other.getByRole('button', { name: 'Hand in…' }).click();
  const dialog = other.getByRole('dialog', { name: 'Hand in this draft?' });
  await dialog.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(other.getByRole('dialog', { name: 'Handed in' })).toContainText('Readings and sketches: report.pdf');
  await other.getByRole('button', { name: 'Close the receipt' }).click();
  // It counts for both.
  await atDraft(one);
  await expect(one.getByText('Handed in, version 1').last()).toBeVisible();
  await jumpTo(ines, EXCHANGE);
  await ines.getByRole('link', { name: /^Drafts/ }).click();
  await expect(ines.getByRole('heading', { name: /^Drafts 2 of 24 handed in/ })).toBeVisible();
  for (const name of TEAM) {
    await expect(ines.getByRole('row', { name: new RegExp(name) })).toContainText(/Group 13.*How the team reads/);
  }
  expectNoFaults(ines, one, other);
});

test('staff remind, give more time, hand in for a student, and take all hand-ins with them', async ({ stepIn }) => {
  const ines = await stepIn('Ines Marchetti');
  await jumpTo(ines, EXCHANGE);
  await ines.getByRole('link', { name: /^Drafts/ }).click();
  await ines.getByRole('button', { name: 'Remind 22…' }).click();
  const reminder = ines.getByRole('dialog', { name: 'Remind 22 students' });
  await reminder.getByLabel('Add a message (optional)').fill('The boat leaves at nine.');
  await expect(reminder.getByText(/The boat leaves at nine\.$/m).last()).toBeVisible();
  await expect(reminder.getByText(/^To: /)).not.toContainText(TEAM[0]);
  await reminder.getByRole('button', { name: 'Send it' }).click();
  await expect(reminder.getByText(/^Reminder sent to /)).toBeVisible();
  await reminder.getByRole('button', { name: 'Close', exact: true }).last().click();

  const row = ines.getByRole('row', { name: /Adjoa Mensah/ });
  const more = async (words: string) => {
    await row.getByRole('button', { name: 'More about Adjoa Mensah' }).click();
    await ines.getByRole('menuitem', { name: words }).click();
  };
  await more('Hand in for the student…');
  const forStudent = ines.getByRole('dialog', { name: 'Hand in for Adjoa Mensah' });
  await forStudent.getByLabel('Title, if the draft has none yet').fill('By mail');
  await forStudent.getByLabel(/^Add to “Readings and sketches”/).setInputFiles({
    name: `${FILE}.pdf`,
    mimeType: 'application/pdf',
    buffer: readFileSync(sample('report.pdf')),
  });
  await expect(forStudent.getByText(`Added: ${FILE}.pdf`)).toBeVisible();
  await forStudent.getByRole('button', { name: 'Hand in what is there' }).click();
  // A part that is required is not there: it is said, and nothing was handed in.
  await expect(forStudent.getByRole('alert')).toContainText('missing');
  await ines.keyboard.press('Escape');
  await more('Exempt…');
  const excuse = ines.getByRole('dialog', { name: /^Exempt from this exchange/ });
  await excuse.getByLabel('Reason (kept on record)').fill('At sea until June.');
  await excuse.getByRole('button', { name: 'Exempt from this exchange' }).click();
  await expect(row).toContainText('exempt');

  await ines.getByRole('button', { name: 'Download all…' }).click();
  const [download] = await Promise.all([
    ines.waitForEvent('download'),
    ines.getByRole('link', { name: 'By name, files as handed in' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe(`${EXCHANGE}.zip`);
  // Names of members stand in clear in a ZIP; that others can read all of it is the server's test.
  const zip = readFileSync(await download.path());
  expect([zip.includes('index.csv'), zip.includes('/report.pdf'), zip.includes(`/${FILE}.pdf`)]).toEqual([
    true,
    true,
    false,
  ]);
  expectNoFaults(ines);
});
