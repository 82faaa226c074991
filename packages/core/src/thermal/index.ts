export { parseFrame, type Frame } from './frame.ts';
export { compareFrames, type TimedFrame, type Warmth, type WarmSpot } from './warmth.ts';
