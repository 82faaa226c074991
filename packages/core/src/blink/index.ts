export { codesElsewhere, codesMeant, type CodeMeant } from './likelihood.ts';
export { codesGivenFault, groupDistance, misreadOnce, misreadTwice, nearestCodes, readingGivenCode } from './likelihood.ts';
export type { BlinkReading } from './likelihood.ts';
export { otsuThreshold } from './chain.ts';
export { darkness, pulsesOf } from './flashes.ts';
export { colourCourse, litCourse, type LitCourse } from './light.ts';
export {
  blinkAdvice,
  blinkKinds,
  readTaps,
  readTrace,
  sureCycles,
  sureProbability,
  type BlinkAdvice,
  type BlinkKind,
  type BlinkResult,
  type TraceReading,
} from './read.ts';
export type { Cycle, RhythmInput, RhythmSource } from './events.ts';
export { rhythmOf, type Candidate, type Rhythm } from './rhythm.ts';
export { coloursOfSpot, followSpot, lightAt, type Picture, type Spot, type SpotLight } from './spot.ts';
export { Smoother } from './smooth.ts';
export { colourNamed, parseSeen, type Seen } from './seen.ts';
export { traceProblem, traceProblems, type LightTrace, type Pulse, type Tap, type TraceProblem } from './trace.ts';
export {
  blinkAfters,
  blinkWays,
  lightColours,
  lightStates,
  type BlinkAfter,
  type BlinkWay,
  type LightColour,
  type LightState,
} from './words.ts';
