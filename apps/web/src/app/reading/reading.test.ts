import { describeTextAnchor } from '@salt-circle/core';
import { readDom } from './domText.js';
import { spread } from './MarginNotes.js';
import { paragraphsOf } from './ByParagraph.js';
import { markPassages, notesAt } from './passages.js';
import { nextRange, sentencesOf } from './sentences.js';

function page(html: string): HTMLElement {
  const root = document.createElement('div');
  root.innerHTML = html;
  document.body.replaceChildren(root);
  return root;
}

const HTML =
  '<h2>Why this site</h2><p>The <em>western</em> basin lost its creek.</p><ul><li><p>Survey it</p></li><li><p>Cut it</p></li></ul>';

describe('readDom', () => {
  it('reads blocks as lines', () => {
    expect(readDom(page(HTML)).text).toBe('Why this site\nThe western basin lost its creek.\nSurvey it\nCut it');
  });

  it('goes from any range of the text to the document and back', () => {
    const dom = readDom(page(HTML));
    let tried = 0;
    for (let start = 0; start < dom.text.length; start += 1) {
      for (const end of [start + 1, start + 7, start + 25]) {
        const words = dom.text.slice(start, end);
        if (end > dom.text.length || words !== words.trim()) continue;
        const range = dom.toDom({ start, end });
        expect(range === null ? null : dom.toText(range)).toEqual({ start, end });
        tried += 1;
      }
    }
    expect(tried).toBeGreaterThan(80);
  });

  it('takes selections that begin and end between elements, and none from elsewhere', () => {
    const root = page(HTML);
    const dom = readDom(root);
    const whole = document.createRange();
    whole.selectNodeContents(root);
    expect(dom.toText(whole)).toEqual({ start: 0, end: dom.text.length });
    const list = document.createRange();
    list.selectNode(root.querySelector('ul') as Element);
    expect(dom.text.slice(dom.toText(list)?.start, dom.toText(list)?.end)).toBe('Survey it\nCut it');
    const outside = document.createRange();
    outside.selectNode(document.body);
    expect(dom.toText(outside)).toBeNull();
  });
});

describe('markPassages', () => {
  const passage = (text: string, words: string, id: string) => {
    const start = text.indexOf(words);
    return { id, kind: 'ask' as const, anchor: describeTextAnchor(text, { start, end: start + words.length }) };
  };

  it('marks passages across elements, overlapping ones too, and leaves the text as it was', () => {
    const root = page(HTML);
    const { text } = readDom(root);
    const passages = [passage(text, 'western basin lost', 'a'), passage(text, 'basin lost its creek.\nSurvey', 'b')];
    const matches = markPassages(root, passages);
    expect([...matches.values()].map(({ found }) => found)).toEqual(['same', 'same']);
    const marked = (id: string) =>
      [...root.querySelectorAll(`[data-note=${id}]`)].map((mark) => mark.textContent).join('|');
    expect(marked('a').replaceAll('|', '')).toBe('western basin lost');
    expect(marked('b').replaceAll('|', '')).toBe(' basin lost its creek.Survey'.trimStart());
    expect(readDom(root).text).toBe(text);
  });

  it('marks again from scratch, and says which passage is gone', () => {
    const root = page(HTML);
    const { text } = readDom(root);
    const passages = [passage(text, 'western', 'a'), passage(text, 'creek', 'b')];
    markPassages(root, passages);
    expect(markPassages(root, passages.slice(0, 1)).get('a')?.found).toBe('same');
    expect(root.querySelectorAll('mark')).toHaveLength(1);
    const other = page('<p>Nothing of that kind.</p>');
    expect(markPassages(other, passages).get('a')).toEqual({ found: 'gone' });
    expect(other.querySelectorAll('mark')).toHaveLength(0);
  });
});

describe('sentences', () => {
  it('have their numbers in front of them', () => {
    const text = '1. The bar grew. 2) It is steep.\nAppendix 1.\na) Sand\n3.';
    expect(sentencesOf(text).map(({ start, end }) => text.slice(start, end))).toEqual([
      ...['1. The bar grew.', '2) It is steep.', 'Appendix 1.', 'a) Sand', '3.'],
    ]);
  });

  it('are stepped through, extended, and end at the ends', () => {
    const text = 'Why this site\nThe basin silted. It is 14 ha wide.\nMethod';
    const sentences = sentencesOf(text);
    expect(sentences.map(({ start, end }) => text.slice(start, end))).toEqual([
      'Why this site',
      'The basin silted.',
      'It is 14 ha wide.',
      'Method',
    ]);
    const [first, second, third] = sentences as [(typeof sentences)[0], (typeof sentences)[0], (typeof sentences)[0]];
    expect(nextRange(sentences, null, 1, false)).toEqual(first);
    expect(nextRange(sentences, first, 1, false)).toEqual(second);
    expect(nextRange(sentences, second, 1, true)).toEqual({ start: second.start, end: third.end });
    expect(nextRange(sentences, first, -1, false)).toEqual(first);
  });
});

describe('spread', () => {
  const box = (wanted: number, height = 40) => ({ wanted, height });
  it('moves notes down so that none lies over another', () => {
    expect(spread([box(0), box(10), box(300)], -1)).toEqual([0, 50, 300]);
  });
  it('keeps the active note at its passage, and makes room above', () => {
    expect(spread([box(100), box(120), box(125)], 1)).toEqual([70, 120, 170]);
  });
  it('never pushes a note above the first line', () => {
    expect(spread([box(0), box(5), box(8)], 2)).toEqual([0, 50, 100]);
  });
});

describe('marked passages', () => {
  it('point to their notes, can be gone to by keys, and are all reached where they lie over one another', () => {
    const root = page('<p>The basin silted within four years.</p>');
    const anchor = (exact: string, start: number) => ({
      quote: { exact, prefix: '', suffix: '' },
      position: { start, end: start + exact.length },
    });
    markPassages(root, [
      { id: 'a', kind: 'ask', anchor: anchor('basin silted within', 4) },
      { id: 'b', kind: 'keep', anchor: anchor('silted', 10) },
    ] as never);
    const stops = [...root.querySelectorAll<HTMLElement>('mark[tabindex]')];
    expect(stops.map((mark) => mark.getAttribute('aria-details'))).toEqual(['note-a', 'note-b']);
    expect(notesAt(root.querySelector('mark[data-note=b]'))).toEqual(['b', 'a']);
    expect(notesAt(root)).toEqual([]);
  });

  it('are paragraphs as well, for those who select none', () => {
    const text = 'Why\n\n  The basin. It is wide.\nCell';
    expect(paragraphsOf(text).map(({ start, end }) => text.slice(start, end))).toEqual([
      ...['Why', 'The basin. It is wide.', 'Cell'],
    ]);
  });
});
