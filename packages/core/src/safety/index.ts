export { checksBeforeClosing, leftBeforeClosing, usedAgain, type ClosingCheck } from './closing.ts';
export { consentsFor, type Consent } from './consent.ts';
export { stageOfPlace } from '../knowledge/index.ts';
export { chargePoints, isHot, mayWorkOn, stillOut } from './places.ts';
export { objectionCodes, objectionsTo, type Objection, type ObjectionCode } from './objections.ts';
export { progressOf, type Progress } from './progress.ts';
export { standingAt, usualLapseMinutes, type SetStanding } from './standing.ts';
export { walkTo, type Act, type WalkMove, type Walk } from './walk.ts';
