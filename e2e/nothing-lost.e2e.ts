import { expect, type Page } from '@playwright/test';
import { expectNoFaults, jumpTo, setTime, test } from './support/people.js';

/** Nothing a person typed is lost: not by a lost connection, a closed tab, a session that ran out, or two tabs. */

const EXCHANGE = 'Monitoring plan';
const DAY = 24 * 3_600_000;

/** A student who has not handed in, at their draft. */
async function atDraft(page: Page): Promise<void> {
  await jumpTo(page, EXCHANGE);
  await expect(page.getByRole('textbox', { name: 'Draft', exact: true })).toBeVisible();
}

async function type(page: Page, words: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Draft', exact: true }).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(words);
}

test('typing goes on without a connection, and a closed tab, and is saved when it is back', async ({ stepIn }) => {
  const page = await stepIn('Dagny Holm');
  await atDraft(page);
  await page.context().setOffline(true);
  await type(page, 'Written on the ferry.');
  await expect(page.getByText('No connection: kept in this browser')).toBeVisible();
  const url = page.url();
  page.on('dialog', (dialog) => void dialog.accept());
  await page.close({ runBeforeUnload: false });
  const again = await page.context().newPage();
  await page.context().setOffline(false);
  await again.goto(url);
  await expect(again.getByRole('textbox', { name: 'Draft', exact: true })).toContainText('Written on the ferry.');
  await expect(again.getByText(/^Saved /)).toBeVisible();
  await again.reload();
  await expect(again.getByRole('textbox', { name: 'Draft', exact: true })).toContainText('Written on the ferry.');
});

test('a session that runs out while typing takes no letter and no focus, and all is sent after signing in', async ({
  stepIn,
}) => {
  const page = await stepIn('Bálint Kiss');
  await atDraft(page);
  const editor = page.getByRole('textbox', { name: 'Draft', exact: true });
  const letters = Array.from({ length: 300 }, (_, index) => String.fromCharCode(97 + (index % 26))).join('');
  await type(page, letters.slice(0, 100));
  await page.context().clearCookies();
  await page.keyboard.type(letters.slice(100), { delay: 15 });
  await expect(page.getByText('Your session ended.')).toBeVisible();
  await expect(editor).toBeFocused();
  await expect(editor).toContainText(letters);
  await page.getByRole('button', { name: 'Sign in to hand in' }).click();
  await page.getByLabel('Password').fill('saltmarsh');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await expect(page.getByText('Your session ended.')).toBeHidden();
  await page.reload();
  await expect(editor).toContainText(letters);
  expectNoFaults(page);
});

test('an answer that is not ours is tried again, and nobody is told that there is no connection', async ({
  stepIn,
}) => {
  const page = await stepIn('Oksana Bila');
  await atDraft(page);
  let hotel = true;
  await page.route('**/api/exchanges/*/draft/texts/*', (route) =>
    hotel
      ? route.fulfill({ status: 200, contentType: 'text/html', body: '<h1>Welcome to the hotel</h1>' })
      : route.continue(),
  );
  await type(page, 'From the hotel.');
  await expect(page.getByText('Not saved yet: kept in this browser, trying again')).toBeVisible();
  hotel = false;
  await expect(page.getByText(/^Saved /)).toBeVisible();
});

test('signing out without a connection removes everything here, asks about unsent words, and ends the session later', async ({
  stepIn,
}) => {
  const page = await stepIn('Tereza Nováková');
  await atDraft(page);
  await page.context().setOffline(true);
  await type(page, 'Words that nobody has.');
  await expect(page.getByText('No connection: kept in this browser')).toBeVisible();
  await page.getByRole('button', { name: 'Tereza Nováková: account and theme' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  const dialog = page.getByRole('dialog', { name: 'Not everything is saved' });
  await expect(dialog.getByText('Words that nobody has.')).toBeVisible();
  const file = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save as a file' }).click();
  expect((await file).suggestedFilename()).toBe('unsaved text.txt');
  await dialog.getByRole('button', { name: 'Sign out and remove it' }).click();
  await expect(page.getByRole('heading', { name: 'Signing out' })).toBeVisible();
  // Nothing of the first person is left in this browser.
  const left = await page.evaluate(async () => {
    const found: string[] = (await caches.keys()).filter((name) => name.startsWith('kept:'));
    for (const { name = '' } of await indexedDB.databases()) {
      const database = await new Promise<IDBDatabase>((done) => {
        const opened = indexedDB.open(name);
        opened.onsuccess = () => done(opened.result);
      });
      for (const store of database.objectStoreNames) {
        const all = await new Promise<unknown[]>((done) => {
          const asked = database.transaction(store).objectStore(store).getAll();
          asked.onsuccess = () => done(asked.result as unknown[]);
        });
        found.push(...all.map((one) => JSON.stringify(one)));
      }
    }
    return found;
  });
  expect(left).toEqual([]);
  await page.context().setOffline(false);
  await expect(page.getByRole('heading', { name: 'Signed out' })).toBeVisible();
  const session = (await (await page.context().request.get('/api/session')).json()) as { person: unknown };
  expect(session.person).toBeNull();
});

test('signing in by email and password, and out again', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByLabel('Email').fill('nobody');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('Enter your email address, such as name@example.org.')).toBeVisible();
  await page.getByLabel('Email').fill('hana.sato@students.example.org');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('No account has this email address with this password.')).toBeVisible();
  await page.getByLabel('Password').fill('saltmarsh');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: 'Hana Sato: account and theme' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Salt Circle: the demo' })).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Salt Circle: the demo' })).toBeVisible();
});

test('two tabs at the same draft: both texts are shown, and one is chosen', async ({ stepIn }) => {
  const page = await stepIn('Farida Aziz');
  await atDraft(page);
  const second = await page.context().newPage();
  await second.goto(page.url());
  await type(second, 'From the second tab.');
  await expect(second.getByText(/^Saved /)).toBeVisible();
  await type(page, 'From the first tab.');
  await expect(page.getByText('was changed somewhere else')).toBeVisible();
  await expect(page.getByText('From the second tab.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep what is here' }).click();
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await second.reload();
  await expect(second.getByRole('textbox', { name: 'Draft', exact: true })).toContainText('From the first tab.');
});

test('pasted text keeps headings, lists, tables and links, and loses scripts', async ({ stepIn }) => {
  const page = await stepIn('Jonas Brandt');
  await atDraft(page);
  const editor = page.getByRole('textbox', { name: 'Draft', exact: true });
  await editor.click();
  await page.keyboard.press('Control+a');
  await editor.evaluate((element) => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      `<h2 style="color:red">Why</h2><p class=MsoNormal onclick="x()">The <b>bed</b> rose<script>x()</script>.</p>
       <p class=MsoListParagraph style='mso-list:l0 level1 lfo1'><span style='mso-list:Ignore'>· </span>one</p>
       <table><tr><td>Cost</td><td>42</td></tr></table><p><a href="https://example.org/map">map</a> <a href="javascript:x()">trap</a></p>`,
    );
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText(/^Saved /)).toBeVisible();
  await page.reload();
  const html = await editor.innerHTML();
  expect(html).toContain('<h2>Why</h2>');
  expect(html).toContain('<strong>bed</strong>');
  expect(html).toMatch(/<ul><li><p>one<\/p><\/li><\/ul>/);
  expect(html).toMatch(/<td[^>]*><p>42<\/p><\/td>/);
  expect(html).toContain('href="https://example.org/map"');
  expect(html).not.toMatch(/script|onclick|color:red|MsoNormal/);
});

test('a draft too long to keep says so beside itself, and stays in the browser', async ({ stepIn }) => {
  const page = await stepIn('Laleh Amini');
  await atDraft(page);
  const editor = page.getByRole('textbox', { name: 'Draft', exact: true });
  await editor.click();
  await editor.evaluate((element) => {
    const data = new DataTransfer();
    data.setData('text/html', `<p>${'word '.repeat(400_000)}</p>`);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText('This draft is longer than can be kept')).toBeVisible();
  await expect(page.getByText('Not saved: see what is marked')).toBeVisible();
  await page.reload();
  await expect(editor).toContainText('word word');
});

test('the due time passing in mid-sentence keeps the text, and says that it does not count', async ({ stepIn }) => {
  const noor = await stepIn('Noor Haddad');
  await atDraft(noor);
  await type(noor, 'One more thought.');
  await expect(noor.getByText(/^Saved /)).toBeVisible();
  await setTime(noor, new Date(Date.now() + 3 * DAY).toISOString());
  await type(noor, ' And another.');
  await expect(noor.getByText(/^Saved /)).toBeVisible();
  await noor.reload();
  await expect(noor.getByRole('textbox', { name: 'Draft', exact: true })).toContainText(
    'One more thought. And another.',
  );
  await expect(noor.getByText('The due time has passed.')).toBeVisible();
  await expect(noor.getByRole('button', { name: /Hand in/ })).toHaveCount(0);
});

test('a new version moves no text under the notes of a review that has begun', async ({ stepIn }) => {
  const reviewer = await stepIn('Sunil Rao');
  const ines = await stepIn('Ines Marchetti');
  await jumpTo(reviewer, 'Salt-marsh restoration proposal');
  await reviewer
    .getByRole('link', { name: /^Review/ })
    .first()
    .click();
  await reviewer
    .getByRole('main')
    .getByRole('link', { name: /Begin|Continue|Read/ })
    .first()
    .click();
  await expect(reviewer.getByRole('tab', { name: 'Form' })).toBeVisible();
  const reopen = reviewer.getByRole('button', { name: 'Reopen to change it' });
  if (await reopen.isVisible()) await reopen.click();
  const draft = reviewer.getByRole('document', { name: /Arrow up and down/ });
  await draft.focus();
  await reviewer.keyboard.press('ArrowDown');
  await reviewer.keyboard.press('ArrowDown');
  await reviewer.keyboard.press('3');
  await reviewer.keyboard.type('Is this sentence needed?');
  await expect(reviewer.getByText(/^Saved /)).toBeVisible();
  const passage = await reviewer.locator('mark.passage').first().innerText();
  const alias = /draft by (.+)$/.exec(await reviewer.getByRole('heading', { level: 1 }).innerText())?.[1] ?? '';

  // The instructor knows who that is. Back in the time of drafting, the author hands in another text.
  await jumpTo(ines, 'Salt-marsh restoration proposal');
  await ines.getByRole('link', { name: /^Drafts/ }).click();
  const name = await ines
    .getByRole('row')
    .filter({ has: ines.getByRole('cell', { name: alias, exact: true }) })
    .getByRole('rowheader')
    .innerText();
  const author = await stepIn(name);
  await setTime(author, new Date(Date.now() - 6 * DAY).toISOString());
  await author.reload();
  await jumpTo(author, 'Salt-marsh restoration proposal');
  await author
    .getByRole('link', { name: /^Draft/ })
    .first()
    .click();
  await author.getByRole('textbox', { name: 'Draft', exact: true }).click();
  await author.keyboard.press('Control+a');
  await author.keyboard.type('Quite another text, about something else entirely.');
  await author.getByRole('button', { name: 'Hand in again…' }).click();
  await author.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(author.getByRole('dialog', { name: 'Handed in' })).toBeVisible();
  await setTime(author, null);

  await reviewer.reload();
  await expect(reviewer.getByText(/^You go on with version \d+, on which you began\.$/)).toBeVisible();
  await expect(reviewer.locator('mark.passage').first()).toHaveText(passage);
  await reviewer.getByRole('tab', { name: /^Notes/ }).click();
  await expect(reviewer.getByRole('tabpanel').getByText('Is this sentence needed?')).toBeVisible();
  await expect(reviewer.getByText('This passage is no longer in the draft')).toHaveCount(0);
});
