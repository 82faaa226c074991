/** Before a universal board is connected: gates in order, each passed by a reading. One that isn't passed bars all behind it. */
import { usualTolerancePercent } from '../reading/index.ts';
import type { Finding, Instrument, Values } from './instrument.ts';

/** A gate: passed, or what bars it. */
type Gate = (values: Values) => Finding | undefined;

const asks = (code: string): Finding => ({ code, tone: 'doubt', values: {} });
const bars = (code: string, values: Finding['values'] = {}): Finding => ({ code, tone: 'bad', values });
const chosen = ({ text }: Values, id: string): string => (text(id) === 'unmeasured' ? '' : text(id));

const gates: readonly Gate[] = [
  ({ number }) => {
    const [nominal, read] = [number('railNominal'), number('railRead')];
    if (nominal === undefined || read === undefined) return asks('gate-rails');
    const off = Math.abs(read / nominal - 1) * 100;
    return off > usualTolerancePercent ? bars('gate-rails-wrong', { read, nominal }) : undefined;
  },
  ({ number }) => {
    const [supply, board, panel, sound = 0] = [number('supplyAmps'), number('boardAmps'), number('panelAmps'), number('soundAmps')];
    if (supply === undefined || board === undefined || panel === undefined) return asks('gate-current');
    const drawn = Number((board + panel + sound).toPrecision(6));
    return supply < drawn ? bars('gate-current-short', { supply, drawn }) : undefined;
  },
  ({ number }) => {
    const [jumper, tcon] = [number('jumperVolts'), number('tconVolts')];
    if (jumper === undefined || tcon === undefined) return asks('gate-jumper');
    return Math.abs(jumper / tcon - 1) * 100 > usualTolerancePercent ? bars('gate-jumper-wrong', { jumper, tcon }) : undefined;
  },
  (values) => {
    const { number } = values;
    const [side, pairs, wanted, bits, wantedBits] = [
      chosen(values, 'supplySide'),
      number('pairsBoard'),
      number('pairsPanel'),
      number('bitsBoard'),
      number('bitsPanel'),
    ];
    if (side === '' || pairs === undefined || wanted === undefined || bits === undefined || wantedBits === undefined)
      return asks('gate-cable');
    if (side === 'other') return bars('gate-cable-side');
    if (pairs !== wanted) return bars('gate-cable-pairs', { pairs, wanted });
    return bits === wantedBits ? undefined : bars('gate-cable-bits', { bits, wanted: wantedBits });
  },
  (values) => (chosen(values, 'lightBy') === '' ? asks('gate-light') : undefined),
  (values) => {
    const [picture, off] = [chosen(values, 'picture'), chosen(values, 'lightOff')];
    if (picture === 'no') return bars('gate-trial-picture');
    if (picture === 'yes' && off === 'no') return bars('gate-light-stays');
    return picture === 'yes' && off === 'yes' ? undefined : asks('gate-trial');
  },
];

const volts = (id: string) => ({ id, kind: 'quantity', unit: 'V', optional: true, least: 0.5, most: 60 }) as const;
const amps = (id: string) => ({ id, kind: 'quantity', unit: 'A', optional: true, least: 0, most: 30 }) as const;
const count = (id: string) => ({ id, kind: 'quantity', unit: '', optional: true, whole: true, least: 1, most: 40 }) as const;
const choice = (id: string, ...choices: string[]) =>
  ({ id, kind: 'choice', unit: '', usual: 'unmeasured', choices: ['unmeasured', ...choices] }) as const;

export const substitute: Instrument = {
  id: 'substitute',
  fields: [
    volts('railNominal'),
    volts('railRead'),
    amps('supplyAmps'),
    amps('boardAmps'),
    amps('panelAmps'),
    amps('soundAmps'),
    volts('jumperVolts'),
    volts('tconVolts'),
    choice('supplySide', 'same', 'other'),
    count('pairsBoard'),
    count('pairsPanel'),
    count('bitsBoard'),
    count('bitsPanel'),
    choice('lightBy', 'main', 'tcon'),
    choice('picture', 'yes', 'no'),
    choice('lightOff', 'yes', 'no'),
  ],
  run(values) {
    const answers = gates.map((gate) => gate(values));
    const first = answers.findIndex((one) => one !== undefined);
    const passed = first < 0 ? gates.length : first;
    return {
      figures: [{ id: 'gatesPassed', value: passed, unit: '' }],
      findings: [answers[first] ?? { code: 'gate-box', tone: 'good', values: {} }],
      needs: [],
    };
  },
};
