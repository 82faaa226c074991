export { openProbes, SimulatedMeter, type Probes } from './scpiServer.ts';
export { clipped, SimulatedProgrammer, type Clipped, type Fault, type SimulatedProgrammerOptions } from './simulatedProgrammer.ts';
