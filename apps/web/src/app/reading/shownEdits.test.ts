import { describeTextAnchor, type ProposedEdit } from '@salt-circle/core';
import { readDom } from './domText.js';
import { markPassages, type Passage } from './passages.js';

const HTML = '<p>The bed rose by four centimetres.</p><p>Geese graze <em>here</em>.</p>';
const TEXT = 'The bed rose by four centimetres.\nGeese graze here.';

function shown(...edits: Array<readonly [string, ProposedEdit]>): HTMLElement {
  const root = document.createElement('div');
  root.innerHTML = HTML;
  const passages = edits.map(([words, edit], index): Passage => {
    const start = TEXT.indexOf(words);
    return {
      id: `n${index}`,
      kind: 'fix',
      anchor: describeTextAnchor(TEXT, { start, end: start + words.length }),
      edit,
    };
  });
  markPassages(root, passages);
  return root;
}

/** What one sees: what is struck in brackets, what is put in between braces. */
function seen(root: HTMLElement): string {
  const read = (node: Node): string => {
    if (node instanceof Text) return node.data;
    const element = node as HTMLElement;
    if (element.tagName === 'INS') return `{${element.dataset['text']}}`;
    const inner = [...element.childNodes].map(read).join('');
    return element.dataset['edit'] === 'out' ? `[${inner}]` : inner;
  };
  return [...root.children].map(read).join('|');
}

describe('proposed edits in the running text', () => {
  it.each<[string, ProposedEdit, string]>([
    ['four', { type: 'replace', text: 'five' }, 'The bed rose by [four]{five} centimetres.|Geese graze here.'],
    ['four', { type: 'delete' }, 'The bed rose by [four] centimetres.|Geese graze here.'],
    [
      'four',
      { type: 'insert', side: 'before', text: 'about ' },
      'The bed rose by {about }four centimetres.|Geese graze here.',
    ],
    ['Geese', { type: 'split' }, 'The bed rose by four centimetres.|{¶}Geese graze here.'],
    [
      'Geese',
      {
        type: 'move',
        side: 'before',
        to: describeTextAnchor(TEXT, { start: TEXT.indexOf('here'), end: TEXT.indexOf('here') + 4 }),
      },
      'The bed rose by four centimetres.|[Geese] graze {Geese}here.',
    ],
    [
      'centimetres.\nGeese',
      { type: 'replace', text: 'cm. Geese' },
      'The bed rose by four [centimetres.]|[Geese]{cm. Geese} graze here.',
    ],
  ])('“%s” %j', (words, edit, expected) => {
    const root = shown([words, edit]);
    expect(seen(root)).toBe(expected);
    // The text that notes are placed by is the draft's own, whatever is shown.
    expect(readDom(root).text).toBe(TEXT);
  });

  it('keeps both where two people change the same words, and strikes neither proposal', () => {
    const root = shown(['four', { type: 'replace', text: 'five' }], ['four', { type: 'replace', text: 'three' }]);
    expect(seen(root)).toBe('The bed rose by [[four]]{three}{five} centimetres.|Geese graze here.');
    expect(readDom(root).text).toBe(TEXT);
  });

  it('takes all of it out again when passages are marked anew', () => {
    const root = shown(['four', { type: 'replace', text: 'five' }]);
    markPassages(root, []);
    expect(root.innerHTML).toBe(HTML);
  });
});
