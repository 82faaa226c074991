/** Temperature pictures compared off the main thread: laying one over the other takes some tenths of a second. */
import { compareFrames, type TimedFrame, type Warmth } from '@veglia/core';
import { expose } from 'comlink';

const thermal = {
  compare: (frames: TimedFrame[]): Warmth | { readonly refused: string } => {
    try {
      return compareFrames(frames);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return { refused: error.message };
    }
  },
};
export type Thermal = typeof thermal;

expose(thermal);
