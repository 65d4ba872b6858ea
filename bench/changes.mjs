import { signedInBrowser } from './browser.mjs';

const MINUTE = 60_000;

/** What an open board of an exchange asks of the server in a minute in which nothing happens. */
async function idleMinute(base, cookie, exchangeId, listening) {
  const { browser, context } = await signedInBrowser(base, cookie);
  // A browser without it asks every few seconds, as all of them did once.
  if (!listening) await context.addInitScript(() => delete window.EventSource);
  const page = await context.newPage();
  await page.goto(`${base}/exchanges/${exchangeId}/allocation`);
  await page.getByRole('list', { name: 'Reviewers and their drafts' }).waitFor();
  await page.waitForTimeout(5_000);
  const asked = { requests: 0, bytes: 0 };
  page.on('requestfinished', (request) => {
    if (!request.url().includes('/api/')) return;
    asked.requests += 1;
    void request.sizes().then(({ responseBodySize, responseHeadersSize }) => {
      asked.bytes += responseBodySize + responseHeadersSize;
    });
  });
  await page.waitForTimeout(MINUTE);
  await browser.close();
  return asked;
}

export async function changesFigures({ base, cookie, exchangeId, line }) {
  process.stdout.write('\nA board of 300 that is open for a minute in which nothing happens\n');
  const polling = await idleMinute(base, cookie, exchangeId, false);
  const listening = await idleMinute(base, cookie, exchangeId, true);
  const words = ({ requests, bytes }) => `${requests} requests, ${Math.round(bytes / 1000)} kB`;
  line(
    'requests, hearing of changes / asking',
    `${listening.requests}/${polling.requests}`,
    `${words(listening)} against ${words(polling)}`,
  );
}
