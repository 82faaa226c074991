/** Codes in words. */
import type { BlinkAfter, LightColour, LightState } from '@veglia/core';
import type { Words } from '../words/index.ts';

/** A blink code to be put into words. */
export interface CodeToName {
  readonly groups: readonly number[];
  readonly light?: LightState | undefined;
  readonly colour?: LightColour | undefined;
  readonly after?: BlinkAfter | undefined;
}

/** "3-2 red, repeats"; "no light at all". */
export function codeInWords({ groups, light, colour, after }: CodeToName, words: Words): string {
  const count = groups.length > 0 ? groups.join('-') : words.lightState[light ?? 'no-light'];
  const told = colour === undefined ? count : `${count} ${words.lightColour[colour]}`;
  return after === undefined ? told : `${told}, ${words.blinkAfter[after]}`;
}
