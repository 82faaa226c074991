/**
 * What a bench expects of the log of strips and of work on a chip; written before the instruments, from the trade (common practice, no source). Codes are of
 * findings, all of them, in order.
 */
import type { BenchCase } from './benchCases.ts';

const ready = { chip: 'U402', pin1Chip: 'top-left', pin1Board: 'top-left', photo: 'yes', farSide: 'off', shielded: 'yes' };
const fitted = {
  chip: 'U402',
  pin1Was: 'top-left',
  pin1New: 'top-left',
  padsClean: 'yes',
  bridges: 'none',
  supplyOhms: '410',
  cleaned: 'yes',
};
const baked = { chip: 'U1', told: 'yes', preheat: 'yes', farSide: 'none', shielded: 'yes', flux: 'yes' };

export const workCases: readonly BenchCase[] = [
  // Strips: every LED and joint is looked at, and what was found stands by its place.
  {
    instrument: 'strips',
    name: 'one LED open, the rest looked at and lit',
    typed: { strips: '4', leds: '8', log: 'all lit; 2.5 open' },
    says: ['strips-open', 'strips-replace'],
    values: { list: '2.5' },
  },
  {
    instrument: 'strips',
    name: 'a joint between strips is found as well as an LED, and strips not looked at are named',
    typed: { strips: '5', leds: '6', log: '1 lit\n2 lit\n2-3 open\n3.6 short' },
    says: ['strips-joint', 'strips-short', 'strips-replace', 'strips-left'],
  },
  {
    instrument: 'strips',
    name: 'all lit on a hand tester: they may fail at the set’s current all the same',
    typed: { strips: '3', leds: '7', log: 'all lit' },
    says: ['strips-all-good', 'strips-hand-tester'],
  },
  {
    instrument: 'strips',
    name: 'all lit at full current',
    typed: { strips: '3', leds: '7', log: 'all lit; 1-2 good; 2-3 good', tester: 'full' },
    says: ['strips-all-good'],
  },
  {
    instrument: 'strips',
    name: 'volts at each LED of a fed string: the open one has all of them, and the others none',
    typed: { strips: '1', leds: '4', log: '1.1 0.02V; 1.2 0; 1.3 148V; 1.4 10mV' },
    says: ['strips-open', 'strips-replace'],
    values: { list: '1.3' },
  },
  {
    instrument: 'strips',
    name: 'no volts at any that was read: no current flows, and the open one is not among them',
    typed: { strips: '1', leds: '6', log: '1.1 0V; 1.2 0.01V; 1.3 0V' },
    says: ['strips-no-current', 'strips-left'],
  },
  {
    instrument: 'strips',
    name: 'current flows, and one has no drop: shorted',
    typed: { strips: '1', leds: '4', log: '1.1 3.0V; 1.2 0.05V; 1.3 2.9V; 1.4 3.1V' },
    says: ['strips-short', 'strips-replace'],
    values: { list: '1.2' },
  },
  // A chip comes off: what can’t be made good afterwards is asked for before any heat.
  { instrument: 'chip-off', name: 'all seen to: heat may go on', typed: ready, says: ['chip-off-may'] },
  {
    instrument: 'chip-off',
    name: 'nothing noted yet',
    typed: { chip: 'U402' },
    says: ['chip-pin1-first', 'chip-photo-first', 'chip-far-first', 'chip-shield-first'],
  },
  {
    instrument: 'chip-off',
    name: 'an iron melts no plastic on the far side',
    typed: { ...ready, heat: 'iron', farSide: 'unlooked', shielded: 'no' },
    says: ['chip-off-may'],
  },
  {
    instrument: 'chip-off',
    name: 'plastic is left within the hot air',
    typed: { ...ready, farSide: 'left' },
    says: ['chip-plastic'],
  },
  {
    instrument: 'chip-off',
    name: 'air from the top takes connectors along',
    typed: { ...ready, heat: 'top' },
    says: ['chip-top-air', 'chip-off-may'],
  },
  {
    instrument: 'chip-off',
    name: 'neither chip nor board is marked: mark both first',
    typed: { ...ready, pin1Chip: 'unmarked', pin1Board: 'unmarked' },
    says: ['chip-unmarked'],
  },
  {
    instrument: 'chip-off',
    name: 'the board isn’t marked: the chip’s mark is drawn on it',
    typed: { ...ready, pin1Board: 'unmarked' },
    says: ['chip-draw-mark', 'chip-off-may'],
  },
  {
    instrument: 'chip-off',
    name: 'marks that disagree',
    typed: { ...ready, pin1Board: 'bottom-right' },
    says: ['chip-marks-differ', 'chip-off-may'],
  },
  { instrument: 'chip-off', name: 'off, pads whole', typed: { ...ready, pads: 'whole' }, says: ['chip-off-done'] },
  { instrument: 'chip-off', name: 'off, a pad went along', typed: { ...ready, pads: 'lifted' }, says: ['chip-pads-lifted'] },
  // And on again.
  { instrument: 'chip-on', name: 'as it stood, no bridge, no short', typed: fitted, says: ['chip-on-done'] },
  { instrument: 'chip-on', name: 'turned round: not to be powered', typed: { ...fitted, pin1New: 'bottom-right' }, says: ['chip-turned'] },
  {
    instrument: 'chip-on',
    name: 'its supply pin reads a short',
    typed: { ...fitted, supplyOhms: '0.4' },
    says: ['chip-supply-short'],
  },
  {
    instrument: 'chip-on',
    name: 'far less than with the old chip',
    typed: { ...fitted, supplyOhmsBefore: '900', supplyOhms: '35' },
    says: ['chip-supply-less'],
  },
  {
    instrument: 'chip-on',
    name: 'not looked at under the magnifier, not read, flux left',
    typed: { chip: 'U402', pin1Was: 'top-left', pin1New: 'top-left' },
    says: ['chip-look', 'chip-ohms', 'chip-flux'],
  },
  { instrument: 'chip-on', name: 'two pins bridged', typed: { ...fitted, bridges: 'some' }, says: ['chip-bridge'] },
  // Reflow: once, said so beforehand, never sold as a repair.
  { instrument: 'reflow', name: 'prepared', typed: baked, says: ['reflow-long-shot', 'reflow-may'] },
  {
    instrument: 'reflow',
    name: 'nothing prepared',
    typed: { chip: 'U1' },
    says: ['reflow-long-shot', 'reflow-told', 'reflow-preheat', 'chip-far-first', 'chip-shield-first', 'reflow-flux'],
  },
  { instrument: 'reflow', name: 'done before: not again', typed: { ...baked, times: '1' }, says: ['reflow-again'] },
  {
    instrument: 'reflow',
    name: 'it starts: on trial, and no repair',
    typed: { ...baked, result: 'starts', coolMinutes: '5' },
    says: ['reflow-long-shot', 'reflow-on-trial'],
  },
  {
    instrument: 'reflow',
    name: 'moved while hot',
    typed: { ...baked, result: 'unchanged', coolMinutes: '0.5' },
    says: ['reflow-long-shot', 'reflow-cool', 'reflow-no'],
  },
];

/** What can’t be read is refused, and named. */
export const impossibleLogs: readonly string[] = ['5.1 lit', '1.9 open', '2-4 open', '1 brown', '1.2', '4-5 open'];
