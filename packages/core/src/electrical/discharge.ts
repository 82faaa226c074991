/**
 * The main capacitor: what it holds, how long until it is safe, and what a discharge resistor has to stand. Ideal capacitor and resistor:
 * V(t) = V0 exp(-t / RC), energy CV²/2 (any textbook of circuits; value from memory). A computed time is no reading: it is verified.
 */

/** Volts that a rectified mains holds at the peak of the sine; without a load, and without a power-factor stage. */
export const peakOfMains = (mainsVolts: number): number => mainsVolts * Math.SQRT2;

/** With a running power-factor stage, volts: common practice, no source. */
export const poweredFactorVolts = 400;

/** Above this a direct voltage is treated as dangerous, volts: common practice, no source. */
export const safeVolts = 60;

export interface Discharge {
  /** Seconds until it has fallen to the safe voltage; 0 where it is there already. */
  readonly seconds: number;
  /** All of it goes into the resistor. */
  readonly joules: number;
  /** In the first instant. */
  readonly watts: number;
}

export type DischargeRefused = { readonly refused: 'not-positive'; readonly value: number };

/** Volts, farads, ohms. Refuses what is not positive and finite. */
export function discharge(volts: number, farads: number, ohms: number, downTo: number = safeVolts): Discharge | DischargeRefused {
  for (const value of [volts, farads, ohms, downTo]) if (!(value > 0 && Number.isFinite(value))) return { refused: 'not-positive', value };
  return {
    seconds: Math.max(0, ohms * farads * Math.log(volts / downTo)),
    joules: (farads * volts * volts) / 2,
    watts: (volts * volts) / ohms,
  };
}
