import { randomBytes } from 'node:crypto';
import { language } from '@salt-circle/core';
import type { Response } from 'express';
import { escapeHtml } from '../../../platform/html/escape.js';

/** The few pages that are sent whole, because they hand something on to a platform at once. */

interface Page {
  readonly title: string;
  readonly words: readonly string[];
  /** A form that goes to a platform by itself, or at a press. */
  readonly form?: { readonly to: string; readonly fields: Readonly<Record<string, string>>; readonly press: string };
  /** Run when the page is there. */
  readonly script?: string;
}

const LOOK =
  'body{font:17px/1.6 "Atkinson Hyperlegible Next",system-ui,sans-serif;background:#fbfaf7;color:#1f2328;max-width:36rem;margin:4rem auto;padding:0 1.5rem}' +
  'h1{font-size:1.5rem}button{font:inherit;padding:.6rem 1.2rem;border:0;border-radius:4px;background:#4a2545;color:#fff}' +
  '@media(prefers-color-scheme:dark){body{background:#15181b;color:#e8e6e1}button{background:#d9b8d3;color:#15181b}}';

/** With a content policy of its own: one script, one style, one place for the form. */
export function sendPage(response: Response, { title, words, form, script }: Page, status = 200): void {
  const nonce = randomBytes(16).toString('base64');
  const fields = Object.entries(form?.fields ?? {}).map(
    ([name, value]) => `<input type="hidden" name="${escapeHtml(name)}" value="${escapeHtml(value)}">`,
  );
  const target = form === undefined ? "'none'" : new URL(form.to).origin;
  const framing = /frame-ancestors ([^;]+)/.exec(String(response.getHeader('Content-Security-Policy') ?? ''))?.[1];
  response
    .status(status)
    .setHeader(
      'Content-Security-Policy',
      `default-src 'none'; script-src 'nonce-${nonce}'; style-src 'nonce-${nonce}'; base-uri 'none'; form-action ${target}; frame-ancestors ${framing ?? "'none'"}`,
    )
    .type('text/html; charset=utf-8')
    .send(
      `<!doctype html><html lang="${language()}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escapeHtml(title)}</title><style nonce="${nonce}">${LOOK}</style></head><body><main><h1>${escapeHtml(title)}</h1>` +
        words.map((one) => `<p>${escapeHtml(one)}</p>`).join('') +
        (form === undefined
          ? ''
          : `<form id="on" method="post" action="${escapeHtml(form.to)}">${fields.join('')}<button>${escapeHtml(form.press)}</button></form>`) +
        (script === undefined ? '' : `<script nonce="${nonce}">${script}</script>`) +
        '</main></body></html>',
    );
}
