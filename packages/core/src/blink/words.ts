/** The closed words of lights. A leaf: knowledge, ledger and the reader all speak them. */
export const lightColours = ['red', 'green', 'white', 'blue', 'amber'] as const;
export type LightColour = (typeof lightColours)[number];

/** What comes after the flashes. */
export const blinkAfters = ['dark', 'steady', 'repeats'] as const;
export type BlinkAfter = (typeof blinkAfters)[number];

/** What was seen where it was no code. */
export const lightStates = ['no-light', 'steady', 'no-pattern', 'single-flash'] as const;
export type LightState = (typeof lightStates)[number];

/** How a reading came about. */
export const blinkWays = ['eye', 'taps', 'camera', 'video', 'trace', 'simulated'] as const;
export type BlinkWay = (typeof blinkWays)[number];
