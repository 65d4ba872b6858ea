import { parseDocument } from 'htmlparser2';
import { isTag, isText, type AnyNode, type Element } from 'domhandler';
import { escapeHtml } from '../../html/escape.js';

/** Equations of word processors as MathML Core, which browsers draw. Formulas nest some dozens deep at most. */
const DEEPEST = 100;

const KEPT = new Set(
  'math mrow mi mn mo mtext mspace mfrac msqrt mroot msup msub msubsup munder mover munderover mtable mtr mtd mphantom'.split(
    ' ',
  ),
);

const local = ({ name }: Element) => name.slice(name.indexOf(':') + 1);
const elements = ({ children }: Element) => children.filter(isTag);
const child = (element: Element, name: string) => elements(element).find((one) => local(one) === name) ?? null;

/** MathML of an OpenDocument formula, less what programs write beside it; null for what is none. */
export function mathOf(xml: string): string | null {
  const root = parseDocument(xml, { xmlMode: true })
    .children.filter(isTag)
    .find((one) => local(one) === 'math');
  return root === undefined ? null : presentation(root, 0);
}

function presentation(node: AnyNode, depth: number): string {
  if (isText(node)) return escapeHtml(node.data.trim());
  if (!isTag(node) || depth > DEEPEST) return '';
  const name = local(node);
  if (name.startsWith('annotation')) return '';
  const inside = node.children.map((one) => presentation(one, depth + 1)).join('');
  return KEPT.has(name) ? `<${name}>${inside}</${name}>` : inside;
}

/** Stands in a text where an equation was; private code points, so that no text has it by itself. */
const mark = (index: number) => `\uE000${index}\uE001`;

/**
 * Takes the equations out of a part of an Office Open XML document (ECMA-376 part 1, clause 22.1), leaving marks.
 *
 * @param equations MathML of those found before; those found are added
 */
export function withoutEquations(xml: string, equations: string[]): string {
  const parts: string[] = [];
  let at = 0;
  for (const found of xml.matchAll(/<m:(oMathPara|oMath)[\s>]/g)) {
    if (found.index < at) continue;
    const closing = `</m:${found[1]}>`;
    const end = xml.indexOf(closing, found.index);
    if (end < 0) break;
    const equation = parseDocument(xml.slice(found.index, end + closing.length), { xmlMode: true });
    const root = equation.children.find(isTag);
    parts.push(xml.slice(at, found.index));
    if (root !== undefined) {
      parts.push(`<w:r><w:t xml:space="preserve">${mark(equations.length)}</w:t></w:r>`);
      equations.push(`<math>${row(root, 0)}</math>`);
    }
    at = end + closing.length;
  }
  return parts.join('') + xml.slice(at);
}

/** Puts equations back at their marks. */
export function withEquations(html: string, equations: readonly string[]): string {
  return html.replace(/\uE000(\d+)\uE001/g, (_, index: string) => equations[Number(index)] ?? '');
}

function row(parent: Element | null, depth: number): string {
  if (parent === null || depth > DEEPEST) return '<mrow></mrow>';
  return `<mrow>${elements(parent)
    .map((one) => omml(one, depth + 1))
    .join('')}</mrow>`;
}

/** The value of a property of an element: of `m:naryPr`, the sign of `m:chr`. */
function property(element: Element, name: string): string | null {
  const properties = child(element, `${local(element)}Pr`);
  const found = properties === null ? null : child(properties, name);
  return found === null ? null : (found.attribs['m:val'] ?? '');
}

const sign = (value: string) => (value === '' ? '' : `<mo>${escapeHtml(value)}</mo>`);

function omml(element: Element, depth: number): string {
  const inside = (name: string) => row(child(element, name), depth);
  switch (local(element)) {
    case 'r':
      return run(element);
    case 'f':
      return `<mfrac>${inside('num')}${inside('den')}</mfrac>`;
    case 'sSup':
      return `<msup>${inside('e')}${inside('sup')}</msup>`;
    case 'sSub':
      return `<msub>${inside('e')}${inside('sub')}</msub>`;
    case 'sSubSup':
      return `<msubsup>${inside('e')}${inside('sub')}${inside('sup')}</msubsup>`;
    case 'sPre':
      return `<msubsup><mrow></mrow>${inside('sub')}${inside('sup')}</msubsup>${inside('e')}`;
    case 'rad':
      return child(element, 'deg')?.children.some(isTag) === true && property(element, 'degHide') === null
        ? `<mroot>${inside('e')}${inside('deg')}</mroot>`
        : `<msqrt>${inside('e')}</msqrt>`;
    case 'nary':
      return nary(element, inside);
    case 'd':
      return delimited(element, depth);
    case 'func':
      return `${inside('fName')}${inside('e')}`;
    case 'limLow':
      return `<munder>${inside('e')}${inside('lim')}</munder>`;
    case 'limUpp':
      return `<mover>${inside('e')}${inside('lim')}</mover>`;
    case 'acc':
      return `<mover>${inside('e')}${sign(property(element, 'chr') ?? '\u0302')}</mover>`;
    case 'bar':
      return property(element, 'pos') === 'top'
        ? `<mover>${inside('e')}<mo>¯</mo></mover>`
        : `<munder>${inside('e')}<mo>_</mo></munder>`;
    case 'groupChr':
      return property(element, 'pos') === 'top'
        ? `<mover>${inside('e')}${sign(property(element, 'chr') ?? '⏞')}</mover>`
        : `<munder>${inside('e')}${sign(property(element, 'chr') ?? '⏟')}</munder>`;
    case 'm':
      return table(
        elements(element)
          .filter((one) => local(one) === 'mr')
          .map((one) => cells(one, depth)),
      );
    case 'eqArr':
      return table(cells(element, depth).map((cell) => [cell]));
    default:
      // Properties of signs and of the editor say nothing; what holds an equation without a meaning of its own is passed by.
      return /Pr$/.test(local(element))
        ? ''
        : elements(element)
            .map((one) => omml(one, depth + 1))
            .join('');
  }
}

function cells(element: Element, depth: number): string[] {
  return elements(element)
    .filter((one) => local(one) === 'e')
    .map((one) => row(one, depth));
}

function table(rows: ReadonlyArray<readonly string[]>): string {
  const told = rows.map((one) => `<mtr>${one.map((cell) => `<mtd>${cell}</mtd>`).join('')}</mtr>`);
  return `<mtable>${told.join('')}</mtable>`;
}

function nary(element: Element, inside: (name: string) => string): string {
  const operator = sign(property(element, 'chr') ?? '∫');
  const beside = property(element, 'limLoc') === 'subSup' || property(element, 'chr') === null;
  const tag = beside ? 'msubsup' : 'munderover';
  return `<${tag}>${operator}${inside('sub')}${inside('sup')}</${tag}>${inside('e')}`;
}

function delimited(element: Element, depth: number): string {
  const between = sign(property(element, 'sepChr') ?? '|');
  const open = sign(property(element, 'begChr') ?? '(');
  const close = sign(property(element, 'endChr') ?? ')');
  return `<mrow>${open}${cells(element, depth).join(between)}${close}</mrow>`;
}

/** Letters, numbers and signs of a run, each in an element of its own kind. */
function run(element: Element): string {
  const text = elements(element)
    .filter((one) => local(one) === 't')
    .map((one) => one.children.map((inner) => (isText(inner) ? inner.data : '')).join(''))
    .join('');
  const properties = child(element, 'rPr');
  if (properties !== null && child(properties, 'nor') !== null) return `<mtext>${escapeHtml(text)}</mtext>`;
  return (text.match(/\d+(?:[.,]\d+)*|\p{L}\p{M}*|\S/gu) ?? [])
    .map((word) => {
      const tag = /^\d/.test(word) ? 'mn' : /^\p{L}/u.test(word) ? 'mi' : 'mo';
      return `<${tag}>${escapeHtml(word)}</${tag}>`;
    })
    .join('');
}
