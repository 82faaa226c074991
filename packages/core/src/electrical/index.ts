export { peakOfMains, poweredFactorVolts, safeVolts } from './mainCapacitor.ts';
export { secondsUntil, throughResistor, timeConstantS, type ThroughResistor, type VoltsAt } from './discharge.ts';
