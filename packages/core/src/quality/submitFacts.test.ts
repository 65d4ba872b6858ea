import { describeTextAnchor } from '../anchoring/describe.js';
import type { Selector } from '../anchoring/place.js';
import { EMPTY_FORM, type ReviewForm } from '../form/form.js';
import { submitFacts, type FactNote, type FactPart } from './submitFacts.js';

const base = { guidance: '', required: true, weight: 1 };
const FORM: ReviewForm = {
  ...EMPTY_FORM,
  overall: 'optional',
  items: [
    { ...base, kind: 'prompt', id: 'first', title: 'What first?', minimumWords: 0 },
    {
      ...base,
      kind: 'criterion',
      id: 'evidence',
      title: 'Evidence',
      comment: 'optional',
      levels: [{ id: 'low', title: 'Low', description: '', points: null }],
    },
    { ...base, kind: 'number', id: 'sources', title: 'Sources', minimum: 0, maximum: null, whole: true, unit: '' },
  ],
};
const PARTS: FactPart[] = [
  { id: 'text', textLength: 4_000, pages: null, seconds: null },
  { id: 'slides', textLength: null, pages: 10, seconds: null },
  { id: 'film', textLength: null, pages: null, seconds: 90 },
];
const at = (partId: string | null, selector: Selector): FactNote['place'] => ({ partId, selector });
const text = (start: number): Selector => {
  const anchor = describeTextAnchor('x'.repeat(4_000), { start, end: start + 2 });
  return { type: 'text', ...anchor };
};
const note = (part: Partial<FactNote>): FactNote => ({
  kind: 'change',
  body: 'Say how deep it was measured.',
  edit: null,
  itemId: null,
  place: at('text', text(10)),
  ...part,
});

describe('before a review is submitted', () => {
  it('counts the notes that say what to do, and not those that say nothing', () => {
    const notes = [
      note({}),
      note({ body: 'Unclear.' }),
      note({ kind: 'keep', body: 'This works well because it is short.' }),
      note({ kind: 'fix', body: '', edit: { type: 'delete' } }),
      note({ body: ' \n' }),
    ];
    expect(submitFacts(FORM, {}, notes, PARTS)).toMatchObject({ notes: 4, telling: 2 });
  });

  it('names the items that take words and have none, unless a note is filed under them', () => {
    expect(submitFacts(FORM, {}, [], PARTS).silentItems).toEqual(['first', 'evidence', 'overall']);
    const answers = { first: { text: 'The depth.' }, overall: { text: ' ' } };
    expect(submitFacts(FORM, answers, [note({ itemId: 'evidence' })], PARTS).silentItems).toEqual(['overall']);
  });

  it('names the parts without a note, and those that fall silent half-way', () => {
    const notes = [
      note({ place: at('text', text(3_000)) }),
      note({ place: at('slides', { type: 'page', page: 2 }) }),
      note({ place: at(null, { type: 'whole' }) }),
    ];
    expect(submitFacts(FORM, {}, notes, PARTS)).toMatchObject({ silentParts: ['film'], halfSilentParts: ['slides'] });
    const more = [...notes, note({ place: at('film', { type: 'moment', start: 10, end: 60 }) })];
    expect(submitFacts(FORM, {}, more, PARTS)).toMatchObject({ silentParts: [], halfSilentParts: ['slides'] });
  });

  it('says nothing of halves where there are none: a short text, a single page, a whole part', () => {
    const parts: FactPart[] = [{ id: 'text', textLength: 400, pages: null, seconds: null }];
    expect(submitFacts(FORM, {}, [note({})], parts)).toMatchObject({ silentParts: [], halfSilentParts: [] });
    const single: FactPart[] = [{ id: 'slides', textLength: null, pages: 1, seconds: null }];
    const notes = [
      note({ place: at('slides', { type: 'page', page: 1 }) }),
      note({ place: at('slides', { type: 'whole' }) }),
    ];
    expect(submitFacts(FORM, {}, notes, single)).toMatchObject({ halfSilentParts: [] });
  });

  it('says nothing of parts to somebody who left no notes: the plan may ask for none', () => {
    expect(submitFacts(FORM, {}, [], PARTS)).toMatchObject({ notes: 0, silentParts: [], halfSilentParts: [] });
  });
});
