export { openProbes, SimulatedMeter, type Probes } from './scpiServer.ts';
