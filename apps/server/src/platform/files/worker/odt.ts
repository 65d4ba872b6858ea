import { parseDocument } from 'htmlparser2';
import { isTag, isText, type AnyNode, type Element } from 'domhandler';
import { escapeHtml } from '../../html/escape.js';
import { Refused } from '../../bytes/refused.js';
import { mathOf } from './math.js';
import { say } from '../../../words/files.js';

/** Makes a picture of the document one that can be shown; null when it cannot. */
export type PictureTaker = (bytes: Buffer, alt: string) => Promise<string>;

interface TextStyle {
  readonly tags: readonly string[];
}

/** What an ODT says in OpenDocument 1.3 (ISO/IEC 26300), as HTML. Styles are followed as far as they carry meaning. */
export class OdtReader {
  readonly #texts = new Map<string, TextStyle>();
  /** Of each style of lists, by level from 1, whether it numbers. */
  readonly #ordered = new Map<string, ReadonlyMap<number, boolean>>();
  readonly #titles = new Set<string>();
  readonly #notes: string[] = [];

  constructor(
    private readonly members: ReadonlyMap<string, Buffer>,
    private readonly picture: PictureTaker,
  ) {}

  async html(): Promise<string> {
    const content = this.#document('content.xml');
    for (const part of [this.#document('styles.xml'), content]) this.#learnStyles(part);
    const body = find(content, 'office:text');
    if (body === null) throw new Refused(say('thisDocumentHasNoText'), say('writeSomethingSaveItAnd'));
    const text = await this.#children(body, { depth: 0, list: null, level: 0 });
    const notes = this.#notes.map((note, index) => `<li data-anchor="fn-${index + 1}">${note}</li>`);
    return notes.length === 0 ? text : `${text}<hr><ol>${notes.join('')}</ol>`;
  }

  #document(name: string): AnyNode[] {
    const bytes = this.members.get(name);
    return bytes === undefined ? [] : parseDocument(bytes.toString('utf8'), { xmlMode: true }).children;
  }

  #learnStyles(nodes: readonly AnyNode[]): void {
    for (const style of all(nodes, 'style:style')) {
      const { 'style:name': name = '', 'style:family': family, 'style:parent-style-name': parent } = style.attribs;
      if (family === 'paragraph' && (name === 'Title' || parent === 'Title')) this.#titles.add(name);
      if (family !== 'text') continue;
      const properties = style.children.filter((one) => isNamed(one, 'style:text-properties'))[0];
      const attributes = properties === undefined ? {} : properties.attribs;
      this.#texts.set(name, { tags: [...(this.#texts.get(parent ?? '')?.tags ?? []), ...tagsOf(attributes)] });
    }
    for (const style of all(nodes, 'text:list-style')) {
      const levels = style.children
        .filter(isTag)
        .map((one) => [Number(one.attribs['text:level'] ?? 1), one.name === 'text:list-level-style-number'] as const);
      this.#ordered.set(style.attribs['style:name'] ?? '', new Map(levels));
    }
  }

  async #children(parent: Element, place: Place): Promise<string> {
    if (place.depth > 200) throw new Refused(say('thisDocumentIsNestedToo'), say('handItInAsPdf'));
    const parts: string[] = [];
    for (const child of parent.children) parts.push(await this.#node(child, { ...place, depth: place.depth + 1 }));
    return parts.join('');
  }

  async #node(node: AnyNode, place: Place): Promise<string> {
    if (isText(node)) return escapeHtml(node.data.replace(/\s+/g, ' '));
    if (!isTag(node)) return '';
    const { name, attribs } = node;
    const inside = () => this.#children(node, place);
    switch (name) {
      case 'text:h': {
        const level = Math.min(4, Math.max(1, Number(attribs['text:outline-level'] ?? 1)));
        return `<h${level}>${await inside()}</h${level}>`;
      }
      case 'text:p':
        return this.#titles.has(attribs['text:style-name'] ?? '')
          ? `<h1>${await inside()}</h1>`
          : `<p>${await inside()}</p>`;
      case 'text:span': {
        const tags = this.#texts.get(attribs['text:style-name'] ?? '')?.tags ?? [];
        return tags.reduce((html, tag) => `<${tag}>${html}</${tag}>`, await inside());
      }
      case 'text:a':
        return `<a href="${escapeHtml(attribs['xlink:href'] ?? '')}">${await inside()}</a>`;
      case 'text:list': {
        const list = attribs['text:style-name'] ?? place.list;
        const level = place.level + 1;
        const tag = this.#ordered.get(list ?? '')?.get(level) === true ? 'ol' : 'ul';
        return `<${tag}>${await this.#children(node, { ...place, list, level })}</${tag}>`;
      }
      case 'text:list-item':
      case 'text:list-header':
        return `<li>${await inside()}</li>`;
      case 'table:table':
        return `<table><tbody>${await inside()}</tbody></table>`;
      case 'table:table-row':
        return `<tr>${await inside()}</tr>`;
      case 'table:table-cell':
        return this.#cell(node, await inside());
      case 'text:line-break':
        return '<br>';
      case 'text:tab':
        return ' ';
      case 'text:s':
        return ' '.repeat(Math.min(100, Number(attribs['text:c'] ?? 1)));
      case 'text:note':
        return this.#note(node, place);
      case 'draw:frame':
        return this.#formula(node) ?? (await inside());
      case 'draw:image':
        return this.#image(node);
      // Remarks, taken-out text, and what is there for the program only.
      case 'office:annotation':
      case 'office:annotation-end':
      case 'text:tracked-changes':
      case 'table:covered-table-cell':
      case 'office:binary-data':
      case 'svg:title':
      case 'svg:desc':
      case 'text:sequence-decls':
      case 'text:variable-decls':
        return '';
      default:
        return inside();
    }
  }

  #cell({ attribs, parent }: Element, html: string): string {
    const header = parent?.parent !== null && isNamed(parent?.parent, 'table:table-header-rows');
    const tag = header ? 'th' : 'td';
    const span = (name: string, html: string) =>
      Number(attribs[name] ?? 1) > 1 ? ` ${html}="${Number(attribs[name])}"` : '';
    const cell = `<${tag}${span('table:number-columns-spanned', 'colspan')}${span('table:number-rows-spanned', 'rowspan')}>${html}</${tag}>`;
    return cell.repeat(Math.min(50, Math.max(1, Number(attribs['table:number-columns-repeated'] ?? 1))));
  }

  async #note(node: Element, place: Place): Promise<string> {
    const body = node.children.find((one): one is Element => isNamed(one, 'text:note-body'));
    const number = this.#notes.push('');
    this.#notes[number - 1] = body === undefined ? '' : await this.#children(body, { ...place, list: null, level: 0 });
    return `<sup><a href="#fn-${number}">${number}</a></sup>`;
  }

  /** An equation is a document of its own within the document; a picture of it stands beside. */
  #formula(frame: Element): string | null {
    const object = frame.children.find((one): one is Element => isNamed(one, 'draw:object'));
    const folder = object?.attribs['xlink:href']?.replace(/^\.\//, '').replace(/\/$/, '');
    const bytes = folder === undefined ? undefined : this.members.get(`${folder}/content.xml`);
    return bytes === undefined ? null : mathOf(bytes.toString('utf8'));
  }

  async #image(node: Element): Promise<string> {
    const { parent } = node;
    const described =
      parent === null ? null : (find(parent.children, 'svg:desc') ?? find(parent.children, 'svg:title'));
    const alt = described === null ? '' : textOf(described);
    const inline = find(node.children, 'office:binary-data');
    const bytes =
      inline === null
        ? this.members.get((node.attribs['xlink:href'] ?? '').replace(/^\.\//, ''))
        : Buffer.from(textOf(inline), 'base64');
    return bytes === undefined ? '' : this.picture(bytes, alt);
  }
}

interface Place {
  readonly depth: number;
  /** Style of the list around; an inner list takes it over. */
  readonly list: string | null;
  /** How many lists are around. */
  readonly level: number;
}

function tagsOf(attributes: Readonly<Record<string, string>>): string[] {
  const tags: string[] = [];
  const {
    'fo:font-weight': weight = '',
    'fo:font-style': style = '',
    'style:text-position': position = '',
  } = attributes;
  if (weight === 'bold' || Number(weight) >= 600) tags.push('strong');
  if (style === 'italic' || style === 'oblique') tags.push('em');
  if ((attributes['style:text-underline-style'] ?? 'none') !== 'none') tags.push('u');
  if ((attributes['style:text-line-through-style'] ?? 'none') !== 'none') tags.push('s');
  if (position.startsWith('super') || /^[1-9]\d*%/.test(position)) tags.push('sup');
  if (position.startsWith('sub') || position.startsWith('-')) tags.push('sub');
  return tags;
}

function isNamed(node: AnyNode | null | undefined, name: string): node is Element {
  return node != null && isTag(node) && node.name === name;
}

function all(nodes: readonly AnyNode[], name: string): Element[] {
  const found: Element[] = [];
  // From the end, so that the next one in the order of the document is taken from the end as well: linear.
  const open = [...nodes].reverse();
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (isNamed(node, name)) found.push(node);
    if (!('children' in node)) continue;
    for (let index = node.children.length - 1; index >= 0; index -= 1) open.push(node.children[index] as AnyNode);
  }
  return found;
}

function find(nodes: readonly AnyNode[], name: string): Element | null {
  return all(nodes, name)[0] ?? null;
}

function textOf(element: Element): string {
  return element.children.map((one) => (isText(one) ? one.data : '')).join('');
}
