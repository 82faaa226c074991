export { peakOfMains, poweredFactorVolts, safeVolts } from './mainCapacitor.ts';
export { forcingOhms, nearestE12 } from './preferred.ts';
export { noWayThroughOhms, parseReading, type TypedReading } from './typed.ts';
export { secondsUntil, throughResistor, timeConstantS, type ThroughResistor, type VoltsAt } from './discharge.ts';
