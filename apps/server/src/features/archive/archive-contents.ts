import type { EntityMetadata } from 'typeorm';
import type { ArchiveFile } from './archive-file.js';
import { gradeOfWords } from './earlier-values.js';
import { broken } from './archive-file.js';
import type { Line } from './kept/lines.js';
import type { ArchivedTable } from './kept/rows.js';
import { columnsOf, idColumnsOf, rowReferencesOf, TABLES, type TableOf } from './kept/tables.js';
import { say } from '../../words/archive.js';

/** What a file is named for. */
interface NamedFile {
  readonly name: string;
  /** Null for a picture in a text, which is no file of its own. */
  readonly family: string | null;
}

/** What is known of an archive once all of it has been looked at. */
export interface ArchiveContents {
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
export async function readContents(
  archive: ArchiveFile,
  newest: number,
  metadataOf: (table: TableOf) => EntityMetadata,
): Promise<ArchiveContents> {
  const reader = new ContentsReader();
  const filled = new Set<string>();
  const older = archive.manifest.version < newest;
  const fill = (table: TableOf) => {
    const defaults = older ? defaultsOf(table, metadataOf(table)) : [];
    return (line: Line) => {
      if (older) renameColumns(table, line);
      if (older) convertValues(table, line);
      for (const [column, value] of defaults) {
        if (column in line) continue;
        line[column] = value;
        filled.add(`${table.name}.${column}`);
      }
    };
  };
  for (const table of TABLES) {
    const metadata = metadataOf(table);
    const look = reader.table(table, metadata);
    let number = 0;
    for await (const line of archive.rows(table, fill(table))) {
      number += 1;
      const wrong = look(line);
      if (wrong !== null) throw broken(say('lineOf', { number, name: table.name, wrong }));
    }
  }
  return { ...reader.found(), filled: [...filled], fill };
}

/** Columns that were called something else, by table: their names of then and of now. */
const RENAMED: Readonly<Record<string, ReadonlyArray<readonly [then: string, now: string]>>> = {
  exchange: [['doubtBounds', 'flaggingRules']],
};

function renameColumns({ name }: TableOf, line: Line): void {
  for (const [then, now] of RENAMED[name] ?? []) {
    if (!(then in line)) continue;
    line[now] = line[then];
    delete line[then];
  }
}

/** Values that were kept in another form. */
function convertValues({ name }: TableOf, line: Line): void {
  if (name === 'participant' && typeof line['gradeTold'] === 'string')
    line['gradeTold'] = gradeOfWords(line['gradeTold']);
}

/** Sees the rows of an archive, table after table. */
class ContentsReader {
  readonly #seen = new Map<string, Set<string>>();
  readonly #ids = new Set<string>();
  readonly #people: Line[] = [];
  readonly #persons = new Set<string>();
  readonly #exchanges: Line[] = [];
  /** What files are called, by digest: rows that name them come before theirs. */
  readonly #names = new Map<string, string>();
  readonly #files = new Map<string, NamedFile>();

  /** @returns what looks at one row, and says what is wrong with it; null where nothing is */
  table(table: TableOf, metadata: EntityMetadata): (line: Line) => string | null {
    const own = new Set<string>();
    this.#seen.set(table.name, own);
    const integers = columnsOf(table, metadata)
      .filter(({ type }) => type === 'integer')
      .map((one) => one.propertyName);
    const references = referencesOf(table, metadata);
    return (line) => {
      const wrong = notKept(line, integers) ?? this.#identity(line, own) ?? this.#person(table, line);
      if (wrong !== null) return wrong;
      if (table.name === 'exchange') this.#exchanges.push(line);
      this.#file(table, line);
      return this.#dangling(line, references);
    };
  }

  /** @throws ProblemError for an archive of anything but one exchange with its practice drafts */
  found(): Omit<ArchiveContents, 'filled' | 'fill'> {
    const [main, ...more] = this.#exchanges.filter(({ practiceOf }) => practiceOf === null);
    const ofMain = ({ practiceOf }: Line) => practiceOf === null || practiceOf === main?.['id'];
    if (main === undefined || more.length > 0 || !this.#exchanges.every(ofMain))
      throw broken(say('thisArchiveDoesNotHold'));
    const ids = new Set([...this.#ids, ...this.#persons]);
    return { exchangeId: main['id'] as string, people: this.#people, ids, files: this.#files };
  }

  #identity({ id }: Line, own: Set<string>): string | null {
    if (typeof id !== 'string') return null;
    if (this.#ids.has(id)) return say('itsIdIsThereAlready');
    own.add(id);
    this.#ids.add(id);
    return null;
  }

  #person({ name }: TableOf, line: Line): string | null {
    if (name !== 'enrolment') return null;
    const personId = line['personId'] as string;
    if (this.#persons.has(personId)) return say('thisPersonIsThereAlready');
    this.#persons.add(personId);
    this.#people.push(line);
    return null;
  }

  #dangling(line: Line, references: readonly Reference[]): string | null {
    for (const { column, of, must } of references) {
      const value = line[column];
      if (value === null || (of === 'person' ? this.#persons : this.#seen.get(of))?.has(value as string) === true)
        continue;
      if (must || typeof value !== 'string') return say('namesRowThatIsNot', { column });
    }
    return null;
  }

  #file({ name: table }: TableOf, line: Line): void {
    const { digest, captions, name, family } = line;
    if (table === 'stored_file') {
      this.#files.set(digest as string, { name: this.#names.get(digest as string) ?? '', family: family as string });
    } else if (table === 'draft_picture') {
      this.#files.set(digest as string, { name: '', family: null });
    } else if (table !== 'draft_version') {
      // A version’s digest is one of what was handed in as a whole.
      for (const one of [digest, captions])
        if (typeof one === 'string')
          this.#names.set(one, typeof name === 'string' ? name : (this.#names.get(one) ?? ''));
    }
  }
}

/** What no row can keep: whole numbers beyond those that are exact, and lines longer than lines are. */
function notKept(line: Line, integers: readonly string[]): string | null {
  for (const column of integers)
    if (line[column] !== null && !(Math.abs(line[column] as number) <= Number.MAX_SAFE_INTEGER))
      return say('isNoNumberThatCan', { column });
  for (const [column, most] of Object.entries(SHORT))
    if (typeof line[column] === 'string' && line[column].length > most) return say('isTooLong', { column });
  return null;
}

interface Reference {
  readonly column: string;
  readonly of: ArchivedTable | 'person';
  /** The database holds to it, and it cannot be nobody. */
  readonly must: boolean;
}

function referencesOf(table: TableOf, metadata: EntityMetadata): Reference[] {
  const columns = new Set(idColumnsOf(table, metadata));
  return rowReferencesOf(metadata).flatMap(({ columnNames: [column = ''], referencedEntityMetadata }) => {
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
