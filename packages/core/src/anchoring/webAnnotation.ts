import type { Selector } from './place.js';
import type { TextAnchor } from './selectors.js';

/** Fragments of PDFs; the Web Annotation model of 2017 names RFC 3778, which RFC 8118 has replaced. */
const PDF_FRAGMENTS = 'http://tools.ietf.org/rfc/rfc8118';
const PDF_FRAGMENTS_BEFORE = 'http://tools.ietf.org/rfc/rfc3778';
const MEDIA_FRAGMENTS = 'http://www.w3.org/TR/media-frags/';

/** A selector of the Web Annotation Data Model in JSON-LD, as far as ours go. */
export interface WebSelector {
  readonly type: 'TextQuoteSelector' | 'TextPositionSelector' | 'FragmentSelector';
  readonly exact?: string;
  readonly prefix?: string;
  readonly suffix?: string;
  readonly start?: number;
  readonly end?: number;
  readonly conformsTo?: string;
  readonly value?: string;
  readonly refinedBy?: WebSelector | readonly WebSelector[];
}

/** CSS pixels; needed to read regions that are given in pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

/**
 * A selector as the Web Annotation Data Model writes it (W3C Recommendation, 23 February 2017, section 4.2): several that
 * select the same stand in a list (4), one that narrows another in `refinedBy` (4.2.9). Empty for what is whole.
 * A moment is `t=12.5`, which strictly means "from there to the end": the standard has no single moment.
 */
export function toWebSelectors(selector: Selector): WebSelector[] {
  switch (selector.type) {
    case 'whole':
      return [];
    case 'text':
      return quoted(selector);
    case 'page':
      return [onPage(selector.page)];
    case 'passage':
      return [{ ...onPage(selector.page), refinedBy: quoted(selector) }];
    case 'region': {
      const shares = [selector.x, selector.y, selector.width, selector.height].map(percent).join(',');
      const region: WebSelector = media(`xywh=percent:${shares}`);
      return [selector.page === null ? region : { ...onPage(selector.page), refinedBy: region }];
    }
    case 'moment': {
      const { start, end } = selector;
      return [media(end === null ? `t=${seconds(start)}` : `t=${seconds(start)},${seconds(end)}`)];
    }
  }
}

/**
 * Reads what `toWebSelectors` writes, and what others write by the same standards: pages by `page=` (RFC 8118, section 3),
 * regions in percent or, if the size is known, in pixels (Media Fragments URI 1.0, 4.2.2), times in seconds or as a clock shows
 * them (4.2.1). @returns null for what is none of these; nothing is guessed
 */
export function fromWebSelectors(list: readonly WebSelector[], size: PictureSize | null = null): Selector | null {
  if (list.length === 0) return { type: 'whole' };
  const anchor = anchorOf(list);
  if (anchor !== null) return { type: 'text', ...anchor };
  const [fragment] = list.filter(({ type }) => type === 'FragmentSelector');
  if (fragment === undefined) return null;
  const within = fragment.refinedBy === undefined ? [] : [fragment.refinedBy].flat();
  const page = pageOf(fragment);
  if (page === null) return within.length === 0 ? (regionOf(fragment, null, size) ?? momentOf(fragment)) : null;
  if (within.length === 0) return { type: 'page', page };
  const words = anchorOf(within);
  if (words !== null) return { type: 'passage', page, ...words };
  const [region] = within;
  return region === undefined ? null : regionOf(region, page, size);
}

function quoted({ quote, position }: TextAnchor): WebSelector[] {
  return [quote, position];
}

function onPage(page: number): WebSelector {
  return { type: 'FragmentSelector', conformsTo: PDF_FRAGMENTS, value: `page=${page}` };
}

function media(value: string): WebSelector {
  return { type: 'FragmentSelector', conformsTo: MEDIA_FRAGMENTS, value };
}

/** A share of 0 to 1 in percent, without the noise of binary fractions. */
function percent(share: number): string {
  return String(Number((share * 100).toFixed(4)));
}

function seconds(value: number): string {
  return String(Number(value.toFixed(3)));
}

function anchorOf(list: readonly WebSelector[]): TextAnchor | null {
  const quote = list.find(({ type }) => type === 'TextQuoteSelector');
  const position = list.find(({ type }) => type === 'TextPositionSelector');
  if (quote === undefined && position === undefined) return null;
  const exact = quote?.exact ?? '';
  const start = position?.start ?? 0;
  return {
    quote: { type: 'TextQuoteSelector', exact, prefix: quote?.prefix ?? '', suffix: quote?.suffix ?? '' },
    position: { type: 'TextPositionSelector', start, end: position?.end ?? start + exact.length },
  };
}

function fragmentValue({ value = '' }: WebSelector, name: string): string | null {
  const pair = value.split('&').find((one) => one.startsWith(`${name}=`));
  if (pair === undefined) return null;
  try {
    return decodeURIComponent(pair.slice(name.length + 1));
  } catch (error) {
    if (error instanceof URIError) return null;
    throw error;
  }
}

function pageOf(fragment: WebSelector): number | null {
  const { conformsTo } = fragment;
  if (conformsTo !== undefined && conformsTo !== PDF_FRAGMENTS && conformsTo !== PDF_FRAGMENTS_BEFORE) return null;
  const page = fragmentValue(fragment, 'page');
  return page !== null && /^[1-9]\d{0,6}$/.test(page) ? Number(page) : null;
}

function regionOf(fragment: WebSelector, page: number | null, size: PictureSize | null): Selector | null {
  const match =
    /^(percent:|pixel:)?(\d+(?:\.\d+)?|\.\d+),(\d+(?:\.\d+)?|\.\d+),(\d+(?:\.\d+)?|\.\d+),(\d+(?:\.\d+)?|\.\d+)$/.exec(
      fragmentValue(fragment, 'xywh') ?? '',
    );
  if (match === null) return null;
  const [, unit, ...figures] = match;
  const [x, y, width, height] = figures.map(Number) as [number, number, number, number];
  if (unit === 'percent:') {
    return { type: 'region', page, x: x / 100, y: y / 100, width: width / 100, height: height / 100 };
  }
  if (size === null) return null;
  const [across, down] = [size.width, size.height];
  return { type: 'region', page, x: x / across, y: y / down, width: width / across, height: height / down };
}

function momentOf(fragment: WebSelector): Selector | null {
  const value = fragmentValue(fragment, 't')?.replace(/^npt:/, '');
  if (value === undefined) return null;
  const [from = '', to, ...more] = value.split(',');
  const start = from === '' ? 0 : clockSeconds(from);
  const end = to === undefined ? null : clockSeconds(to);
  if (more.length > 0 || start === null || (to !== undefined && end === null)) return null;
  // An interval that is empty or runs back is no fragment (4.2.1).
  return end !== null && !(end > start) ? null : { type: 'moment', start, end };
}

/** Normal play time: seconds, or minutes and hours before them. */
function clockSeconds(text: string): number | null {
  const match = /^(?:(?:(\d+):)?([0-5]?\d):)?(\d+(?:\.\d*)?)s?$/.exec(text);
  if (match === null) return null;
  const [, hours = '0', minutes = '0', rest = '0'] = match;
  return Number(hours) * 3_600 + Number(minutes) * 60 + Number(rest);
}
