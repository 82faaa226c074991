/** A series of LED strips: what it should drop, what a reading means, and whether a tester is enough for it. */

/** Less for each die and kelvin above 25 °C, volts (common practice, no source). */
const voltsPerKelvin = -0.002;
/** Volts of one die, by which LEDs with two are told from those with one (common practice, no source). */
const dieVolts = 3;
/** Two thermal voltages: how a die's voltage follows the logarithm of its current (Shockley, ideality 2, 25 °C). */
const perE = 2 * 0.0257;
/** LEDs of one kind differ, and so does their warmth: so far from the sum is still as it belongs, percent (value of ours). */
export const usualSpreadPercent = 4;
/** At so much of its limit a driver has nothing to drive (value of ours). */
const atLimit = 0.97;
/** Below this there is no output, volts (common practice, no source). */
const noOutput = 0.5;
/** A tester below this share of the set's current passes LEDs that fail in the set (value of ours). */
const enoughCurrent = 0.5;

/** Strips in series; volts of one LED at its nominal current and 25 °C. */
export interface LedString {
  readonly strips: number;
  /** In each strip. */
  readonly leds: number;
  readonly ledVolts: number;
  readonly celsius?: number | undefined;
  /** What runs, and what the LED's volts are for, amperes. */
  readonly amps?: number | undefined;
  readonly nominalAmps?: number | undefined;
}

/** Of the whole string, volts. */
export function stringVolts({ strips, leds, ledVolts, celsius = 25, amps, nominalAmps }: LedString): number {
  const dies = Math.max(1, Math.round(ledVolts / dieVolts));
  const byCurrent =
    amps !== undefined && nominalAmps !== undefined && amps > 0 && nominalAmps > 0 ? perE * Math.log(amps / nominalAmps) : 0;
  return strips * leds * (ledVolts + dies * (voltsPerKelvin * (celsius - 25) + byCurrent));
}

/** What a reading across the whole string says. */
export type StringReading =
  | { readonly kind: 'string-as-expected'; /** A single shorted LED would not show. */ readonly hidesOne: boolean }
  | { readonly kind: 'leds-shorted'; readonly count: number; readonly least: number; readonly most: number }
  | { readonly kind: 'string-open' }
  | { readonly kind: 'string-high' }
  | { readonly kind: 'no-output' };

/** `limit`: volts to which the driver goes with nothing to drive. */
export function judgeString(string: LedString, reading: number, spreadPercent: number = usualSpreadPercent, limit?: number): StringReading {
  const expected = stringVolts(string);
  const each = expected / (string.strips * string.leds);
  const slack = (expected * spreadPercent) / 100;
  if (Math.abs(reading) < noOutput) return { kind: 'no-output' };
  if (limit !== undefined && reading >= limit * atLimit) return { kind: 'string-open' };
  if (reading > expected + slack) return { kind: 'string-high' };
  const lacking = expected - reading;
  if (lacking <= slack) return { kind: 'string-as-expected', hidesOne: each <= slack };
  const whole = (volts: number): number => Math.max(0, Math.round(volts / each));
  return { kind: 'leds-shorted', count: whole(lacking), least: Math.max(1, whole(lacking - slack)), most: whole(lacking + slack) };
}

/** Whether a hand tester is enough: LEDs it can light in a row, and whether its current is near the set's. */
export function testerFor(
  string: LedString,
  testerVolts: number,
  testerAmps?: number,
): { readonly leds: number; readonly lightsAll: boolean; readonly currentLow: boolean } {
  const each = stringVolts(string) / (string.strips * string.leds);
  const leds = Math.floor(testerVolts / each);
  return {
    leds,
    lightsAll: leds >= string.strips * string.leds,
    currentLow: testerAmps !== undefined && string.amps !== undefined && testerAmps < string.amps * enoughCurrent,
  };
}
