/** What was found in the sets of a layout, and how far each share may be off. */
import { shareInterval, type Counts } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

/** Fewer sets than this are no picture of anything. */
export const fewestSets = 5;
const mostBars = 10;

export interface FaultShare {
  readonly fault: string;
  readonly n: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** Jobs and field experience of one layout, most frequent first; `of` is the number of sets. */
export function faultShares(counts: Counts, layout: string): { readonly of: number; readonly faults: readonly FaultShare[] } {
  const sums = new Map<string, number>();
  for (const row of [...counts.jobs, ...counts.told]) if (row.layout === layout) sums.set(row.fault, (sums.get(row.fault) ?? 0) + row.n);
  const of = [...sums.values()].reduce((sum, n) => sum + n, 0);
  const faults = [...sums]
    .map(([fault, n]) => ({ fault, n, share: n / of, ...shareInterval(n, of) }))
    .sort((a, b) => b.n - a.n || (a.fault < b.fault ? -1 : 1));
  return { of, faults };
}

export function faultsOption(
  colours: Colours,
  faults: readonly FaultShare[],
  words: { title: string; share: string; name: (id: string) => string },
): ChartOption {
  // Bars grow upwards from the last: the most frequent stands on top.
  const shown = faults.slice(0, mostBars).reverse();
  const percent = (value: number): number => Number((100 * value).toFixed(1));
  return {
    ...shared(colours, words.title),
    grid: { left: 230, right: 24, top: 8, bottom: 48 },
    xAxis: { type: 'value', min: 0, ...axis(colours, words.share), nameGap: 28 },
    yAxis: {
      type: 'category',
      data: shown.map(({ fault }) => words.name(fault)),
      ...axis(colours, ''),
      axisLabel: { color: colours.ink, fontSize: 13, width: 215, overflow: 'break' },
    },
    series: [
      { type: 'bar', color: colours.accent, barWidth: '58%', data: shown.map(({ share }) => percent(share)) },
      // The interval as a line through the end of its bar, with a mark at both ends.
      ...shown.map(({ low, high }, index) => ({
        type: 'line' as const,
        silent: true,
        color: colours.ink,
        symbol: 'rect',
        symbolSize: [2, 12],
        lineStyle: { color: colours.ink, width: 2 },
        data: [
          [percent(low), index],
          [percent(high), index],
        ],
      })),
    ],
  };
}
