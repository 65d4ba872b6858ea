import { TextCollector } from '@salt-circle/core';
import { JSDOM } from 'jsdom';
import { cleanHtml } from './clean-html.js';
import { footnotesIn, withFootnote, withFootnotes } from './footnotes.js';
import { hideInHtml } from './hide-in-html.js';
import { htmlToText } from './html-to-text.js';

describe('cleanHtml', () => {
  it('numbers the places of a document, and leaves words that look like it alone', () => {
    const html =
      '<p id="Über Ann">write id="main" here <a href="#Über Ann">up</a></p><ol><li id="n">x</li></ol><a id="b" href="#n">n</a>';
    expect(cleanHtml(html, { numberedAnchors: true })).toBe(
      '<p>write id="main" here <a href="#a1">up</a></p><ol><li data-anchor="a2">x</li></ol><a href="#a2" data-anchor="a3">n</a>',
    );
  });

  it('keeps headings, lists, tables, links and emphasis', () => {
    const html =
      '<h2>Why</h2><p>The <strong>bed</strong> <em>rose</em>, see <a href="https://example.org/x">this</a>.</p>' +
      '<ul><li><p>one</p><ul><li><p>two</p></li></ul></li></ul>' +
      '<table><tbody><tr><th colspan="2"><p>Cost</p></th></tr><tr><td><p>1</p></td><td><p>2</p></td></tr></tbody></table>';
    expect(cleanHtml(html)).toBe(html);
    expect(cleanHtml(cleanHtml(html))).toBe(html);
  });

  const attacks: Array<[string, string, string]> = [
    ['a script', '<p>a<script>alert(1)</script>b</p>', '<p>ab</p>'],
    ['an event handler', '<p onclick="alert(1)">a</p><img src=x onerror=alert(1)>', '<p>a</p>'],
    ['a javascript: link', '<a href="javascript:alert(1)">a</a>', '<a>a</a>'],
    ['one in disguise', '<a href="&#x6A;ava&#10;script:alert(1)">a</a>', '<a>a</a>'],
    ['a data: link', '<a href="data:text/html,<script>1</script>">a</a>', '<a>a</a>'],
    ['an address without a scheme of its own', '<a href="//evil.example">a</a>', '<a>a</a>'],
    ['styles', '<style>p{color:red}</style><p style="color:red" class="x" id="y">a</p>', '<p>a</p>'],
    [
      'hidden text',
      '<p>a<span style="display:none">secret</span><span hidden>secret</span><b style="font-size:0">secret</b><i style="visibility: hidden">secret</i></p>',
      '<p>a</p>',
    ],
    [
      'a frame and an object',
      '<iframe src="https://evil.example"></iframe><object data="x"></object><embed src="x">',
      '',
    ],
    ['a form', '<form action="https://evil.example"><input name="password"><button>Go</button></form>', 'Go'],
    [
      'a picture that runs',
      '<svg onload="alert(1)"><script>alert(1)</script></svg><math><mtext><script>1</script></mtext></math>',
      '',
    ],
    ['a comment with markup', '<!--[if gte mso 9]><xml><x>1</x></xml><![endif]--><p>a</p>', '<p>a</p>'],
    ['an unclosed tag', '<p>a<b>b', '<p>a<strong>b</strong></p>'],
  ];
  it.each(attacks)('takes out %s', (_, html, expected) => {
    expect(cleanHtml(html)).toBe(expected);
  });

  it('turns the same thing said otherwise into one way to say it', () => {
    expect(cleanHtml('<b>a</b><i>b</i><strike>c</strike><h6>d</h6>')).toBe(
      '<strong>a</strong><em>b</em><s>c</s><h4>d</h4>',
    );
  });

  it('refuses what is nested deeper than anything that somebody writes', () => {
    const nested = (deep: number) => `${'<blockquote>'.repeat(deep)}a${'</blockquote>'.repeat(deep)}`;
    expect(() => cleanHtml(nested(10_000))).toThrow('nested deeper');
    expect(() => cleanHtml('<b><i><p>'.repeat(44_000))).toThrow('nested deeper');
    // What closes is not deep, however long.
    expect(cleanHtml('<p>a<br>b</p><li>c'.repeat(500))).toContain('<p>a<br />b</p>');
    expect((cleanHtml(nested(150)).match(/<blockquote>/g) ?? []).length).toBeLessThanOrEqual(60);
  });
});

describe('footnotes', () => {
  const html = cleanHtml(
    '<p>The bed rose<sup data-footnote="Read &quot;weekly&quot; &amp; &lt;noted&gt;"></sup>, slowly<sup data-footnote="Ann saw it."></sup>.</p>',
  );

  it('stay where they belong, and are numbered and listed for reading', () => {
    expect(footnotesIn(html)).toEqual(['Read "weekly" & <noted>', 'Ann saw it.']);
    const read = withFootnotes(html);
    expect(htmlToText(read)).toBe('The bed rose1, slowly2.\nRead "weekly" & <noted>\nAnn saw it.');
    expect(read).toContain('<a href="#fn-2" data-anchor="fnref-2">2</a>');
    expect(cleanHtml(read)).toContain('<li data-anchor="fn-2">Ann saw it.</li>');
    expect(withFootnotes('<p>a</p>')).toBe('<p>a</p>');
  });

  it('can have other words, one by one', () => {
    const changed = withFootnote(html, 1, '"[hidden]" saw it.');
    expect(footnotesIn(changed)).toEqual(['Read "weekly" & <noted>', '"[hidden]" saw it.']);
    expect(cleanHtml(changed)).toBe(changed);
  });
});

describe('hideInHtml', () => {
  it('hides passages through elements and entities, and leaves the rest as it was', () => {
    const text = '<p>By <strong>Ann</strong> Mensah &amp; co.<br>x</p><ul><li>Mensah</li></ul>';
    const plain = htmlToText(text);
    const range = (words: string, from = 0) => ({
      start: plain.indexOf(words, from),
      end: plain.indexOf(words, from) + words.length,
    });
    expect(hideInHtml(text, [range('Ann Mensah'), range('Mensah', 12)])).toBe(
      '<p>By <strong>[hidden]</strong> &amp; co.<br>x</p><ul><li>[hidden]</li></ul>',
    );
    expect(hideInHtml(text, [])).toBe(text);
    expect(htmlToText(hideInHtml(text, [{ start: 900, end: 999 }]))).toBe(plain);
  });
});

describe('htmlToText', () => {
  /** What a browser reads from the same text: notes are anchored there, so both must agree to the letter. */
  function byDocument(html: string): string {
    const collector = new TextCollector();
    const walk = (node: Node) => {
      if (node.nodeType === 3) return void collector.text(node.textContent ?? '');
      collector.boundary(node.nodeName.toLowerCase());
      node.childNodes.forEach(walk);
      collector.boundary(node.nodeName.toLowerCase());
    };
    new JSDOM(html).window.document.body.childNodes.forEach(walk);
    return collector.toString();
  }

  it.each([
    '<h2>Why</h2><p>The <strong>bed</strong> rose &amp; fell.</p>',
    '<p>one<br>two</p><p></p><p> three&nbsp;four </p>',
    '<ul><li><p>a</p><ol><li><p>b</p></li></ol></li></ul>',
    '<table><tbody><tr><td><p>a</p></td><td><p>b</p></td></tr></tbody></table><p>c</p>',
    'bare &lt;text&gt; <em>and</em> more\n<p>x</p>',
  ])('reads %j as a document does', (html) => {
    const clean = cleanHtml(html);
    expect(htmlToText(clean)).toBe(byDocument(clean));
    expect(htmlToText(clean)).not.toBe('');
  });
});
