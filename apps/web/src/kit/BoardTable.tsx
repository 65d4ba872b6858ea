import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from 'react';

type SortKey = string | number | null;

export interface BoardColumn<Row> {
  readonly key: string;
  readonly head: string;
  /** Nobody sees the head; it is read out. */
  readonly headHidden?: boolean;
  readonly right?: boolean;
  /** What rows are put in order by; those without (null) come last either way. */
  readonly sort?: (row: Row) => SortKey;
  /** Most comes first when first pressed, as with figures and times. */
  readonly most?: boolean;
  readonly cell: (row: Row) => ReactNode;
}

export interface BoardSort {
  readonly key: string;
  readonly down: boolean;
}

interface BoardTableProps<Row> {
  readonly label: string;
  /** The first one names its row. */
  readonly columns: ReadonlyArray<BoardColumn<Row>>;
  /** In the order in which they are shown. */
  readonly rows: readonly Row[];
  readonly rowKey: (row: Row) => string;
  readonly sort: BoardSort;
  readonly onSort: (sort: BoardSort) => void;
}

/** Up to so many rows all are drawn, so that the browser finds and prints them; of more, those in sight. */
const DRAWN = 120;
/** Pixels, until some have been drawn. */
const ROW_HEIGHT = 42;

/** Rows of people or drafts: sorted by a press on a head, which stays in sight, and drawn as far as one sees. */
export function BoardTable<Row>({ label, columns, rows, rowKey, sort, onSort }: BoardTableProps<Row>) {
  const scroller = useRef<HTMLDivElement>(null);
  const long = rows.length > DRAWN;
  const [height, setHeight] = useState(ROW_HEIGHT);
  const virtual = useVirtualizer({
    enabled: long,
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
    getItemKey: (index) => rowKey(rows[index] as Row),
  });
  // Rows that turn out higher than thought would else pull the page along, and end the browser's own scrolling by keys.
  virtual.shouldAdjustScrollPositionOnItemSizeChange = () => false;
  const seen = virtual.getVirtualItems();
  const drawn = long && seen.length > 0;
  // What has not been drawn is taken to be as high as what has: the scroll bar is right from the beginning.
  useLayoutEffect(() => {
    const rowsDrawn = [...(scroller.current?.querySelectorAll<HTMLElement>('tr[data-index]') ?? [])];
    const sum = rowsDrawn.reduce((total, { offsetHeight }) => total + offsetHeight, 0);
    if (drawn && sum > 0) setHeight(Math.round(sum / rowsDrawn.length));
  }, [drawn, columns.length]);
  const widths = useSteadyWidths(scroller, drawn, columns.map(({ key }) => key).join(' '));
  const shown = long ? seen.map(({ index }) => index) : rows.map((_, index) => index);
  const before = long ? (seen[0]?.start ?? 0) : 0;
  const after = long ? virtual.getTotalSize() - (seen.at(-1)?.end ?? 0) : 0;
  return (
    <div
      ref={scroller}
      // A region that scrolls has to be reached by keys.
      role="region"
      aria-label={label}
      tabIndex={0}
      className="max-h-[calc(100dvh-15.5rem)] min-h-60 overflow-auto print:max-h-none"
    >
      <table
        className={`w-full text-left ${widths === null ? '' : 'table-fixed'}`}
        aria-label={label}
        aria-rowcount={rows.length + 1}
      >
        {widths !== null && (
          <colgroup>
            {widths.map((width, at) => (
              <col key={columns[at]?.key ?? at} style={{ width }} />
            ))}
          </colgroup>
        )}
        <thead className="sticky top-0 z-10 bg-salt shadow-[inset_0_-1px_0_var(--ink)]">
          <tr className="text-sm text-ink-soft">
            {columns.map((column) => (
              <Head key={column.key} column={column} sort={sort} onSort={onSort} />
            ))}
          </tr>
        </thead>
        <tbody>
          {before > 0 && <Gap height={before} columns={columns.length} />}
          {shown.map((index) => {
            const row = rows[index] as Row;
            return (
              <tr
                key={rowKey(row)}
                ref={long ? virtual.measureElement : undefined}
                data-index={index}
                aria-rowindex={index + 2}
                className="border-b border-line"
              >
                {columns.map(({ key, right, cell }, at) => {
                  const look = `px-2 py-2 ${right === true ? 'text-right tabular-nums' : ''}`;
                  return at === 0 ? (
                    <th key={key} scope="row" className={`${look} font-semibold`}>
                      {cell(row)}
                    </th>
                  ) : (
                    <td key={key} className={look}>
                      {cell(row)}
                    </td>
                  );
                })}
              </tr>
            );
          })}
          {after > 0 && <Gap height={after} columns={columns.length} />}
        </tbody>
      </table>
    </div>
  );
}

/** Columns stay as wide as the rows that were drawn first made them: while one scrolls, nothing moves sideways. */
function useSteadyWidths(frame: RefObject<HTMLElement | null>, drawn: boolean, of: string): number[] | null {
  const [steady, setSteady] = useState<{ readonly of: string; readonly widths: number[] } | null>(null);
  useLayoutEffect(() => {
    if (!drawn || steady?.of === of) return;
    const heads = [...(frame.current?.querySelectorAll('th[scope=col]') ?? [])];
    setSteady({ of, widths: heads.map((head) => head.getBoundingClientRect().width) });
  }, [drawn, of, steady, frame]);
  useEffect(() => {
    const anew = () => setSteady(null);
    window.addEventListener('resize', anew);
    return () => window.removeEventListener('resize', anew);
  }, []);
  return drawn && steady?.of === of ? steady.widths : null;
}

/** In the place of rows that are not in sight. */
function Gap({ height, columns }: { readonly height: number; readonly columns: number }) {
  return (
    <tr aria-hidden="true" style={{ height }}>
      <td colSpan={columns} className="p-0" />
    </tr>
  );
}

interface HeadProps<Row> {
  readonly column: BoardColumn<Row>;
  readonly sort: BoardSort;
  readonly onSort: (sort: BoardSort) => void;
}

function Head<Row>({ column, sort, onSort }: HeadProps<Row>) {
  const { key, head, headHidden, right, most = false } = column;
  const chosen = sort.key === key;
  const Arrow = sort.down ? ArrowDown : ArrowUp;
  const look = `px-2 py-1.5 font-semibold whitespace-nowrap ${right === true ? 'text-right' : ''}`;
  if (column.sort === undefined) {
    return (
      <th scope="col" className={look}>
        {headHidden === true ? <span className="sr-only">{head}</span> : head}
      </th>
    );
  }
  return (
    <th scope="col" aria-sort={chosen ? (sort.down ? 'descending' : 'ascending') : 'none'} className={look}>
      <button
        type="button"
        onClick={() => onSort({ key, down: chosen ? !sort.down : most })}
        className="inline-flex min-h-6 items-center gap-1 font-semibold hover:underline"
      >
        {head}
        {chosen && <Arrow size={13} aria-hidden="true" />}
      </button>
    </th>
  );
}

const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** Rows in the order of a column; rows that are the same in it stay as they were. */
export function sortedRows<Row>(
  rows: readonly Row[],
  columns: ReadonlyArray<BoardColumn<Row>>,
  { key, down }: BoardSort,
): Row[] {
  const by = columns.find((column) => column.key === key)?.sort;
  if (by === undefined) return [...rows];
  const turn = down ? -1 : 1;
  return [...rows].sort((a, b) => {
    const [x, y] = [by(a), by(b)];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return turn * (typeof x === 'number' && typeof y === 'number' ? x - y : collator.compare(String(x), String(y)));
  });
}
