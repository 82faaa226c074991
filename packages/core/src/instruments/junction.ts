/** A diode, or a junction of a transistor, on the meter's diode range: by itself, or on the board with all that lies beside it. */
import { waitsFor, type Finding, type Instrument } from './instrument.ts';

/** Forward volts of the diode range, about 1 mA (common practice, no source). */
const forwardOf: Readonly<Record<string, readonly [number, number]>> = { silicon: [0.4, 0.85], schottky: [0.1, 0.4], led: [1.4, 3.6] };
/** Below this both ways nothing is left between the legs, V (common practice, no source: a meter's leads show some millivolts). */
const shorted = 0.05;

export const junction: Instrument = {
  id: 'junction',
  measures: true,
  fields: [
    { id: 'kind', kind: 'choice', unit: '', usual: 'silicon', choices: ['silicon', 'schottky', 'led'] },
    { id: 'forward', kind: 'quantity', unit: 'V', optional: true, least: 0, most: 5 },
    { id: 'forwardOpen', kind: 'choice', unit: '', usual: 'no', choices: ['no', 'yes'] },
    { id: 'reverse', kind: 'choice', unit: '', usual: 'unmeasured', choices: ['unmeasured', 'open', 'conducts'] },
    { id: 'reverseVolts', kind: 'quantity', unit: 'V', optional: true, least: 0, most: 5 },
    { id: 'onBoard', kind: 'choice', unit: '', usual: 'yes', choices: ['yes', 'no'] },
  ],
  run({ number, text }) {
    const forward = text('forwardOpen') === 'yes' ? Infinity : number('forward');
    const reverse = text('reverse') === 'open' ? Infinity : number('reverseVolts');
    if (forward === undefined) return waitsFor(['forward']);
    if (text('reverse') === 'unmeasured') return waitsFor(['reverse']);
    if (reverse === undefined) return waitsFor(['reverseVolts']);
    const [least, most] = forwardOf[text('kind')] ?? [0.4, 0.85];
    const say = (code: string, tone: Finding['tone']) => ({ figures: [], findings: [{ code, tone, values: {} }], needs: [] });
    if (forward < shorted && reverse < shorted) return say('junction-short', 'bad');
    if (!Number.isFinite(forward))
      return say(Number.isFinite(reverse) ? 'junction-turned' : 'junction-open', Number.isFinite(reverse) ? 'doubt' : 'bad');
    if (Number.isFinite(reverse))
      return say(text('onBoard') === 'yes' ? 'junction-lift' : 'junction-leaks', text('onBoard') === 'yes' ? 'doubt' : 'bad');
    return forward >= least && forward <= most ? say('junction-good', 'good') : say('junction-odd', 'doubt');
  },
};
