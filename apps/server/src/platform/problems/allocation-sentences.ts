import type { AllocationRowCode, AllocationRowProblem } from '@salt-circle/core';
import { say } from '../../words/problems.js';
import { fact } from './fact.js';

const SENTENCES: Readonly<Record<AllocationRowCode, (facts: AllocationRowProblem['facts']) => string>> = {
  'rows-empty': () => say('thereAreNoRowsBelow'),
  'column-missing': (facts) => say('thereIsNoColumnHeader', { column: fact(facts, 'column') }),
  'column-twice': (facts) => say('columnSaysSameAsEarlier', { column: fact(facts, 'column') }),
  'reviewer-missing': () => say('nobodyIsNamedAsReviewer'),
  'reviewer-unknown': (facts) => say('isNobodyWhoCanReview', { who: fact(facts, 'who') }),
  'draft-missing': () => say('noDraftIsNamedWrite'),
  'draft-unknown': (facts) => say('hasHandedInNoDraft', { who: fact(facts, 'who') }),
  'own-draft': (facts) => say('wouldReviewTheirOwnDraft', { who: fact(facts, 'who') }),
  'kept-apart': (facts) => say('youKeepAndDraftBy', { who: fact(facts, 'who'), draft: fact(facts, 'draft') }),
  'pair-twice': (facts) => say('thisPairStandsInRow', { first: fact(facts, 'first') }),
  'fixed-unclear': (facts) => say('isNeitherYesNorNo', { value: fact(facts, 'value') }),
};

/** What is wrong with a row of an allocation file, with its number. */
export function allocationRowProblem({ code, facts, row }: AllocationRowProblem): { row: number; sentence: string } {
  const sentence = SENTENCES[code](facts);
  return { row, sentence: row === 0 ? sentence : say('row', { row, sentence }) };
}
