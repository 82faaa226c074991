/**
 * What a bench expects of six more instruments; written before them. Common practice, no source, but for Ohm’s law and the preferred values (IEC 60063). Codes are
 * of findings; a figure is in SI or percent.
 */
export interface BenchCase {
  readonly instrument: string;
  readonly name: string;
  readonly typed: Readonly<Record<string, string>>;
  /** Findings that are made, in order; all of them. */
  readonly says: readonly string[];
  /** Figures that come out, within one percent. */
  readonly figures?: Readonly<Record<string, number>>;
  /** Values named in the first finding. */
  readonly values?: Readonly<Record<string, string | number>>;
}

export const benchCases: readonly BenchCase[] = [
  // Backlight current lowered at the sense resistor: the driver holds its volts, so the current goes with one over ohms.
  {
    instrument: 'current',
    name: 'a quarter less: the next preferred value',
    typed: { senseOhms: '0.5', lessPercent: '25' },
    says: ['current-fit'],
    figures: { newOhms: 0.68, lessPercent: 26.47 },
  },
  {
    instrument: 'current',
    name: 'with the volts the driver holds: amperes and the resistor’s watts',
    typed: { senseOhms: '0R5', lessPercent: '25', senseVolts: '200m' },
    says: ['current-fit'],
    figures: { newOhms: 0.68, newAmps: 0.2941, watts: 0.0588 },
  },
  {
    instrument: 'current',
    name: 'one of three side by side taken off is a third less',
    typed: { senseOhms: '0.5', lessPercent: '30', parallel: '3' },
    says: ['current-fit', 'current-one-off'],
    figures: { oneOffPercent: 33.33 },
  },
  {
    instrument: 'current',
    name: 'more than half is no saving of life but a dark picture',
    typed: { senseOhms: '0.5', lessPercent: '60' },
    says: ['current-too-much'],
  },
  // A strip kit against what is in the set.
  {
    instrument: 'kit',
    name: 'the same count, LEDs, length and volts',
    typed: { strips: '6', leds: '10', lengthMm: '580', ledVolts: '3', kitStrips: '6', kitLeds: '10', kitLengthMm: '580', kitLedVolts: '3' },
    says: ['kit-fits'],
  },
  {
    instrument: 'kit',
    name: 'six-volt LEDs for three-volt ones: the driver can’t',
    typed: { strips: '6', leds: '10', ledVolts: '3', kitStrips: '6', kitLeds: '10', kitLedVolts: '6' },
    says: ['kit-volts'],
  },
  {
    instrument: 'kit',
    name: 'a strip too few',
    typed: { strips: '6', leds: '10', kitStrips: '5', kitLeds: '10' },
    says: ['kit-count'],
  },
  {
    instrument: 'kit',
    name: 'twice as many of half as many LEDs: halves of a strip',
    typed: { strips: '6', leds: '10', lengthMm: '580', kitStrips: '12', kitLeds: '5', kitLengthMm: '290' },
    says: ['kit-halves'],
  },
  {
    instrument: 'kit',
    name: 'five millimetres longer: the pins in the tray won’t meet',
    typed: { strips: '6', leds: '10', lengthMm: '580', kitStrips: '6', kitLeds: '10', kitLengthMm: '585' },
    says: ['kit-length'],
  },
  {
    instrument: 'kit',
    name: 'another plug and no lenses: said, not refused',
    typed: { strips: '6', leds: '10', kitStrips: '6', kitLeds: '10', plug: 'other', lens: 'no' },
    says: ['kit-plug', 'kit-lens'],
  },
  // A line forced from the standby rail.
  {
    instrument: 'force',
    name: '3.3 V through 1 kΩ',
    typed: { fromVolts: '3V3', ohms: '1k' },
    says: ['force-fine'],
    figures: { amps: 0.0033, watts: 0.01089 },
  },
  {
    instrument: 'force',
    name: '5.2 V through 1 kΩ is more than a clamped input takes: a larger resistor',
    typed: { fromVolts: '5.2', ohms: '1k' },
    says: ['force-larger'],
    figures: { leastOhms: 1800 },
  },
  {
    instrument: 'force',
    name: '12 V is above what inputs stand, through any resistor: a source of 3.3 V instead',
    typed: { fromVolts: '12', ohms: '4k7' },
    says: ['force-source'],
  },
  {
    instrument: 'force',
    name: 'an active-low line goes to ground',
    typed: { fromVolts: '3V3', ohms: '1k', asks: 'low' },
    says: ['force-to-ground'],
  },
  // Junctions on the diode range.
  { instrument: 'junction', name: 'silicon', typed: { kind: 'silicon', forward: '0.58', reverse: 'open' }, says: ['junction-good'] },
  { instrument: 'junction', name: 'Schottky', typed: { kind: 'schottky', forward: '0.22', reverse: 'open' }, says: ['junction-good'] },
  {
    instrument: 'junction',
    name: 'nothing either way',
    typed: { kind: 'silicon', reverse: 'open', forwardOpen: 'yes' },
    says: ['junction-open'],
  },
  {
    instrument: 'junction',
    name: 'a few millivolts both ways',
    typed: { kind: 'silicon', forward: '0.004', reverse: 'conducts', reverseVolts: '0.003' },
    says: ['junction-short'],
  },
  {
    instrument: 'junction',
    name: 'the same both ways on the board: something beside it conducts',
    typed: { kind: 'silicon', forward: '0.55', reverse: 'conducts', reverseVolts: '0.6', onBoard: 'yes' },
    says: ['junction-lift'],
  },
  {
    instrument: 'junction',
    name: 'the same both ways by itself: leaky',
    typed: { kind: 'silicon', forward: '0.55', reverse: 'conducts', reverseVolts: '0.6', onBoard: 'no' },
    says: ['junction-leaks'],
  },
  {
    instrument: 'junction',
    name: 'far too low for silicon',
    typed: { kind: 'silicon', forward: '0.2', reverse: 'open' },
    says: ['junction-odd'],
  },
  // Parallel parts, one of which shorts all: halving.
  {
    instrument: 'halving',
    name: 'eight side by side: lift half',
    typed: { parts: '8' },
    says: ['half-next'],
    values: { lift: '1, 2, 3, 4' },
  },
  {
    instrument: 'halving',
    name: 'gone with those off: it is one of them',
    typed: { parts: '8', lifts: '1-4 gone' },
    says: ['half-next'],
    values: { lift: '1, 2' },
  },
  {
    instrument: 'halving',
    name: 'stays with those off: it is one of the others',
    typed: { parts: '8', lifts: '1-4 stays' },
    says: ['half-next'],
    values: { lift: '5, 6' },
  },
  {
    instrument: 'halving',
    name: 'found, and what the seven others carry',
    typed: { parts: '8', lifts: '1-4 gone; 1-2 stays; 3 gone' },
    says: ['half-found'],
    values: { part: 3 },
    figures: { extraPercent: 14.29 },
  },
  {
    instrument: 'halving',
    name: 'stays with either half off: more than one, or not these',
    typed: { parts: '4', lifts: '1-2 stays; 3-4 stays' },
    says: ['half-more'],
  },
  // Halves of the panel, each ribbon out by itself.
  { instrument: 'halves', name: 'both out changes nothing: the T-con itself', typed: { bothOut: 'unchanged' }, says: ['halves-tcon'] },
  {
    instrument: 'halves',
    name: 'alive with the left out only: the left side',
    typed: { leftOut: 'alive', rightOut: 'unchanged' },
    says: ['halves-left'],
  },
  {
    instrument: 'halves',
    name: 'alive with the left out, the other not tried: can’t tell yet',
    typed: { leftOut: 'alive' },
    says: ['halves-other-first'],
  },
  {
    instrument: 'halves',
    name: 'alive with either out: a rail or load that both share',
    typed: { leftOut: 'alive', rightOut: 'alive' },
    says: ['halves-shared'],
  },
  {
    instrument: 'halves',
    name: 'dark with either out: shared rail, T-con, or both sides',
    typed: { leftOut: 'unchanged', rightOut: 'unchanged' },
    says: ['halves-neither'],
  },
  {
    instrument: 'halves',
    name: 'dark with either out, alive with both: both sides, or what they share',
    typed: { leftOut: 'unchanged', rightOut: 'unchanged', bothOut: 'alive' },
    says: ['halves-both'],
  },
  {
    instrument: 'halves',
    name: 'one ribbon with a link: the near side can’t be cut by itself',
    typed: { ribbons: 'link', rightOut: 'alive' },
    says: ['halves-far'],
  },
];
