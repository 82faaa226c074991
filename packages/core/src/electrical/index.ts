export { peakOfMains, poweredFactorVolts, safeVolts } from './mainCapacitor.ts';
export { forcingOhms, nearestE12, nextE24 } from './preferred.ts';
export { noWayThroughOhms, parseReading, type TypedReading } from './typed.ts';
export { secondsUntil, throughResistor, timeConstantS, type ThroughResistor, type VoltsAt } from './discharge.ts';
export { judgeString, stringVolts, testerFor, usualSpreadPercent, type LedString, type StringReading } from './ledString.ts';
export { readMark, type ReadMark } from './marks.ts';
export { formatQuantity, parseQuantity, units, type Unit } from './quantity.ts';
export { fewestSiblings, mostSiblings, oddOneOut, type OddOneOut } from './siblings.ts';
export {
  capacitorJobs,
  judgeSubstitute,
  substituteReasons,
  type CapacitorData,
  type CapacitorJob,
  type SubstituteReason,
} from './substitute.ts';
export { drawMeter, drawRail, ohmsAlong, railRanges, readWith, type ShortedRail, type WalkMeter } from './railGenerator.ts';
export {
  fittedRow,
  nextPoint,
  usualWalk,
  walkProbabilities,
  type FittedPoint,
  type NextPoint,
  type WalkModel,
  type WalkReading,
} from './shortWalk.ts';
export { twoShorts, type TwoShorts } from './twoShorts.ts';
export { branchesText, railWithBranches, type Rail } from './branches.ts';
