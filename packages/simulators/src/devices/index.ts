export { SimulatedMessenger, type ReceivedMessage } from './simulatedMessenger.ts';
export { SimulatedSupplier, type SupplierManner, type SupplierOptions } from './simulatedSupplier.ts';
export { openProbes, SimulatedMeter, type Probes } from './scpiServer.ts';
export { clipped, SimulatedProgrammer, type Clipped, type Fault, type SimulatedProgrammerOptions } from './simulatedProgrammer.ts';
