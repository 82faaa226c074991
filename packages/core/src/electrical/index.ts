export { peakOfMains, poweredFactorVolts, safeVolts } from './mainCapacitor.ts';
export { forcingOhms, nearestE12 } from './preferred.ts';
export { secondsUntil, throughResistor, timeConstantS, type ThroughResistor, type VoltsAt } from './discharge.ts';
