/** What the main capacitor holds. A computed voltage is no reading: it is verified. */

/** Volts that a rectified mains holds at the peak of the sine; without a load, and without a power-factor stage. */
export const peakOfMains = (mainsVolts: number): number => mainsVolts * Math.SQRT2;

/** With a running power-factor stage, volts: common practice, no source. */
export const poweredFactorVolts = 400;

/** Above this a direct voltage is treated as dangerous, volts: common practice, no source. */
export const safeVolts = 60;
