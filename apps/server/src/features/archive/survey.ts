import type { EntityMetadata } from 'typeorm';
import type { ArchiveFile } from './archive-file.js';
import { broken } from './archive-file.js';
import { idColumnsOf } from './elsewhere.js';
import type { Line } from './kept/lines.js';
import type { ArchivedTable } from './kept/rows.js';
import { columnsOf, TABLES, type TableOf } from './kept/tables.js';

/** What a file is named for. */
interface NamedFile {
  readonly name: string;
  /** Null for a picture in a text, which is no file of its own. */
  readonly family: string | null;
}

/** What is known of an archive once all of it has been looked at. */
export interface Survey {
  readonly exchangeId: string;
  readonly people: readonly Line[];
  /** Of all rows that have one, and of the people behind places. */
  readonly ids: ReadonlySet<string>;
  readonly files: ReadonlyMap<string, NamedFile>;
  /** Columns that an older version did not have. */
  readonly filled: readonly string[];
  /** Puts them in. */
  readonly fill: (table: TableOf) => (line: Line) => void;
}

/** Code units of words that stand in one line on pages. */
const SHORT: Readonly<Record<string, number>> = {
  title: 1_000,
  name: 1_000,
  alias: 200,
  email: 400,
  campusId: 200,
  section: 200,
};

/**
 * Looks at every row once: its shape, its references, and that it is one exchange.
 *
 * @throws ProblemError saying what is wrong and where
 */
export async function survey(
  archive: ArchiveFile,
  newest: number,
  metadataOf: (table: TableOf) => EntityMetadata,
): Promise<Survey> {
  const seen = new Map<string, Set<string>>();
  const ids = new Set<string>();
  const people: Line[] = [];
  const persons = new Set<string>();
  const exchanges: Line[] = [];
  const named = new Map<string, string>();
  const files = new Map<string, NamedFile>();
  const filled = new Set<string>();
  const older = archive.manifest.version < newest;
  const fill = (table: TableOf) => {
    const defaults = older ? defaultsOf(table, metadataOf(table)) : [];
    return (line: Line) => {
      for (const [column, value] of defaults) {
        if (column in line) continue;
        line[column] = value;
        filled.add(`${table.name}.${column}`);
      }
    };
  };
  for (const table of TABLES) {
    const metadata = metadataOf(table);
    const own = new Set<string>();
    seen.set(table.name, own);
    const integers = columnsOf(table, metadata)
      .filter(({ type }) => type === 'integer')
      .map((one) => one.propertyName);
    const references = referencesOf(table, metadata);
    let number = 0;
    for await (const line of archive.rows(table, fill(table))) {
      number += 1;
      const wrong = (sentence: string) => broken(`Line ${number} of “${table.name}”: ${sentence}`);
      for (const column of integers)
        if (line[column] !== null && !(Math.abs(line[column] as number) <= Number.MAX_SAFE_INTEGER))
          throw wrong(`“${column}” is no number that can be kept.`);
      for (const [column, most] of Object.entries(SHORT))
        if (typeof line[column] === 'string' && line[column].length > most) throw wrong(`“${column}” is too long.`);
      if (typeof line['id'] === 'string') {
        if (ids.has(line['id'])) throw wrong('its id is there already.');
        own.add(line['id']);
        ids.add(line['id']);
      }
      if (table.name === 'enrolment') {
        people.push(line);
        const personId = line['personId'] as string;
        if (persons.has(personId)) throw wrong('this person is there already.');
        persons.add(personId);
      }
      for (const { column, of, must } of references) {
        const value = line[column];
        if (value === null || (of === 'person' ? persons : seen.get(of))?.has(value as string) === true) continue;
        if (must || !(typeof value === 'string')) throw wrong(`“${column}” names a row that is not in the archive.`);
      }
      if (table.name === 'exchange') exchanges.push(line);
      for (const column of ['digest', 'captions'])
        if (table.name !== 'draft_version' && typeof line[column] === 'string')
          named.set(line[column], typeof line['name'] === 'string' ? line['name'] : (named.get(line[column]) ?? ''));
      if (table.name === 'draft_picture') files.set(line['digest'] as string, { name: '', family: null });
      if (table.name === 'stored_file')
        files.set(line['digest'] as string, {
          name: named.get(line['digest'] as string) ?? '',
          family: line['family'] as string,
        });
    }
  }
  for (const id of persons) ids.add(id);
  const main = exchanges.filter(({ practiceOf }) => practiceOf === null);
  const [exchange] = main;
  if (
    exchange === undefined ||
    main.length > 1 ||
    exchanges.some(({ practiceOf }) => practiceOf !== null && practiceOf !== exchange['id'])
  )
    throw broken('This archive does not hold one exchange with its practice drafts.');
  return { exchangeId: exchange['id'] as string, people, ids, files, filled: [...filled], fill };
}

interface Reference {
  readonly column: string;
  readonly of: ArchivedTable | 'person';
  /** The database holds to it, and it cannot be nobody. */
  readonly must: boolean;
}

function referencesOf(table: TableOf, metadata: EntityMetadata): Reference[] {
  const columns = new Set(idColumnsOf(table, metadata));
  return metadata.foreignKeys.flatMap(({ columnNames: [column = ''], referencedEntityMetadata }) => {
    if (!columns.has(column)) return [];
    const of = referencedEntityMetadata.tableName as ArchivedTable;
    const nullable = metadata.findColumnWithPropertyName(column)?.isNullable === true;
    // Somebody who has left the course is nobody here.
    return [{ column, of, must: !(nullable && of === ('person' as string)) }];
  });
}

/** Columns that can be filled in: empty, or by what the table itself gives. */
function defaultsOf(table: TableOf, metadata: EntityMetadata): Array<[string, unknown]> {
  return columnsOf(table, metadata).flatMap(
    ({ propertyName, isNullable, default: given, type }): Array<[string, unknown]> => {
      if (isNullable) return [[propertyName, null]];
      if (given === undefined) return [];
      return [[propertyName, type === 'simple-json' ? (JSON.parse(given as string) as unknown) : given]];
    },
  );
}
