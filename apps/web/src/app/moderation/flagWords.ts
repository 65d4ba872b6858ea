import type { FlagView } from '@salt-circle/contracts';
import { labelWords } from '../People.js';
import { percent } from '../percent.js';
import { say } from '../../words/app.js';

/** Why a review is to be looked at, in words and figures. */
export function flagWords({ flag, other }: Pick<FlagView, 'flag' | 'other'>): string {
  switch (flag.code) {
    case 'asked':
      return say('asksYouToLook', { by: flag.by, words: flag.words });
    case 'harsh':
      return say('wordThatMayHurt', { exact: flag.exact });
    case 'name':
      return say('nameStandsInIt', { exact: flag.exact });
    case 'same-text': {
      const share = percent(flag.share);
      if (flag.sameReviewer) return say('ofItsTextAlsoStands', { share });
      return other === null
        ? say('ofItsTextAlsoStandsIn', { share })
        : say('ofItsTextAlsoStandsInThat', { share, reviewer: labelWords(other.reviewer) });
    }
    case 'few-words':
      return say('wordsHalfOfReviewsHave', { words: flag.words, usual: Math.round(flag.usual) });
    case 'nothing-to-do':
      return flag.notes === 0 ? say('noNotesOnDraft') : say('noneOfItsNotesSays');
    case 'far-from-others':
      return say('ofThisDraftOfScale', {
        side: flag.gives ?? 'none',
        others: flag.others,
        apart: percent(flag.apart),
      });
    case 'hasty':
      return flag.seconds < 60
        ? say('submittedAfterItsFirstWord', { seconds: flag.seconds })
        : say('submittedMinutesAfter', { minutes: Math.round(flag.seconds / 60) });
    case 'one-end':
      return flag.end === 'top'
        ? say('highestLevelEverywhereItems', { items: flag.items })
        : say('lowestLevelEverywhereItems', { items: flag.items });
  }
}
