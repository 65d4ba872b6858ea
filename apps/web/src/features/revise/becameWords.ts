import { type Became } from '@salt-circle/core';
import { say } from '../../words/revise.js';

/** What became of a passage, in a word and in figures. */
export function becameWords({ kind, share, wordsOut, wordsIn, wordsBeside }: Became): readonly [string, string] {
  const out = say('wordsOut', { wordsOut });
  const put = say('wordsIn', { wordsIn });
  const beside = wordsBeside === 0 ? '' : say('wordsInBesideIt', { wordsBeside });
  switch (kind) {
    case 'kept':
      return [say('asItWasWord'), beside];
    case 'changed':
      return [
        share === 0 ? say('writtenAnew') : say('changed'),
        [out, put, beside].filter((one) => one !== '').join(', '),
      ];
    case 'moved':
      return ['moved', share === 1 ? beside : say('ofItIsThere', { share: Math.round(100 * share) })];
    case 'gone':
      return [say('takenOut'), ''];
  }
}

export const BECAME_TEXT: Readonly<Record<Became['kind'], string>> = {
  kept: 'text-ink',
  changed: 'text-kelp',
  moved: 'text-dusk',
  gone: 'text-madder',
};
