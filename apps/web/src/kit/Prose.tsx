import DOMPurify from 'dompurify';
import { useMemo, type MouseEvent } from 'react';

/** Pictures come from drafts and attachments of our own server, and from nowhere else. */
const PICTURE = /^\/api\/exchanges\/[\w-]+\/(?:drafts|attachments)\/[\w-]+\/pictures\/[0-9a-f]{64}$/;

DOMPurify.addHook('afterSanitizeAttributes', (node) => {
  if (node.tagName === 'IMG' && !PICTURE.test(node.getAttribute('src') ?? '')) node.remove();
  // A link out of a text leads to a window of its own, which learns nothing of where it came from.
  if (node.tagName === 'A' && /^https?:/.test(node.getAttribute('href') ?? '')) {
    node.setAttribute('target', '_blank');
    node.setAttribute('rel', 'noopener noreferrer');
  }
});

/** The server cleans all rich text; this is the second lock, in case a text ever came by another way. */
export function safeHtml(html: string): string {
  return DOMPurify.sanitize(html, {
    FORBID_ATTR: ['style', 'class', 'id', 'srcset'],
    FORBID_TAGS: ['style', 'form', 'input'],
  });
}

/** Footnotes lead within their own text, also where several texts stand on one page. */
export function followAnchor(event: MouseEvent<HTMLElement>): void {
  const link = (event.target as HTMLElement).closest('a[href^="#"]');
  if (link === null) return;
  event.preventDefault();
  const name = CSS.escape(link.getAttribute('href')?.slice(1) ?? '');
  event.currentTarget.querySelector(`[data-anchor="${name}"]`)?.scrollIntoView({ block: 'center' });
}

/** Cleaned rich text, to read. */
export function Prose({ html, reading = false }: { readonly html: string; readonly reading?: boolean }) {
  const safe = useMemo(() => safeHtml(html), [html]);
  return (
    <div
      className={`prose ${reading ? 'prose-reading' : ''}`}
      onClick={followAnchor}
      dangerouslySetInnerHTML={{ __html: safe }}
    />
  );
}
