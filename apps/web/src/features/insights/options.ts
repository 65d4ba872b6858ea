import type { InsightsView } from '@salt-circle/contracts';
import { SCALE_PARTS } from '@salt-circle/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from './Chart.js';
import { say } from '../../words/insights.js';

type Option = (colours: ChartColours) => EChartsCoreOption;

const FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';

function axis({ soft, line }: ChartColours) {
  return {
    axisLabel: { color: soft, fontFamily: FONT, fontSize: 13 },
    axisLine: { lineStyle: { color: line } },
    axisTick: { show: false },
    splitLine: { lineStyle: { color: line } },
  };
}

interface Field {
  /** Of columns and of rows, from the left and from the top. */
  readonly at: readonly [column: number, row: number];
  /** What its shade is of. */
  readonly value: number;
  readonly words: string;
}

/** Fields in rows and columns; each says its number, so that nothing hangs on its shade. */
function fields(columns: readonly string[], rows: readonly string[], all: readonly Field[], most: number): Option {
  return (colours) => ({
    textStyle: { fontFamily: FONT },
    grid: { left: 8, right: 8, top: 8, bottom: 8, containLabel: true },
    xAxis: { type: 'category', data: columns, ...axis(colours) },
    yAxis: { type: 'category', data: rows.toReversed(), ...axis(colours) },
    // Half of the shade at most: figures stay readable on it, light or dark.
    visualMap: { show: false, min: 0, max: most * 2, inRange: { color: [colours.paper, colours.dusk] } },
    series: [
      {
        type: 'heatmap',
        data: all.map(({ at: [column, row], value, words }) => ({
          value: [column, rows.length - 1 - row, value],
          label: { formatter: () => words },
        })),
        label: { show: true, fontSize: 14, color: colours.ink },
        itemStyle: { borderColor: colours.line, borderWidth: 1 },
      },
    ],
  });
}

/** Items by fifths of their scale, in rows of five. */
export function heatMap(items: InsightsView['items']): Option {
  const most = Math.max(1, ...items.flatMap(({ counts }) => counts));
  const all = items.flatMap(({ counts }, row) =>
    counts.map((value, column): Field => ({ at: [column, row], value, words: String(value) })),
  );
  const columns = Array.from({ length: SCALE_PARTS }, (_, part) => `${part * 20}–${(part + 1) * 20}%`);
  return fields(
    columns,
    items.map(({ title }) => title),
    all,
    most,
  );
}

/** Items by groups of drafts: what they reach of their scale, in percent; nothing where nobody answered. */
export function groupMap(
  items: readonly string[],
  groups: readonly string[],
  means: ReadonlyArray<ReadonlyArray<number | null>>,
): Option {
  const all = means.flatMap((row, item) =>
    row.flatMap((mean, group): Field[] =>
      mean === null ? [] : [{ at: [group, item], value: mean, words: `${Math.round(mean)}%` }],
    ),
  );
  return fields(groups, items, all, 100);
}

interface Point {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  /** Of somebody or something: the pointer tells. */
  readonly words: string;
}

function tooltip(colours: ChartColours, words: (index: number) => string) {
  return {
    backgroundColor: colours.paper,
    borderColor: colours.line,
    textStyle: { color: colours.ink, fontFamily: FONT },
    renderMode: 'richText' as const,
    formatter: ({ dataIndex }: { readonly dataIndex: number }) => words(dataIndex),
  };
}

function named(name: string, { soft }: ChartColours, gap: number) {
  return {
    name,
    nameLocation: 'middle' as const,
    nameGap: gap,
    nameTextStyle: { color: soft, fontFamily: FONT, fontSize: 13 },
  };
}

/** A point for each; along the line, where there is one, both are the same. */
export function scatter(
  points: readonly Point[],
  words: { readonly x: string; readonly y: string },
  same: boolean,
): Option {
  return (colours) => ({
    textStyle: { fontFamily: FONT },
    grid: { left: 44, right: 24, top: 12, bottom: 28, containLabel: true },
    tooltip: tooltip(colours, (index) => {
      const point = points[index];
      return point === undefined
        ? ''
        : `${point.name}\n${words.x} ${point.x}\n${words.y} ${point.y}${point.words === '' ? '' : `\n${point.words}`}`;
    }),
    xAxis: { type: 'value', ...(same && { min: 0, max: 100 }), ...named(words.x, colours, 30), ...axis(colours) },
    yAxis: { type: 'value', ...(same && { min: 0, max: 100 }), ...named(words.y, colours, 40), ...axis(colours) },
    series: [
      {
        type: 'scatter',
        symbolSize: points.length > 200 ? 6 : 9,
        itemStyle: { color: colours.dusk, opacity: points.length > 200 ? 0.6 : 1 },
        data: points.map(({ x, y }) => [x, y]),
      },
      ...(same
        ? [
            {
              type: 'line',
              silent: true,
              symbol: 'none',
              lineStyle: { color: colours.soft, type: 'dashed', width: 1 },
              data: [
                [0, 0],
                [100, 100],
              ],
            },
          ]
        : []),
    ],
  });
}

/** Plain, slanted, dotted, lying: to be told apart in grey. */
function decals({ paper: color }: ChartColours) {
  return [
    { color: 'transparent' },
    { color, dashArrayX: [1, 0], dashArrayY: [2, 6], rotation: Math.PI / 4 },
    {
      ...{ color, symbol: 'circle', symbolSize: 0.7 },
      dashArrayX: [
        [8, 8],
        [0, 8, 8, 0],
      ],
      dashArrayY: [6, 0],
    },
    { color, dashArrayX: [1, 0], dashArrayY: [2, 6], rotation: 0 },
  ];
}

interface Layer {
  readonly name: string;
  readonly colour: keyof ChartColours;
  readonly values: readonly number[];
}

/** Bars of layers on top of each other, each with a pattern of its own beside its colour. */
export function layers(along: readonly string[], all: readonly Layer[], lying: boolean): Option {
  return (colours) => {
    const names = { type: 'category', data: lying ? along.toReversed() : along, ...axis(colours) };
    const numbers = { type: 'value', minInterval: 1, ...axis(colours) };
    return {
      textStyle: { fontFamily: FONT },
      aria: { enabled: true, label: { enabled: false }, decal: { show: true, decals: decals(colours) } },
      legend: { top: 0, left: 0, textStyle: { color: colours.ink, fontFamily: FONT, fontSize: 13 } },
      grid: { left: 8, right: 16, top: 36, bottom: 8, containLabel: true },
      xAxis: lying ? numbers : names,
      yAxis: lying ? names : numbers,
      series: all.map(({ name, colour, values }) => ({
        ...{ type: 'bar', stack: 'all', name },
        data: lying ? values.toReversed() : values,
        itemStyle: { color: colours[colour], borderColor: colours.paper, borderWidth: 1 },
      })),
    };
  };
}

interface Line {
  readonly name: string;
  readonly values: ReadonlyArray<number | null>;
}

const SYMBOLS = ['circle', 'rect', 'triangle', 'diamond', 'emptyCircle', 'emptyRect', 'emptyTriangle', 'emptyDiamond'];

/** Lines in percent, each with marks of its own beside its colour. */
export function lines(along: readonly string[], all: readonly Line[]): Option {
  return (colours) => {
    const shades = [colours.dusk, colours.copper, colours.kelp, colours.slate];
    return {
      textStyle: { fontFamily: FONT },
      legend: { top: 0, left: 0, textStyle: { color: colours.ink, fontFamily: FONT, fontSize: 13 } },
      grid: { left: 8, right: 24, top: 40 + Math.floor(all.length / 4) * 24, bottom: 8, containLabel: true },
      xAxis: { type: 'category', data: along, boundaryGap: true, ...axis(colours) },
      yAxis: { type: 'value', min: 0, max: 100, ...axis(colours) },
      series: all.map(({ name, values }, index) => ({
        ...{ type: 'line', name, data: values, connectNulls: true, symbolSize: 9 },
        symbol: SYMBOLS[index % SYMBOLS.length],
        color: shades[index % shades.length],
        lineStyle: { type: ['solid', 'dashed', 'dotted'][Math.floor(index / 4) % 3] },
      })),
    };
  };
}

/** From so many rows on, lines are close together, and not every one has its name. */
export const MANY = 60;

const dot = (rows: number) => (rows > MANY ? 4 : 9);

/** Pixels for a picture of so many rows: of very many, what is seen is where they lie, and the table has each of them. */
export function heightOf(rows: number): number {
  return 50 + (rows > MANY ? Math.min(1_000, rows * 5) : rows * 22);
}

interface Interval {
  readonly name: string;
  readonly at: number;
  readonly other: number | null;
  /** Said of it where the pointer is. */
  readonly words: string;
  readonly low: number;
  readonly high: number;
}

/** A point with its interval for each row, and a hollow point beside it. The last row stands on top. */
export function intervals(rows: readonly Interval[], words: { readonly at: string; readonly other: string }): Option {
  return (colours) => ({
    textStyle: { fontFamily: FONT },
    grid: { left: 8, right: 24, top: 8, bottom: 8, containLabel: true },
    tooltip: tooltip(colours, (index) => {
      const row = rows[index];
      if (row === undefined) return '';
      const beside = row.other === null ? '' : `\n${words.other} ${row.other}`;
      const more = row.words === '' ? '' : `\n${row.words}`;
      const span = say('spanOf', { at: words.at, value: row.at, low: row.low, high: row.high });
      return `${row.name}\n${span}${beside}${more}`;
    }),
    xAxis: { type: 'value', scale: true, ...axis(colours) },
    yAxis: { type: 'category', data: rows.map(({ name }) => name), ...axis(colours), splitLine: { show: false } },
    series: [
      {
        type: 'custom',
        data: rows.map(({ low, high }, index) => [low, high, index]),
        encode: { x: [0, 1], y: 2 },
        renderItem: (
          _: unknown,
          place: { value: (at: number) => number; coord: (at: [number, number]) => [number, number] },
        ) => {
          const [from, y] = place.coord([place.value(0), place.value(2)]);
          const [to] = place.coord([place.value(1), place.value(2)]);
          return {
            type: 'line',
            shape: { x1: from, y1: y, x2: to, y2: y },
            style: { stroke: colours.soft, lineWidth: rows.length > MANY ? 1 : 2 },
          };
        },
      },
      {
        type: 'scatter',
        symbolSize: dot(rows.length),
        itemStyle: { color: colours.dusk },
        data: rows.map(({ at }, index) => [at, index]),
      },
      {
        type: 'scatter',
        symbolSize: dot(rows.length),
        itemStyle: { color: 'transparent', borderColor: colours.copper, borderWidth: rows.length > MANY ? 1 : 2 },
        data: rows.map(({ other }, index) => [other ?? NaN, index]),
      },
    ],
  });
}

export function dayBars(days: InsightsView['days']): Option {
  return (colours) => ({
    textStyle: { fontFamily: FONT },
    grid: { left: 8, right: 8, top: 24, bottom: 8, containLabel: true },
    xAxis: { type: 'category', data: days.map(({ day }) => day), ...axis(colours) },
    yAxis: { type: 'value', minInterval: 1, ...axis(colours) },
    series: [
      {
        type: 'bar',
        data: days.map(({ reviews }) => reviews),
        itemStyle: { color: colours.dusk },
        label: { show: true, position: 'top', color: colours.ink, fontSize: 13 },
      },
    ],
  });
}
