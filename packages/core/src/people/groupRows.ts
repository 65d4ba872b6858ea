import { problem, type CoreProblem } from '../problem.js';
import { readHeader } from './header.js';

export type GroupColumn = 'group' | 'email' | 'campusId';

const COLUMNS: Readonly<Record<GroupColumn, readonly string[]>> = {
  group: ['group', 'groupname', 'team', 'circle', 'gruppe', 'groupe', 'equipe', 'grupo', 'equipo'],
  email: ['email', 'emailaddress', 'mail', 'emailadresse', 'courriel', 'correo', 'correoelectronico'],
  campusId: ['campusid', 'id', 'studentid', 'studentnumber', 'idnumber', 'matrikelnummer', 'matricule', 'matricula'],
};

export type GroupProblemCode =
  | 'groups-empty'
  | 'column-missing'
  | 'column-twice'
  | 'group-missing'
  | 'person-missing'
  | 'person-unknown'
  | 'person-twice';

export interface GroupProblem extends CoreProblem<GroupProblemCode> {
  readonly row: number;
}

export interface GroupRows {
  /** Titles in the order of their first appearance, each with the ids of its members. */
  readonly groups: ReadonlyArray<{ readonly title: string; readonly memberIds: readonly string[] }>;
  readonly problems: readonly GroupProblem[];
}

export interface GroupablePerson {
  readonly id: string;
  readonly email: string;
  readonly campusId: string | null;
}

/** Reads who is in which group, a row per person, recognised by campus id or address. */
export function readGroupRows(cells: ReadonlyArray<readonly string[]>, people: readonly GroupablePerson[]): GroupRows {
  const header = readHeader(cells[0] ?? [], COLUMNS);
  const problems: GroupProblem[] = [];
  const report = (row: number, code: GroupProblemCode, facts: GroupProblem['facts'] = {}) =>
    problems.push({ ...problem(code, [], facts), row });
  if (cells.length < 2) report(0, 'groups-empty');
  for (const column of header.twice) report(1, 'column-twice', { column });
  if (header.columns.group === undefined) report(1, 'column-missing', { column: 'group' });
  if (header.columns.email === undefined && header.columns.campusId === undefined) {
    report(1, 'column-missing', { column: 'email' });
  }
  if (problems.length > 0) return { groups: [], problems };
  const byEmail = new Map(people.map((one) => [one.email, one.id]));
  const byCampusId = new Map(
    people.flatMap(({ id, campusId }) => (campusId === null ? [] : [[campusId, id] as const])),
  );
  const groups = new Map<string, { title: string; memberIds: string[] }>();
  const seen = new Map<string, number>();
  for (const [index, line] of cells.entries()) {
    const row = index + 1;
    if (index === 0 || line.every((cell) => cell.trim() === '')) continue;
    const cell = (column: GroupColumn) => (line[header.columns[column] ?? -1] ?? '').trim();
    const title = cell('group').replace(/\s+/gu, ' ');
    const who = cell('campusId') || cell('email');
    const id = byCampusId.get(cell('campusId')) ?? byEmail.get(cell('email').toLowerCase());
    if (title === '') report(row, 'group-missing', { who });
    if (who === '') report(row, 'person-missing');
    else if (id === undefined) report(row, 'person-unknown', { who });
    if (title === '' || id === undefined) continue;
    const first = seen.get(id);
    if (first !== undefined) {
      report(row, 'person-twice', { who, first });
      continue;
    }
    seen.set(id, row);
    const key = title.toLowerCase();
    const group = groups.get(key);
    if (group === undefined) groups.set(key, { title, memberIds: [id] });
    else group.memberIds.push(id);
  }
  return { groups: [...groups.values()], problems };
}
