import type { EChartsCoreOption, ECharts } from 'echarts/core';
import { useRef, useState, type ReactNode } from 'react';
import { Button } from '../../kit/index.js';
import { Chart, type ChartColours } from './Chart.js';
import { saveAs } from '../../app/saveAs.js';
import { csvOf } from './saving.js';
import { say } from '../../words/insights.js';

interface FigureProps {
  /** The question that it answers. */
  readonly question: string;
  /** What to make of it, and what not. */
  readonly words: string;
  readonly height: number;
  readonly option: (colours: ChartColours) => EChartsCoreOption;
  readonly onPick?: ((index: number, series: number) => void) | undefined;
  /** What is shown is chosen by it. */
  readonly choice?: ReactNode;
  /** The same data. */
  readonly head: readonly string[];
  readonly rows: ReadonlyArray<ReadonlyArray<string | number>>;
}

/** A picture that answers a question, with its data as a table; both can be saved. */
export function Figure({ question, words, height, option, onPick, choice, head, rows }: FigureProps) {
  const chart = useRef<ECharts | null>(null);
  const [table, setTable] = useState(false);
  const savePicture = () => {
    const canvas = chart.current?.renderToCanvas({ pixelRatio: 2 });
    canvas?.toBlob((blob) => blob !== null && saveAs(`${question}.png`, blob));
  };
  return (
    <section aria-label={question} className="border-t border-line pt-4">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <h3 className="text-lg font-semibold">{question}</h3>
        <div className="no-print flex gap-2">
          <Button small aria-pressed={table} onClick={() => setTable(!table)}>
            {table ? say('asPicture') : say('asTable')}
          </Button>
          <Button
            small
            onClick={() => saveAs(`${question}.csv`, new Blob([csvOf([head, ...rows])], { type: 'text/csv' }))}
          >
            {say('csv')}
          </Button>
          {!table && (
            <Button small onClick={savePicture}>
              {say('png')}
            </Button>
          )}
        </div>
      </div>
      <p className="max-w-prose text-sm text-ink-soft">{words}</p>
      {choice !== undefined && <div className="no-print my-2 w-64">{choice}</div>}
      {!table && (
        <Chart
          label={question}
          height={height}
          option={option}
          chartRef={chart}
          {...(onPick !== undefined && { onPick })}
        />
      )}
      {/* A table does not keep to the height that it is given. */}
      <div className={table ? 'mt-3 overflow-x-auto' : 'sr-only'}>
        <table className="text-left">
          <caption className="sr-only">{question}</caption>
          <thead>
            <tr className="border-b border-ink">
              {head.map((one) => (
                <th key={one} scope="col" className="py-1 pr-5">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <tr key={index} className="border-b border-line">
                {row.map((cell, column) =>
                  column === 0 ? (
                    <th key={column} scope="row" className="py-1 pr-5 font-normal">
                      {cell}
                    </th>
                  ) : (
                    <td key={column} className="py-1 pr-5 text-right tabular-nums">
                      {cell}
                    </td>
                  ),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
