import { Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { showText } from './showText.js';

const editors: Editor[] = [];
function editorWith(content: string) {
  const changes: string[] = [];
  const editor = new Editor({
    extensions: [StarterKit],
    content,
    element: document.body.appendChild(document.createElement('div')),
    injectCSS: false,
    onUpdate: ({ editor: changed }) => changes.push(changed.getHTML()),
  });
  editors.push(editor);
  return { editor, changes };
}
afterEach(() => {
  for (const editor of editors.splice(0)) editor.destroy();
  document.body.replaceChildren();
});

describe('text from outside in an editor', () => {
  it.each([
    ['<p>One.</p><p>Two.</p>', '<p>One.</p><p>New.</p><p>Two.</p>'],
    ['<p>aab</p>', '<p>ab</p>'],
    ['<p>ab</p>', '<p>aab</p>'],
    ['<p>One.</p>', '<h2>One.</h2><ul><li><p>Two</p></li></ul><p>End.</p>'],
    ['<p>One.</p>', '<p><strong>One.</strong></p>'],
    ['<p>One.</p>', ''],
    ['', '<p>One.</p>'],
  ])('turns %j into %j', (before, after) => {
    const { editor, changes } = editorWith(before);
    showText(editor, after);
    expect(editor.getHTML()).toBe(after === '' ? '<p></p>' : after);
    // Nobody typed it, so nothing is to be saved.
    expect(changes).toEqual([]);
  });

  it('leaves room to write below a list, and does not take that for something typed', () => {
    const { editor, changes } = editorWith('<p>One.</p>');
    const list = '<ul><li><p>Two</p></li></ul>';
    showText(editor, list);
    showText(editor, list);
    expect(editor.getHTML()).toBe(`${list}<p></p>`);
    expect(changes).toEqual([]);
  });

  it('leaves the cursor at the letter where it was', () => {
    const { editor } = editorWith('<p>One.</p><p>Two.</p>');
    editor.commands.setTextSelection(9);
    showText(editor, '<p>New.</p><p>One.</p><p>Two.</p>');
    const { from } = editor.state.selection;
    expect(editor.state.doc.textBetween(from - 1, from)).toBe('w');
    editor.commands.insertContent('!');
    expect(editor.getHTML()).toBe('<p>New.</p><p>One.</p><p>Tw!o.</p>');
  });

  it('is not what undo takes back: that is what was typed here', () => {
    const { editor } = editorWith('<p>One.</p>');
    editor.commands.setTextSelection(5);
    editor.commands.insertContent(' Mine.');
    showText(editor, '<p>Theirs.</p><p>One. Mine.</p>');
    editor.commands.undo();
    expect(editor.getHTML()).toBe('<p>Theirs.</p><p>One.</p>');
  });

  it('does nothing for the same text', () => {
    const { editor } = editorWith('<p>One.</p>');
    const { doc } = editor.state;
    showText(editor, '<p>One.</p>');
    expect(editor.state.doc).toBe(doc);
  });
});
