import { Parser } from 'htmlparser2';
import sanitizeHtml from 'sanitize-html';
import { invalid } from '../problems/sentences.js';
import { say } from '../../words/html.js';

/** What a draft, a brief or a guide may consist of. Looks are the reader's business: no styles, no classes. */
const TAGS =
  'h1 h2 h3 h4 p br hr ul ol li blockquote pre code strong em u s sub sup a table thead tbody tfoot tr th td caption'.split(
    ' ',
  );

/** Equations of documents, in MathML Core; without attributes. */
const MATH =
  'math mrow mi mn mo mtext mspace mfrac msqrt mroot msup msub msubsup munder mover munderover mtable mtr mtd mphantom'.split(
    ' ',
  );

/** Word processors and old editors say the same in other elements. */
const SAME_AS: Readonly<Record<string, string>> = { b: 'strong', i: 'em', strike: 's', del: 's', h5: 'h4', h6: 'h4' };

/** Characters of a style that are looked at: word processors write some hundred. */
const LONGEST_STYLE = 2_000;
/** Text that its style hides would reach a reader unseen by its author, or the other way round. */
// regex: over the style of one element, cut to so many characters where it is used
const HIDING =
  /display\s*:\s*none|visibility\s*:\s*(hidden|collapse)|mso-hide\s*:\s*all|opacity\s*:\s*0(\.0+)?\s*(;|$)|font-size\s*:\s*0(\.0+)?(px|pt|em|rem|%)?\s*(;|$)/i;

/** A picture of a draft: it is named by its digest, and the address follows from who looks at it. */
const PICTURE = /^picture:[0-9a-f]{64}$/;
/** A link leads to the web, to a mailbox, or to a place of the same text: never to a page of this application. */
const LINK = /^(https?:\/\/|mailto:)|^#[\w-]{1,64}$/i;
/** Where a footnote or a heading can be jumped to. */
const ANCHOR = /^[\w-]{1,64}$/;

/** Elements within elements; tables in lists in tables come to a dozen. */
const DEEPEST = 200;
/** Sixty pages with tables have a quarter of it. */
const MOST_ELEMENTS = 20_000;

/** What stands in a draft beside what stands in a brief. */
export interface CleanOptions {
  readonly pictures?: boolean;
  readonly equations?: boolean;
  /** Places that can be jumped to get numbers for names: in documents they are called by anybody. */
  readonly numberedAnchors?: boolean;
  /** Of the request, for what is refused. */
  readonly field?: string;
}

/**
 * Cleans rich text from anywhere to the elements above. Scripts, event handlers, styles, hidden text,
 * and addresses that are not web or mail are taken out; other unknown elements leave their text behind.
 *
 * @throws ProblemError `invalid` for what is nested deeper, or has more parts, than anything that somebody writes
 */
export function cleanHtml(
  html: string,
  { pictures = false, equations = false, numberedAnchors = false, field = 'html' }: CleanOptions = {},
): string {
  assertModest(html, field);
  const numbered = numberedAnchors ? numbering() : null;
  return sanitizeHtml(html, {
    allowedTags: [...TAGS, ...(pictures ? ['img'] : []), ...(equations ? MATH : [])],
    allowedAttributes: {
      a: ['href', 'data-anchor'],
      li: ['data-anchor'],
      th: ['colspan', 'rowspan', 'scope'],
      td: ['colspan', 'rowspan'],
      ol: ['start'],
      img: ['src', 'alt'],
      sup: ['data-footnote'],
    },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesByTag: { img: ['picture'] },
    allowProtocolRelative: false,
    disallowedTagsMode: 'discard',
    nonTextTags: [
      'script',
      'style',
      'textarea',
      'option',
      'noscript',
      'template',
      'title',
      'xml',
      'iframe',
      'object',
      'svg',
      ...(equations ? ['annotation', 'annotation-xml'] : ['math']),
    ],
    nestingLimit: 60,
    transformTags: {
      // What hides becomes an element whose text is dropped with it; a filter would be too late for spans.
      '*': (tagName, attribs) =>
        isHidden(attribs)
          ? { tagName: 'template', attribs: {} }
          : {
              tagName: SAME_AS[tagName] ?? tagName,
              attribs: tagName === 'a' ? attribs : (numbered?.(attribs) ?? attribs),
            },
      // Numbers first: what a place was called need not look like a link.
      a: (tagName, given) => {
        const { href, ...attribs } = numbered?.(given) ?? given;
        return { tagName, attribs: href !== undefined && LINK.test(href) ? { href, ...attribs } : attribs };
      },
    },
    exclusiveFilter: ({ tag, attribs }) =>
      (tag === 'img' && !PICTURE.test(attribs['src'] ?? '')) ||
      (attribs['data-anchor'] !== undefined && !ANCHOR.test(attribs['data-anchor'])),
  }).trim();
}

/** Gives each name of a place a number, where it stands and where a link leads to it. */
function numbering(): (attribs: sanitizeHtml.Attributes) => sanitizeHtml.Attributes {
  const numbers = new Map<string, string>();
  const numberOf = (name: string) => {
    const number = numbers.get(name) ?? `a${numbers.size + 1}`;
    numbers.set(name, number);
    return number;
  };
  return ({ id, 'data-anchor': anchor, href, ...attribs }) => {
    const name = anchor ?? id;
    return {
      ...attribs,
      ...(name !== undefined && { 'data-anchor': numberOf(name) }),
      ...(href !== undefined && { href: href.startsWith('#') ? `#${numberOf(href.slice(1))}` : href }),
    };
  };
}

function assertModest(html: string, path: string): void {
  let [depth, elements] = [0, 0];
  const parser = new Parser({
    onopentag: () => {
      depth += 1;
      elements += 1;
      if (depth <= DEEPEST && elements <= MOST_ELEMENTS) return;
      const sentence = say(depth > DEEPEST ? 'isNestedDeeper' : 'hasMoreParts');
      throw invalid([{ path, code: 'too-deep', sentence }]);
    },
    onclosetag: () => {
      depth -= 1;
    },
  });
  parser.write(html);
  parser.end();
}

function isHidden({ hidden, style }: sanitizeHtml.Attributes): boolean {
  return hidden !== undefined || (style !== undefined && HIDING.test(style.slice(0, LONGEST_STYLE)));
}
