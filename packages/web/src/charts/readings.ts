/** Readings over a job: a line for each point that was read, in the order of the entries. */
import { liveEntries, type Entry } from '@veglia/core';
import { axis, dashes, marks, shared, type ChartOption, type Colours } from './option.ts';

/** A point, what was read there, and when: the entry's number, volts or ohms, state of the set. */
export interface ReadingLine {
  readonly at: string;
  readonly pin?: string;
  readonly quantity: 'volts' | 'ohms';
  readonly points: readonly { readonly seq: number; readonly value: number; readonly state: string }[];
}

/** Volts before ohms; points in the order in which they were first read. Undone readings are left out. */
export function readingLines(entries: readonly Entry[]): ReadingLine[] {
  const lines = new Map<
    string,
    { at: string; pin?: string; quantity: 'volts' | 'ohms'; points: { seq: number; value: number; state: string }[] }
  >();
  for (const { seq, body } of liveEntries(entries)) {
    if (body.kind !== 'reading.taken' || (body.quantity !== 'volts' && body.quantity !== 'ohms')) continue;
    // Two pins of one rail are two lines.
    const key = `${body.quantity} ${body.pin ?? body.at}`;
    const line = lines.get(key) ?? {
      at: body.at,
      ...(body.pin === undefined ? {} : { pin: body.pin }),
      quantity: body.quantity,
      points: [],
    };
    line.points.push({ seq, value: body.value, state: body.state });
    lines.set(key, line);
  }
  return [...lines.values()].sort((a, b) => (a.quantity === b.quantity ? 0 : a.quantity === 'volts' ? -1 : 1));
}

/** One quantity: volts and ohms have no axis in common. Ohms go by decades. */
export function readingsOption(
  colours: Colours,
  lines: readonly ReadingLine[],
  words: { title: string; entry: string; axis: string; unit: string; name: (line: ReadingLine) => string },
): ChartOption {
  const strokes = [colours.accent, colours.alarm, colours.ink, colours.soft];
  const seqs = [...new Set(lines.flatMap(({ points }) => points.map(({ seq }) => seq)))].sort((a, b) => a - b);
  const ohms = lines[0]?.quantity === 'ohms';
  return {
    ...shared(colours, words.title),
    legend: { top: 0, textStyle: { color: colours.ink, fontSize: 14 }, itemWidth: 34 },
    grid: { left: 64, right: 16, top: 64, bottom: 48 },
    tooltip: {
      ...shared(colours, '').tooltip,
      trigger: 'axis',
      valueFormatter: (value) => (value == null ? '' : `${Number(value)} ${words.unit}`),
    },
    xAxis: { type: 'category', data: seqs.map(String), ...axis(colours, words.entry), nameGap: 28 },
    yAxis: { type: ohms ? 'log' : 'value', ...axis(colours, words.axis), nameGap: 46 },
    series: lines.map((line, index) => {
      const color = strokes[index % strokes.length] ?? colours.ink;
      const bySeq = new Map(line.points.map(({ seq, value }) => [seq, value]));
      return {
        type: 'line' as const,
        name: words.name(line),
        // A logarithm has no zero: a dead short stands at the lower end.
        data: seqs.map((seq) => {
          const value = bySeq.get(seq);
          return value === undefined ? null : ohms ? Math.max(value, 0.01) : value;
        }),
        connectNulls: true,
        color,
        symbol: marks[index % marks.length] ?? 'circle',
        symbolSize: 11,
        lineStyle: { color, width: 2, type: dashes[index % dashes.length] ?? 'solid' },
      };
    }),
  };
}
