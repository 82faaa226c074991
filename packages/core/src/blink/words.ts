/** The closed words of lights. A leaf: knowledge, ledger and the reader all speak them. */
export const lightColours = ['red', 'green', 'white', 'blue', 'amber'] as const;
/** Colours a standby light is known to have. */
export type LightColour = (typeof lightColours)[number];

/** What comes after the flashes. */
export const blinkAfters = ['dark', 'steady', 'repeats'] as const;
/** What the light does after its code. */
export type BlinkAfter = (typeof blinkAfters)[number];

/** What was seen where it was no code. */
export const lightStates = ['no-light', 'steady', 'no-pattern', 'single-flash'] as const;
/** A light that doesn’t blink. */
export type LightState = (typeof lightStates)[number];

/** How a reading came about. */
export const blinkWays = ['eye', 'taps', 'camera', 'video', 'trace', 'simulated'] as const;
/** How a code was taken down. */
export type BlinkWay = (typeof blinkWays)[number];
