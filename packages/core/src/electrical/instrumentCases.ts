/**
 * What a technician with twenty years expects of the bench's arithmetic; written before the rules, from the trade ("common practice, no source"),
 * published standards (values from memory where it is so) and physics.
 */

/** Numbers as a bench writes them. SI units. */
export const quantityCases: readonly { readonly typed: string; readonly unit: string; readonly value: number | undefined }[] = [
  { typed: '4k7', unit: 'Ω', value: 4700 },
  { typed: '4.7k', unit: 'Ω', value: 4700 },
  { typed: '4,7 kΩ', unit: 'Ω', value: 4700 },
  { typed: '0.3Ω', unit: 'Ω', value: 0.3 },
  { typed: '0R3', unit: 'Ω', value: 0.3 },
  { typed: '332m', unit: 'Ω', value: 0.332 },
  { typed: '2M2', unit: 'Ω', value: 2.2e6 },
  { typed: '10u', unit: 'F', value: 10e-6 },
  { typed: '10µF', unit: 'F', value: 10e-6 },
  { typed: '4n7', unit: 'F', value: 4.7e-9 },
  { typed: '100p', unit: 'F', value: 100e-12 },
  { typed: '3V3', unit: 'V', value: 3.3 },
  { typed: '420 mV', unit: 'V', value: 0.42 },
  { typed: '-7', unit: 'V', value: -7 },
  { typed: '250mA', unit: 'A', value: 0.25 },
  { typed: '73 W', unit: 'W', value: 73 },
  { typed: '1.5s', unit: 's', value: 1.5 },
  { typed: '300 ms', unit: 's', value: 0.3 },
  { typed: '25', unit: '°C', value: 25 },
  { typed: '77 °F', unit: '°C', value: 25 },
  { typed: '77F', unit: '°C', value: 25 },
  { typed: '297 MHz', unit: 'Hz', value: 297e6 },
  // A farad is no volt, a word no number, and three decimal points none.
  { typed: '10u', unit: 'V', value: 10e-6 },
  { typed: '10 V', unit: 'F', value: undefined },
  { typed: 'much', unit: 'Ω', value: undefined },
  { typed: '1.2.3', unit: 'Ω', value: undefined },
  { typed: '4k7k', unit: 'Ω', value: undefined },
  { typed: '', unit: 'Ω', value: undefined },
];

/** Marks on capacitors and resistors: IEC 60062 (values from memory of the standard). */
export const markCases: readonly {
  readonly mark: string;
  readonly kind: 'capacitor' | 'resistor';
  readonly value: number;
  readonly tolerance?: number;
}[] = [
  { mark: '103', kind: 'capacitor', value: 10e-9 },
  { mark: '104K', kind: 'capacitor', value: 100e-9, tolerance: 10 },
  { mark: '472J', kind: 'capacitor', value: 4.7e-9, tolerance: 5 },
  { mark: '4n7', kind: 'capacitor', value: 4.7e-9 },
  { mark: '220', kind: 'capacitor', value: 22e-12 },
  { mark: '106M', kind: 'capacitor', value: 10e-6, tolerance: 20 },
  { mark: '103', kind: 'resistor', value: 10_000 },
  { mark: '4R7', kind: 'resistor', value: 4.7 },
  { mark: 'R22', kind: 'resistor', value: 0.22 },
  { mark: '1002F', kind: 'resistor', value: 10_000, tolerance: 1 },
  { mark: '4k7J', kind: 'resistor', value: 4700, tolerance: 5 },
  { mark: '0', kind: 'resistor', value: 0 },
];

/** A main capacitor through a resistor. */
export const dischargeCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly seconds?: number;
  readonly joules?: number;
  readonly watts?: number;
  readonly says?: readonly string[];
}[] = [
  {
    // Worked by hand: ½ · 150 µF · (400 V)² = 12 J, 2.2 kΩ · 150 µF · ln(400/60) = 0.626 s, 400²/2200 = 72.7 W.
    name: '400 V, 150 µF, 2.2 kΩ',
    input: { farads: '150u', volts: '400', ohms: '2k2' },
    seconds: 0.626,
    joules: 12,
    watts: 72.7,
  },
  {
    name: 'a resistor for 250 V on 400 V',
    input: { farads: '150u', volts: '400', ohms: '2k2', ratedVolts: '250' },
    says: ['resistor-volts-too-low'],
  },
  {
    name: 'a resistor that stands 5 J against 12 J',
    input: { farads: '150u', volts: '400', ohms: '2k2', ratedJoules: '5' },
    says: ['resistor-energy-too-low'],
  },
  { name: 'already below the limit', input: { farads: '150u', volts: '40', ohms: '2k2' }, seconds: 0, says: ['already-safe'] },
  // Two readings ten seconds apart, 300 and 150 V: RC = 10 / ln 2 = 14.4 s, and 13.2 s more to 60 V.
  {
    name: 'two readings tell how long it takes',
    input: { firstVolts: '300', secondVolts: '150', apart: '10 s' },
    seconds: 13.2,
    says: ['by-two-readings'],
  },
  {
    name: 'it does not fall: still fed, or the resistor is open',
    input: { firstVolts: '300', secondVolts: '299.5', apart: '10 s' },
    says: ['does-not-fall'],
  },
  { name: 'it rises', input: { firstVolts: '300', secondVolts: '310', apart: '10 s' }, says: ['does-not-fall'] },
];

/** Parts that should read alike. */
export const siblingCases: readonly {
  readonly name: string;
  readonly quantity: 'ohms' | 'volts' | 'celsius';
  readonly values: readonly number[];
  /** Index of the odd one; null: none is; 'unsure': it can’t be told. */
  readonly odd: number | null | 'unsure' | 'refused';
  /** At least so sure. */
  readonly sure?: number;
}[] = [
  { name: 'four filter capacitors: 2.7, 3, 2.5 MΩ and 60 kΩ', quantity: 'ohms', values: [2.7e6, 3e6, 2.5e6, 60e3], odd: 3, sure: 0.95 },
  { name: 'three, one of them a hundredth', quantity: 'ohms', values: [2.7e6, 3e6, 27e3], odd: 2, sure: 0.8 },
  { name: 'two can not be told apart', quantity: 'ohms', values: [2.7e6, 60e3], odd: 'refused' },
  { name: 'all alike within their tolerance', quantity: 'ohms', values: [470, 455, 481, 466], odd: null },
  { name: 'factor two in a megohm is nothing', quantity: 'ohms', values: [2.0e6, 3.1e6, 2.6e6, 4.0e6], odd: null },
  { name: 'each another decade: nothing is told', quantity: 'ohms', values: [10, 1000, 100_000], odd: 'unsure' },
  { name: 'two and two', quantity: 'ohms', values: [1e6, 1.1e6, 1e3, 1.1e3], odd: 'unsure' },
  { name: 'a dead short among five', quantity: 'ohms', values: [820, 790, 0.2, 805, 811], odd: 2, sure: 0.98 },
  { name: 'LED voltages, one of them none', quantity: 'volts', values: [3.05, 3.02, 3.07, 0.1, 3.04], odd: 3, sure: 0.98 },
  { name: 'LED voltages, all of them good', quantity: 'volts', values: [3.05, 3.02, 3.11, 2.98, 3.04], odd: null },
  {
    name: 'one driver ten degrees warmer than its five siblings',
    quantity: 'celsius',
    values: [34, 35, 34.5, 45, 34.8, 35.1],
    odd: 3,
    sure: 0.9,
  },
  { name: 'one degree is the air', quantity: 'celsius', values: [34, 35, 34.5, 35.4, 34.8], odd: null },
];

/** LED strings. */
export const stringCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly volts?: number;
  readonly shorted?: number;
  readonly says?: readonly string[];
}[] = [
  { name: 'six strips of ten, 3 V each at nominal current', input: { strips: '6', leds: '10', ledVolts: '3' }, volts: 180 },
  { name: 'two dies in each LED', input: { strips: '4', leds: '8', ledVolts: '6' }, volts: 192 },
  {
    name: 'two millivolts less a kelvin and die: 40 K warmer, 60 LEDs',
    input: { strips: '6', leds: '10', ledVolts: '3', celsius: '65' },
    volts: 175.2,
  },
  { name: 'as it belongs', input: { strips: '6', leds: '10', ledVolts: '3', reading: '178' }, says: ['string-as-expected'] },
  {
    name: 'one LED shorted',
    input: { strips: '6', leds: '10', ledVolts: '3', reading: '177', spreadPercent: '0.5' },
    shorted: 1,
    says: ['leds-shorted'],
  },
  {
    name: 'a strip of ten bypassed',
    input: { strips: '6', leds: '10', ledVolts: '3', reading: '150' },
    shorted: 10,
    says: ['leds-shorted'],
  },
  {
    name: 'at the limit of the driver: open',
    input: { strips: '6', leds: '10', ledVolts: '3', reading: '238', limitVolts: '240' },
    says: ['string-open'],
  },
  { name: 'nothing at all: the driver', input: { strips: '6', leds: '10', ledVolts: '3', reading: '0.2' }, says: ['no-output'] },
  {
    name: 'a tester of 25 mA at 250 mA strips passes what fails',
    input: { strips: '6', leds: '10', ledVolts: '3', testerVolts: '300', testerAmps: '25m', amps: '250m' },
    says: ['tester-current-low'],
  },
  {
    name: 'a tester of 80 V on 180 V',
    input: { strips: '6', leds: '10', ledVolts: '3', testerVolts: '80', testerAmps: '250m', amps: '250m' },
    says: ['tester-volts-low'],
  },
];

/** Another capacitor in its place. */
export const capacitorCases: readonly {
  readonly name: string;
  readonly input: Readonly<Record<string, string>>;
  readonly fits: 'yes' | 'no' | 'doubt';
  readonly says?: readonly string[];
}[] = [
  {
    name: '2700 µF for 2200 µF, same volts',
    input: { job: 'smoothing', farads: '2200u', volts: '16', newFarads: '2700u', newVolts: '16' },
    fits: 'yes',
  },
  {
    name: 'twice the capacitance',
    input: { job: 'smoothing', farads: '1000u', volts: '16', newFarads: '2200u', newVolts: '16' },
    fits: 'doubt',
    says: ['much-more-farads'],
  },
  {
    name: 'less capacitance',
    input: { job: 'smoothing', farads: '2200u', volts: '16', newFarads: '1000u', newVolts: '16' },
    fits: 'no',
    says: ['fewer-farads'],
  },
  {
    name: 'fewer volts',
    input: { job: 'smoothing', farads: '1000u', volts: '25', newFarads: '1000u', newVolts: '16' },
    fits: 'no',
    says: ['fewer-volts'],
  },
  {
    name: '85 °C for 105 °C',
    input: { job: 'smoothing', farads: '1000u', volts: '16', celsius: '105', newFarads: '1000u', newVolts: '25', newCelsius: '85' },
    fits: 'no',
    says: ['cooler-rated'],
  },
  {
    name: 'a mains capacitor by any other than its class',
    input: { job: 'mains-x', farads: '470n', volts: '275', newFarads: '470n', newVolts: '400' },
    fits: 'doubt',
    says: ['same-class-only'],
  },
  {
    name: 'a mains capacitor of another value',
    input: { job: 'mains-y', farads: '2n2', volts: '250', newFarads: '4n7', newVolts: '250' },
    fits: 'no',
    says: ['same-value-only'],
  },
  {
    name: 'a resonant capacitor 20 % larger',
    input: { job: 'resonant', farads: '33n', volts: '1000', newFarads: '39n', newVolts: '1600' },
    fits: 'no',
    says: ['same-value-only'],
  },
  {
    name: 'more ESR than it had',
    input: { job: 'smoothing', farads: '1000u', volts: '16', ohms: '30m', newFarads: '1000u', newVolts: '16', newOhms: '120m' },
    fits: 'no',
    says: ['more-esr'],
  },
  {
    name: 'too tall',
    input: { job: 'smoothing', farads: '1000u', volts: '16', tall: '20', newFarads: '1000u', newVolts: '25', newTall: '26' },
    fits: 'no',
    says: ['too-tall'],
  },
];
