/** Whether another capacitor may take the place of one that failed. */
import { capacitorJobs, judgeSubstitute, type CapacitorData, type CapacitorJob } from '../electrical/index.ts';
import { emptyOf, waitsFor, type Field, type Instrument, type Values } from './instrument.ts';

const part = (id: (name: string) => string, needed: boolean): readonly Field[] => [
  { id: id('farads'), kind: 'quantity', unit: 'F', ...(needed ? {} : { optional: true }), least: 1e-12, most: 1 },
  { id: id('volts'), kind: 'quantity', unit: 'V', least: 1, most: 10_000 },
  { id: id('celsius'), kind: 'quantity', unit: '°C', optional: true, least: 40, most: 200 },
  { id: id('ohms'), kind: 'quantity', unit: 'Ω', optional: true, least: 1e-4, most: 1000 },
  { id: id('amps'), kind: 'quantity', unit: 'A', optional: true, least: 0.001, most: 100 },
  { id: id('tall'), kind: 'quantity', unit: '', optional: true, least: 1, most: 200 },
  { id: id('wide'), kind: 'quantity', unit: '', optional: true, least: 1, most: 100 },
  { id: id('pitch'), kind: 'quantity', unit: '', optional: true, least: 0.5, most: 60 },
];
const ofNew = (name: string): string => `new${name.charAt(0).toUpperCase()}${name.slice(1)}`;
/** Millimetres in the fields. */
const read = ({ number }: Values, id: (name: string) => string): CapacitorData => {
  const metres = (name: string): number | undefined => {
    const millimetres = number(id(name));
    return millimetres === undefined ? undefined : millimetres / 1000;
  };
  return {
    farads: number(id('farads')) ?? 0,
    volts: number(id('volts')) ?? 0,
    celsius: number(id('celsius')),
    ohms: number(id('ohms')),
    amps: number(id('amps')),
    tall: metres('tall'),
    wide: metres('wide'),
    pitch: metres('pitch'),
  };
};

export const capacitor: Instrument = {
  id: 'capacitor',
  fields: [
    { id: 'job', kind: 'choice', unit: '', choices: capacitorJobs, usual: 'smoothing' },
    ...part((name) => name, true),
    ...part(ofNew, true),
  ],
  run(values) {
    const needs = emptyOf(values, 'farads', 'volts', 'newFarads', 'newVolts');
    if (needs.length > 0) return waitsFor(needs);
    const { fits, no, doubt } = judgeSubstitute(
      values.text('job') as CapacitorJob,
      read(values, (name) => name),
      read(values, ofNew),
    );
    return {
      figures: [],
      findings: [
        { code: `substitute-${fits}`, tone: fits === 'yes' ? 'good' : fits === 'no' ? 'bad' : 'doubt', values: {} },
        ...no.map((code) => ({ code, tone: 'bad' as const, values: {} })),
        ...doubt.map((code) => ({ code, tone: 'doubt' as const, values: {} })),
      ],
      needs: [],
    };
  },
};
