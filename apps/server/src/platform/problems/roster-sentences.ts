import { LIMITS, type RosterProblemView } from '@salt-circle/contracts';
import type { BundleProblem, GroupProblem, RosterClash, RosterProblem } from '@salt-circle/core';
import { say } from '../../words/problems.js';
import { fact } from './fact.js';

const COLUMN_WORDS: Readonly<Record<string, string>> = {
  get name() {
    return say('nameOrGivenAndFamily');
  },
  get email() {
    return say('emailAddressOrCampusId');
  },
  group: 'group',
};

/** As many as can be read, and how many more there are. */
export function told(problems: readonly RosterProblemView[]): RosterProblemView[] {
  const left = problems.length - LIMITS.problems;
  if (left <= 0) return [...problems];
  // What keeps it from being applied comes first.
  const ordered = [...problems].sort((a, b) => Number(a.warning) - Number(b.warning));
  const warning = ordered.slice(LIMITS.problems).every((one) => one.warning);
  return [...ordered.slice(0, LIMITS.problems), { row: 0, warning, sentence: say('andMoreLikeThese', { left }) }];
}

/** What is wrong with a row of a roster, with its number. */
export function rosterProblem(problem: RosterProblem): RosterProblemView {
  return { row: problem.row, warning: problem.warning, sentence: rosterSentence(problem) };
}

function rosterSentence({ code, facts, row }: RosterProblem): string {
  switch (code) {
    case 'roster-empty':
      return say('thereAreNoRowsUnder');
    case 'column-missing':
      return facts['column'] === 'email'
        ? say('noColumnIsNamedEmail')
        : say('noColumnIsNamedName', { column: COLUMN_WORDS[facts['column'] as string] ?? '' });
    case 'column-twice':
      return say('saysSameAsEarlierColumn', { column: fact(facts, 'column') });
    case 'row-cells':
      return say('rowHasCellsButThere', { row, cells: fact(facts, 'cells'), columns: fact(facts, 'columns') });
    case 'name-missing':
      return say('rowHasNoNameFill', { row });
    case 'email-missing':
      return facts['name'] === ''
        ? say('rowHasNoEmailAddress', { row })
        : say('rowHasNoEmailAddressFill', { row, name: fact(facts, 'name') });
    case 'email-invalid':
      return say('rowIsNotEmailAddress', { row, email: fact(facts, 'email') });
    case 'email-twice':
      return say('rowAddressStandsInRow', { row, value: fact(facts, 'value'), first: fact(facts, 'first') });
    case 'campus-id-missing':
      return say('rowHasNoCampusId', { row, name: fact(facts, 'name') });
    case 'campus-id-twice':
      return say('rowCampusIdStandsIn', { row, value: fact(facts, 'value'), first: fact(facts, 'first') });
    case 'role-unknown':
      return say('rowIsNotRoleUse', { row, role: fact(facts, 'role') });
    case 'value-too-long':
      return say('rowIsLongerThanCharacters', { row, start: fact(facts, 'start'), max: fact(facts, 'max') });
  }
}

/** What is wrong with a bundle of tables, with file and row. */
export function bundleProblem({ code, facts, row, warning }: BundleProblem): RosterProblemView {
  const sentences: Readonly<Record<BundleProblem['code'], string>> = {
    'manifest-missing': say('bundleHasNoManifestCsv'),
    'bundle-version': say('bundleIsOfOnerosterVersion', { version: fact(facts, 'version') }),
    'bundle-file-missing': say('isMissingFromBundleExport', { file: fact(facts, 'file') }),
    'bundle-column-missing': say('hasNoColumnExportIt', { file: fact(facts, 'file'), column: fact(facts, 'column') }),
    'bundle-reference': say('rowThereIsNoUser', { file: fact(facts, 'file'), row, id: fact(facts, 'id') }),
    'bundle-email-missing': say('usersCsvRowHasNo', { row, name: fact(facts, 'name') }),
  };
  return { row, warning, sentence: sentences[code] };
}

/** Two people who would share what only one can have. */
export function clashProblem({ entry, code, enrolled, firstRow, warning }: RosterClash): RosterProblemView {
  const { row, name } = entry;
  const sentences: Readonly<Record<RosterClash['code'], string>> = {
    'two-people': say('rowCampusIdBelongsTo', { row, name, email: entry.email, name2: enrolled.name }),
    'other-id': say('rowAddressIsThatOf', {
      row,
      name,
      email: entry.email,
      name2: enrolled.name,
      campusId: enrolled.campusId ?? '',
      campusId2: entry.campusId ?? '',
    }),
    'met-twice': say('rowMeansAsRowDoes', { row, name, name2: enrolled.name, firstRow: firstRow ?? 0 }),
    'other-role': say('rowIsInThisCourse', { row, name, role: enrolled.role }),
  };
  return { row, warning, sentence: sentences[code] };
}

/** What is wrong with a row of a file of groups, with its number. */
export function groupProblem({ code, facts, row }: GroupProblem): RosterProblemView {
  const sentences: Readonly<Record<GroupProblem['code'], string>> = {
    'groups-empty': say('thereAreNoRowsUnderHeader'),
    'column-missing': say('noColumnIsNamedName', { column: COLUMN_WORDS[facts['column'] as string] ?? '' }),
    'column-twice': say('saysSameAsEarlierColumn', { column: fact(facts, 'column') }),
    'group-missing': say('rowNamesNoGroupFill', { row, who: fact(facts, 'who') }),
    'person-missing': say('rowNamesNobodyGiveEmail', { row }),
    'person-unknown': say('rowIsNoStudentOf', { row, who: fact(facts, 'who') }),
    'person-twice': say('rowStandsInRowAs', { row, who: fact(facts, 'who'), first: fact(facts, 'first') }),
  };
  return { row, warning: false, sentence: sentences[code] };
}
