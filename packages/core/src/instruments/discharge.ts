/** The main capacitor through a resistor, or left to itself: how long, and what the resistor has to stand. */
import { safeVolts, secondsUntil, throughResistor, timeConstantS } from '../electrical/index.ts';
import { emptyOf, waitsFor, type Finding, type Instrument } from './instrument.ts';

/** Falling less than this share in the time tells that it doesn't fall: a meter's last digits are as much (value of ours). */
const falls = 0.98;

export const discharge: Instrument = {
  id: 'discharge',
  measures: true,
  fields: [
    { id: 'farads', kind: 'quantity', unit: 'F', optional: true, least: 1e-9, most: 1 },
    { id: 'volts', kind: 'quantity', unit: 'V', optional: true, least: 0, most: 2000 },
    { id: 'ohms', kind: 'quantity', unit: 'Ω', optional: true, least: 1, most: 1e7 },
    { id: 'limitVolts', kind: 'quantity', unit: 'V', usual: String(safeVolts), least: 1, most: 120 },
    { id: 'ratedVolts', kind: 'quantity', unit: 'V', optional: true, least: 1, most: 1e5 },
    { id: 'ratedJoules', kind: 'quantity', unit: 'J', optional: true, least: 0.01, most: 1e4 },
    { id: 'firstVolts', kind: 'quantity', unit: 'V', optional: true, least: 0, most: 2000 },
    { id: 'secondVolts', kind: 'quantity', unit: 'V', optional: true, least: 0, most: 2000 },
    { id: 'apart', kind: 'quantity', unit: 's', optional: true, least: 0.1, most: 36_000 },
  ],
  run(values) {
    const { number } = values;
    const limit = number('limitVolts') ?? safeVolts;
    const [first, second, apart] = [number('firstVolts'), number('secondVolts'), number('apart')];
    if (first !== undefined || second !== undefined || apart !== undefined) {
      const needs = emptyOf(values, 'firstVolts', 'secondVolts', 'apart');
      if (first === undefined || second === undefined || apart === undefined) return waitsFor(needs);
      if (second <= limit)
        return {
          figures: [{ id: 'seconds', value: 0, unit: 's' }],
          findings: [{ code: 'already-safe', tone: 'good', values: { limit } }],
          needs: [],
        };
      const rc = timeConstantS({ volts: first, at: 0 }, { volts: second, at: apart * 1000 });
      if (rc === undefined || second > first * falls)
        return { figures: [], findings: [{ code: 'does-not-fall', tone: 'bad', values: {} }], needs: [] };
      return {
        figures: [
          { id: 'timeConstant', value: rc, unit: 's' },
          { id: 'seconds', value: secondsUntil(second, limit, rc), unit: 's' },
        ],
        findings: [{ code: 'by-two-readings', tone: 'doubt', values: { limit } }],
        needs: [],
      };
    }
    const [farads, volts, ohms] = [number('farads'), number('volts'), number('ohms')];
    if (farads === undefined || volts === undefined || ohms === undefined) return waitsFor(emptyOf(values, 'farads', 'volts', 'ohms'));
    const through = throughResistor(volts, farads, ohms, limit);
    const [ratedVolts, ratedJoules] = [number('ratedVolts'), number('ratedJoules')];
    const findings: Finding[] = [];
    if (volts <= limit) findings.push({ code: 'already-safe', tone: 'good', values: { limit } });
    if (ratedVolts !== undefined && ratedVolts < volts)
      findings.push({ code: 'resistor-volts-too-low', tone: 'bad', values: { volts: ratedVolts } });
    if (ratedJoules !== undefined && ratedJoules < through.joules)
      findings.push({ code: 'resistor-energy-too-low', tone: 'bad', values: { joules: ratedJoules } });
    if (findings.length === 0) findings.push({ code: 'computed-is-no-reading', tone: 'doubt', values: { limit } });
    return {
      figures: [
        { id: 'seconds', value: through.secondsToSafe, unit: 's' },
        { id: 'joules', value: through.joules, unit: 'J' },
        { id: 'watts', value: through.watts, unit: 'W' },
        { id: 'timeConstant', value: ohms * farads, unit: 's' },
      ],
      findings,
      needs: [],
    };
  },
};
