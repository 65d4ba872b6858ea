import { Node } from '@tiptap/core';
import type { Editor } from '@tiptap/react';
import { Asterisk } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import { useState } from 'react';
import { Button } from '../Button.js';
import { TextArea } from '../Field.js';
import { Dialog, Tooltip } from '../Overlay.js';
import { say } from '../../words/kit.js';

/** Code units of one footnote. */
const LONGEST = 1_000;

/** A footnote where it belongs, with its words inside; the style sheet numbers them as they stand. */
export const Footnote = Node.create({
  name: 'footnote',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    words: {
      default: '',
      parseHTML: (element: HTMLElement) => element.getAttribute('data-footnote') ?? '',
      renderHTML: ({ words }: { words?: string }) => ({ 'data-footnote': words ?? '' }),
    },
  }),
  parseHTML: () => [{ tag: 'sup[data-footnote]' }],
  renderHTML: ({ HTMLAttributes }) => ['sup', HTMLAttributes],
});

/** Adds a footnote behind the cursor, or changes the one that is selected. */
export function FootnoteTool({ editor }: { readonly editor: Editor }) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const [changing, setChanging] = useState(false);
  const apply = () => {
    const chain = editor.chain().focus();
    if (changing && words.trim() === '') chain.deleteSelection().run();
    else if (changing) chain.updateAttributes('footnote', { words: words.trim() }).run();
    else if (words.trim() !== '') chain.insertContent({ type: 'footnote', attrs: { words: words.trim() } }).run();
    setOpen(false);
  };
  return (
    <>
      <Tooltip words={say('footnoteBehindCursorOrOne')}>
        <Toolbar.Button
          type="button"
          aria-label={say('footnote')}
          onClick={() => {
            const selected = editor.isActive('footnote');
            setChanging(selected);
            setWords(selected ? String(editor.getAttributes('footnote')['words'] ?? '') : '');
            setOpen(true);
          }}
          className="rounded p-1.5 text-ink-soft hover:bg-crust"
        >
          <Asterisk size={17} strokeWidth={1.75} aria-hidden="true" />
        </Toolbar.Button>
      </Tooltip>
      <Dialog open={open} onClose={() => setOpen(false)} title={changing ? say('changeFootnote') : say('addFootnote')}>
        <div className="space-y-4">
          <TextArea
            label={say('whatItSays')}
            hint={changing ? say('leaveEmptyToTakeFootnote') : undefined}
            value={words}
            maxLength={LONGEST}
            onChange={(event) => setWords(event.target.value)}
          />
          <Button look="primary" onClick={apply}>
            {changing ? say('changeIt') : say('addIt')}
          </Button>
        </div>
      </Dialog>
    </>
  );
}
