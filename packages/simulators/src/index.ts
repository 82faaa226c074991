export {
  randomFrom,
  seedOf,
  SimulatedSet,
  simulatedFaults,
  simulatedHome,
  type Answer,
  type RepairResult,
  type SetOptions,
} from './set/index.ts';
export {
  atOnce,
  bookOpponent,
  fixedList,
  information,
  play,
  randomOrder,
  refined,
  settled,
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
export { drawWorldCase, worldErrors, worlds, type World, type WorldCase } from './world/index.ts';
