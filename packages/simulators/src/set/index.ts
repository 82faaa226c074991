export { complaintOf, SimulatedSet, simulatedFaults, simulatedHome, type Answer, type RepairResult, type SetOptions } from './set.ts';
export { shownInstruments, type Asked, type Typed } from './onInstrument.ts';
export { chance, pick, randomFrom, seedOf, within, type Random } from './random.ts';
export type { Observation, Reading } from './observe.ts';
export { goodContent, ownData, soundChip, type Chip, type WeakBit } from './chip.ts';
