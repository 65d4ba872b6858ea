import { createDocument, type Editor } from '@tiptap/react';
import { isBlank, stored } from './pictures.js';

/**
 * Shows text that came from outside in an editor that somebody may be writing in: only what differs is replaced, so the
 * cursor stays where it was. It is not undone by Ctrl Z, which takes back what one has typed oneself.
 */
export function showText(editor: Editor, html: string): void {
  const shown = isBlank(editor) ? '' : stored(editor.getHTML());
  if (shown === html) return;
  const next = createDocument(html, editor.schema);
  const now = editor.state.doc;
  const start = now.content.findDiffStart(next.content);
  const end = now.content.findDiffEnd(next.content);
  if (start === null || end === null) return;
  // Where letters repeat, the two searches meet each other: "aab" to "ab" differ at 2 from the left and at 1 from the right.
  const overlap = Math.max(0, start - Math.min(end.a, end.b));
  const change = editor.state.tr.replace(start, end.a + overlap, next.slice(start, end.b + overlap));
  editor.view.dispatch(change.setMeta('preventUpdate', true).setMeta('addToHistory', false));
}
