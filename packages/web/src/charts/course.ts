/** The probabilities over a ledger: a line for each assembly that ever was likely. */
import type { Effect } from '@veglia/core';
import { axis, dashes, marks, shared, type ChartOption, type Colours } from './option.ts';

/** No more lines than can be told apart. */
const mostLines = 6;
/** An assembly that never was likelier than this has no line. */
const leastShown = 0.05;

/** In falling order of where they end; those that never mattered are left out. */
export function linesOf(effects: readonly Effect[]): readonly { readonly id: string; readonly points: readonly number[] }[] {
  const ids = new Set(effects.flatMap(({ assemblies }) => Object.keys(assemblies)));
  return [...ids]
    .map((id) => ({ id, points: effects.map(({ assemblies }) => assemblies[id] ?? 0) }))
    .filter(({ points }) => Math.max(...points) >= leastShown)
    .sort((a, b) => (b.points.at(-1) ?? 0) - (a.points.at(-1) ?? 0) || (a.id < b.id ? -1 : 1))
    .slice(0, mostLines);
}

export function courseOption(
  colours: Colours,
  effects: readonly Effect[],
  words: { title: string; entry: string; probability: string; seq: (entry: string) => string; name: (id: string) => string },
): ChartOption {
  const strokes = [colours.accent, colours.alarm, colours.ink, colours.soft];
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 }, itemWidth: 34 },
    grid: { left: 56, right: 16, top: 64, bottom: 48 },
    tooltip: { ...shared(colours, '').tooltip, trigger: 'axis', valueFormatter: (value) => `${Math.round(Number(value))} %` },
    xAxis: { type: 'category', data: effects.map(({ entry }) => words.seq(entry)), ...axis(colours, words.entry), nameGap: 28 },
    yAxis: { type: 'value', min: 0, max: 100, ...axis(colours, words.probability), nameGap: 38 },
    series: linesOf(effects).map(({ id, points }, index) => {
      const color = strokes[index % strokes.length] ?? colours.ink;
      return {
        type: 'line' as const,
        name: words.name(id),
        data: points.map((point) => Number((100 * point).toFixed(1))),
        color,
        symbol: marks[index % marks.length] ?? 'circle',
        symbolSize: 9,
        lineStyle: { color, width: 2.5, type: dashes[index % dashes.length] ?? 'solid' },
      };
    }),
  };
}
