import { bias } from './bias.ts';
import { capacitor } from './capacitor.ts';
import { discharge } from './discharge.ts';
import { substitute } from './gates.ts';
import type { Instrument } from './instrument.ts';
import { bar, link } from './link.ts';
import { mask } from './mask.ts';
import { plugs } from './plugs.ts';
import { short } from './short.ts';
import { siblingCelsius, siblings, siblingVolts } from './siblings.ts';
import { string } from './string.ts';

/** Every instrument, in the order in which they are offered. */
export const instruments: readonly Instrument[] = [
  discharge,
  plugs,
  short,
  siblings,
  siblingVolts,
  siblingCelsius,
  string,
  capacitor,
  bias,
  mask,
  link,
  bar,
  substitute,
];

export {
  runInstrument,
  type Field,
  type FieldProblem,
  type Figure,
  type Finding,
  type Instrument,
  type Outcome,
  type PlotAlong,
  type Report,
} from './instrument.ts';
export { thermalReport } from './thermal.ts';
export { instrumentAnswers, instrumentsFor, type InstrumentAnswer } from './answers.ts';
