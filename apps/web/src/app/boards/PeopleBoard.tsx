import type { PersonLabel } from '@salt-circle/contracts';
import { useState, type ReactNode } from 'react';
import { BoardTable, sortedRows, type BoardColumn, type BoardSort } from '../../kit/index.js';
import type { WalkStop } from '../layoutSlice.js';
import { Find, isFound } from './Find.js';
import { useNameKey } from './nameOrder.js';
import { useBeginWalk } from './Walk.js';
import { say } from '../../words/app.js';

interface BoardPerson {
  readonly id: string;
  readonly person: PersonLabel;
}

interface PeopleBoardProps<Row extends BoardPerson> {
  readonly label: string;
  readonly rows: readonly Row[];
  /** The first one is of the person, by the key "person". */
  readonly columns: ReadonlyArray<BoardColumn<Row>>;
  /** What can be read of a row, for previous and next. */
  readonly stopsOf: (row: Row) => readonly WalkStop[];
  /** What stands beside the board, given the rows as they are shown. */
  readonly beside?: (shown: readonly Row[]) => ReactNode;
}

/** A row per person: found by name, sorted by a head, and walked through in the order shown. */
export function PeopleBoard<Row extends BoardPerson>({ label, rows, columns, stopsOf, beside }: PeopleBoardProps<Row>) {
  const [wanted, setWanted] = useState('');
  const [sort, setSort] = useState<BoardSort>({ key: 'person', down: false });
  const found = sortedRows(
    rows.filter(({ person }) => isFound(person, wanted)),
    columns,
    sort,
  );
  const begin = useBeginWalk();
  return (
    // Whatever link is followed, what is listed is what one goes on by.
    <div onClickCapture={() => begin(found.flatMap(stopsOf))}>
      <Find value={wanted} onChange={setWanted} />
      <BoardTable label={label} columns={columns} rows={found} rowKey={({ id }) => id} sort={sort} onSort={setSort} />
      {beside?.(found)}
      {found.length === 0 && rows.length > 0 && <p className="py-4 text-ink-soft">{say('nobodyByThatName')}</p>}
    </div>
  );
}

/** A name that opens what stands beside the board. */
export function PersonButton({
  row,
  title,
  onOpen,
}: {
  readonly row: BoardPerson;
  readonly title: string;
  readonly onOpen: (id: string) => void;
}) {
  return (
    <button type="button" className="min-h-6 text-left hover:underline" title={title} onClick={() => onOpen(row.id)}>
      {row.person.name}
    </button>
  );
}

/** Name and alias, as every such board begins. */
export function usePersonColumns<Row extends BoardPerson>(
  cell: (row: Row) => ReactNode = ({ person }) => person.name,
): Array<BoardColumn<Row>> {
  const nameKey = useNameKey();
  return [
    { key: 'person', head: say('person'), sort: ({ person }) => nameKey(person), cell },
    {
      key: 'alias',
      head: say('alias'),
      sort: ({ person }) => person.alias ?? null,
      cell: ({ person }) => <span className="text-ink-soft">{person.alias}</span>,
    },
  ];
}
