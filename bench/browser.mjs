import { chromium } from '@playwright/test';
import { browserPath } from '../scripts/run.mjs';

const FLAGS = '--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-sync';

/** Debian's Chromium, signed in. @returns the browser and a context with the cookie of a session */
export async function signedInBrowser(base, cookie, options = {}) {
  const browser = await chromium.launch({
    executablePath: browserPath() ?? undefined,
    args: FLAGS.split(' '),
  });
  const context = await browser.newContext(options);
  const [name, value] = cookie.split('=');
  await context.addCookies([{ name, value, url: base }]);
  return { browser, context };
}
