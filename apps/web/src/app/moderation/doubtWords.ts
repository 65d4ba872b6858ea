import type { DoubtView } from '@salt-circle/contracts';
import { labelWords } from '../People.js';
import { percent } from '../percent.js';
import { say } from '../../words/app.js';

/** Why a review is to be looked at, in words and figures. */
export function doubtWords({ doubt, other }: Pick<DoubtView, 'doubt' | 'other'>): string {
  switch (doubt.code) {
    case 'asked':
      return say('asksYouToLook', { by: doubt.by, words: doubt.words });
    case 'harsh':
      return say('wordThatMayHurt', { exact: doubt.exact });
    case 'name':
      return say('nameStandsInIt', { exact: doubt.exact });
    case 'same-text': {
      const share = percent(doubt.share);
      if (doubt.sameReviewer) return say('ofItsTextAlsoStands', { share });
      return other === null
        ? say('ofItsTextAlsoStandsIn', { share })
        : say('ofItsTextAlsoStandsInThat', { share, reviewer: labelWords(other.reviewer) });
    }
    case 'few-words':
      return say('wordsHalfOfReviewsHave', { words: doubt.words, usual: Math.round(doubt.usual) });
    case 'nothing-to-do':
      return doubt.notes === 0 ? say('noNotesOnDraft') : say('noneOfItsNotesSays', { notes: doubt.notes });
    case 'far-from-others':
      return say('ofThisDraftOfScale', {
        side: doubt.gives ?? 'none',
        others: doubt.others,
        apart: percent(doubt.apart),
      });
    case 'hasty':
      return doubt.seconds < 60
        ? say('submittedAfterItsFirstWord', { seconds: doubt.seconds })
        : say('submittedMinutesAfter', { minutes: Math.round(doubt.seconds / 60) });
    case 'one-end':
      return doubt.end === 'top'
        ? say('highestLevelEverywhereItems', { items: doubt.items })
        : say('lowestLevelEverywhereItems', { items: doubt.items });
  }
}
