import { counted, type Became } from '@salt-circle/core';

/** What became of a passage, in a word and in figures. */
export function becameWords({ kind, share, wordsOut, wordsIn, wordsBeside }: Became): readonly [string, string] {
  const out = counted(wordsOut, '1 word out', '# words out');
  const put = counted(wordsIn, '1 word in', '# words in');
  const beside = wordsBeside === 0 ? '' : counted(wordsBeside, '1 word in beside it', '# words in beside it');
  switch (kind) {
    case 'kept':
      return ['as it was', beside];
    case 'changed':
      return [share === 0 ? 'written anew' : 'changed', [out, put, beside].filter((one) => one !== '').join(', ')];
    case 'moved':
      return ['moved', share === 1 ? beside : `${Math.round(100 * share)}% of it is there`];
    case 'gone':
      return ['taken out', ''];
  }
}

export const BECAME_TEXT: Readonly<Record<Became['kind'], string>> = {
  kept: 'text-ink',
  changed: 'text-kelp',
  moved: 'text-dusk',
  gone: 'text-madder',
};
