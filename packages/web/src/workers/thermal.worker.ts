/** Temperature pictures read and compared off the main thread: either takes some tenths of a second. */
import {
  compareFrames,
  frameFromPicture,
  type ColourScale,
  type Frame,
  type Share,
  type ThermalPicture,
  type TimedFrame,
  type Warmth,
} from '@veglia/core';
import { expose } from 'comlink';

function orRefused<T>(make: () => T): T | { readonly refused: string } {
  try {
    return make();
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { refused: error.message };
  }
}
const thermal = {
  compare: (frames: TimedFrame[]): Warmth | { readonly refused: string } => orRefused(() => compareFrames(frames)),
  read: (picture: ThermalPicture, scale: ColourScale, area?: readonly [Share, Share]): Frame | { readonly refused: string } =>
    orRefused(() => frameFromPicture(picture, scale, area)),
};
export type Thermal = typeof thermal;

expose(thermal);
