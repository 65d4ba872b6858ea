import DOMPurify from 'dompurify';
import { useMemo } from 'react';

/** The server cleans all rich text; this is the second lock, in case a text ever came by another way. */
export function safeHtml(html: string): string {
  return DOMPurify.sanitize(html, {
    FORBID_ATTR: ['style', 'class', 'id'],
    FORBID_TAGS: ['style', 'form', 'input', 'img'],
  });
}

/** Cleaned rich text, to read. */
export function Prose({ html, reading = false }: { readonly html: string; readonly reading?: boolean }) {
  const safe = useMemo(() => safeHtml(html), [html]);
  return <div className={`prose ${reading ? 'prose-reading' : ''}`} dangerouslySetInnerHTML={{ __html: safe }} />;
}
