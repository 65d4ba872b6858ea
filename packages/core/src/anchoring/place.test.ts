import fc from 'fast-check';
import { describeTextAnchor } from './describe.js';
import { checkPlace, comparePlaces, type Place, type PlaceablePart, type Selector } from './place.js';

const none = { textLength: null, pages: null, picture: false, seconds: null };
const PARTS: PlaceablePart[] = [
  { id: 'text', ...none, textLength: 40 },
  { id: 'pdf', ...none, pages: 3 },
  { id: 'picture', ...none, picture: true },
  { id: 'film', ...none, seconds: 90 },
];
const text = (start: number, end: number): Selector => ({
  ...describeTextAnchor('x'.repeat(2_000), { start: 0, end: 1 }),
  type: 'text',
  position: { type: 'TextPositionSelector', start, end },
});
const region = (page: number | null, x: number, y: number, width = 0, height = 0): Selector => ({
  type: 'region',
  page,
  x,
  y,
  width,
  height,
});
const passage = (page: number, start: number, exact: string): Selector => ({
  type: 'passage',
  page,
  quote: { type: 'TextQuoteSelector', exact, prefix: '', suffix: '' },
  position: { type: 'TextPositionSelector', start, end: start + exact.length },
});
const moment = (start: number, end: number | null = null): Selector => ({ type: 'moment', start, end });
const code = (partId: string | null, selector: Selector) => checkPlace({ partId, selector }, PARTS)?.code ?? 'fits';

describe('checkPlace', () => {
  it.each<[string, string | null, Selector, string]>([
    ['a passage', 'text', text(3, 40), 'fits'],
    ['a passage that ends where it begins', 'text', text(3, 3), 'place-empty'],
    ['a passage that ends before it begins', 'text', text(9, 3), 'place-empty'],
    ['a passage past the end', 'text', text(3, 41), 'place-outside'],
    ['a passage at ten to the ninth', 'text', text(1e9, 1e9 + 5), 'place-outside'],
    ['a passage of a picture', 'picture', text(0, 5), 'place-unfit'],
    ['a part of another version', 'elsewhere', text(0, 5), 'part-unknown'],
    ['a page', 'pdf', { type: 'page', page: 3 }, 'fits'],
    ['page nought', 'pdf', { type: 'page', page: 0 }, 'place-outside'],
    ['half a page', 'pdf', { type: 'page', page: 1.5 }, 'place-outside'],
    ['a page of a text', 'text', { type: 'page', page: 1 }, 'place-unfit'],
    ['words of a page', 'pdf', passage(2, 10, 'low water'), 'fits'],
    ['words of a page that is not there', 'pdf', passage(4, 10, 'low water'), 'place-outside'],
    ['words further down than any page goes', 'pdf', passage(1, 1e9, 'low water'), 'place-outside'],
    ['no words of a page', 'pdf', passage(1, 10, ''), 'place-empty'],
    [
      'words that are longer than their place',
      'pdf',
      { ...passage(1, 10, 'low water'), position: { type: 'TextPositionSelector', start: 10, end: 12 } } as Selector,
      'place-outside',
    ],
    ['words of a page of a film', 'film', passage(1, 10, 'low water'), 'place-unfit'],
    ['a region of a page', 'pdf', region(2, 0.25, 0.5, 0.75, 0.5), 'fits'],
    ['a region over the edge', 'pdf', region(2, 0.5, 0.5, 0.6, 0.1), 'place-outside'],
    ['a point of a picture', 'picture', region(null, 1, 1), 'fits'],
    ['a region of no page of a PDF', 'pdf', region(null, 0, 0), 'place-unfit'],
    ['a region that is no number', 'picture', region(null, Number.NaN, 0), 'place-outside'],
    ['a span of a film', 'film', moment(10, 90), 'fits'],
    ['a span that runs back', 'film', moment(10, 9), 'place-empty'],
    ['a moment after the end', 'film', moment(91), 'place-outside'],
    ['a whole part', 'film', { type: 'whole' }, 'fits'],
    ['the whole draft', null, { type: 'whole' }, 'fits'],
    ['a passage of no part', null, text(0, 5), 'place-unfit'],
  ])('%s', (_, partId, selector, expected) => {
    expect(code(partId, selector)).toBe(expected);
  });
});

describe('comparePlaces', () => {
  const compare = comparePlaces(['text', 'pdf', 'picture', 'film']);
  const READ: Place[] = [
    { partId: null, selector: { type: 'whole' } },
    { partId: 'text', selector: { type: 'whole' } },
    { partId: 'text', selector: text(3, 5) },
    { partId: 'text', selector: text(20, 21) },
    { partId: 'pdf', selector: { type: 'page', page: 1 } },
    { partId: 'pdf', selector: passage(1, 4, 'low') },
    { partId: 'pdf', selector: passage(1, 90, 'low') },
    { partId: 'pdf', selector: region(1, 0.9, 0.1) },
    { partId: 'pdf', selector: region(1, 0.1, 0.8) },
    { partId: 'pdf', selector: region(2, 0.2, 0) },
    { partId: 'pdf', selector: region(2, 0.3, 0) },
    { partId: 'film', selector: moment(4, 60) },
    { partId: 'film', selector: moment(7) },
    { partId: 'gone', selector: text(0, 1) },
  ];

  it('puts places in the order of reading, from whatever order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(READ, { minLength: READ.length }), (places) => {
        expect([...places].sort(compare)).toEqual(READ);
      }),
      { seed: 1962, numRuns: 60 },
    );
  });

  it('says the same beginning is the same', () => {
    const [, , passage] = READ as [Place, Place, Place];
    expect(compare(passage, { partId: 'text', selector: text(3, 30) })).toBe(0);
  });
});
