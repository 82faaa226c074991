/** A capacitor left to itself, or discharged through a resistor: V(t) = V0 · exp(-t / RC). */

/** A voltage, and when it was read. */
export interface VoltsAt {
  readonly volts: number;
  /** Milliseconds since 1970. */
  readonly at: number;
}

/** RC in seconds from two readings of one capacitor; undefined where the second isn't lower, or not later. */
export function timeConstantS(first: VoltsAt, second: VoltsAt): number | undefined {
  const seconds = (second.at - first.at) / 1000;
  const [before, after] = [Math.abs(first.volts), Math.abs(second.volts)];
  return seconds > 0 && after > 0 && after < before ? seconds / Math.log(before / after) : undefined;
}

/** Seconds until it has fallen to `safe` volts; 0 where it is there. */
export const secondsUntil = (volts: number, safe: number, timeConstant: number): number =>
  Math.max(0, timeConstant * Math.log(Math.abs(volts) / safe));

/** What a resistor across a capacitor must stand. */
export interface ThroughResistor {
  readonly joules: number;
  /** At the first instant. */
  readonly watts: number;
  readonly secondsToSafe: number;
}

/** Volts, farads, ohms. The resistor has to stand the volts, the first instant's watts as a pulse, and the energy. */
export const throughResistor = (volts: number, farads: number, ohms: number, safe: number): ThroughResistor => ({
  joules: (farads * volts * volts) / 2,
  watts: (volts * volts) / ohms,
  secondsToSafe: secondsUntil(volts, safe, ohms * farads),
});
