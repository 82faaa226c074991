/** What a panel needs between main and T-con, held against what was counted; and the driver that a bar on the picture is. */
import { colourBits, driverCount, pictureLink } from '../panel/index.ts';
import { emptyOf, waitsFor, type Figure, type Finding, type Instrument } from './instrument.ts';

const bitsOf = (bits: number): (typeof colourBits)[number] => colourBits.find((one) => one === bits) ?? 8;

export const link: Instrument = {
  id: 'link',
  fields: [
    { id: 'width', kind: 'quantity', unit: '', whole: true, least: 320, most: 8192 },
    { id: 'height', kind: 'quantity', unit: '', whole: true, least: 200, most: 4800 },
    { id: 'hertz', kind: 'quantity', unit: 'Hz', usual: '60', least: 20, most: 480 },
    { id: 'bits', kind: 'choice', unit: '', usual: '8', choices: colourBits.map(String) },
    { id: 'countedPairs', kind: 'quantity', unit: '', optional: true, whole: true, least: 1, most: 40 },
    { id: 'countedLanes', kind: 'quantity', unit: '', optional: true, whole: true, least: 1, most: 32 },
  ],
  run(values) {
    const { number } = values;
    const [width, height, hertz] = [number('width'), number('height'), number('hertz')];
    if (width === undefined || height === undefined || hertz === undefined) return waitsFor(emptyOf(values, 'width', 'height'));
    const needed = pictureLink(width, height, hertz, bitsOf(Number(values.text('bits'))));
    const figures: Figure[] = [
      { id: 'clock', value: needed.clock, unit: 'Hz' },
      ...(needed.lvds
        ? [
            { id: 'links', value: needed.lvds.links, unit: '' as const },
            { id: 'pairs', value: needed.lvds.pairs, unit: '' as const },
          ]
        : []),
      { id: 'lanes', value: needed.lanes, unit: '' },
    ];
    const findings: Finding[] = needed.source === 'estimated' ? [{ code: 'clock-estimated', tone: 'doubt', values: {} }] : [];
    const compare = (what: 'pairs' | 'lanes', counted: number | undefined, wanted: number | undefined): void => {
      if (counted === undefined) return;
      if (wanted === undefined) findings.push({ code: 'pairs-not-possible', tone: 'bad', values: { counted } });
      else if (counted === wanted) findings.push({ code: `${what}-agree`, tone: 'good', values: { counted } });
      else
        findings.push({
          code: counted < wanted ? `${what}-too-few` : `${what}-more`,
          tone: counted < wanted ? 'bad' : 'doubt',
          values: { counted, wanted },
        });
    };
    compare('pairs', number('countedPairs'), needed.lvds?.pairs);
    compare('lanes', number('countedLanes'), needed.lanes);
    return { figures, findings, needs: [] };
  },
};

export const bar: Instrument = {
  id: 'bar',
  measures: true,
  fields: [
    { id: 'columns', kind: 'quantity', unit: '', optional: true, whole: true, least: 320, most: 8192 },
    { id: 'perPixel', kind: 'quantity', unit: '', usual: '3', whole: true, least: 1, most: 4 },
    { id: 'perDriver', kind: 'quantity', unit: '', optional: true, whole: true, least: 16, most: 4096 },
    { id: 'drivers', kind: 'quantity', unit: '', optional: true, whole: true, least: 1, most: 100 },
    { id: 'barPercent', kind: 'quantity', unit: '%', optional: true, least: 0.05, most: 100 },
  ],
  run(values) {
    const { number } = values;
    const [columns, perDriver, counted, seen] = [number('columns'), number('perDriver'), number('drivers'), number('barPercent')];
    const drivers =
      counted ?? (columns !== undefined && perDriver !== undefined ? driverCount(columns, number('perPixel') ?? 3, perDriver) : undefined);
    if (drivers === undefined) return waitsFor(emptyOf(values, 'columns', 'perDriver', 'drivers'));
    const width = 100 / drivers;
    /** A bar is measured with a ruler: a fifth off is the same one (value of ours). */
    const same = seen !== undefined && Math.abs(seen / width - 1) <= 0.2;
    return {
      figures: [
        { id: 'driverCount', value: drivers, unit: '' },
        { id: 'barWidth', value: width, unit: '%' },
      ],
      findings:
        seen === undefined
          ? []
          : [{ code: same ? 'bar-is-one-driver' : 'bar-is-not-one-driver', tone: same ? 'bad' : 'doubt', values: {} }],
      needs: [],
    };
  },
};
