/**
 * What a technician with twenty years says of a rail that was logged while the key was pressed; written before the rules, from the trade and
 * electronics (common practice, no source). Volts by time, seconds.
 */

/** One log. */
export interface CaptureCase {
  readonly name: string;
  /** Seconds and volts. */
  readonly log: readonly (readonly [number, number])[];
  readonly kind: 'steady' | 'trips' | 'pulsing' | 'absent' | 'too-short';
  readonly peak?: number;
  /** How long it was there before it went, seconds. */
  readonly thereS?: number;
  /** What a slow meter would have shown of it. */
  readonly mean?: number;
  readonly pulses?: number;
}

const every = (stepS: number, volts: readonly number[]): (readonly [number, number])[] => volts.map((one, index) => [index * stepS, one]);
const repeat = (volts: readonly number[], times: number): number[] => Array.from({ length: times }, () => volts).flat();

/** The cases. */
export const captureCases: readonly CaptureCase[] = [
  { name: 'a rail that comes and stays', log: every(0.1, [0, 0, 6, 11.9, 12.1, 12, 12, 12.1, 12, 12]), kind: 'steady', peak: 12.1 },
  { name: 'up before the log begins', log: every(0.1, repeat([12], 10)), kind: 'steady', peak: 12 },
  {
    name: 'there for an instant and then gone: never absent',
    log: every(0.05, [0, 0, 14, 28, 27, 27, 4, 0.1, 0, 0, 0, 0]),
    kind: 'trips',
    peak: 28,
    thereS: 0.2,
  },
  {
    name: 'one sample of it is enough to know that it was there',
    log: every(0.1, [0, 0, 0, 16, 0, 0, 0, 0, 0]),
    kind: 'trips',
    peak: 16,
    thereS: 0.1,
  },
  { name: 'it tries again and again', log: every(0.1, repeat([0, 6, 9, 3, 0], 4)), kind: 'pulsing', peak: 9, pulses: 4, mean: 3.6 },
  { name: 'it tries and never quite goes out', log: every(0.1, repeat([3, 9, 10, 4], 5)), kind: 'pulsing', peak: 10, pulses: 5 },
  { name: 'nothing at any instant', log: every(0.1, [0, 0.05, 0, 0.1, 0, 0, 0.02, 0, 0]), kind: 'absent', peak: 0.1 },
  { name: 'a negative rail that trips', log: every(0.05, [0, -3, -7, -7, -1, 0, 0, 0, 0]), kind: 'trips', peak: -7 },
  { name: 'ripple on a rail is no pulsing', log: every(0.02, repeat([12, 12.3, 11.8, 12.1], 5)), kind: 'steady' },
  { name: 'a slow start that stays is no trip', log: every(0.5, [0, 1, 3, 5, 8, 11, 12, 12, 12]), kind: 'steady', peak: 12 },
  { name: 'three samples tell nothing', log: every(0.1, [0, 12, 12]), kind: 'too-short' },
];
