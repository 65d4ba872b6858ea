import { readFileSync } from 'node:fs';
import jsonld from 'jsonld';
import type { FormItem } from '../form/form.js';
import { answerLines } from './answerLines.js';
import { ANNOTATION_CONTEXT, annotationCollection, PAGE_SIZE } from './annotations.js';
import { noteLines, type AnnotatedDraft, type AnnotatedNote } from './annotatedDraft.js';

const CONTEXT = JSON.parse(
  readFileSync(new URL('../../../../docs/schemas/anno.jsonld', import.meta.url), 'utf8'),
) as object;
const documentLoader = (url: string) => {
  if (url !== ANNOTATION_CONTEXT) throw new Error(`nothing but the context is loaded, not ${url}`);
  return Promise.resolve({ contextUrl: null, documentUrl: url, document: CONTEXT });
};

const anchor = (exact: string, start: number) => ({
  quote: { type: 'TextQuoteSelector' as const, exact, prefix: 'the ', suffix: '.' },
  position: { type: 'TextPositionSelector' as const, start, end: start + exact.length },
});
const note = (id: string, part: Partial<AnnotatedNote>): AnnotatedNote => ({
  ...{ id, by: 'Skua', kind: 'change', body: 'Say who measured it.', partId: 'p1' },
  ...{ selector: { type: 'text', ...anchor('gauge', 40) }, edit: null, replies: [] },
  ...part,
});
const DRAFT: AnnotatedDraft = {
  ...{ draftId: 'd1', version: 1, title: 'On the basin', exchange: 'Field report', course: 'Coastal Restoration' },
  parts: [
    { id: 'p1', name: 'Report', format: 'text/html' },
    { id: 'p2', name: 'Map', format: 'application/pdf' },
  ],
  reviews: [
    {
      ...{ id: 'r1', by: 'Skua', score: '6 of 8 points' },
      answers: [
        {
          itemId: 'evidence',
          title: 'Evidence',
          lines: ['3 of 4: Most of it'],
          replies: [{ id: 'y1', by: 'you', words: 'Which?' }],
        },
        { itemId: 'empty', title: 'Order', lines: [], replies: [] },
      ],
      notes: [
        note('n1', {
          edit: { type: 'replace', text: 'tide gauge' },
          replies: [{ id: 'y2', by: 'you', words: 'Done.' }],
        }),
        note('n2', {
          partId: 'p2',
          kind: 'ask',
          selector: { type: 'region', page: 2, x: 0.1, y: 0.2, width: 0.3, height: 0.4 },
        }),
        note('n3', { partId: null, kind: 'keep', body: '', selector: { type: 'whole' } }),
      ],
      replies: [{ id: 'y3', by: 'you', words: 'Thank you.' }],
    },
  ],
};

/** As a graph: subject, predicate and object of each statement, names of the standard in short. */
async function graphOf(document: object): Promise<string[]> {
  const quads: unknown = await (jsonld.toRDF as (from: object, how: object) => Promise<unknown>)(document, {
    ...{ documentLoader, safe: true },
  });
  const short = (value: string) =>
    value
      .replace('http://www.w3.org/ns/oa#', 'oa:')
      .replace('http://www.w3.org/1999/02/22-rdf-syntax-ns#', 'rdf:')
      .replace('http://purl.org/dc/terms/', 'dcterms:')
      .replace('http://www.w3.org/ns/activitystreams#', 'as:')
      .replace('http://xmlns.com/foaf/0.1/', 'foaf:');
  return (
    quads as unknown as Array<{ subject: { value: string }; predicate: { value: string }; object: { value: string } }>
  ).map(({ subject, predicate, object }) => [subject.value, predicate.value, object.value].map(short).join(' '));
}

describe('what was written about a draft, as web annotations', () => {
  it('is a graph that a general processor reads, with nothing that the context does not know', async () => {
    const graph = await graphOf(annotationCollection('c1', 'Notes', [DRAFT]));
    const of = (subject: string) =>
      graph.filter((line) => line.startsWith(`${subject} `)).map((line) => line.slice(subject.length + 1));
    expect(of('urn:uuid:c1')).toEqual(
      expect.arrayContaining(['rdf:type as:OrderedCollection', 'as:totalItems 7', 'as:first urn:uuid:c1#page=1']),
    );
    expect(of('urn:uuid:n1')).toEqual(
      expect.arrayContaining([
        'rdf:type oa:Annotation',
        'oa:motivatedBy oa:assessing',
        'oa:motivatedBy oa:commenting',
        'oa:motivatedBy oa:editing',
      ]),
    );
    // The place by quote and by position, of the part; what is proposed as a body of its own.
    expect(
      graph.filter((line) => / oa:(exact|start|end|hasSource) /.test(line)).map((line) => line.replace(/^\S+ /, '')),
    ).toEqual(
      expect.arrayContaining([
        'oa:exact gauge',
        'oa:start 40',
        'oa:end 45',
        'oa:hasSource urn:uuid:p1',
        'oa:hasSource urn:uuid:p2',
      ]),
    );
    expect(graph.some((line) => line.endsWith('rdf:value “gauge” → “tide gauge”'))).toBe(true);
    expect(of('urn:uuid:n3')).toContain('oa:hasTarget urn:uuid:d1');
    expect(of('urn:uuid:y2')).toEqual(
      expect.arrayContaining(['oa:motivatedBy oa:replying', 'oa:hasTarget urn:uuid:n1']),
    );
    expect(of('urn:uuid:y1')).toContain('oa:hasTarget urn:uuid:r1#evidence');
    expect(graph.filter((line) => line.includes('foaf:nick')).map((line) => line.split(' ').at(-1))).toEqual(
      expect.arrayContaining(['Skua', 'you']),
    );
  });

  it('comes in pages when there is much of it', () => {
    const notes = Array.from({ length: PAGE_SIZE + 1 }, (_, index) => note(`m${index}`, {}));
    const [review] = DRAFT.reviews;
    if (review === undefined) throw new Error('there is one');
    const many = { ...DRAFT, reviews: [{ ...review, answers: [], replies: [], notes }] };
    const made = annotationCollection('c1', 'Notes', [many]) as unknown as {
      total: number;
      first: { items: unknown[]; next: { items: unknown[]; startIndex: number; next?: unknown } };
    };
    expect([made.total, made.first.items.length, made.first.next.items.length]).toEqual([PAGE_SIZE + 1, PAGE_SIZE, 1]);
    expect([made.first.next.startIndex, made.first.next.next]).toEqual([PAGE_SIZE, undefined]);
  });

  it('is an empty collection where nothing was written', async () => {
    const graph = await graphOf(annotationCollection('c1', 'Notes', []));
    expect(graph).toContain('urn:uuid:c1 as:totalItems 0');
  });
});

describe('what was written, in lines', () => {
  it.each<[string, Partial<AnnotatedNote>, string[]]>([
    ['a note', {}, ['Change: Say who measured it.']],
    ['one without a word', { body: ' ', kind: 'keep' }, ['Keep']],
    ['taken out', { edit: { type: 'delete' } }, ['Change: Say who measured it.', 'Take out: “gauge”']],
    [
      'put after',
      { body: '', kind: 'fix', edit: { type: 'insert', side: 'after', text: 's' } },
      ['Fix', 'Put after it: “s”'],
    ],
    [
      'moved',
      { edit: { type: 'move', side: 'before', to: anchor('Geese', 0) } },
      ['Change: Say who measured it.', 'Move to before “Geese”'],
    ],
    ['a paragraph', { edit: { type: 'split' } }, ['Change: Say who measured it.', 'Begin a paragraph here.']],
  ])('of a note: %s', (_, part, lines) => {
    expect(noteLines(note('n', part))).toEqual(lines);
  });

  const BASE = { id: 'i', title: 'T', guidance: '', required: true, weight: 1 };
  const criterion = {
    ...{ ...BASE, kind: 'criterion', comment: 'optional' },
    levels: [
      { id: 'a', title: 'None', description: '', points: 0 },
      { id: 'b', title: 'All', description: '', points: 4 },
    ],
  } as FormItem;
  const checklist = {
    ...{ ...BASE, kind: 'checklist', comment: 'none' },
    entries: [
      { id: 'x', text: 'Scale', points: null },
      { id: 'y', text: 'North', points: null },
    ],
  } as unknown as FormItem;
  it.each<[FormItem | undefined, Parameters<typeof answerLines>[1], string[]]>([
    [criterion, { levelId: 'b', text: 'Each with a year.' }, ['4 of 4: All', 'Each with a year.']],
    [criterion, { levelId: 'gone', text: '' }, []],
    [checklist, { checks: { x: 'yes', y: 'cannot-tell' } }, ['yes: Scale', 'cannot tell: North']],
    [
      { ...BASE, kind: 'pair', worksLabel: '', nextLabel: 'Then' } as FormItem,
      { text: 'a', next: 'b' },
      ['What works: a', 'Then: b'],
    ],
    [{ ...BASE, kind: 'number', unit: 'cm' } as FormItem, { value: 12 }, ['12 cm']],
    [undefined, { text: ' Good. ' }, ['Good.']],
    [undefined, undefined, []],
  ])('of an answer: %#', (item, answer, lines) => {
    expect(answerLines(item, answer)).toEqual(lines);
  });
});
