import { problem, type CoreProblem } from '../problem.js';
import type { Role } from '../visibility/facts.js';
import type { RosterEntry } from './roster.js';

/** Cells of each file of the bundle, header first, by file name in lower case. */
export type BundleFiles = Readonly<Record<string, ReadonlyArray<readonly string[]> | undefined>>;

/** The files of a roster that this application reads; `manifest.csv` says which of them are there. */
const NEEDED = ['users', 'enrollments', 'classes'] as const;
const REFERENCED = ['courses', 'orgs', 'academicSessions'] as const;

const REQUIRED_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  users: ['sourcedId', 'givenName', 'familyName', 'email'],
  enrollments: ['classSourcedId', 'userSourcedId', 'role'],
  classes: ['sourcedId', 'title', 'courseSourcedId'],
  courses: ['sourcedId', 'title'],
  orgs: ['sourcedId', 'name'],
  academicSessions: ['sourcedId', 'title'],
};

/** Roles of an enrolment, OneRoster 1.2, clause on enumerations; others (guardian, proctor) have no place here. */
const ROLES: Readonly<Record<string, Role>> = { student: 'student', teacher: 'instructor', aide: 'assistant' };

export type BundleProblemCode =
  | 'manifest-missing'
  | 'bundle-version'
  | 'bundle-file-missing'
  | 'bundle-column-missing'
  | 'bundle-reference'
  | 'bundle-email-missing';

export interface BundleProblem extends CoreProblem<BundleProblemCode> {
  readonly row: number;
  readonly warning: boolean;
}

export interface BundleClass {
  readonly id: string;
  readonly title: string;
  readonly course: string;
  readonly term: string;
  readonly school: string;
  readonly students: number;
  readonly entries: readonly RosterEntry[];
}

export interface Bundle {
  readonly classes: readonly BundleClass[];
  readonly problems: readonly BundleProblem[];
}

type Row = Readonly<Record<string, string>> & { readonly line: number };

/**
 * Reads a bundle of CSV files of the open standard 1EdTech OneRoster 1.2 (CSV binding; bulk files). Who is in a
 * class follows from `enrollments.csv`; rows with the status `tobedeleted` are left out. The campus id is the
 * user's `identifier`, without one the `sourcedId`.
 */
export function readOneRoster(files: BundleFiles): Bundle {
  const problems: BundleProblem[] = [];
  const report = (code: BundleProblemCode, facts: BundleProblem['facts'], row = 0, warning = false) =>
    problems.push({ ...problem(code, [], facts), row, warning });
  const manifest = new Map(
    (files['manifest.csv'] ?? []).slice(1).map(([name = '', value = '']) => [name.trim(), value.trim()]),
  );
  if (manifest.size === 0) report('manifest-missing', {});
  else if (!/^1\.[12](\.|$)/.test(manifest.get('oneroster.version') ?? '')) {
    report('bundle-version', { version: manifest.get('oneroster.version') ?? '' });
  }
  const table = (name: string, needed: boolean): Row[] => {
    const cells = files[`${name.toLowerCase()}.csv`];
    if (cells === undefined || manifest.get(`file.${name}`) === 'absent') {
      if (needed) report('bundle-file-missing', { file: `${name}.csv` });
      return [];
    }
    const titles = (cells[0] ?? []).map((title) => title.trim());
    for (const column of REQUIRED_COLUMNS[name] ?? []) {
      if (!titles.includes(column)) report('bundle-column-missing', { file: `${name}.csv`, column }, 1);
    }
    return cells.slice(1).flatMap((line, index): Row[] => {
      if (line.every((cell) => cell.trim() === '')) return [];
      const row: Record<string, string> = Object.fromEntries(
        titles.map((title, at) => [title, (line[at] ?? '').trim()]),
      );
      return row['status'] === 'tobedeleted' ? [] : [{ ...row, line: index + 2 } as unknown as Row];
    });
  };
  const [users, enrollments, classes] = NEEDED.map((name) => byId(table(name, true), name === 'enrollments'));
  const [courses, orgs, sessions] = REFERENCED.map((name) => byId(table(name, false), false));
  if (problems.length > 0) return { classes: [], problems };

  const ofClass = new Map<string, Row[]>();
  for (const enrollment of enrollments?.values() ?? []) {
    const id = enrollment['classSourcedId'] ?? '';
    const known = ofClass.get(id);
    if (known === undefined) ofClass.set(id, [enrollment]);
    else known.push(enrollment);
  }
  const found = [...(classes?.values() ?? [])].map((one): BundleClass => {
    const entries: RosterEntry[] = [];
    for (const enrollment of ofClass.get(one['sourcedId'] ?? '') ?? []) {
      const role = ROLES[enrollment['role'] ?? ''];
      const user = users?.get(enrollment['userSourcedId'] ?? '');
      const { line } = enrollment;
      if (user === undefined) {
        report('bundle-reference', { file: 'enrollments.csv', id: enrollment['userSourcedId'] ?? '' }, line);
      } else if (role !== undefined) {
        const name = `${user['givenName']} ${user['familyName']}`.trim();
        const email = (user['email'] ?? '').toLowerCase();
        const campusId = user['identifier'] || user['sourcedId'] || null;
        if (email === '') report('bundle-email-missing', { name }, user.line, true);
        else entries.push({ row: line, name, email, campusId, section: null, trait: null, role });
      }
    }
    return {
      id: one['sourcedId'] ?? '',
      title: one['title'] ?? '',
      course: courses?.get(one['courseSourcedId'] ?? '')?.['title'] ?? '',
      term: sessions?.get((one['termSourcedIds'] ?? '').split(',')[0]?.trim() ?? '')?.['title'] ?? '',
      school: orgs?.get(one['schoolSourcedId'] ?? '')?.['name'] ?? '',
      students: entries.filter(({ role }) => role === 'student').length,
      entries,
    };
  });
  return { classes: found, problems };
}

function byId(rows: readonly Row[], byLine: boolean): Map<string, Row> {
  return new Map(rows.map((row) => [byLine ? String(row.line) : (row['sourcedId'] ?? ''), row]));
}

/**
 * The people of the chosen classes, each once; with several classes, the class is the section.
 * Somebody in two of them is taken into the first.
 */
export function rosterOfClasses(bundle: Bundle, classIds: readonly string[]): RosterEntry[] {
  const chosen = bundle.classes.filter(({ id }) => classIds.includes(id));
  const people = new Map<string, RosterEntry>();
  for (const { title, entries } of chosen) {
    for (const entry of entries) {
      if (people.has(entry.email)) continue;
      const section = chosen.length > 1 && entry.role === 'student' ? title : null;
      people.set(entry.email, { ...entry, section });
    }
  }
  return [...people.values()];
}
