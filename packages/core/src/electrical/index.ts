export { peakOfMains, poweredFactorVolts, safeVolts } from './mainCapacitor.ts';
