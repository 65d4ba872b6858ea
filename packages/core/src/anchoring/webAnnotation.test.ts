import { describeTextAnchor } from './describe.js';
import type { Selector } from './place.js';
import { fromWebSelectors, toWebSelectors, type WebSelector } from './webAnnotation.js';

const anchor = describeTextAnchor('The bed rose by four centimetres a year.', { start: 17, end: 33 });
const OURS: Selector[] = [
  { type: 'whole' },
  { type: 'text', ...anchor },
  { type: 'page', page: 12 },
  { type: 'passage', page: 3, ...anchor },
  { type: 'region', page: null, x: 0.1, y: 0.25, width: 0.3333, height: 0.5 },
  { type: 'region', page: 7, x: 0, y: 0, width: 0, height: 0 },
  { type: 'moment', start: 12.5, end: null },
  { type: 'moment', start: 61, end: 75.04 },
];
const fragment = (value: string, conformsTo?: string): WebSelector => ({
  type: 'FragmentSelector',
  value,
  ...(conformsTo === undefined ? {} : { conformsTo }),
});
const MEDIA = 'http://www.w3.org/TR/media-frags/';

describe('selectors of the Web Annotation model', () => {
  it.each(OURS.map((one) => [one.type, one] as const))('%s comes back as it was', (_, selector) => {
    expect(fromWebSelectors(JSON.parse(JSON.stringify(toWebSelectors(selector))) as WebSelector[])).toEqual(selector);
  });

  it('is written as the model has it: alternatives in a list, what narrows in refinedBy', () => {
    // Web Annotation Data Model, 4.2.1 (FragmentSelector), 4.2.4 and 4.2.5, 4.2.9 (refinedBy).
    expect(toWebSelectors({ type: 'passage', page: 3, ...anchor })).toEqual([
      {
        type: 'FragmentSelector',
        conformsTo: 'http://tools.ietf.org/rfc/rfc8118',
        value: 'page=3',
        refinedBy: [anchor.quote, anchor.position],
      },
    ]);
    expect(toWebSelectors({ type: 'moment', start: 30, end: 60 })).toEqual([fragment('t=30,60', MEDIA)]);
  });

  // Examples of the documents named; those of the Web Annotation model from memory of its sections 4.2.1, 4.2.4 and 4.2.5.
  it.each<[string, WebSelector[], Selector | null]>([
    ['4.2.1: a span of a film', [fragment('t=30,60', MEDIA)], { type: 'moment', start: 30, end: 60 }],
    [
      '4.2.4: a quote',
      [{ type: 'TextQuoteSelector', exact: 'anotation', prefix: 'this is an ', suffix: ' that has some' }],
      {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact: 'anotation', prefix: 'this is an ', suffix: ' that has some' },
        position: { type: 'TextPositionSelector', start: 0, end: 9 },
      },
    ],
    [
      '4.2.5: a position',
      [{ type: 'TextPositionSelector', start: 412, end: 795 }],
      {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact: '', prefix: '', suffix: '' },
        position: { type: 'TextPositionSelector', start: 412, end: 795 },
      },
    ],
    [
      'RFC 3778, 3 (as the model names it): a page',
      [fragment('page=10', 'http://tools.ietf.org/rfc/rfc3778')],
      { type: 'page', page: 10 },
    ],
    ['RFC 8118, 3: a page and how large it is shown', [fragment('page=1&zoom=200')], { type: 'page', page: 1 }],
    // Media Fragments URI 1.0 (W3C Recommendation, 25 September 2012), 4.2.1.
    ['a beginning and an end', [fragment('t=10,20')], { type: 'moment', start: 10, end: 20 }],
    ['an end alone', [fragment('t=,20')], { type: 'moment', start: 0, end: 20 }],
    ['a beginning alone', [fragment('t=10')], { type: 'moment', start: 10, end: null }],
    ['named play time', [fragment('t=npt:10,20')], { type: 'moment', start: 10, end: 20 }],
    ['as a clock shows it', [fragment('t=npt:0:02:00,0:02:01.5')], { type: 'moment', start: 120, end: 121.5 }],
    ['an empty interval, which is no fragment', [fragment('t=20,20')], null],
    ['one that runs back', [fragment('t=20,10')], null],
    ['frames, which need the film', [fragment('t=smpte:0:02:00,0:03:00')], null],
    // 4.2.2.
    [
      'percent',
      [fragment('xywh=percent:25,25,50,50')],
      { type: 'region', page: null, x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
    ],
    [
      'pixels, of a picture of 640 by 480',
      [fragment('xywh=160,120,320,240')],
      { type: 'region', page: null, x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
    ],
    ['a track', [fragment('track=audio')], null],
    ['broken signs', [fragment('t=%E0%A4%A')], null],
    ['a paragraph of a page of the web', [fragment('para5', 'http://tools.ietf.org/rfc/rfc3236')], null],
  ])('reads %s', (_, selectors, selector) => {
    expect(fromWebSelectors(selectors, { width: 640, height: 480 })).toEqual(selector);
  });

  it('does not guess how large a picture is', () => {
    expect(fromWebSelectors([fragment('xywh=160,120,320,240', MEDIA)])).toBeNull();
  });
});
