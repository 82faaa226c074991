export { codesGivenFault, groupDistance, misreadOnce, misreadTwice, nearestCodes, readingGivenCode } from './likelihood.ts';
export type { BlinkReading } from './likelihood.ts';
