import { expect, type Browser, type Page } from '@playwright/test';
import { expectNoFaults, test } from './support/people.js';

/** Somebody who is not signed in, in a browser of their own. */
async function stranger(browser: Browser, baseURL: string | undefined): Promise<Page> {
  const context = await browser.newContext({ baseURL });
  return context.newPage();
}

/** The link in the latest mail to an address, as its reader finds it. */
async function linkIn(page: Page, subject: RegExp, address: string): Promise<string> {
  await page.goto('/demo/mail');
  await page
    .getByRole('button', { name: new RegExp(`${subject.source}.*${address}`) })
    .first()
    .click();
  await expect(page.getByText(`to ${address}`)).toBeVisible();
  const link = page.getByRole('article').getByRole('link');
  return new URL((await link.getAttribute('href')) ?? '').pathname;
}

async function signIn(page: Page, email: string, password: string): Promise<void> {
  await page.goto('/sign-in');
  await page.getByLabel('Email').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a forgotten password is chosen anew by mail, and another browser is signed out', async ({ browser, baseURL }) => {
  const email = 'kiri.tawhai@students.example.org';
  const [phone, laptop, mailbox] = [
    await stranger(browser, baseURL),
    await stranger(browser, baseURL),
    await stranger(browser, baseURL),
  ];
  await signIn(phone, email, 'saltmarsh');
  await expect(phone.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();

  await laptop.goto('/sign-in');
  await laptop.getByRole('link', { name: 'Forgotten your password?' }).click();
  await expect(laptop.getByRole('heading', { name: 'A new password' })).toBeVisible();
  await laptop.getByLabel('Email').fill(email);
  await laptop.getByRole('button', { name: 'Send me a link' }).click();
  await expect(laptop.getByText('Look into your mailbox.')).toBeVisible();
  await laptop.goto(await linkIn(mailbox, /A new password/, email));
  await laptop.getByLabel('New password').fill('kiri.tawhai');
  await laptop.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(laptop.getByText('made of your own name or address')).toBeVisible();
  await laptop.getByLabel('New password').fill('glasswort and thrift');
  await laptop.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(laptop.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await phone.goto('/account');
  await expect(phone).toHaveURL(/\/demo$/);

  // Signed in again on the phone; and ended from the laptop.
  await signIn(phone, email, 'glasswort and thrift');
  await expect(phone.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await laptop.getByRole('button', { name: /account and theme/ }).click();
  await laptop.getByRole('menuitem', { name: 'Your account' }).click();
  await laptop.getByRole('button', { name: /^Sign out Chrom/ }).click();
  await expect(laptop.getByText('this browser')).toBeVisible();
  await expect(laptop.getByRole('button', { name: /^Sign out/ })).toHaveCount(0);
  await phone.reload();
  await expect(phone).toHaveURL(/\/demo$/);
  // The password of the demo again, for the tests that come after this one.
  await laptop.getByLabel('Present password').fill('glasswort and thrift');
  await laptop.getByLabel('New password').fill('saltmarsh in May');
  await laptop.getByRole('button', { name: 'Change the password' }).click();
  await expect(laptop.getByText('The password is changed.')).toBeVisible();
});

test('one account joins two courses; each shows what it lists itself', async ({ stepIn, browser, baseURL }) => {
  const ines = await stepIn('Ines Marchetti');
  const email = 'wanda.frey@students.example.org';
  const places = [
    ['Coastal Restoration', 'Wanda Frey'],
    ['Field Methods Seminar', 'W. Frey (visiting)'],
  ] as const;
  for (const [course, name] of places) {
    await ines.goto('/');
    await ines.getByRole('link', { name: new RegExp(`^${course}`) }).click();
    await ines.getByRole('link', { name: 'People' }).click();
    await ines.getByRole('button', { name: 'Add a person…' }).click();
    const dialog = ines.getByRole('dialog', { name: 'Add a person' });
    await dialog.getByLabel('Name').fill(name);
    await dialog.getByLabel('Email address').fill(email);
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(ines.getByRole('row', { name: new RegExp(email) })).toContainText('invited');
  }
  // The second course cannot read the link: Wanda has more than its place.
  await ines.getByRole('link', { name: 'Outbox' }).click();
  await ines.getByRole('button', { name: new RegExp(`Join .*${email}`) }).click();
  await expect(ines.getByText('known to the addressee only')).toBeVisible();

  const wanda = await stranger(browser, baseURL);
  await wanda.goto(await linkIn(wanda, /Join Field Methods/, email));
  await expect(wanda.getByRole('checkbox', { name: 'Coastal Restoration' })).toBeChecked();
  await wanda.getByRole('checkbox', { name: 'Coastal Restoration' }).uncheck();
  await wanda.getByLabel('Your name').fill('Wanda');
  await wanda.getByLabel('New password').fill('glasswort and thrift');
  await wanda.getByRole('button', { name: 'Join the course' }).click();
  await expect(wanda.getByRole('link', { name: 'Field Methods Seminar' })).toBeVisible();
  // The other place waits where what needs her is.
  await wanda.getByRole('button', { name: 'Take the place in Coastal Restoration' }).click();
  await expect(wanda.getByRole('link', { name: 'Coastal Restoration' })).toBeVisible();
  await wanda.goto('/account');
  await expect(wanda.getByText('W. Frey (visiting)')).toBeVisible();
  await ines.getByRole('link', { name: 'People' }).click();
  await expect(ines.getByRole('row', { name: new RegExp(email) })).toContainText('joined');
  await expect(ines.getByRole('row', { name: new RegExp(email) })).toContainText('W. Frey (visiting)');
  // Other tests count who takes part.
  for (const [course, name] of places) {
    await ines.goto('/');
    await ines.getByRole('link', { name: new RegExp(`^${course}`) }).click();
    await ines.getByRole('link', { name: 'People' }).click();
    await ines.getByRole('button', { name: `What can be done with ${name}` }).click();
    await ines.getByRole('menuitem', { name: /^Drop/ }).click();
    await expect(ines.getByRole('row', { name: new RegExp(email) })).toContainText('dropped');
  }
  expectNoFaults(ines);
});

test('an address is changed once both mailboxes have confirmed it', async ({ browser, baseURL }) => {
  const email = 'laleh.amini@students.example.org';
  const [laleh, mailbox] = [await stranger(browser, baseURL), await stranger(browser, baseURL)];
  await signIn(laleh, email, 'saltmarsh');
  await expect(laleh.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await laleh.goto('/account');
  await laleh.getByRole('button', { name: 'Change the address…' }).click();
  await laleh.getByLabel('New address').fill('laleh@home.example.org');
  await laleh.getByLabel('Your password').fill('saltmarsh');
  await laleh.getByRole('button', { name: 'Send the links' }).click();
  await expect(laleh.getByText('To be changed to laleh@home.example.org')).toBeVisible();
  for (const [address, said] of [
    ['laleh@home.example.org', 'Now open the link that was sent to'],
    [email, 'The change is made.'],
  ] as const) {
    const path = await linkIn(mailbox, /Your new address/, address);
    await mailbox.goto(path);
    await mailbox.getByRole('button', { name: 'Confirm it' }).click();
    await expect(mailbox.getByText(said)).toBeVisible();
  }
  await laleh.reload();
  await expect(laleh.getByText('laleh@home.example.org')).toBeVisible();
  await signIn(mailbox, 'laleh@home.example.org', 'saltmarsh');
  await expect(mailbox.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
});
