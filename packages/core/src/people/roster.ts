import { problem, type CoreProblem } from '../problem.js';
import type { Role } from '../visibility/facts.js';
import { readHeader, type Header } from './header.js';

/** One person as a roster names them. */
export interface RosterEntry {
  /** Line of the file, the header being 1; for a bundle of files, the line of the enrolment. */
  readonly row: number;
  readonly name: string;
  /** Lower case. */
  readonly email: string;
  readonly campusId: string | null;
  readonly section: string | null;
  /** What groups can be mixed by, from a column of the importer's choice. */
  readonly trait: string | null;
  readonly role: Role;
}

export type RosterProblemCode =
  | 'roster-empty'
  | 'column-missing'
  | 'column-twice'
  | 'row-cells'
  | 'name-missing'
  | 'email-missing'
  | 'email-invalid'
  | 'email-twice'
  | 'campus-id-missing'
  | 'campus-id-twice'
  | 'role-unknown'
  | 'value-too-long';

export interface RosterProblem extends CoreProblem<RosterProblemCode> {
  /** Line of the file, or 0 for the file as a whole. */
  readonly row: number;
  /** A warning is said, and the row is taken all the same. */
  readonly warning: boolean;
}

export interface Roster {
  readonly header: Header<RosterColumn>;
  /** Rows with an error are not among them. */
  readonly entries: readonly RosterEntry[];
  readonly problems: readonly RosterProblem[];
}

export type RosterColumn = 'name' | 'given' | 'family' | 'email' | 'campusId' | 'section' | 'role' | 'trait';

/** Names of columns as campus systems and people write them, in English, German, French and Spanish; compared without case, accents, spaces and punctuation. */
const COLUMNS: Readonly<Record<RosterColumn, readonly string[]>> = {
  name: [
    'name',
    'fullname',
    'student',
    'studentname',
    'displayname',
    'participant',
    'vollstandigername',
    'nom',
    'nomcomplet',
    'nombre',
    'nombrecompleto',
  ],
  given: [
    'givenname',
    'firstname',
    'first',
    'given',
    'forename',
    'forenames',
    'vorname',
    'vornamen',
    'prenom',
    'prenoms',
    'nombres',
    'nombredepila',
  ],
  family: [
    'familyname',
    'lastname',
    'last',
    'surname',
    'family',
    'nachname',
    'familienname',
    'nomdefamille',
    'apellido',
    'apellidos',
  ],
  email: [
    ...['email', 'emailaddress', 'mail', 'mailaddress', 'emailadresse', 'mailadresse', 'adressemail', 'adresseemail'],
    ...['courriel', 'adressecourriel', 'correo', 'correoelectronico', 'direcciondecorreo'],
  ],
  campusId: [
    'campusid',
    'id',
    'studentid',
    'studentnumber',
    'studentno',
    'idnumber',
    'userid',
    'personid',
    'matriculationnumber',
    'matrikelnummer',
    'matrikelnr',
    'numeroetudiant',
    'numerodetudiant',
    'matricule',
    'matricula',
    'numerodeestudiante',
  ],
  section: [
    'section',
    'class',
    'tutorial',
    'lab',
    'seminar',
    'sectionname',
    'gruppe',
    'kurs',
    'groupe',
    'classe',
    'seccion',
    'grupo',
  ],
  role: ['role', 'type', 'rolle', 'rol'],
  trait: [],
};

const ROLES: Readonly<Record<string, Role>> = {
  '': 'student',
  student: 'student',
  learner: 'student',
  participant: 'student',
  assistant: 'assistant',
  ta: 'assistant',
  aide: 'assistant',
  instructor: 'instructor',
  teacher: 'instructor',
};

/** Deliberately loose: that there is a name, an at sign and a domain. Whether mail arrives is not for a rule to say. */
const EMAIL = /^[^\s@<>()",;:]+@[^\s@<>()",;:]+\.[^\s@<>()",;:.]+$/u;
const MAX_LENGTH = 200;

/**
 * Reads a roster from the cells of a CSV file, header first. Columns may stand in any order and under several
 * names; a name may be in one column (also as “Family, Given”) or in two.
 *
 * @param traitColumn title of the column to mix groups by, if one was chosen
 */
export function readRoster(cells: ReadonlyArray<readonly string[]>, traitColumn: string | null = null): Roster {
  const names = traitColumn === null ? COLUMNS : { ...COLUMNS, trait: [traitColumn] };
  const header = readHeader(cells[0] ?? [], names);
  const problems: RosterProblem[] = [];
  let errors = 0;
  const report = (row: number, code: RosterProblemCode, facts: RosterProblem['facts'] = {}, warning = false) => {
    if (!warning) errors += 1;
    problems.push({ ...problem(code, [], facts), row, warning });
  };
  if (cells.length < 2) report(0, 'roster-empty');
  for (const column of header.twice) report(1, 'column-twice', { column });
  const has = (column: RosterColumn) => header.columns[column] !== undefined;
  if (!has('email')) report(1, 'column-missing', { column: 'email' });
  if (!has('name') && !(has('given') && has('family'))) report(1, 'column-missing', { column: 'name' });
  if (problems.length > 0) return { header, entries: [], problems };

  const entries: RosterEntry[] = [];
  const firstRow = { email: new Map<string, number>(), campusId: new Map<string, number>() };
  for (const [index, line] of cells.entries()) {
    const row = index + 1;
    if (index === 0 || line.every((cell) => cell.trim() === '')) continue;
    const width = cells[0]?.length ?? 0;
    if (line.length > width && line.slice(width).some((cell) => cell.trim() !== '')) {
      report(row, 'row-cells', { cells: line.length, columns: width });
      continue;
    }
    const cell = (column: RosterColumn) => (line[header.columns[column] ?? -1] ?? '').trim().replace(/\s+/gu, ' ');
    const name = nameOf(cell);
    const email = cell('email').toLowerCase();
    const campusId = cell('campusId') || null;
    const role = ROLES[cell('role').toLowerCase()];
    const before = errors;
    if (name === '') report(row, 'name-missing');
    if (email === '') report(row, 'email-missing', { name });
    else if (!EMAIL.test(email)) report(row, 'email-invalid', { email });
    if (role === undefined) report(row, 'role-unknown', { role: cell('role') });
    for (const value of [name, email, campusId ?? '', cell('section'), cell('trait')]) {
      if (value.length > MAX_LENGTH) report(row, 'value-too-long', { start: value.slice(0, 30), max: MAX_LENGTH });
    }
    const twice = (column: 'email' | 'campusId', code: RosterProblemCode, value: string) => {
      const first = firstRow[column].get(value);
      if (first !== undefined) report(row, code, { value, first });
      else firstRow[column].set(value, row);
    };
    if (email !== '') twice('email', 'email-twice', email);
    if (campusId !== null) twice('campusId', 'campus-id-twice', campusId);
    else if (has('campusId')) report(row, 'campus-id-missing', { name }, true);
    if (errors > before || role === undefined) continue;
    entries.push({ row, name, email, campusId, section: cell('section') || null, trait: cell('trait') || null, role });
  }
  return { header, entries, problems };
}

function nameOf(cell: (column: RosterColumn) => string): string {
  const whole = cell('name');
  if (whole === '') return `${cell('given')} ${cell('family')}`.trim();
  // "Name, Vorname" and "Nombre, Apellidos": the one column holds the other half of the name.
  const halves = { given: cell('given'), family: cell('family') };
  if (halves.given !== '' && halves.family === '' && !whole.includes(halves.given)) return `${halves.given} ${whole}`;
  if (halves.family !== '' && halves.given === '' && !whole.includes(halves.family)) return `${whole} ${halves.family}`;
  const [family, given, ...more] = whole.split(',').map((part) => part.trim());
  return given !== undefined && given !== '' && more.length === 0 ? `${given} ${family}`.trim() : whole;
}
