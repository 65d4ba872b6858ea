import { performance } from 'node:perf_hooks';
import { flagsOf, seededRandom, DEFAULT_FLAGGING_RULES } from '@salt-circle/core';

// Flags of reviews in a large course: against cutting the same texts into words, which is the least one can do.

const VOCABULARY = 4_000;

function reviewsOf(count) {
  const random = seededRandom(6_000);
  // As words are used: a few very often, most of them rarely.
  const word = () => `w${Math.floor(VOCABULARY * random() ** 3)}`;
  const texts = [];
  return Array.from({ length: count }, (_, index) => {
    // One in fifty has half of its text from somebody before.
    const words = Array.from({ length: 80 + Math.floor(140 * random()) }, word);
    const copied = texts.length > 0 && random() < 0.02 ? texts[Math.floor(random() * texts.length)] : '';
    const text = `${copied.split(' ').slice(0, words.length).join(' ')} ${words.join(' ')}`;
    texts.push(text);
    return {
      ...{ id: `r${index}`, draftId: `d${Math.floor(index / 3)}`, reviewerId: `p${index % (count / 3)}`, self: false },
      ...{ words: words.length, notes: 3, telling: 2, seconds: 1_800, text, names: [] },
      levels: { a: random(), b: random(), c: random() },
    };
  });
}

function timed(work) {
  work();
  const times = [0, 1, 2].map(() => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  });
  return times.sort((a, b) => a - b)[1];
}

export function flagFigures({ line, round }) {
  const [small, large] = [reviewsOf(1_000), reviewsOf(6_000)];
  const [one, six] = [small, large].map((reviews) => timed(() => flagsOf(reviews, DEFAULT_FLAGGING_RULES)));
  const split = timed(() => large.map(({ text }) => text.match(/[\p{L}\p{N}]+/gu).length));
  line('flags of 6,000 reviews : cutting them into words', round(six / split), `${round(six)} ms here, in a thread`);
  line('  the same : of 1,000 reviews', round(six / one), 'linear would be 6');
}

if (process.argv[1]?.endsWith('flags.mjs')) {
  const line = (name, value, remark = '') =>
    process.stdout.write(`${name.padEnd(52)} ${String(value).padStart(9)}  ${remark}\n`);
  flagFigures({ line, round: (value, digits = 1) => Number(value.toFixed(digits)) });
}
