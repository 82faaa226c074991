/** A recording of a light, and how likely each blink code is. */
import type { LightTrace, Pulse } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

/** Where it opens: no more seconds than flashes can be counted in; the rest by the slider below. */
const secondsAtFirst = 30;

export function lightOption(
  colours: Colours,
  trace: LightTrace | undefined,
  pulses: readonly Pulse[],
  clicks: readonly number[],
  words: { title: string; time: string; level: string },
): ChartOption {
  const levels = trace?.levels ?? [];
  const low = levels.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const high = levels.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  const first = trace?.timesS[0] ?? Math.min(0, pulses[0]?.onS ?? 0);
  const last = Math.max(trace?.timesS.at(-1) ?? 0, pulses.at(-1)?.offS ?? 0, first + 1);
  // Without a recording (tapped by hand) the flashes are the line.
  const points = trace
    ? trace.timesS.map((s, index) => [s, levels[index] ?? low])
    : pulses.flatMap(({ onS, offS }) => [
        [onS, 0],
        [onS, 1],
        [offS, 1],
        [offS, 0],
      ]);
  return {
    ...shared(colours, words.title),
    grid: { left: 40, right: 16, top: 12, bottom: 84 },
    tooltip: { ...shared(colours, '').tooltip, trigger: 'axis' },
    dataZoom: [
      { type: 'inside', startValue: first, endValue: Math.min(last, first + secondsAtFirst) },
      {
        type: 'slider',
        bottom: 6,
        height: 26,
        textStyle: { color: colours.soft },
        borderColor: colours.line,
        fillerColor: 'transparent',
        dataBackground: { lineStyle: { color: colours.soft }, areaStyle: { opacity: 0 } },
        selectedDataBackground: { lineStyle: { color: colours.accent }, areaStyle: { opacity: 0 } },
        handleStyle: { color: colours.surface, borderColor: colours.ink },
        moveHandleStyle: { color: colours.soft },
      },
    ],
    xAxis: { type: 'value', min: Math.floor(first), max: Math.ceil(last), ...axis(colours, words.time), nameGap: 26 },
    yAxis: {
      type: 'value',
      ...(trace ? { min: low - (high - low) * 0.05, max: high + (high - low) * 0.05 } : { min: 0, max: 1.1 }),
      ...axis(colours, words.level),
      nameGap: 14,
      axisLabel: { show: false },
    },
    series: [
      {
        type: 'line',
        step: 'end',
        showSymbol: false,
        sampling: 'lttb',
        color: colours.ink,
        lineStyle: { color: colours.ink, width: 1.3 },
        data: points,
        markArea: {
          silent: true,
          itemStyle: { color: colours.accent, opacity: 0.3 },
          data: pulses.map(({ onS, offS }) => [{ xAxis: onS }, { xAxis: offS }]),
        },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: colours.alarm, type: 'dashed', width: 2 },
          data: clicks.map((at) => ({ xAxis: at })),
        },
      },
    ],
  };
}

export interface CodeProbability {
  readonly code: string;
  readonly probability: number;
}

export function codesOption(
  colours: Colours,
  codes: readonly CodeProbability[],
  words: { title: string; code: string; probability: string },
): ChartOption {
  return {
    ...shared(colours, words.title),
    grid: { left: 56, right: 16, top: 24, bottom: 48 },
    xAxis: { type: 'category', data: codes.map(({ code }) => code), ...axis(colours, words.code), nameGap: 28 },
    yAxis: { type: 'value', min: 0, max: 100, ...axis(colours, words.probability), nameGap: 38 },
    series: [
      {
        type: 'bar',
        color: colours.accent,
        barMaxWidth: 56,
        data: codes.map(({ probability }) => Number((100 * probability).toFixed(1))),
        label: { show: true, position: 'top', color: colours.ink, formatter: '{c} %' },
      },
    ],
  };
}
