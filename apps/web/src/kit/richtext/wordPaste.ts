/**
 * Word processors put lists on the clipboard as paragraphs with a level in their style, and emphasis as
 * styled spans. This turns both into plain HTML before the editor's own rules pick what they know.
 * Works on a parsed document that is never attached to the page, so nothing in it runs or loads.
 */
export function fromWordProcessor(html: string): string {
  const page = new DOMParser().parseFromString(stylesAside(stripConditionals(html)), 'text/html');
  const { body } = page;
  for (const gone of body.querySelectorAll('script, style, meta, link, title, xml, o\\:p:empty')) gone.remove();
  for (const element of body.querySelectorAll<HTMLElement>(`[${PASTED}]`)) {
    if (isHidden(element.getAttribute(PASTED) ?? '')) element.remove();
  }
  for (const span of [...body.querySelectorAll<HTMLElement>(`span[${PASTED}]`)]) emphasise(span);
  footnotesFromLinks(body);
  listsFromParagraphs(body);
  for (const element of body.querySelectorAll(`[${PASTED}]`)) element.removeAttribute(PASTED);
  return body.innerHTML;
}

/** Under which name styles are read here. */
const PASTED = 'data-pasted';

/** Under their own name the content policy would refuse each of them, and fill the console with it, though nothing is shown. */
function stylesAside(html: string): string {
  // regex: over what somebody pastes, in their own browser
  return html.replace(/<style[\s\S]*?<\/style>/gi, '').replace(/(<[a-z][^<>]*?\s)style(\s*=)/gi, `$1${PASTED}$2`);
}

/** Keeps what is between `<![if …]>` marks, which browsers take for comments, and drops `<!--[if …]>` blocks for old programs. */
function stripConditionals(html: string): string {
  // regex: over what somebody pastes, in their own browser
  return html.replace(/<!--\[if[\s\S]*?<!\[endif\]-->/gi, '').replace(/<!\[(?:if[^\]]*|endif)\]>/gi, '');
}

function isHidden(style: string): boolean {
  return /display\s*:\s*none|visibility\s*:\s*hidden|mso-hide\s*:\s*all/i.test(style);
}

function emphasise(span: HTMLElement): void {
  const style = span.getAttribute(PASTED) ?? '';
  const wraps: string[] = [];
  if (/font-weight\s*:\s*(bold|[6-9]00)/i.test(style)) wraps.push('strong');
  if (/font-style\s*:\s*italic/i.test(style)) wraps.push('em');
  // regex: over what somebody pastes, in their own browser
  if (/text-decoration[^;]*line-through/i.test(style)) wraps.push('s');
  if (/vertical-align\s*:\s*super/i.test(style)) wraps.push('sup');
  if (/vertical-align\s*:\s*sub/i.test(style)) wraps.push('sub');
  for (const tag of wraps) {
    const wrap = span.ownerDocument.createElement(tag);
    wrap.append(...span.childNodes);
    span.append(wrap);
  }
}

/**
 * A footnote on the clipboard is a link to a block that links back. It becomes a footnote of the editor, with the words of
 * the block, and the block goes.
 */
function footnotesFromLinks(body: HTMLElement): void {
  for (const link of body.querySelectorAll<HTMLAnchorElement>('a[href^="#"][name], a[href^="#"][id]')) {
    const own = link.getAttribute('name') ?? link.id;
    const target = named(body, link.getAttribute('href')?.slice(1) ?? '');
    const back = target?.tagName === 'A' ? target : target?.querySelector('a[href^="#"]');
    const block = back?.closest('div[id], li, p');
    if (back == null || block == null || back.getAttribute('href') !== `#${own}` || block.contains(link)) continue;
    back.remove();
    const note = body.ownerDocument.createElement('sup');
    note.dataset['footnote'] = (block.textContent ?? '').replace(/\s+/g, ' ').trim();
    block.remove();
    link.replaceWith(note);
  }
}

function named(body: HTMLElement, name: string): Element | null {
  const all = [...body.querySelectorAll('[name], [id]')];
  return all.find((one) => name !== '' && (one.getAttribute('name') === name || one.id === name)) ?? null;
}

interface ListParagraph {
  readonly paragraph: HTMLElement;
  /** From 1. */
  readonly level: number;
  readonly ordered: boolean;
}

/** `mso-list: l0 level2 lfo1` names list, level and numbering; the marker itself stands in a span to ignore. */
function asListParagraph(element: Element | null): ListParagraph | null {
  if (element === null || element.tagName !== 'P') return null;
  const paragraph = element as HTMLElement;
  // regex: over what somebody pastes, in their own browser
  const level = /mso-list\s*:[^;]*level(\d+)/i.exec(paragraph.getAttribute(PASTED) ?? '')?.[1];
  if (level === undefined) return null;
  const marker = markerOf(paragraph);
  return { paragraph, level: Number(level), ordered: /^\s*(\d+|[a-z]{1,4})[.)]/i.test(marker?.textContent ?? '') };
}

function markerOf(paragraph: HTMLElement): HTMLElement | null {
  return (
    [...paragraph.querySelectorAll<HTMLElement>(`span[${PASTED}]`)].find((span) =>
      /mso-list\s*:\s*ignore/i.test(span.getAttribute(PASTED) ?? ''),
    ) ?? null
  );
}

function listsFromParagraphs(body: HTMLElement): void {
  for (const paragraph of [...body.querySelectorAll<HTMLElement>(`p[${PASTED}]`)]) {
    // Those after the first of a list have been moved into it already.
    if (!paragraph.isConnected || paragraph.closest('li') !== null) continue;
    const first = asListParagraph(paragraph);
    if (first === null) continue;
    const run: ListParagraph[] = [];
    for (
      let next: ListParagraph | null = first;
      next !== null;
      next = asListParagraph(next.paragraph.nextElementSibling)
    )
      run.push(next);
    const place = body.ownerDocument.createComment('');
    paragraph.before(place);
    place.replaceWith(buildList(run));
  }
}

function buildList(run: readonly ListParagraph[]): HTMLElement {
  const page = (run[0] as ListParagraph).paragraph.ownerDocument;
  const open: HTMLElement[] = [];
  for (const { paragraph, level, ordered } of run) {
    while (open.length > Math.max(level, 1)) open.pop();
    while (open.length < level) {
      const list = page.createElement(ordered ? 'ol' : 'ul');
      const above = open.at(-1);
      (above?.lastElementChild ?? above)?.append(list);
      open.push(list);
    }
    markerOf(paragraph)?.remove();
    const item = page.createElement('li');
    item.append(...paragraph.childNodes);
    paragraph.remove();
    open.at(-1)?.append(item);
  }
  return open[0] as HTMLElement;
}
