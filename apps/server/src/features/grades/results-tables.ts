/** What the results of a course are told in: tables in tidy form (a row a thing, a column a fact), each column explained. */
export const TABLES = {
  exchanges: {
    exchange: 'id of the exchange',
    title: 'title',
    drafts_due: 'when drafts were due (ISO 8601, UTC); empty where that is not set',
    reviews_due: 'when reviews were due',
    release: 'when feedback is released to all',
    names: 'who sees names: open, hidden from authors, hidden both ways',
    reviews_each: 'reviews asked of each student',
    maximum: 'most points that the form can give; empty for a form without points',
  },
  people: {
    person: 'id of the person; the other tables name people by it alone, so that without this one they name nobody',
    name: 'as the course lists it',
    campus_id: 'as the course lists it',
    section: 'section of the course',
    role: 'student, assistant or instructor',
    active: '1 for whoever is in the course, 0 for whoever has left',
  },
  drafts: {
    exchange: 'id of the exchange',
    draft: 'id of the draft',
    author: 'id of the person; a draft by several has a row for each',
    handed_in_at: 'when the version that counts was handed in; empty where none was',
    words: 'words of that version',
  },
  reviews: {
    exchange: 'id of the exchange',
    review: 'id of the review',
    draft: 'id of the draft',
    reviewer: 'id of the person',
    kind: 'peer, self (of the own draft) or staff',
    submitted_at: 'when it was submitted; empty where it was not',
    words: 'words of all answers and notes',
    notes: 'notes that say something',
    directed: 'of them, those that say what to do',
    minutes: 'at work on it; empty where that is not measured',
    score: 'share of the maximum that it gives, 0 to 1; empty without points, or before it is submitted',
    withheld: '1 where the whole review is kept from the author',
    helped: 'how it helped, by its author: 1, 0.5 or 0; empty where nothing was said',
  },
  answers: {
    review: 'id of the review',
    item: 'id of the item of the form',
    title: 'title of the item',
    kind: 'criterion, range, checklist, prompt, pair, number or choice; overall for the comment on the whole',
    points: 'points that it gives; empty where it carries none',
    of: 'most points that it can give',
    scale: 'where on its scale it is, 0 to 1; empty where it has none',
    answer: 'what was answered, in words',
  },
  notes: {
    note: 'id of the note',
    review: 'id of the review',
    kind: 'keep, change, ask or fix',
    part: 'id of the part of the draft; empty for the whole draft',
    place: 'text, passage, page, region, moment or whole',
  },
  scores: {
    exchange: 'id of the exchange',
    draft: 'id of the draft',
    reviews: 'reviews by peers that give a score',
    mean: 'their mean, share of the maximum, 0 to 1',
    adjusted: 'with the severity of reviewers taken out; not held to 0 to 1',
    se: 'standard error of it',
    low: 'lower bound of its 95 % interval',
    high: 'upper bound',
  },
  grades: {
    exchange: 'id of the exchange',
    person: 'id of the person',
    part: 'part of the grade; grade for the whole',
    weight: 'weight of the part',
    state: 'counts, excused or open; for the whole released or not released',
    got: 'as much as was done, in the unit of the part',
    of: 'as much as was asked for',
    computed: 'share that the rule gives, 0 to 1; for the whole percent',
    given: 'share that is given in the end; for the whole percent',
    late: 'for the whole: percentage points that are lost for handing in late',
    words: 'for the whole: the grade as it is said',
    reason: 'why something else is given than was worked out',
  },
} as const;

export type TableName = keyof typeof TABLES;
type Cell = string | number | null;
export type RowOf<Name extends TableName> = Readonly<Record<keyof (typeof TABLES)[Name], Cell>>;

export function headOf(table: TableName): string[] {
  return Object.keys(TABLES[table]);
}

/** In the order of the columns; what is not there is empty. */
export function cellsOf<Name extends TableName>(table: Name, row: RowOf<Name>): Array<string | number> {
  return headOf(table).map((column) => (row as Readonly<Record<string, Cell>>)[column] ?? '');
}

/** The data dictionary: a row for each column of each table. */
export function dictionary(): string[][] {
  return Object.entries(TABLES).flatMap(([table, columns]) =>
    Object.entries(columns).map(([column, meaning]) => [`${table}.csv`, column, meaning]),
  );
}
