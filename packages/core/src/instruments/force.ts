/** A control line forced from outside: what flows through the resistor, and whether the input stands it. The rule is that of the forced steps. */
import { forcingOhms } from '../electrical/index.ts';
import { inputStandsVolts } from '../knowledge/index.ts';
import { emptyOf, waitsFor, type Finding, type Instrument } from './instrument.ts';

/** A resistor within this share of the usual one is as good (value of ours: less than a step of E12). */
const asGood = 0.8;

export const force: Instrument = {
  id: 'force',
  fields: [
    { id: 'fromVolts', kind: 'quantity', unit: 'V', least: 0.5, most: 60 },
    { id: 'ohms', kind: 'quantity', unit: 'Ω', usual: '1k', least: 1, most: 1e6 },
    { id: 'asks', kind: 'choice', unit: '', usual: 'high', choices: ['high', 'low'] },
  ],
  run(values) {
    const volts = values.number('fromVolts');
    if (volts === undefined) return waitsFor(emptyOf(values, 'fromVolts'));
    const ohms = values.number('ohms') ?? 1000;
    const least = forcingOhms(volts);
    const figures = [
      { id: 'amps', value: volts / ohms, unit: 'A' as const },
      { id: 'watts', value: (volts * volts) / ohms, unit: 'W' as const },
    ];
    const say = (code: string, tone: Finding['tone'], own: Finding['values'] = {}): Finding => ({ code, tone, values: own });
    if (values.text('asks') === 'low') return { figures, findings: [say('force-to-ground', 'good')], needs: [] };
    if (volts > inputStandsVolts) return { figures, findings: [say('force-source', 'bad', { most: inputStandsVolts })], needs: [] };
    if (ohms < least * asGood)
      return { figures: [...figures, { id: 'leastOhms', value: least, unit: 'Ω' }], findings: [say('force-larger', 'bad')], needs: [] };
    return { figures, findings: [say('force-fine', 'good')], needs: [] };
  },
};
