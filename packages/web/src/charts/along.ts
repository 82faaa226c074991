/** Readings along a row of parts, with what each part reads in truth, and how probable each is to be the short one. */
import type { PlotAlong } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

/** Milliohms above, percent below: they share the row and no axis. */
export function alongOption(
  colours: Colours,
  { points }: PlotAlong,
  words: { title: string; part: string; ohms: string; sure: string; read: string; fitted: string; range: string },
): ChartOption {
  const milli = (ohms: number): number => Math.round(ohms * 10_000) / 10;
  const names = points.map(({ name }, at) => (name === undefined ? String(at + 1) : `${at + 1}\n${name}`));
  const named = points.some(({ name }) => name !== undefined);
  const runs = runsOf(points);
  const grid = { left: 62, right: 14 };
  const hidden = { color: 'transparent' };
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 }, itemWidth: 28, data: [words.read, words.fitted, words.range] },
    grid: [
      { ...grid, top: 34, height: '46%' },
      { ...grid, bottom: named ? 58 : 44, height: '22%' },
    ],
    xAxis: [
      { type: 'category', data: names, gridIndex: 0, ...axis(colours, ''), axisLabel: { show: false } },
      { type: 'category', data: names, gridIndex: 1, ...axis(colours, words.part), nameGap: named ? 40 : 26 },
    ],
    yAxis: [
      { type: 'value', gridIndex: 0, scale: true, ...axis(colours, words.ohms), nameGap: 44 },
      { type: 'value', gridIndex: 1, min: 0, max: 100, interval: 50, ...axis(colours, words.sure), nameGap: 44 },
    ],
    series: [
      ...runs.flatMap(({ own }, index) => {
        const along = (value: (point: PlotAlong['points'][number]) => number): (number | null)[] =>
          points.map((point, at) => (own.includes(at) ? milli(value(point)) : null));
        const band = {
          type: 'line' as const,
          stack: `range ${index}`,
          symbol: 'none',
          lineStyle: hidden,
          silent: true,
          connectNulls: true,
        };
        return [
          { ...band, data: along(({ low }) => low) },
          {
            ...band,
            name: words.range,
            data: along(({ low, high }) => high - low),
            color: colours.soft,
            areaStyle: { color: colours.soft, opacity: 0.25 },
          },
        ];
      }),
      ...runs.map(({ on, own }) => ({
        type: 'line' as const,
        name: words.fitted,
        data: points.map(({ middle }, at) => (at === on || own.includes(at) ? milli(middle) : null)),
        connectNulls: true,
        symbol: 'none',
        color: colours.accent,
        lineStyle: { color: colours.accent, width: 2, type: 'dashed' as const },
      })),
      {
        type: 'line',
        name: words.read,
        data: points.map(({ read }) => (read === undefined ? null : milli(read))),
        symbol: 'diamond',
        symbolSize: 13,
        showAllSymbol: true,
        color: colours.ink,
        lineStyle: hidden,
      },
      {
        type: 'bar',
        xAxisIndex: 1,
        yAxisIndex: 1,
        name: words.sure,
        data: points.map(({ probability }) => Math.round(probability * 1000) / 10),
        itemStyle: { color: colours.accent },
      },
    ],
  };
}

/** The row, and each branch with what it hangs on: indexes of the parts. Each is drawn as a line. */
export function runsOf(points: PlotAlong['points']): { readonly on: number; readonly own: readonly number[] }[] {
  const runs: { on: number; own: number[] }[] = [];
  for (const [at, point] of points.entries()) {
    const on = point.on ?? at - 1;
    const run = runs.find(({ own }) => own.at(-1) === on);
    if (run) run.own.push(at);
    else runs.push({ on, own: [at] });
  }
  return runs;
}
