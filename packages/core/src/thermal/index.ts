export { parseFrame, type Frame } from './frame.ts';
export { frameFromPicture, type ColourScale, type Picture, type Share } from './picture.ts';
export { compareFrames, type TimedFrame, type Warmth, type WarmSpot } from './warmth.ts';
