/** Rise of temperature over the picture, with the places that warm by number. */
import type { Warmth } from '@veglia/core';
import { axis, shared, type ChartOption, type Colours } from './option.ts';

/** Cells across that are drawn: more can't be told apart at this size, and each is an element of its own. */
const across = 64;

/** The highest rise of each block of cells; null where the pictures don't overlap. */
export function thinned({ width, height, rises }: Pick<Warmth, 'width' | 'height' | 'rises'>): {
  readonly columns: number;
  readonly rows: number;
  readonly cells: readonly (readonly [x: number, y: number, rise: number])[];
} {
  const step = Math.max(1, Math.ceil(width / across));
  const [columns, rows] = [Math.ceil(width / step), Math.ceil(height / step)];
  const cells: [number, number, number][] = [];
  for (let y = 0; y < rows; y += 1)
    for (let x = 0; x < columns; x += 1) {
      let most = -Infinity;
      for (let cy = y * step; cy < Math.min(height, (y + 1) * step); cy += 1)
        for (let cx = x * step; cx < Math.min(width, (x + 1) * step); cx += 1) {
          const rise = rises[cy * width + cx] ?? Number.NaN;
          if (rise > most) most = rise;
        }
      if (most > -Infinity) cells.push([x, y, Math.round(most * 100) / 100]);
    }
  return { columns, rows, cells };
}

export function warmthOption(colours: Colours, warmth: Warmth, words: { title: string; rise: string }): ChartOption {
  const { columns, rows, cells } = thinned(warmth);
  const most = Math.max(1, ...warmth.spots.map(({ rise }) => rise));
  return {
    ...shared(colours, words.title),
    // Patterns over a thousand small cells would hide them; the places have numbers.
    aria: { enabled: true, label: { description: words.title }, decal: { show: false } },
    grid: { left: 10, right: 10, top: 10, bottom: 54, show: true, borderColor: colours.line },
    xAxis: { type: 'category', show: false, data: Array.from({ length: columns }, (_, x) => x), ...axis(colours, '') },
    yAxis: { type: 'category', show: false, inverse: true, data: Array.from({ length: rows }, (_, y) => y) },
    visualMap: {
      min: 0,
      max: most,
      calculable: false,
      orient: 'horizontal',
      left: 'center',
      bottom: 0,
      text: [`+${most.toPrecision(2)} °C`, '0'],
      textStyle: { color: colours.ink, fontSize: 14 },
      inRange: { color: [colours.surface, colours.accent, colours.ink] },
      seriesIndex: 0,
    },
    series: [
      { type: 'heatmap', name: words.rise, data: cells.map((one) => [...one]), progressive: 0 },
      {
        type: 'line',
        data: warmth.spots.map(({ x, y }) => [Math.min(columns - 1, Math.floor(x * columns)), Math.min(rows - 1, Math.floor(y * rows))]),
        showAllSymbol: true,
        lineStyle: { color: 'transparent' },
        symbol: 'rect',
        symbolSize: 26,
        itemStyle: { color: colours.surface, borderColor: colours.ink, borderWidth: 2 },
        label: {
          show: true,
          position: 'inside',
          color: colours.ink,
          fontSize: 15,
          fontWeight: 700,
          formatter: ({ dataIndex }) => String(dataIndex + 1),
        },
        z: 5,
      },
    ],
  };
}
