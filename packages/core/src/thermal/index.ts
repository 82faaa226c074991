export { parseFrame, type Frame } from './frame.ts';
export { frameFromPicture, type ColourScale, type Picture, type Share } from './picture.ts';
export { alignPlaces, judgeWarmth, type JudgedSpot, type Place, type PlacePair, type WarmMark } from './places.ts';
export { compareFrames, type TimedFrame, type Warmth, type WarmSpot } from './warmth.ts';
