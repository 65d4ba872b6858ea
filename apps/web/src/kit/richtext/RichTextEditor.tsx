import { Image } from '@tiptap/extension-image';
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import {
  Bold,
  Heading2,
  Italic,
  Link as LinkIcon,
  List,
  ListOrdered,
  Quote,
  Redo2,
  Table as TableIcon,
  Undo2,
  type LucideIcon,
} from 'lucide-react';
import { Toolbar as Bar } from 'radix-ui';
import { useEffect, useId, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { Button } from '../Button.js';
import { TextField } from '../Field.js';
import { Dialog, Tooltip } from '../Overlay.js';
import { Footnote, FootnoteTool } from './Footnote.js';
import { PictureTool } from './PictureTool.js';
import { isBlank, stored, usePictures } from './pictures.js';
import { showText } from './showText.js';
import { fromWordProcessor } from './wordPaste.js';
import { say } from '../../words/kit.js';

/** Without widths: they would be inline styles, which the content policy blocks, and the reader's page sets its own. */
const PlainTable = Table.extend({
  renderHTML: ({ HTMLAttributes }) => ['table', HTMLAttributes, ['tbody', 0]],
  addNodeView: () => null,
});

/** Pixels at each side that bars may lie over. */
const CLEAR = { top: 72, right: 0, bottom: 112, left: 0 };

export interface RichTextEditorProps {
  readonly label: string;
  readonly html: string;
  readonly onChange: (html: string) => void;
  readonly editable?: boolean;
  /** Drafts are written in the reading face, settings in the face of the interface. */
  readonly reading?: boolean;
  readonly aside?: ReactNode;
  /** Takes pictures that are pasted, dropped or chosen: stores one, and gives its address. Absent: no pictures. */
  readonly onPicture?: (file: File) => Promise<string>;
}

/** Rich text, typed or pasted. Changing `html` from outside replaces the text only when it differs from what is shown. */
export function RichTextEditor({
  label,
  html,
  onChange,
  editable = true,
  reading = false,
  aside,
  onPicture,
}: RichTextEditorProps) {
  const pictures = usePictures(onPicture);
  const hint = useId();
  /** Escape was pressed: the next Tab leaves the text instead of going on in a table or list. */
  const leaving = useRef(false);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: { levels: [1, 2, 3, 4] },
        link: { openOnClick: false, protocols: ['http', 'https', 'mailto'], defaultProtocol: 'https' },
      }),
      PlainTable,
      TableRow,
      TableHeader,
      TableCell,
      Footnote,
      ...(onPicture === undefined ? [] : [Image.configure({ allowBase64: true })]),
    ],
    content: html,
    editable,
    // The content policy allows no style elements; what is needed stands in the style sheet.
    injectCSS: false,
    immediatelyRender: true,
    editorProps: {
      // The line that is typed stays clear of the bars over and under the page.
      scrollMargin: CLEAR,
      scrollThreshold: CLEAR,
      attributes: {
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
        'aria-describedby': hint,
        class: `prose ${reading ? 'prose-reading' : ''}`,
      },
      handleDOMEvents: {
        keydown: (_, event) => {
          const leaves = event.key === 'Tab' && leaving.current;
          leaving.current = event.key === 'Escape' || (leaving.current && event.key === 'Shift');
          return leaves;
        },
      },
      transformPastedHTML: fromWordProcessor,
      handlePaste: (view, event) => pictures.take(view, [...(event.clipboardData?.files ?? [])], event),
      handleDrop: (view, event) => pictures.take(view, [...(event.dataTransfer?.files ?? [])], event),
    },
    onUpdate: ({ editor: changed }) => {
      pictures.adopt(changed.view);
      onChange(isBlank(changed) ? '' : stored(changed.getHTML()));
    },
  });
  // An editor made for a render that React gave up is destroyed already; a new one follows at once.
  useEffect(() => {
    if (!editor.isDestroyed) editor.setEditable(editable, false);
  }, [editor, editable]);
  // Before the next keystroke can arrive: otherwise that one would be lost to a text already on its way here.
  useLayoutEffect(() => {
    if (!editor.isDestroyed) showText(editor, html);
  }, [editor, html]);
  return (
    <div className="editor">
      {editable && (
        <div className="sticky top-0 z-10 flex flex-wrap items-center justify-between gap-x-4 border-b border-line bg-salt py-1">
          <Toolbar
            editor={editor}
            label={label}
            onPicture={onPicture === undefined ? null : (files) => pictures.take(editor.view, files)}
          />
          {aside}
        </div>
      )}
      {pictures.problem !== null && (
        <p role="alert" className="py-1 text-madder">
          {pictures.problem}
        </p>
      )}
      <span id={hint} className="sr-only">
        {say('escapeThenTabLeavesText')}
      </span>
      <EditorContent editor={editor} className="pt-3" />
    </div>
  );
}

interface Tool {
  readonly words: () => string;
  readonly icon: LucideIcon;
  readonly run: (editor: Editor) => void;
  readonly active?: (editor: Editor) => boolean;
}

const TOOLS: readonly Tool[] = [
  {
    words: () => say('heading'),
    icon: Heading2,
    run: (e) => e.chain().focus().toggleHeading({ level: 2 }).run(),
    active: (e) => e.isActive('heading'),
  },
  {
    words: () => say('boldCtrlB'),
    icon: Bold,
    run: (e) => e.chain().focus().toggleBold().run(),
    active: (e) => e.isActive('bold'),
  },
  {
    words: () => say('italicCtrlI'),
    icon: Italic,
    run: (e) => e.chain().focus().toggleItalic().run(),
    active: (e) => e.isActive('italic'),
  },
  {
    words: () => say('list'),
    icon: List,
    run: (e) => e.chain().focus().toggleBulletList().run(),
    active: (e) => e.isActive('bulletList'),
  },
  {
    words: () => say('numberedList'),
    icon: ListOrdered,
    run: (e) => e.chain().focus().toggleOrderedList().run(),
    active: (e) => e.isActive('orderedList'),
  },
  {
    words: () => say('quotation'),
    icon: Quote,
    run: (e) => e.chain().focus().toggleBlockquote().run(),
    active: (e) => e.isActive('blockquote'),
  },
  {
    words: () => say('tableOfThreeByThree'),
    icon: TableIcon,
    run: (e) => e.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
  },
  {
    words: () => say('undoCtrlZ'),
    icon: Undo2,
    run: (e) => e.chain().focus().undo().run(),
  },
  {
    words: () => say('redoCtrlY'),
    icon: Redo2,
    run: (e) => e.chain().focus().redo().run(),
  },
];

interface ToolbarProps {
  readonly editor: Editor;
  readonly label: string;
  readonly onPicture: ((files: readonly File[]) => void) | null;
}

function Toolbar({ editor, label, onPicture }: ToolbarProps) {
  const active = useEditorState({
    editor,
    selector: ({ editor: current }) => TOOLS.map((tool) => tool.active?.(current) ?? false),
  });
  return (
    <Bar.Root aria-label={say('formatting', { label })} className="flex flex-wrap gap-0.5">
      {TOOLS.map(({ words, icon: Icon, run }, index) => (
        <Tooltip key={index} words={words()}>
          <Bar.Button
            type="button"
            aria-label={words()}
            aria-pressed={active[index]}
            onClick={() => run(editor)}
            className="rounded p-1.5 text-ink-soft hover:bg-crust aria-pressed:bg-crust aria-pressed:text-ink"
          >
            <Icon size={17} strokeWidth={1.75} aria-hidden="true" />
          </Bar.Button>
        </Tooltip>
      ))}
      <LinkTool editor={editor} />
      <FootnoteTool editor={editor} />
      {onPicture !== null && <PictureTool onPicture={onPicture} />}
    </Bar.Root>
  );
}

function LinkTool({ editor }: { readonly editor: Editor }) {
  const [open, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const wrong = address !== '' && !/^(https?:\/\/|mailto:)\S+$/i.test(address);
  const apply = () => {
    const chain = editor.chain().focus().extendMarkRange('link');
    if (address === '') chain.unsetLink().run();
    else chain.setLink({ href: address }).run();
    setOpen(false);
  };
  return (
    <>
      <Tooltip words={say('link')}>
        <Bar.Button
          type="button"
          aria-label={say('link')}
          onClick={() => {
            setAddress((editor.getAttributes('link')['href'] as string | undefined) ?? '');
            setOpen(true);
          }}
          className="rounded p-1.5 text-ink-soft hover:bg-crust"
        >
          <LinkIcon size={17} strokeWidth={1.75} aria-hidden="true" />
        </Bar.Button>
      </Tooltip>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('linkSelectedText')}>
        <div className="space-y-4">
          <TextField
            label={say('address')}
            hint={say('leaveEmptyToTakeLink')}
            placeholder="https://"
            value={address}
            onChange={(event) => setAddress(event.target.value)}
            problem={wrong ? say('addressBeginsWithHttpsOr') : undefined}
          />
          <Button look="primary" disabled={wrong} onClick={apply}>
            {say('setLink')}
          </Button>
        </div>
      </Dialog>
    </>
  );
}
