import { BarChart, CustomChart, HeatmapChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import { init, use as withParts, type EChartsCoreOption, type ECharts } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useEffectEvent, useRef } from 'react';
import { useTheme } from './useTheme.js';

withParts([
  ...[BarChart, CustomChart, HeatmapChart, LineChart, ScatterChart, CanvasRenderer],
  ...[AriaComponent, GridComponent, LegendComponent, TooltipComponent, VisualMapComponent],
]);

/** Colours of the page, as it is shown now: the canvas knows nothing of style sheets. */
export interface ChartColours {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly paper: string;
  readonly dusk: string;
  readonly copper: string;
  readonly kelp: string;
  readonly slate: string;
}

interface ChartProps {
  /** Read out, and the name of the saved picture. */
  readonly label: string;
  /** In pixels. */
  readonly height: number;
  readonly option: (colours: ChartColours) => EChartsCoreOption;
  /** The index of what was pressed, among its series, leads to its evidence. */
  readonly onPick?: (index: number, series: number) => void;
  readonly chartRef: React.RefObject<ECharts | null>;
}

export function Chart({ label, height, option, onPick, chartRef }: ChartProps) {
  const place = useRef<HTMLDivElement>(null);
  const theme = useTheme();
  const pick = useEffectEvent((index: number, series: number) => onPick?.(index, series));
  useEffect(() => {
    if (place.current === null) return;
    const chart = init(place.current);
    chartRef.current = chart;
    chart.on('click', ({ dataIndex, seriesIndex }) => pick(dataIndex, seriesIndex ?? 0));
    const resized = new ResizeObserver(() => chart.resize());
    resized.observe(place.current);
    return () => {
      resized.disconnect();
      chart.dispose();
      chartRef.current = null;
    };
  }, [chartRef]);
  useEffect(() => {
    if (place.current === null) return;
    const styles = getComputedStyle(place.current);
    const colour = (name: string) => styles.getPropertyValue(`--${name}`).trim();
    const colours = {
      ...{ ink: colour('ink'), soft: colour('ink-soft'), line: colour('line') },
      ...{ paper: colour('paper'), dusk: colour('dusk'), copper: colour('copper') },
      ...{ kelp: colour('kelp'), slate: colour('slate') },
    };
    chartRef.current?.setOption({ animation: false, aria: { enabled: false }, ...option(colours) }, true);
  }, [chartRef, option, theme]);
  // What it shows stands in a table as well, which is what is read out.
  return <div ref={place} aria-hidden="true" title={label} className="w-full" style={{ height }} />;
}
