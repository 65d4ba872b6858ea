import type { DraftReading, PartView, RemarkView } from '@salt-circle/contracts';
import { compareVersions, describeTextAnchor } from '@salt-circle/core';
import { becameWords } from './becameWords.js';
import { becameOfRemark, pairsOf } from './versions.js';

const part = (id: string, deliverableId: string, html: string | null, name = ''): PartView =>
  ({
    id,
    deliverableId,
    deliverable: deliverableId,
    html,
    name,
    url: '',
    digest: html === null ? id : null,
  }) as PartView;
const reading = (version: number, parts: readonly PartView[]) => ({ version, parts }) as DraftReading;

const BEFORE =
  '<h2>The basin</h2><p>The bed rose by four centimetres a decade.</p><p>Geese graze here in every winter.</p>';
const AFTER =
  '<h2>The basin</h2><p>Geese graze here in every winter.</p><p>The bed rose by five centimetres a decade.</p>';

function remarkOn(passage: string, partId = 'old-text'): Pick<RemarkView, 'note'> {
  const text = 'The basin\nThe bed rose by four centimetres a decade.\nGeese graze here in every winter.';
  const start = text.indexOf(passage);
  const selector = { type: 'text', ...describeTextAnchor(text, { start, end: start + passage.length }) };
  return { note: { place: { version: 1, partId, selector } } } as unknown as Pick<RemarkView, 'note'>;
}

describe('the reviewed version and the revision', () => {
  const pairs = pairsOf({
    reviewed: reading(1, [
      part('old-text', 'text', BEFORE),
      part('f1', 'figures', null, 'map.png'),
      part('f2', 'figures', null),
    ]),
    revision: reading(2, [
      part('new-text', 'text', AFTER),
      part('f1', 'figures', null, 'map.png'),
      part('t', 'talk', null),
    ]),
  });
  const compared = pairs.flatMap(({ texts }) => (texts === null ? [] : [compareVersions(...texts)]));

  it('stand beside each other part by part, also those that only one of them has', () => {
    expect(pairs.map(({ title, before, after }) => [title, before?.id, after?.id])).toEqual([
      ['text', 'old-text', 'new-text'],
      ['figures', 'f1', 'f1'],
      ['figures', 'f2', undefined],
      ['talk', undefined, 't'],
    ]);
    expect(pairs[0]?.texts?.[0]).toBe(
      'The basin\nThe bed rose by four centimetres a decade.\nGeese graze here in every winter.',
    );
  });

  it.each([
    ['Geese graze here in every winter', 'moved', ''],
    ['by four centimetres', 'changed', '1 word out, 1 word in'],
    ['The basin', 'as it was', ''],
  ])('tell what became of “%s”', (passage, word, figures) => {
    const found = becameOfRemark(remarkOn(passage), pairs, compared);
    expect(found === null ? null : becameWords(found.became)).toEqual([word, figures]);
  });

  it('tell nothing of what is not on a text', () => {
    expect(becameOfRemark({ note: null }, pairs, compared)).toBeNull();
    expect(becameOfRemark(remarkOn('The basin', 'f1'), pairs, compared)).toBeNull();
  });
});

it('puts into words what became of a passage', () => {
  const became = { kind: 'kept' as const, share: 1, wordsOut: 0, wordsIn: 0, wordsBeside: 7, range: null };
  expect(becameWords(became)).toEqual(['as it was', '7 words in beside it']);
  expect(becameWords({ ...became, kind: 'changed', share: 0, wordsOut: 3, wordsIn: 4, wordsBeside: 0 })).toEqual([
    ...['written anew', '3 words out, 4 words in'],
  ]);
  expect(becameWords({ ...became, kind: 'moved', share: 0.7 })).toEqual(['moved', '70% of it is there']);
  expect(becameWords({ ...became, kind: 'gone', share: 0 })).toEqual(['taken out', '']);
});
