import { LIMITS, type RosterProblemView } from '@salt-circle/contracts';
import type { BundleProblem, GroupProblem, RosterClash, RosterProblem } from '@salt-circle/core';

const COLUMN_WORDS: Readonly<Record<string, string>> = {
  name: 'name (or given and family name)',
  email: 'email address (or campus id)',
  group: 'group',
};

/** As many as can be read, and how many more there are. */
export function told(problems: readonly RosterProblemView[]): RosterProblemView[] {
  const left = problems.length - LIMITS.problems;
  if (left <= 0) return [...problems];
  // What keeps it from being applied comes first.
  const ordered = [...problems].sort((a, b) => Number(a.warning) - Number(b.warning));
  const warning = ordered.slice(LIMITS.problems).every((one) => one.warning);
  return [...ordered.slice(0, LIMITS.problems), { row: 0, warning, sentence: `And ${left} more like these.` }];
}

/** What is wrong with a row of a roster, with its number. */
export function rosterProblem(problem: RosterProblem): RosterProblemView {
  return { row: problem.row, warning: problem.warning, sentence: rosterSentence(problem) };
}

function rosterSentence({ code, facts, row }: RosterProblem): string {
  switch (code) {
    case 'roster-empty':
      return 'There are no rows under the header. The first row names the columns, and each further row is one person.';
    case 'column-missing':
      return facts['column'] === 'email'
        ? 'No column is named “email”. Name the column with the email addresses so.'
        : `No column is named “${COLUMN_WORDS[facts['column'] as string]}”. Name it so in the first row.`;
    case 'column-twice':
      return `“${facts['column']}” says the same as an earlier column. Remove one of the two.`;
    case 'row-cells':
      return `Row ${row} has ${facts['cells']} cells, but there are only ${facts['columns']} columns. Perhaps a name with a comma lacks its quotation marks.`;
    case 'name-missing':
      return `Row ${row} has no name. Fill it in, or remove the row.`;
    case 'email-missing':
      return `Row ${row}${facts['name'] === '' ? '' : ` (${facts['name']})`} has no email address. Fill it in, or remove the row.`;
    case 'email-invalid':
      return `Row ${row}: “${facts['email']}” is not an email address. Correct it.`;
    case 'email-twice':
      return `Row ${row}: the address ${facts['value']} stands in row ${facts['first']} as well. Remove one of the two.`;
    case 'campus-id-missing':
      return `Row ${row} (${facts['name']}) has no campus id; the person will be recognised by address.`;
    case 'campus-id-twice':
      return `Row ${row}: the campus id ${facts['value']} stands in row ${facts['first']} as well. Each person has one of their own.`;
    case 'role-unknown':
      return `Row ${row}: “${facts['role']}” is not a role. Use student, assistant or instructor.`;
    case 'value-too-long':
      return `Row ${row}: “${facts['start']}…” is longer than ${facts['max']} characters. Shorten it.`;
  }
}

/** What is wrong with a bundle of tables, with file and row. */
export function bundleProblem({ code, facts, row, warning }: BundleProblem): RosterProblemView {
  const sentences: Readonly<Record<BundleProblem['code'], string>> = {
    'manifest-missing':
      'The bundle has no manifest.csv, so it is not clear what is in it. Export it again as OneRoster 1.2 CSV.',
    'bundle-version': `The bundle is of OneRoster version “${facts['version']}”. Export it as version 1.2.`,
    'bundle-file-missing': `${facts['file']} is missing from the bundle. Export it with users, enrollments and classes.`,
    'bundle-column-missing': `${facts['file']} has no column “${facts['column']}”. Export it again as OneRoster 1.2 CSV.`,
    'bundle-reference': `${facts['file']}, row ${row}: there is no user “${facts['id']}” in users.csv.`,
    'bundle-email-missing': `users.csv, row ${row}: ${facts['name']} has no email address and is left out.`,
  };
  return { row, warning, sentence: sentences[code] };
}

/** Two people who would share what only one can have. */
export function clashProblem({ entry, code, enrolled, firstRow, warning }: RosterClash): RosterProblemView {
  const { row, name } = entry;
  const sentences: Readonly<Record<RosterClash['code'], string>> = {
    'two-people': `Row ${row} (${name}): the campus id belongs to one person of the course, the address ${entry.email} to another (${enrolled.name}). Correct one of the two.`,
    'other-id': `Row ${row} (${name}): the address ${entry.email} is that of ${enrolled.name}, who has the campus id ${enrolled.campusId} and not ${entry.campusId}. Correct one of the two; a person’s new id is changed under People.`,
    'met-twice': `Row ${row} (${name}) means ${enrolled.name}, as row ${firstRow} does. Remove one of the two.`,
    'other-role': `Row ${row}: ${name} is ${enrolled.role} in this course and stays so.`,
  };
  return { row, warning, sentence: sentences[code] };
}

/** What is wrong with a row of a file of groups, with its number. */
export function groupProblem({ code, facts, row }: GroupProblem): RosterProblemView {
  const sentences: Readonly<Record<GroupProblem['code'], string>> = {
    'groups-empty': 'There are no rows under the header. Each row names a person and a group.',
    'column-missing': `No column is named “${COLUMN_WORDS[facts['column'] as string]}”. Name it so in the first row.`,
    'column-twice': `“${facts['column']}” says the same as an earlier column. Remove one of the two.`,
    'group-missing': `Row ${row} (${facts['who']}) names no group. Fill it in, or remove the row.`,
    'person-missing': `Row ${row} names nobody. Give an email address or a campus id.`,
    'person-unknown': `Row ${row}: ${facts['who']} is no student of this course. Add them under People, or remove the row.`,
    'person-twice': `Row ${row}: ${facts['who']} stands in row ${facts['first']} as well. A person is in one group of a set.`,
  };
  return { row, warning: false, sentence: sentences[code] };
}
