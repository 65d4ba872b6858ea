import { sentences } from './say.js';

/** Grades and scores: how they come about. */
export const say = sentences('core.grading', {
  mean: 'the mean',
  median: 'the median',
  trimmed: 'the mean without the highest and the lowest',
  byPractice: 'the mean, weighted by how near each reviewer came to the key in practice',
  adjusted: 'with the severity of reviewers taken out',
  halfUp: 'to the nearest, halves up',
  halfEven: 'to the nearest, halves to the even one',
  down: 'down',
  closeToOthers: 'close to the others',
  closeToStaff: 'close to the staff',
  substance: 'substance',
  helpedAuthors: 'helped authors',
  markedByStaff: 'marked by staff',
  inProportion: 'in proportion',
  allOrNothing: 'all or nothing',
  inSteps: 'in steps',
  stepsGiven: 'in steps: {steps}',
  step: '{gives} from {from} on',
  nothingBelow: '{how}; nothing below {share}',
  leftOut: 'is left out until it is there',
  countsAsNothing: 'counts as nothing',
  less: '{less, plural, one {{reviewers, plural, one {1 of 1 reviewer gives less than others on average.} other {1 of # reviewers gives less than others on average.}}} other {{less} of {reviewers} reviewers give less than others on average.}}',
  more: '{more, plural, one {{reviewers, plural, one {1 of 1 reviewer gives more than others on average.} other {1 of # reviewers gives more than others on average.}}} other {{more} of {reviewers} reviewers give more than others on average.}}',
  lessAndMore:
    '{less, plural, one {1 of {reviewers} reviewers gives less than others on average} other {# of {reviewers} reviewers give less than others on average}}, {more, plural, one {1 gives more} other {# give more}}.',
  forHalf:
    '{reviews, plural, one {An interval half as wide would take about 1 review.} other {An interval half as wide would take about # reviews.}}',
});
