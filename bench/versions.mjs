import { performance } from 'node:perf_hooks';
import { diffWordsWithSpace } from 'diff';
import { becameOf, compareVersions, seededRandom } from '@salt-circle/core';

// Two versions of a draft, with what was moved and what became of the passages under its notes: against the bare difference of words.

function versionsOf(words) {
  const random = seededRandom(20_000);
  const word = () => `w${Math.floor(4_000 * random() ** 3)}`;
  const before = Array.from({ length: words / 80 }, () => Array.from({ length: 80 }, word).join(' '));
  const after = before.flatMap((paragraph) => {
    const dice = random();
    if (dice < 0.05) return [];
    if (dice < 0.3) return [paragraph.replace(/w\d+/g, (one) => (random() < 0.06 ? word() : one))];
    return [paragraph];
  });
  // Every tenth paragraph stands elsewhere now.
  for (let at = 5; at < after.length; at += 10)
    after.splice(Math.floor(random() * after.length), 0, ...after.splice(at, 1));
  return [before.join('\n'), after.join('\n')];
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

export function versionFigures({ line, round }) {
  const [small, large] = [versionsOf(5_000), versionsOf(20_000)];
  const [one, four] = [small, large].map(([before, after]) => timed(() => compareVersions(before, after)));
  const bare = timed(() => diffWordsWithSpace(...large, { maxEditLength: 20_000 }));
  const parts = compareVersions(...large);
  const notes = Array.from({ length: 400 }, (_, index) => ({ start: index * 250, end: index * 250 + 60 }));
  const found = timed(() => notes.map((range) => becameOf(parts, range)));
  line(
    'two versions of 20,000 words : their bare difference',
    round(four / bare, 2),
    `${round(four)} ms here, beside the page`,
  );
  line('  the same : of 5,000 words', round(four / one), 'linear would be 4');
  line('  what became of 400 passages : comparing', round(found / four, 2), `${round(found)} ms here`);
}

if (process.argv[1]?.endsWith('versions.mjs')) {
  const line = (name, value, remark = '') =>
    process.stdout.write(`${name.padEnd(56)} ${String(value).padStart(9)}  ${remark}\n`);
  versionFigures({ line, round: (value, digits = 1) => Number(value.toFixed(digits)) });
}
