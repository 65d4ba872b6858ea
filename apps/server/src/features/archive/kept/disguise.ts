import { findIdentities, PeopleByWord, type Identity, type IdentityFind } from '@salt-circle/core';
import { hideInHtml } from '../../../platform/html/hide-in-html.js';
import { htmlToText } from '../../../platform/html/html-to-text.js';
import type { Line } from './lines.js';
import type { ArchivedTable } from './rows.js';
import type { PlainTable } from './tables.js';
import { say } from '../../../words/archive.js';

/** A name in a text, and what became of it. */
export interface Find {
  readonly table: ArchivedTable;
  readonly row: string;
  readonly column: string;
  readonly found: string;
  readonly hidden: boolean;
}

/** Columns that are instants, in milliseconds; in JSON too. */
const INSTANT = /(?:At|Due|Until|From|Open)$|^(?:at|release|gradesRelease|ofSubmission)$/;
/** What is there because of one person, and nobody’s business elsewhere. */
const EMPTIED: Readonly<Partial<Record<ArchivedTable, Line>>> = {
  own_times: { reason: '' },
  record: { details: {} },
};
/** Of a file that is named by somebody. */
const NAMES_OF_FILES: ReadonlySet<string> = new Set(['draft_part', 'exchange_attachment', 'review_file']);

/**
 * For research: rows without names, addresses and ids of a platform, with their dates moved, and with the names hidden that are found in
 * texts. What stands in their place is as long, so that places in texts stay where they are.
 */
export class Disguise {
  readonly finds: Find[] = [];
  readonly #people: PeopleByWord;
  readonly #sections = new Map<string, string>();
  readonly #titles = new Map<string, string>();
  readonly #addresses = new Map<string, string>();
  #others = 0;

  /**
   * @param people whose names are looked for
   * @param aliases by person
   * @param shift milliseconds by which all dates are moved
   */
  constructor(
    people: readonly Identity[],
    private readonly aliases: ReadonlyMap<string, string>,
    private readonly shift: number,
  ) {
    this.#people = new PeopleByWord(people);
  }

  /** Looks through the words of a file, in which nothing can be hidden. */
  look(digest: string, text: string): void {
    for (const { exact } of this.#in(text))
      this.finds.push({ table: 'stored_file', row: digest, column: 'words', found: exact, hidden: false });
  }

  row(table: PlainTable, line: Line): Line {
    const { name } = table;
    const id = (line['id'] ?? line['reviewId'] ?? line['participantId'] ?? line['draftId'] ?? '') as string;
    const changed: Line = { ...line, ...EMPTIED[name] };
    for (const column of table.words ?? []) {
      if (EMPTIED[name]?.[column] !== undefined) continue;
      const told = this.#told(table, id, column);
      const value = changed[column];
      changed[column] =
        typeof value === 'string' && table.html?.includes(column) === true
          ? this.#html(value, told)
          : this.#value(value, told);
    }
    if (name === 'enrolment') Object.assign(changed, this.#person(line));
    if (name === 'group_set' || name === 'student_group') changed['title'] = numbered(this.#titles, id, say('group'));
    if (NAMES_OF_FILES.has(name) && typeof line['name'] === 'string') changed['name'] = neutral(line['name']);
    return this.#moved(changed) as Line;
  }

  #person({ personId, role, section }: Line): Line {
    const alias =
      this.aliases.get(personId as string) ??
      (role === 'student'
        ? say('student', { others: (this.#others += 1) })
        : say('staff', { others: (this.#others += 1) }));
    const part = typeof section === 'string' ? numbered(this.#sections, section, say('section')) : null;
    // A course tells people apart by their addresses; this one leads nowhere (RFC 2606, 2).
    const email = `${numbered(this.#addresses, personId as string, 'person').replace(' ', '-')}@aliases.invalid`;
    return { name: alias, email, campusId: null, section: part, trait: null };
  }

  #told(table: PlainTable, row: string, column: string) {
    return ({ exact, certainty }: IdentityFind) =>
      void this.finds.push({ table: table.name, row, column, found: exact, hidden: certainty === 'sure' });
  }

  #in(text: string): IdentityFind[] {
    const people = this.#people.in(text);
    return people.length === 0 ? [] : findIdentities(text, people);
  }

  #html(html: string, told: (find: IdentityFind) => void): string {
    const finds = this.#in(htmlToText(html));
    finds.forEach(told);
    return hideInHtml(html, finds.filter(isSure), ({ start, end }) => DOT.repeat(end - start));
  }

  #text(text: string, told: (find: IdentityFind) => void): string {
    const finds = this.#in(text);
    finds.forEach(told);
    return finds
      .filter(isSure)
      .reduceRight((so, { start, end }) => so.slice(0, start) + DOT.repeat(end - start) + so.slice(end), text);
  }

  #value(value: unknown, told: (find: IdentityFind) => void): unknown {
    if (typeof value === 'string') return value === '' ? value : this.#text(value, told);
    if (Array.isArray(value)) return value.map((one) => this.#value(one, told));
    if (value === null || typeof value !== 'object') return value;
    if (isQuote(value)) return this.#quote(value, told);
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [key, isName(key) ? one : this.#value(one, told)]),
    );
  }

  /** Read as a whole: a name may stand half in the passage, and what stands around it tells that it is one. */
  #quote(quote: Quote, told: (find: IdentityFind) => void): Quote {
    const { exact, prefix, suffix } = quote;
    const whole = this.#text(prefix + exact + suffix, told);
    const from = prefix.length;
    const to = from + exact.length;
    return { ...quote, exact: whole.slice(from, to), prefix: whole.slice(0, from), suffix: whole.slice(to) };
  }

  #moved(value: unknown, key = ''): unknown {
    if (typeof value === 'number') return INSTANT.test(key) && Math.abs(value) > A_YEAR ? value + this.shift : value;
    if (Array.isArray(value)) return value.map((one) => this.#moved(one, key));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([inner, one]) => [inner, this.#moved(one, inner)]));
  }
}

const DOT = '•';
const A_YEAR = 365 * 24 * 3_600_000;

interface Quote {
  readonly exact: string;
  readonly prefix: string;
  readonly suffix: string;
}

function isQuote(value: object): value is Quote {
  return 'exact' in value && 'prefix' in value && 'suffix' in value;
}

/** Of what is no words: kinds, ids, choices. */
function isName(key: string): boolean {
  return /(?:^type|^kind|[Ii]d|^selector\.type)$/.test(key);
}

function isSure({ certainty }: IdentityFind): boolean {
  return certainty === 'sure';
}

function numbered(known: Map<string, string>, key: string, word: string): string {
  const name = known.get(key) ?? `${word} ${known.size + 1}`;
  known.set(key, name);
  return name;
}

/** The ending tells how a file is read. */
function neutral(name: string): string {
  return name === '' ? '' : `file${/\.[A-Za-z0-9]{1,8}$/.exec(name)?.[0].toLowerCase() ?? ''}`;
}
