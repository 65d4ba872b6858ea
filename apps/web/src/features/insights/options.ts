import type { InsightsView } from '@salt-circle/contracts';
import { SCALE_PARTS } from '@salt-circle/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from './Chart.js';

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

/** Items by fifths of their scale; each field says its number, so that nothing hangs on its shade. */
export function heatMap(items: InsightsView['items']): Option {
  const most = Math.max(1, ...items.flatMap(({ counts }) => counts));
  const data = items.flatMap(({ counts }, item) => counts.map((count, part) => [part, items.length - 1 - item, count]));
  return (colours) => ({
    textStyle: { fontFamily: FONT },
    grid: { left: 8, right: 8, top: 8, bottom: 8, containLabel: true },
    xAxis: {
      type: 'category',
      data: Array.from({ length: SCALE_PARTS }, (_, part) => `${part * 20}–${(part + 1) * 20}%`),
      ...axis(colours),
    },
    yAxis: { type: 'category', data: items.map(({ title }) => title).toReversed(), ...axis(colours) },
    visualMap: { show: false, min: 0, max: most, inRange: { color: [colours.paper, colours.dusk] } },
    series: [
      {
        type: 'heatmap',
        data: data.map((value) => {
          // Dark fields have light figures.
          const dark = (value[2] ?? 0) > most * 0.55;
          return { value, label: { color: dark ? colours.paper : colours.ink } };
        }),
        label: { show: true, fontSize: 14 },
        itemStyle: { borderColor: colours.line, borderWidth: 1 },
      },
    ],
  });
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
    tooltip: {
      backgroundColor: colours.paper,
      borderColor: colours.line,
      textStyle: { color: colours.ink, fontFamily: FONT },
      renderMode: 'richText',
      formatter: ({ dataIndex }: { readonly dataIndex: number }) => {
        const row = rows[dataIndex];
        if (row === undefined) return '';
        const beside = row.other === null ? '' : `\n${words.other} ${row.other}`;
        const more = row.words === '' ? '' : `\n${row.words}`;
        return `${row.name}\n${words.at} ${row.at}, ${row.low} to ${row.high}${beside}${more}`;
      },
    },
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
            style: { stroke: colours.soft, lineWidth: 2 },
          };
        },
      },
      {
        type: 'scatter',
        symbolSize: 9,
        itemStyle: { color: colours.dusk },
        data: rows.map(({ at }, index) => [at, index]),
      },
      {
        type: 'scatter',
        symbolSize: 9,
        itemStyle: { color: 'transparent', borderColor: colours.copper, borderWidth: 2 },
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
