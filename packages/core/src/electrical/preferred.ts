/** Preferred values: IEC 60063, series E12 (values from memory of the standard's table). */
const e12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2] as const;

/** Series E24 (IEC 60063; values from memory of the standard's table). */
const e24 = [1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1] as const;

/** The smallest E24 value that is at least `ohms`. Throws RangeError unless `ohms` is positive and finite. */
export function nextE24(ohms: number): number {
  if (!(ohms > 0) || !Number.isFinite(ohms)) throw new RangeError(`no preferred value for ${ohms} ohms`);
  const decade = Math.floor(Math.log10(ohms));
  const values = [...e24, 10].map((step) => Number((step * 10 ** decade).toPrecision(2)));
  // What is itself a value may come out a last digit larger.
  return values.find((value) => value >= ohms * (1 - 1e-9)) ?? 10 ** (decade + 1);
}

/** The E12 value nearest by ratio, ohms. Throws RangeError unless `ohms` is positive and finite. */
export function nearestE12(ohms: number): number {
  if (!(ohms > 0) || !Number.isFinite(ohms)) throw new RangeError(`no preferred value for ${ohms} ohms`);
  const decade = Math.floor(Math.log10(ohms));
  const near = [...e12, 10].map((step) => Number((step * 10 ** decade).toPrecision(2)));
  const apart = (value: number): number => Math.abs(Math.log(value / ohms));
  return near.reduce((best, value) => (apart(value) < apart(best) ? value : best));
}

/** Current that moves a logic input and harms none: a clamp diode stands a few milliamperes (value of ours). */
const forcingAmperes = 0.003;

/** Resistor through which a control line is driven from `volts`: about 3 mA into a clamped input, ohms. */
export const forcingOhms = (volts: number): number => nearestE12(volts / forcingAmperes);
