import type { DoubtView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { labelWords } from '../People.js';
import { percent } from '../percent.js';

/** Why a review is to be looked at, in words and figures. */
export function doubtWords({ doubt, other }: Pick<DoubtView, 'doubt' | 'other'>): string {
  switch (doubt.code) {
    case 'asked':
      return `the ${doubt.by} asks you to look: “${doubt.words}”`;
    case 'harsh':
      return `a word that may hurt: “${doubt.exact}”`;
    case 'name':
      return `a name stands in it: “${doubt.exact}”`;
    case 'same-text': {
      const share = percent(doubt.share);
      if (doubt.sameReviewer) return `${share} of its text also stands in another review by the same reviewer`;
      const whose = other === null ? 'another review' : `the review by ${labelWords(other.reviewer)}`;
      return `${share} of its text also stands in ${whose}`;
    }
    case 'few-words':
      return `${counted(doubt.words, '1 word', '# words')}; half of the reviews have ${Math.round(doubt.usual)} or more`;
    case 'nothing-to-do':
      return doubt.notes === 0
        ? 'no notes on the draft'
        : counted(doubt.notes, 'its one note does not say what to do', 'none of its # notes says what to do');
    case 'far-from-others': {
      const others = counted(doubt.others, 'the other review', 'the # other reviews');
      const side =
        doubt.gives === null ? 'other levels than' : doubt.gives === 'more' ? 'gives more than' : 'gives less than';
      return `${side} ${others} of this draft: ${percent(doubt.apart)} of the scale apart on average`;
    }
    case 'hasty':
      return `submitted ${timeWords(doubt.seconds)} after its first word`;
    case 'one-end':
      return `the ${doubt.end === 'top' ? 'highest' : 'lowest'} level everywhere (${doubt.items} items)`;
  }
}

function timeWords(seconds: number): string {
  return seconds < 60
    ? counted(seconds, '1 second', '# seconds')
    : counted(Math.round(seconds / 60), '1 minute', '# minutes');
}
