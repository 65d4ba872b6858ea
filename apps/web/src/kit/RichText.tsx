import { lazy, Suspense } from 'react';
import { Loading } from './Notice.js';
import type { RichTextEditorProps } from './richtext/RichTextEditor.js';
import { say } from '../words/kit.js';

const Editor = lazy(async () => ({ default: (await import('./richtext/RichTextEditor.js')).RichTextEditor }));

/** The editor is heavy, so it comes when one is first shown. */
export function RichText(props: RichTextEditorProps) {
  return (
    <Suspense fallback={<Loading what={say('editor')} />}>
      <Editor {...props} />
    </Suspense>
  );
}
