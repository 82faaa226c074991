/** The likely bill as bars: repaired, and above it returned unrepaired. */
import type { BillBar } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

export function billOption(
  colours: Colours,
  bars: readonly BillBar[],
  words: { title: string; amount: string; probability: string; cured: string; givenUp: string; range: (bar: BillBar) => string },
): ChartOption {
  const series = (name: string, color: string, of: (bar: BillBar) => number) => ({
    type: 'bar' as const,
    name,
    stack: 'all',
    barCategoryGap: '12%',
    color,
    data: bars.map((bar) => Number((100 * of(bar)).toFixed(1))),
  });
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 } },
    grid: { left: 56, right: 16, top: 36, bottom: 48 },
    tooltip: { ...shared(colours, '').tooltip, trigger: 'axis', valueFormatter: (value) => `${Number(value)} %` },
    xAxis: { type: 'category', data: bars.map(words.range), ...axis(colours, words.amount), nameGap: 30 },
    yAxis: { type: 'value', ...axis(colours, words.probability), nameGap: 38 },
    series: [series(words.cured, colours.accent, ({ cured }) => cured), series(words.givenUp, colours.alarm, ({ givenUp }) => givenUp)],
  };
}
