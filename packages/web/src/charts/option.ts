/** What all charts share: the theme's colours, its type, patterns beside colours, and words for who can't see them. */
import type { BarSeriesOption, HeatmapSeriesOption, LineSeriesOption } from 'echarts/charts';
import type {
  AriaComponentOption,
  DataZoomComponentOption,
  GridComponentOption,
  LegendComponentOption,
  TooltipComponentOption,
  VisualMapComponentOption,
} from 'echarts/components';
import type { ComposeOption } from 'echarts/core';

export type ChartOption = ComposeOption<
  | AriaComponentOption
  | BarSeriesOption
  | DataZoomComponentOption
  | GridComponentOption
  | LegendComponentOption
  | HeatmapSeriesOption
  | LineSeriesOption
  | VisualMapComponentOption
  | TooltipComponentOption
>;

export interface Colours {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly accent: string;
  readonly alarm: string;
  readonly surface: string;
}

/** As the theme has them at this moment. */
export function coloursOf(element: HTMLElement): Colours {
  const style = getComputedStyle(element);
  const value = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: value('--ink'),
    soft: value('--ink-soft'),
    line: value('--line'),
    accent: value('--accent'),
    alarm: value('--alarm'),
    surface: value('--surface'),
  };
}

/** Lines told apart by more than colour: each has its own dashes and mark. */
export const marks = ['circle', 'rect', 'triangle', 'diamond', 'emptyCircle', 'emptyRect'] as const;
export const dashes: readonly ('solid' | 'dashed' | 'dotted' | number[])[] = ['solid', 'dashed', 'dotted', [10, 4, 2, 4], [2, 6], [14, 4]];

export const font = 'Atkinson Hyperlegible Next';

/** An axis in the theme's colours. */
export const axis = ({ soft, line }: Colours, name: string) => ({
  name,
  nameLocation: 'middle' as const,
  nameTextStyle: { color: soft, fontSize: 14 },
  axisLabel: { color: soft, fontSize: 13 },
  axisLine: { lineStyle: { color: line } },
  splitLine: { lineStyle: { color: line, opacity: 0.6 } },
});

/** Nothing moves; a box under the pointer says the figures; patterns lie over filled areas. */
export const shared = ({ ink, surface, line }: Colours, label: string): ChartOption => ({
  animation: false,
  textStyle: { fontFamily: font, color: ink },
  aria: { enabled: true, label: { description: label }, decal: { show: true } },
  tooltip: { confine: true, backgroundColor: surface, borderColor: line, textStyle: { color: ink, fontFamily: font } },
});
