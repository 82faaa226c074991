/** A meter, whatever it is connected by. What can go wrong on the way is a value: none of it is an error of the program. */

/** What a bench meter is set to. */
export const meterFunctions = ['dc-volts', 'ac-volts', 'ohms', 'diode', 'continuity'] as const;
/** One of `meterFunctions`. */
export type MeterFunction = (typeof meterFunctions)[number];

/** Volts or ohms that are read with it. */
export const quantityOf = (of: MeterFunction): 'volts' | 'ohms' => (of === 'ohms' || of === 'continuity' ? 'ohms' : 'volts');

/** A reading in volts or ohms; more than the range shows is one too. */
export type MeterReading =
  | { readonly kind: 'value'; readonly function: MeterFunction; readonly value: number }
  | { readonly kind: 'over-range'; readonly function: MeterFunction };

/** Why there is no reading. */
export const meterTroubles = ['not-reached', 'timed-out', 'broken-off', 'not-understood', 'wrong-function'] as const;
/** Why there is no reading; `detail`: what came instead. */
export interface MeterTrouble {
  readonly kind: (typeof meterTroubles)[number];
  readonly detail: string;
}

/** Who made it and what it is called, as it says itself. */
export interface MeterIdentity {
  readonly kind: 'identity';
  readonly maker: string;
  readonly model: string;
}

/** A meter. One question at a time; a second waits for the first. */
export interface Meter {
  identify(): Promise<MeterIdentity | MeterTrouble>;
  /** `range`: the largest value expected, in volts or ohms; left out: the meter chooses. */
  measure(what: MeterFunction, range?: number): Promise<MeterReading | MeterTrouble>;
  close(): Promise<void>;
}
