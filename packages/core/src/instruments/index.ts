import { bias } from './bias.ts';
import { capacitor } from './capacitor.ts';
import { chipOff, chipOn, reflow } from './chip.ts';
import { current } from './current.ts';
import { discharge } from './discharge.ts';
import { force } from './force.ts';
import { substitute } from './gates.ts';
import { halves } from './halves.ts';
import { halving } from './halving.ts';
import type { Instrument } from './instrument.ts';
import { junction } from './junction.ts';
import { kit } from './kit.ts';
import { bar, link } from './link.ts';
import { mask } from './mask.ts';
import { plugs } from './plugs.ts';
import { short } from './short.ts';
import { siblingCelsius, siblings, siblingVolts } from './siblings.ts';
import { string } from './string.ts';
import { strips } from './strips.ts';

/** Every instrument, in the order in which they are offered. */
export const instruments: readonly Instrument[] = [
  discharge,
  plugs,
  short,
  halving,
  siblings,
  siblingVolts,
  siblingCelsius,
  string,
  strips,
  kit,
  current,
  force,
  junction,
  chipOff,
  chipOn,
  reflow,
  capacitor,
  bias,
  halves,
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
  type PlotContacts,
  type Report,
} from './instrument.ts';
export { thermalReport } from './thermal.ts';
export { instrumentAnswers, instrumentChange, instrumentsFor, type InstrumentAnswer } from './answers.ts';
