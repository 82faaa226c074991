export { randomFrom, seedOf, SimulatedSet, simulatedFaults, type Answer, type RepairResult, type SetOptions } from './set/index.ts';
export {
  atOnce,
  bookOpponent,
  fixedList,
  information,
  play,
  randomOrder,
  refined,
  repairsOnly,
  simulatedOpponent,
  smallModel,
  type BookCase,
  type Choice,
  type Opponent,
  type Play,
  type PlayOptions,
  type SmallModel,
  type Way,
} from './player/index.ts';
export { filmedLight, type LightCode } from './light.ts';
