import type { AllocationRowCode, AllocationRowProblem } from '@salt-circle/core';

const SENTENCES: Readonly<Record<AllocationRowCode, (facts: AllocationRowProblem['facts']) => string>> = {
  'rows-empty': () => 'There are no rows below the header. Write one row per review: reviewer, draft, fixed.',
  'column-missing': ({ column }) =>
    `There is no column “${column}”. The header needs “reviewer” and “draft”, and may have “fixed”.`,
  'column-twice': ({ column }) => `The column “${column}” says the same as an earlier one. Keep one of them.`,
  'reviewer-missing': () => 'Nobody is named as the reviewer. Write an email address or a campus id.',
  'reviewer-unknown': ({ who }) =>
    `“${who}” is nobody who can review here. Write an email address or campus id of the course.`,
  'draft-missing': () => 'No draft is named. Write the author’s email address or campus id, or the group’s name.',
  'draft-unknown': ({ who }) => `“${who}” has handed in no draft here, or is not known. Check the address or name.`,
  'own-draft': ({ who }) => `“${who}” would review their own draft. Choose another one.`,
  'kept-apart': ({ who, draft }) =>
    `You keep “${who}” and the draft by “${draft}” apart. Take the row out, or allow the pair on the board first.`,
  'pair-twice': ({ first }) => `This pair stands in row ${first} already. Take one of them out.`,
  'fixed-unclear': ({ value }) =>
    `“${value}” is neither yes nor no. Write yes for a pair that is held, or leave it empty.`,
};

/** What is wrong with a row of an allocation file, with its number. */
export function allocationRowProblem({ code, facts, row }: AllocationRowProblem): { row: number; sentence: string } {
  const sentence = SENTENCES[code](facts);
  return { row, sentence: row === 0 ? sentence : `Row ${row}: ${sentence}` };
}
