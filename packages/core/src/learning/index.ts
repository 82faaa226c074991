export { calibration, calibrationOf, type Calibration, type CalibrationTenth } from './calibration.ts';
export { experienceOfCards, type CountedBoard } from './boardCards.ts';
export { countsOf, mergeCounts } from './counts.ts';
export { bookFor, countedFor, withCounts } from './shrink.ts';
export { paceOf, type Pace, type TimedJob } from './pace.ts';
export { shareInterval } from './interval.ts';
