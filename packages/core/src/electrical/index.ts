export { discharge, peakOfMains, poweredFactorVolts, safeVolts, type Discharge, type DischargeRefused } from './discharge.ts';
