import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fromWordProcessor } from './wordPaste.js';

/** What word processors put on the clipboard, shortened, in the shapes they are known for (written down from memory). */
const DESKTOP_WORD = `<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style>p.MsoNormal{margin:0}</style>
<!--[if gte mso 9]><xml><w:WordDocument/></xml><![endif]--></head><body lang=EN-GB><!--StartFragment-->
<h2>Method<o:p></o:p></h2>
<p class=MsoNormal>The <b>bed</b> has <span style='font-style:italic'>risen</span>.<o:p></o:p></p>
<p class=MsoListParagraphCxSpFirst style='text-indent:-18.0pt;mso-list:l0 level1 lfo1'><![if !supportLists]><span style='mso-list:Ignore'>1.<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp; </span></span><![endif]>Survey the bank</p>
<p class=MsoListParagraphCxSpMiddle style='mso-list:l0 level2 lfo1'><![if !supportLists]><span style='mso-list:Ignore'>a.<span>&nbsp; </span></span><![endif]>by boat</p>
<p class=MsoListParagraphCxSpLast style='mso-list:l0 level1 lfo1'><![if !supportLists]><span style='mso-list:Ignore'>2.<span>&nbsp; </span></span><![endif]>Make the cuts</p>
<p class=MsoNormal>After the list.</p>
<p class=MsoListParagraph style='mso-list:l1 level1 lfo2'><![if !supportLists]><span style='font-family:Symbol;mso-list:Ignore'>·<span>&nbsp; </span></span><![endif]>a bullet</p>
<table border=1><tr><td><p class=MsoNormal>Cost</p></td><td><p class=MsoNormal>42</p></td></tr></table>
<p class=MsoNormal><span style='display:none;mso-hide:all'>hidden</span><a href="https://example.org/map">the map</a></p>
<!--EndFragment--></body></html>`;

const BROWSER_EDITOR = `<meta charset='utf-8'><b style="font-weight:normal;" id="docs-internal-guid-1"><h2 dir="ltr"><span style="font-weight:400">Method</span></h2>
<p dir="ltr"><span style="font-weight:400">The </span><span style="font-weight:700">bed</span><span style="font-style:italic"> rose</span></p>
<ul><li dir="ltr" aria-level="1"><p><span>one</span></p></li></ul></b>`;

function read(html: string): HTMLElement {
  const root = document.createElement('div');
  root.innerHTML = fromWordProcessor(html);
  return root;
}
const texts = (root: Element, selector: string) =>
  [...root.querySelectorAll(selector)].map(({ textContent }) => textContent.replace(/\s+/g, ' ').trim());

describe('fromWordProcessor', () => {
  const word = read(DESKTOP_WORD);

  it('keeps headings, paragraphs, emphasis, tables and links', () => {
    expect(texts(word, 'h2')).toEqual(['Method']);
    expect(texts(word, 'b, strong')).toEqual(['bed']);
    expect(texts(word, 'em')).toEqual(['risen']);
    expect(texts(word, 'td')).toEqual(['Cost', '42']);
    expect(word.querySelector('a')?.getAttribute('href')).toBe('https://example.org/map');
    expect(texts(word, 'p')).toContain('After the list.');
  });

  it('makes lists of list paragraphs, nested and numbered as they were, without their markers', () => {
    expect(texts(word, ':scope > ol > li')).toEqual(['Survey the bankby boat', 'Make the cuts']);
    expect(texts(word, 'ol ol > li')).toEqual(['by boat']);
    expect(texts(word, ':scope > ul > li')).toEqual(['a bullet']);
    expect(word.textContent).not.toMatch(/1\.|·/);
  });

  it('takes out hidden text, styles, and blocks for other programs', () => {
    expect(word.textContent).not.toMatch(/hidden|WordDocument|MsoNormal/);
    expect(word.querySelectorAll('style, xml, meta')).toHaveLength(0);
  });

  it('reads emphasis from the styles of spans', () => {
    const other = read(BROWSER_EDITOR);
    expect(texts(other, 'strong')).toEqual(['bed']);
    expect(texts(other, 'em')).toEqual(['rose']);
    expect(texts(other, 'li')).toEqual(['one']);
  });

  it('reads what a word processor writes: LibreOffice Writer 7.4, from a document with everything in it', () => {
    const writer = read(readFileSync(join(__dirname, 'samples/writer.html'), 'utf8'));
    expect(texts(writer, 'h1, h2')).toEqual(['The eastern basin', 'Method']);
    expect(texts(writer, 'ol > li')).toEqual(['Survey the bank', 'Make two cuts']);
    expect(texts(writer, 'td')).toEqual(['Item', 'Cost', 'Boat', '420']);
    expect(texts(writer, 'b, i')).toEqual(['rose', 'four']);
    expect(writer.querySelector('img')?.getAttribute('src')).toMatch(/^data:image\/png;base64,/);
    expect(writer.querySelector('sup')?.dataset['footnote']).toBe('Read from the gauge at the sluice.');
    // The note stands in its place only, and neither remarks nor properties come along.
    expect(writer.textContent).not.toMatch(/Read from the gauge|Ask the warden|A\. Mensah/);
  });

  it('reads footnotes of other word processors too', () => {
    const html = `<p>Rose<a style='mso-footnote-id:ftn1' href="#_ftn1" name="_ftnref1"><sup>[1]</sup></a>.</p>
      <div style='mso-element:footnote-list'><div id=ftn1><p><a href="#_ftnref1" name="_ftn1">[1]</a> Read weekly.</p></div></div>
      <p>See <a href="#top">above</a>.</p>`;
    const other = read(html);
    expect([...other.querySelectorAll('sup')].map((sup) => sup.dataset['footnote'])).toEqual(['Read weekly.']);
    expect(other.textContent).not.toContain('Read weekly');
    expect(texts(other, 'a')).toEqual(['above']);
  });

  it('never runs what it reads', () => {
    const seen = jest.fn();
    (globalThis as { seen?: () => void }).seen = seen;
    const root = read('<img src=x onerror="seen()"><script>seen()</script><p>a</p>');
    expect(seen).not.toHaveBeenCalled();
    expect(root.querySelectorAll('script')).toHaveLength(0);
  });
});
