/** LED strips in a row: the volts they drop, what a reading means, and whether a hand tester is enough. */
import { judgeString, stringVolts, testerFor, usualSpreadPercent, type LedString } from '../electrical/index.ts';
import { emptyOf, waitsFor, type Figure, type Finding, type Instrument } from './instrument.ts';

/** Below this share of what belongs there a string is far too low (common practice, no source). */
const farLow = 0.9;

export const string: Instrument = {
  id: 'string',
  measures: true,
  fields: [
    { id: 'strips', kind: 'quantity', unit: '', whole: true, least: 1, most: 60 },
    { id: 'leds', kind: 'quantity', unit: '', whole: true, least: 1, most: 60 },
    { id: 'ledVolts', kind: 'quantity', unit: 'V', usual: '3', least: 1, most: 40 },
    { id: 'celsius', kind: 'quantity', unit: '°C', optional: true, least: -20, most: 120 },
    { id: 'amps', kind: 'quantity', unit: 'A', optional: true, least: 0.001, most: 3 },
    { id: 'nominalAmps', kind: 'quantity', unit: 'A', optional: true, least: 0.001, most: 3 },
    { id: 'reading', kind: 'quantity', unit: 'V', optional: true, least: -10, most: 1000 },
    { id: 'limitVolts', kind: 'quantity', unit: 'V', optional: true, least: 1, most: 1000 },
    { id: 'spreadPercent', kind: 'quantity', unit: '%', usual: String(usualSpreadPercent), least: 0.1, most: 20 },
    { id: 'testerVolts', kind: 'quantity', unit: 'V', optional: true, least: 1, most: 1000 },
    { id: 'testerAmps', kind: 'quantity', unit: 'A', optional: true, least: 0.0001, most: 3 },
  ],
  run(values) {
    const { number } = values;
    const [strips, leds, ledVolts] = [number('strips'), number('leds'), number('ledVolts')];
    if (strips === undefined || leds === undefined || ledVolts === undefined) return waitsFor(emptyOf(values, 'strips', 'leds'));
    const own: LedString = { strips, leds, ledVolts, celsius: number('celsius'), amps: number('amps'), nominalAmps: number('nominalAmps') };
    const figures: Figure[] = [{ id: 'stringVolts', value: stringVolts(own), unit: 'V' }];
    const findings: Finding[] = [];
    const reading = number('reading');
    if (reading !== undefined) {
      const judged = judgeString(own, reading, number('spreadPercent'), number('limitVolts'));
      if (judged.kind === 'leds-shorted') figures.push({ id: 'shorted', value: judged.count, unit: '' });
      findings.push({
        code: judged.kind,
        tone: judged.kind === 'string-as-expected' ? 'good' : 'bad',
        values: judged.kind === 'leds-shorted' ? { count: judged.count, least: judged.least, most: judged.most } : {},
      });
      if (judged.kind === 'leds-shorted' && reading < stringVolts(own) * farLow)
        findings.push({ code: 'string-far-low', tone: 'bad', values: {} });
      if (judged.kind === 'string-as-expected' && judged.hidesOne) findings.push({ code: 'one-short-hidden', tone: 'doubt', values: {} });
    }
    const testerVolts = number('testerVolts');
    if (testerVolts !== undefined) {
      const tester = testerFor(own, testerVolts, number('testerAmps'));
      figures.push({ id: 'testerLeds', value: tester.leds, unit: '' });
      if (!tester.lightsAll) findings.push({ code: 'tester-volts-low', tone: 'bad', values: { leds: tester.leds } });
      if (tester.currentLow) findings.push({ code: 'tester-current-low', tone: 'doubt', values: {} });
    }
    return { figures, findings, needs: [] };
  },
};
