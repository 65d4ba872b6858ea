import { seededRandom } from '../random/random.js';
import { becameOf, compareVersions, type VersionPart } from './compareVersions.js';
import { decisionKey, decisionTarget, planFigures } from './decisions.js';

const rebuilt = (parts: readonly VersionPart[], change: 'out' | 'in') =>
  parts.flatMap((part) => (part.change === 'same' || part.change === change ? [part.text] : [])).join('');

function compared(before: string, after: string): VersionPart[] {
  const parts = compareVersions(before, after);
  expect([rebuilt(parts, 'out'), rebuilt(parts, 'in')]).toEqual([before, after]);
  return parts;
}

const BEFORE = [
  'The western basin lost its creeks when the sluice was shut in 1987.',
  'Within a few years the marsh would come back. Sediment supply is suffisient for this.',
  'Costs stay low because the spoil is used on the site itself.',
  'Vegetation will be surveyed in forty quadrats before the cuts.',
].join('\n');

/** What became of a passage that stands once in the earlier text. */
function became(before: string, after: string, passage: string) {
  const start = before.indexOf(passage);
  expect(start).toBeGreaterThanOrEqual(0);
  return becameOf(compared(before, after), { start, end: start + passage.length });
}

describe('two versions as one', () => {
  // Cases as a handbook of copy-editing lists them; made by hand, common practice with no source.
  it.each([
    ['a word is mended', 'suffisient', BEFORE.replace('suffisient', 'sufficient'), 'changed', [1, 1]],
    ['a passage stays', 'when the sluice was shut', BEFORE.replace('suffisient', 'sufficient'), 'kept', [0, 0]],
    ['words are put into it', 'a few years', BEFORE.replace('a few years', 'a few dry years'), 'changed', [0, 1]],
    ['it is written anew', 'a few years', BEFORE.replace('a few years', 'eight to twelve summers'), 'changed', [3, 4]],
    [
      'it is taken out',
      'Costs stay low because the spoil is used on the site itself.\n',
      BEFORE.replace('Costs stay low because the spoil is used on the site itself.\n', ''),
      'gone',
      [12, 0],
    ],
    [
      'a paragraph is moved up',
      'Costs stay low because the spoil is used on the site itself.',
      [BEFORE.split('\n')[2], ...BEFORE.split('\n').filter((_, index) => index !== 2)].join('\n'),
      'moved',
      [0, 0],
    ],
    [
      'all around it is new',
      'in forty quadrats',
      'Nothing of it.\nVegetation will be surveyed in forty quadrats before the cuts.',
      'kept',
      [0, 0],
    ],
  ] as const)('say what became of a passage: %s', (_, passage, after, kind, [out, put]) => {
    const { kind: found, wordsOut, wordsIn, range } = became(BEFORE, after, passage);
    expect([found, wordsOut, wordsIn]).toEqual([kind, out, put]);
    if (kind === 'kept' || kind === 'moved') expect(after.slice(range?.start, range?.end).trim()).toBe(passage.trim());
    if (kind === 'gone') expect(range).toBeNull();
  });

  it('count what is put in beside it, which may be the answer to a question about it', () => {
    const after = BEFORE.replace('shut in 1987.', 'shut in 1987. It was opened again for two tides.');
    expect(became(BEFORE, after, 'the sluice was shut in 1987.')).toMatchObject({ kind: 'kept', wordsBeside: 7 });
  });

  it('know a sentence that was moved within its paragraph, and no chance likeness', () => {
    const [one, two] = [
      'We measured the bed at nine stakes every spring.',
      'Geese graze the islands bare in winter now.',
    ];
    const parts = compared(`${one} ${two} The end.`, `${two} ${one} The end.`);
    const moved = parts.filter(({ move }) => move !== null);
    expect(moved.map(({ change }) => change).sort()).toEqual(['in', 'out']);
    expect(compared('a b c d e f', 'g a b c d h').every(({ move }) => move === null)).toBe(true);
  });

  it('lose nothing of any texts, and come to an end for text that repeats itself', () => {
    const random = seededRandom(1986);
    const words = ['tide', 'mud', 'the', 'reed', 'bed', 'rose'];
    const text = () =>
      Array.from({ length: 80 }, () => words[Math.floor(random() * words.length)] + (random() < 0.1 ? '\n' : ' ')).join(
        '',
      );
    for (let count = 0; count < 60; count += 1) compared(text(), text());
    compared('the the '.repeat(4_000), 'mud the the '.repeat(3_000));
  });

  /** Of generated revisions it is known what was done to each sentence. */
  it('find out what was done to the sentences of generated revisions', () => {
    const random = seededRandom(20_261);
    const vocabulary = Array.from({ length: 400 }, (_, index) => `word${index.toString(36)}`);
    const pick = () => vocabulary[Math.floor(random() * vocabulary.length)] as string;
    const sentence = () => `${Array.from({ length: 12 }, pick).join(' ')}.`;
    let [right, all] = [0, 0];
    for (let round = 0; round < 60; round += 1) {
      const before = Array.from({ length: 12 }, sentence);
      const done = new Map<string, 'kept' | 'changed' | 'gone' | 'moved'>(before.map((one) => [one, 'kept']));
      let after = [...before];
      const [gone, changed, moved] = [before[2], before[5], before[8]] as [string, string, string];
      after = after.filter((one) => one !== gone);
      done.set(gone, 'gone');
      const mended = changed.split(' ');
      mended[4] = pick();
      mended.splice(8, 0, pick());
      after[after.indexOf(changed)] = mended.join(' ');
      done.set(changed, 'changed');
      after = after.filter((one) => one !== moved);
      after.splice(1, 0, moved);
      done.set(moved, 'moved');
      after.splice(6, 0, sentence());
      const text = before.join('\n');
      const parts = compared(text, after.join('\n'));
      for (const [one, kind] of done) {
        const start = text.indexOf(one);
        const found = becameOf(parts, { start, end: start + one.length });
        all += 1;
        if (found.kind === kind) right += 1;
      }
    }
    expect(all).toBe(720);
    expect(right / all).toBeGreaterThan(0.98);
  });
});

describe('decisions', () => {
  it('are known by what they are about, and by nothing else', () => {
    for (const target of [
      { kind: 'note', noteId: 'n-1' },
      { kind: 'next', reviewId: 'r-1', itemId: 'i-1' },
    ] as const)
      expect(decisionTarget(decisionKey(target))).toEqual(target);
    for (const wrong of ['', 'note', 'note.', 'note.a.b', 'next.a', 'next.a.b.c', 'x.a'])
      expect(() => decisionTarget(wrong)).toThrow(expect.objectContaining({ code: 'decision-key' }));
  });

  it('make a plan: what is to be done, and how much of it is', () => {
    const of = (decision: Parameters<typeof planFigures>[0][number]['decision'], done = false) => ({
      key: 'x',
      decision,
      done,
    });
    expect(
      planFigures([
        of('will-change', true),
        of('will-change'),
        of('there'),
        of('not-sure'),
        of(null),
        of('will-not', true),
      ]),
    ).toEqual({
      ...{ remarks: 6, decided: 4, toDo: 2, done: 1 },
    });
    expect(planFigures([])).toEqual({ remarks: 0, decided: 0, toDo: 0, done: 0 });
  });
});
