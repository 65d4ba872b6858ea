import { sentences } from './say.js';

/** Grades and scores: how they come about. */
export const say = sentences('core.grading', {
  mean: 'the mean',
  median: 'the median',
  trimmed: 'the mean without the highest and the lowest',
  byPractice: 'the mean, weighted by how close each reviewer came to the instructor’s review in practice',
  adjusted: 'with the severity of reviewers taken out',
  halfUp: 'nearest, ties up',
  halfEven: 'nearest, ties to even',
  down: 'down',
  closeToOthers: 'agreement with peers',
  closeToStaff: 'agreement with instructor',
  substance: 'substance',
  helpedAuthors: 'helped authors',
  markedByStaff: 'marked by staff',
  inProportion: 'in proportion',
  allOrNothing: 'all or nothing',
  inSteps: 'in steps',
  stepsGiven: 'in steps: {steps}',
  step: '{gives} from {from} on',
  nothingBelow: '{how}; no credit below {share}',
  leftOut: 'is left out until it is graded',
  countsAsNothing: 'counts as 0',
  less: '{less, plural, one {{reviewers, plural, one {1 of 1 reviewer gives less than others on average.} other {1 of # reviewers gives less than others on average.}}} other {{less} of {reviewers} reviewers give less than others on average.}}',
  more: '{more, plural, one {{reviewers, plural, one {1 of 1 reviewer gives more than others on average.} other {1 of # reviewers gives more than others on average.}}} other {{more} of {reviewers} reviewers give more than others on average.}}',
  lessAndMore:
    '{less, plural, one {1 of {reviewers} reviewers gives less than others on average} other {# of {reviewers} reviewers give less than others on average}}, {more, plural, one {1 gives more} other {# give more}}.',
  forHalf:
    '{reviews, plural, one {An interval half as wide would take about 1 review.} other {An interval half as wide would take about # reviews.}}',
});
