/** How each option ends, as one bar each: works, works with a loss, not repaired. */
import type { OptionWorth } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

export function worthOption(
  colours: Colours,
  options: readonly OptionWorth[],
  words: { title: string; probability: string; works: string; loss: string; fails: string; option: (one: OptionWorth) => string },
): ChartOption {
  // The best one stands on top: a category axis counts from below.
  const shown = options.toReversed();
  const series = (name: string, color: string, of: (one: OptionWorth) => number) => ({
    type: 'bar' as const,
    name,
    stack: 'all',
    barCategoryGap: '30%',
    color,
    data: shown.map((one) => Number((100 * of(one)).toFixed(1))),
  });
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 } },
    grid: { left: 190, right: 24, top: 36, bottom: 48 },
    tooltip: { ...shared(colours, '').tooltip, trigger: 'axis', valueFormatter: (value) => `${Number(value)} %` },
    xAxis: { type: 'value', max: 100, ...axis(colours, words.probability), nameGap: 30 },
    yAxis: {
      type: 'category',
      data: shown.map(words.option),
      axisLabel: { color: colours.ink, fontSize: 14, width: 175, overflow: 'break' },
      axisLine: { lineStyle: { color: colours.line } },
    },
    series: [
      series(words.works, colours.accent, ({ works }) => works),
      series(words.loss, colours.soft, ({ withLoss }) => withLoss),
      series(words.fails, colours.alarm, ({ fails }) => fails),
    ],
  };
}
