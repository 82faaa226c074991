/** What a dump holds, along its length: entropy of each block, with its kind by colour and name. */
import type { Content, ContentBlock } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

/** Kinds in the order of a legend. */
export const blockKinds = ['erased', 'zero', 'text', 'data', 'packed'] as const satisfies readonly ContentBlock['kind'][];

/** Bars of bits a byte; an erased or zero block, which has none, is marked below the line. */
export function contentOption(
  colours: Colours,
  { blocks, blockBytes }: Content,
  words: { title: string; offset: string; entropy: string; kind: (kind: ContentBlock['kind']) => string; at: (offset: number) => string },
): ChartOption {
  const fill = { erased: colours.line, zero: colours.soft, text: colours.ink, data: colours.accent, packed: colours.alarm } as const;
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 } },
    grid: { left: 56, right: 16, top: 40, bottom: 48 },
    tooltip: {
      ...shared(colours, '').tooltip,
      trigger: 'axis',
      valueFormatter: (value) => (value == null ? '' : Number(value).toFixed(2)),
    },
    xAxis: { type: 'category', data: blocks.map((_, index) => words.at(index * blockBytes)), ...axis(colours, words.offset), nameGap: 28 },
    yAxis: {
      type: 'value',
      min: -0.6,
      max: 8,
      ...axis(colours, words.entropy),
      nameGap: 36,
      axisLabel: { color: colours.soft, formatter: (value: number) => (value < 0 ? '' : String(value)) },
    },
    series: blockKinds.map((kind) => ({
      type: 'bar' as const,
      name: words.kind(kind),
      stack: 'blocks',
      color: fill[kind],
      barCategoryGap: '0%',
      data: blocks.map((block) => (block.kind !== kind ? null : kind === 'erased' || kind === 'zero' ? -0.5 : block.entropy)),
    })),
  };
}
