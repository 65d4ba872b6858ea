import { applyEdit, seededRandom, splicesOf, type TextEdit } from '@salt-circle/core';
import { cleanHtml } from './clean-html.js';
import { htmlToText } from './html-to-text.js';
import { spliceHtml } from './splice-html.js';

const made = (html: string, edit: TextEdit) => spliceHtml(html, splicesOf(htmlToText(html), edit));
const at = (html: string, words: string) => {
  const start = htmlToText(html).indexOf(words);
  expect(start).toBeGreaterThanOrEqual(0);
  return { start, end: start + words.length };
};

describe('an edit of a typed text', () => {
  const HTML =
    '<h2>The basin</h2><p>The <strong>bed rose</strong> by four.</p><ul><li><p>Geese &amp; ducks</p></li></ul>';

  it.each<[string, (html: string) => TextEdit, string]>([
    [
      'replaces',
      (html) => ({ type: 'replace', ...at(html, 'four'), text: 'five < six' }),
      HTML.replace('four', 'five &lt; six'),
    ],
    [
      'takes out what runs through emphasis',
      (html) => ({ type: 'delete', ...at(html, 'The bed ') }),
      HTML.replace('The <strong>bed rose', '<strong>rose'),
    ],
    [
      'puts in with the emphasis of what stands before',
      (html) => ({ type: 'insert', at: at(html, 'rose').end, text: ' at last' }),
      HTML.replace('rose', 'rose at last'),
    ],
    [
      'begins a paragraph, within emphasis too',
      (html) => ({ type: 'split', at: at(html, 'rose').start }),
      HTML.replace('<strong>bed rose</strong> by four.', '<strong>bed</strong></p><p><strong>rose</strong> by four.'),
    ],
    [
      'joins two',
      (html) => ({ type: 'join', at: at(html, 'The basin').start }),
      '<h2>The basin The <strong>bed rose</strong> by four.</h2><ul><li><p>Geese &amp; ducks</p></li></ul>',
    ],
    [
      'moves words on',
      (html) => ({ type: 'move', ...at(html, 'by four'), to: at(html, 'Geese').start }),
      HTML.replace('by four', '').replace('Geese', 'by fourGeese'),
    ],
  ])('%s', (_, edit, after) => {
    expect(made(HTML, edit(HTML))).toBe(after);
  });

  it('reads as the edited text does, whatever text and edit are, and stays as it may be shown', () => {
    const random = seededRandom(5_776);
    const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)] as T;
    const words = () =>
      Array.from({ length: 1 + Math.floor(random() * 5) }, () => pick(['tide', 'mud', 'é', '𝄞', 'a & b', 'reed'])).join(
        ' ',
      );
    const escaped = () => words().replaceAll('&', '&amp;');
    const inline = () =>
      pick([escaped(), `<em>${escaped()}</em>`, `${escaped()} <strong>${escaped()}</strong> ${escaped()}`]);
    const block = () =>
      pick([
        `<p>${inline()}</p>`,
        `<h2>${inline()}</h2>`,
        `<ul><li><p>${inline()}</p></li><li><p>${inline()}</p></li></ul>`,
      ]);
    const plain = (text: string) => text.replace(/\s+/gu, ' ').trim();
    let tried = 0;
    for (let round = 0; round < 600; round += 1) {
      const html = Array.from({ length: 1 + Math.floor(random() * 4) }, block).join('');
      const text = htmlToText(html);
      const [a, b] = [Math.floor(random() * text.length), Math.floor(random() * text.length)];
      const [start, end] = [Math.min(a, b), Math.max(a, b)];
      const edit = pick<TextEdit>([
        { type: 'insert', at: start, text: ' put in ' },
        { type: 'delete', start, end },
        { type: 'replace', start, end, text: 'one\ntwo' },
        { type: 'split', at: start },
      ]);
      const after = made(html, edit);
      tried += 1;
      expect({ html, edit, text: plain(htmlToText(after)) }).toEqual({
        html,
        edit,
        text: plain(applyEdit(text, edit)),
      });
      expect(cleanHtml(after)).toBe(after);
    }
    expect(tried).toBe(600);
  });

  it('puts words into a text that has none', () => {
    expect(spliceHtml('', [{ start: 0, end: 0, text: 'First words.' }])).toBe('<p>First words.</p>');
  });
});
