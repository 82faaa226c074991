/** Backlight current lowered at the sense resistor: the driver holds its volts across it, so the current goes with one over ohms. */
import { nextE24 } from '../electrical/index.ts';
import { emptyOf, waitsFor, type Figure, type Finding, type Instrument } from './instrument.ts';

/** What benches take off for life, percent, and beyond which it is a dark picture (common practice, no source). */
const usualLess = 25;
const mostLess = 50;

export const current: Instrument = {
  id: 'current',
  fields: [
    { id: 'senseOhms', kind: 'quantity', unit: 'Ω', least: 0.001, most: 1000 },
    { id: 'lessPercent', kind: 'quantity', unit: '%', usual: String(usualLess), least: 1, most: 90 },
    { id: 'senseVolts', kind: 'quantity', unit: 'V', optional: true, least: 0.01, most: 10 },
    { id: 'parallel', kind: 'quantity', unit: '', optional: true, whole: true, least: 1, most: 20 },
  ],
  run(values) {
    const { number } = values;
    const ohms = number('senseOhms');
    if (ohms === undefined) return waitsFor(emptyOf(values, 'senseOhms'));
    const less = number('lessPercent') ?? usualLess;
    if (less > mostLess)
      return { figures: [], findings: [{ code: 'current-too-much', tone: 'bad', values: { most: mostLess } }], needs: [] };
    const fitted = nextE24(ohms / (1 - less / 100));
    const figures: Figure[] = [
      { id: 'newOhms', value: fitted, unit: 'Ω' },
      { id: 'lessPercent', value: (1 - ohms / fitted) * 100, unit: '%' },
    ];
    const volts = number('senseVolts');
    if (volts !== undefined)
      figures.push({ id: 'newAmps', value: volts / fitted, unit: 'A' }, { id: 'watts', value: (volts * volts) / fitted, unit: 'W' });
    const findings: Finding[] = [{ code: 'current-fit', tone: 'good', values: {} }];
    const parallel = number('parallel') ?? 1;
    if (parallel > 1) {
      figures.push({ id: 'oneOffPercent', value: 100 / parallel, unit: '%' });
      findings.push({ code: 'current-one-off', tone: 'doubt', values: { parallel } });
    }
    return { figures, findings, needs: [] };
  },
};
